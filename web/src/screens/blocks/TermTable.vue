<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { type Bench, type Block, type Term } from '@/api/client'
import { figures as catalogue, useFigure } from '@/figures'
import OverNote from '@/parts/OverNote.vue'
import SampleMark from '@/parts/SampleMark.vue'
import WithTip from '@/parts/WithTip.vue'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import GroupDialog from './GroupDialog.vue'
import GroupRow from './GroupRow.vue'
import TermRow from './TermRow.vue'

/** The terms of a block with their figures, in their own order or by one of them. */
const props = defineProps<{ block: Block; figures?: Bench['blocks'][number] }>()
const { t } = useI18n()
const review = useReview()
const sources = useSources()

const columns = computed(() => [
  ...(sources.chosen ? ['there'] : []),
  ...(props.figures?.records === undefined ? [] : ['termRecords', 'onlyHere']),
  ...(review.keyStudies.length ? ['termKeys'] : []),
  ...(props.figures?.records === undefined ? [] : ['grows']),
])
/** The terms in view: in their own order, or by a figure, the largest first. */
const sort = ref<string>()
const lines = computed(() => {
  const all = props.block.terms.map((term) => ({
    term,
    figures: props.figures?.terms.find((x) => x.id === term.id),
  }))
  const by = figureOf[sort.value ?? '']
  return by ? all.sort((a, b) => (by(b) ?? -1) - (by(a) ?? -1)) : all
})
/** In their own order, those of a group stand together where the first of them stands, closed up until it is opened. */
const opened = ref(new Set<string>())
const grouping = ref<Term>()
function toggle(name: string) {
  const next = new Set(opened.value)
  if (!next.delete(name)) next.add(name)
  opened.value = next
}
type Group = NonNullable<Bench['blocks'][number]['groups']>[number]
const rows = computed<(Partial<Line> & { group?: Group })[]>(() => {
  if (sort.value) return lines.value
  const out: (Partial<Line> & { group?: Group })[] = []
  const seen = new Set<string>()
  for (const l of lines.value) {
    const name = l.term.group
    if (!name) out.push(l)
    if (!name || seen.has(name)) continue
    seen.add(name)
    const of = lines.value.filter((x) => x.term.group === name)
    const known = props.figures?.groups?.find((g) => g.name === name)
    out.push({ group: known ?? { name, terms: of.length, keys: 0 } })
    if (opened.value.has(name)) out.push(...of)
  }
  return out
})
type Line = { term: Term; figures?: Bench['blocks'][number]['terms'][number] }
const figureOf: Record<string, (l: Line) => number | undefined> = {
  there: (l) => sources.counted?.terms[l.term.id]?.records,
  termRecords: (l) => l.figures?.records,
  onlyHere: (l) => l.figures?.onlyHere,
  termKeys: (l) => l.figures?.keys,
}

const remarked = useFigure(catalogue.remarks, () => ({ block: props.block.id }), {
  enabled: () => review.sample !== undefined && props.block.terms.length > 0,
  keep: true,
})
const remarksOf = (id: string) => remarked.data.value?.remarks.filter((r) => r.term === id) ?? []
const most = computed(() => Math.max(1, ...(props.figures?.terms.map((x) => x.records ?? 0) ?? [])))

/** What all terms find together among the records by which is told what each adds. */
const whole = computed(() => Math.max(0, ...(props.figures?.terms.map((x) => x.total ?? 0) ?? [])))

const name = (c: string) =>
  c === 'there'
    ? (sources.chosen?.name ?? '')
    : c === 'termRecords' && sources.chosen
      ? t('bench.inSample')
      : t(`figure.${c}`)

function sortBy(column: string) {
  sort.value = sort.value === column ? undefined : column
}
</script>

<template>
  <table class="figures">
    <thead>
      <tr>
        <th class="left">
          <span class="visually-hidden">{{ t('blocks.on') }}</span>
        </th>
        <th class="left">{{ t('blocks.term') }}</th>
        <th
          v-for="c in columns"
          :key="c"
          :class="{ left: c === 'grows' }"
          :aria-sort="sort === c ? 'descending' : undefined"
        >
          <WithTip
            v-slot="{ describedBy }"
            :text="c === 'there' ? t('counted.recordsTip') : t(`formula.${c}`)"
            ><button
              v-if="figureOf[c]"
              class="link by"
              :aria-describedby="describedBy"
              @click="sortBy(c)"
            >
              {{ name(c) }}<span v-if="sort === c" aria-hidden="true"> ↓</span></button
            ><span v-else tabindex="0" :aria-describedby="describedBy">{{ name(c) }}</span></WithTip
          ><SampleMark v-if="c === 'onlyHere' || c === 'grows'" />
        </th>
        <th>
          <span class="visually-hidden">{{ t('samples.acts') }}</span>
        </th>
      </tr>
    </thead>
    <tbody>
      <template v-for="(l, i) in rows" :key="l.group ? `group ${l.group.name}` : l.term!.id">
        <GroupRow
          v-if="l.group"
          :block="block"
          :group="l.group"
          :open="opened.has(l.group.name)"
          :columns="columns"
          :most="most"
          @toggle="toggle(l.group.name)"
        />
        <TermRow
          v-else-if="l.term"
          :class="{ within: l.term.group && !sort }"
          :block="block"
          :term="l.term"
          :most="most"
          :figures="l.figures"
          :remarks="remarksOf(l.term.id)"
          :ordered="!sort"
          :first="i === 0"
          :last="i === rows.length - 1"
          :keys="review.keyStudies.length > 0"
          :sample="figures?.records !== undefined"
          :whole="whole"
          @group="grouping = l.term"
        />
      </template>
    </tbody>
  </table>
  <OverNote
    v-if="figures?.records !== undefined && block.terms.some((x) => x.on)"
    :block="block"
    :over="figures.over"
    :about="t('free.terms')"
  />
  <GroupDialog
    v-if="grouping"
    :key="grouping.id"
    :block="block"
    :term="grouping"
    @close="grouping = undefined"
  />
</template>

<style scoped>
.within :deep(td:nth-child(2)) {
  padding-left: 26px;
}

.by {
  font: inherit;
  color: inherit;
}
</style>

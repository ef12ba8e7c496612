<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { TypedNote } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import CopyIcon from '@/parts/CopyIcon.vue'
import DraftField from '@/parts/DraftField.vue'
import { useReader } from '@/parts/reader'
import { useLineActs } from '@/state/lineActs'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import AskAbout from './AskAbout.vue'
import LineMenu from './LineMenu.vue'
import LineNotes from './LineNotes.vue'
import LineOfBlock from './LineOfBlock.vue'
import OwnLineMenu from './OwnLineMenu.vue'
import PutTogether from './PutTogether.vue'
import type { Line } from './lines'

/** One numbered line: as it is meant with its figures, and beside it as it is typed; what differs is noted below. */
const props = defineProps<{ line: Line; folded: number }>()
const emit = defineEmits<{ fold: []; copy: [] }>()
const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const reader = useReader()

const block = computed(() => review.document.blocks.find((b) => b.id === props.line.block))
const term = computed(() => block.value?.terms.find((x) => x.id === props.line.term))
const acts = useLineActs(() => ({ block: block.value!, term: term.value! }))
const noting = ref(false)
const putting = ref(false)
function setNote(note: string) {
  if (term.value) acts.setNote(note)
  else if (props.line.line)
    review.change(
      { key: 'noteLine', params: { n: String(props.line.number) } },
      { edits: [{ op: 'patchLine', id: props.line.line, patch: { note } }] },
    )
}

/** Notes that change nothing in the sample are folded: elsewhere they may. So is what is the same of every line. */
const free = (x: TypedNote) => (x.more === 0 && x.fewer === 0) || x.kind === 'wider'
const telling = computed(() => props.line.notes.filter((x) => !free(x)))
const idle = computed(() => props.line.notes.filter(free))
const columns = computed(
  () =>
    2 + Number(!!sources.chosen) + Number(!!review.sample) + Number(review.keyStudies.length > 0),
)
function open() {
  const l = props.line
  if (term.value) reader.list({ kind: 'term', term: term.value }, l.meant)
  else if (l.kind === 'own')
    reader.list({ kind: 'line', line: l.line! }, t('strategy.lineNumber', { n: l.number }))
  else if (l.kind === 'block') reader.list({ kind: 'block', block: l.block! }, l.meant)
  else if (l.kind === 'limit') reader.list({ kind: 'limit', limit: l.limit! }, l.meant)
  else reader.list({ kind: 'strategy', beforeNot: l.beforeNot }, l.meant)
}
</script>

<template>
  <tr
    :class="{
      join: line.kind !== 'term',
      own: line.kind === 'own',
      lit: telling.length,
      off: line.off,
    }"
  >
    <td class="number">{{ line.number || '' }}</td>
    <td class="left">
      <LineOfBlock
        v-if="line.kind === 'block'"
        :line="line"
        :block="block"
        :folded="folded"
        @fold="emit('fold')"
      />
      <b v-else-if="line.kind !== 'term' && line.kind !== 'own'">{{ line.meant }}</b>
      <template v-else>
        <PutTogether
          v-if="putting"
          :line="line.line"
          :was="line.meant"
          @done="putting = false"
          @vue:mounted="(node) => (node.el as HTMLElement | null)?.querySelector('input')?.focus()"
        />
        <template v-else-if="line.kind === 'own'"
          ><span class="mono">{{ line.meant }}</span
          >{{ ' '
          }}<span class="small" :class="{ lacks: line.lacks }">{{
            t(
              line.lacks
                ? 'strategy.lacks'
                : line.verbatim
                  ? 'strategy.verbatim'
                  : 'strategy.oneOfOwn',
            )
          }}</span></template
        >
        <template v-else><BlockStamp :block="line.block" :size="14" />{{ ' ' }}</template
        ><span
          v-if="line.kind === 'term'"
          :class="{ mono: !line.heading, heading: line.heading }"
          >{{ line.meant }}</span
        >{{ ' ' }}<span v-if="line.field" class="small">{{ t(`field.${line.field}`) }}</span>
        <DraftField
          v-if="noting"
          class="field"
          :value="line.note ?? ''"
          :maxlength="1000"
          :aria-label="t('strategy.noteOf', { term: line.meant })"
          @vue:mounted="(node) => (node.el as HTMLInputElement | null)?.focus()"
          @typed="setNote"
          @keydown.enter="noting = false"
          @keydown.esc="noting = false"
          @blur="noting = false"
        />
        <span v-else-if="line.note" class="small said">{{ line.note }}</span>
      </template>
    </td>
    <td v-if="sources.chosen">{{ line.there === undefined ? '' : n(line.there, 'whole') }}</td>
    <td v-if="review.sample">
      <button v-if="line.records" class="link" @click="open">
        {{ n(line.records, 'whole') }}</button><template v-else-if="line.records !== undefined">{{
        n(line.records, 'whole')
      }}</template>
    </td>
    <td v-if="review.keyStudies.length">{{ line.caught ?? '' }}</td>
    <td class="left typed mono">
      <span v-for="(x, i) in line.texts" :key="i" class="text"
        ><b v-if="line.numbers[i] !== line.number" class="number">{{ line.numbers[i] }}</b
        >{{ x }}</span
      >
      <span v-if="!line.texts.length" class="small">{{
        t(line.off ? 'strategy.off' : line.worded ? 'strategy.worded' : 'strategy.unsaid')
      }}</span>
      <span
        v-if="
          line.asTyped !== undefined && line.records !== undefined && line.asTyped !== line.records
        "
        class="small as"
        >{{ t('strategy.asTyped', { n: n(line.asTyped, 'whole') }) }}</span
      >
    </td>
    <td class="acts">
      <LineMenu v-if="block && term" :block="block" :term="term" @note="noting = true" />
      <OwnLineMenu
        v-else-if="line.line"
        :line="line.line"
        :number="line.number"
        :fixed="line.verbatim"
        @note="noting = true"
        @edit="putting = true"
      />
      <AskAbout
        v-else-if="line.kind === 'limit'"
        kind="limit"
        :about="line.limit ?? ''"
        :name="line.meant"
        :line="line.meant"
      />
      <AskAbout
        v-else-if="line.kind === 'block'"
        kind="block"
        :about="line.block ?? ''"
        :name="block?.concept || line.meant"
        :line="line.meant"
      />
      <button
        v-if="!line.off"
        class="link small"
        :aria-label="t('strategy.copyLine', { n: line.number })"
        :title="t('strategy.copyLine', { n: line.number })"
        @click="emit('copy')"
      >
        <CopyIcon />
      </button>
    </td>
  </tr>
  <LineNotes :telling="telling" :idle="idle" :columns="columns" />
</template>

<style scoped>
.number {
  color: var(--ink-2);
  font-size: 12px;
  width: 26px;
}

.join td {
  background: var(--card);
}

td.typed {
  border-left: 1px solid var(--line);
  padding-left: 14px;
  overflow-wrap: anywhere;
  max-width: 330px;
  font-size: 12.5px;
}

.lit td.typed {
  background: var(--gold-soft);
}

.text {
  display: block;
}

.text .number {
  font-weight: 500;
  margin-right: 7px;
}

.as {
  font-family: var(--ui);
}

.heading {
  font-weight: 650;
}

.lacks {
  color: var(--gold-deep);
}

.said {
  display: block;
}

td.acts {
  white-space: nowrap;
  text-align: right;
}

.off td {
  color: var(--ink-2);
}

.off td:not(.typed) .mono,
.off .heading {
  text-decoration: line-through;
}
</style>

<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRouter } from 'vue-router'
import type { Edit, ExplainedBlock, ExplainedQuery, Term } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { limitText } from '@/parts/limitText'
import { useDecide } from '@/state/decide'
import { useNotes } from '@/state/notes'
import { newId } from '@/state/edits'
import { newTerm, termText, useReview } from '@/state/review'
import { useSteps } from '@/state/steps'

/** The blocks that a query is made of, to be taken into the review whole or in part. */
const props = defineProps<{ said: ExplainedQuery; current: boolean }>()
const { t, n } = useI18n()
const review = useReview()
const notes = useNotes()
const { addEdits } = useDecide()
const steps = useSteps()
const router = useRouter()

/** What is left out of what could be taken, and where each block goes: a new one, or one that is there. */
const out = ref(new Set<string>())
const into = ref<Record<string, string>>({})
watch(
  () => props.said.text,
  () => {
    out.value = new Set()
    into.value = {}
  },
)
function toggle(key: string) {
  const next = new Set(out.value)
  if (!next.delete(key)) next.add(key)
  out.value = next
}
const key = (b: ExplainedBlock, i: number) => `${b.name} ${i}`
const taken = (b: ExplainedBlock) => b.terms.filter((_, i) => !out.value.has(key(b, i)))
const shown = (x: Term) =>
  x.kind === 'heading' ? `[${termText(x)}${x.narrower ? ' +' : ''}]` : termText(x)
const blockOf = (id: string) => review.document.blocks.find((b) => b.id === id)
/** The edits that put a term into a block that is there: none where it has it. */
function adding(block: string, x: Term): Edit[] {
  const to = blockOf(block)
  return to ? addEdits(to, newTerm({ ...x, id: '' })) : []
}
const limits = computed(() => props.said.limits.filter((l) => !out.value.has(`limit ${l.kind}`)))
/** What no term says becomes a line of its own, where it can be said in CQL. */
const asLines = computed(() =>
  props.said.verbatim.flatMap((v, i) => (v.cql && !out.value.has(`line ${i}`) ? [v] : [])),
)
const edits = computed<Edit[]>(() => {
  const all: Edit[] = []
  for (const b of props.said.blocks) {
    const terms = taken(b)
    const target = into.value[b.name]
    if (!terms.length) continue
    if (target) {
      all.push(...terms.flatMap((x) => adding(target, x.term)))
      continue
    }
    all.push({
      op: 'addBlock',
      block: {
        id: newId(),
        name: b.name,
        concept: b.concept.slice(0, 300),
        part: '',
        seeds: [],
        searched: true,
        reason: '',
        negated: b.negated,
        terms: terms.map((x) => newTerm({ ...x.term, id: '' })),
      },
    })
  }
  if (limits.value.length) {
    const kinds = new Set(limits.value.map((l) => l.kind))
    all.push({
      op: 'limits',
      limits: [...review.document.limits.filter((l) => !kinds.has(l.kind)), ...limits.value],
    })
  }
  for (const v of asLines.value)
    all.push({
      op: 'addLine',
      line: {
        id: newId(),
        note: v.query === v.cql ? '' : t('pasted.asWritten', { query: v.query }).slice(0, 500),
        of: { kind: 'query', query: v.cql },
      },
    })
  return all
})
const count = computed(() =>
  props.said.blocks.reduce(
    (sum, b) => sum + taken(b).length,
    limits.value.length + asLines.value.length,
  ),
)
/** Where only lines are taken they stand in Strategy, not in Blocks. */
const onlyLines = computed(() => asLines.value.length === count.value)

function take() {
  review.change(
    { key: 'takeQuery', params: { n: String(count.value), dialect: props.said.title } },
    { edits: edits.value },
  )
  notes.say({
    text: t('pasted.took', { n: n(count.value, 'whole') }, count.value),
    action: { label: t('steps.undo'), run: steps.undo },
  })
  void router.push({
    name: onlyLines.value ? 'strategy' : 'blocks',
    params: { review: review.id },
    query: {},
  })
}
</script>

<template>
  <section class="card" :aria-label="t('pasted.blocks')">
    <div class="row">
      <h2 class="sect grow">{{ t('pasted.blocks') }}</h2>
      <button class="btn" :disabled="!current || !edits.length" @click="take">
        {{ t('pasted.take', { n: n(count, 'whole') }, count) }}
      </button>
    </div>
    <div v-for="b in said.blocks" :key="b.name" class="block">
      <div class="row">
        <BlockStamp :name="b.name" ghost :size="18" />
        <b v-if="b.negated" class="small">NOT</b>
        <label class="row small"
          >{{ t('pasted.into')
          }}<select
            v-model="into[b.name]"
            class="field"
            :aria-label="t('pasted.intoLabel', { block: b.name })"
          >
            <option :value="undefined">{{ t('pasted.newBlock') }}</option>
            <option v-for="x in review.document.blocks" :key="x.id" :value="x.id">
              {{ x.name }} {{ x.concept }}
            </option>
          </select></label
        >
      </div>
      <ul>
        <li v-for="(x, i) in b.terms" :key="i">
          <label class="row"
            ><input
              type="checkbox"
              :checked="!out.has(key(b, i))"
              @change="toggle(key(b, i))"
            /><span :class="x.term.kind === 'heading' ? 'heading' : 'mono'">{{
              shown(x.term)
            }}</span
            ><span
              v-if="x.term.field && x.term.field !== 'text' && x.term.kind !== 'heading'"
              class="small"
              >{{ t(`field.${x.term.field}`) }}</span
            ><span v-if="into[b.name] && !adding(into[b.name]!, x.term).length" class="small">{{
              t('pasted.there')
            }}</span></label
          ><span class="num">{{ x.records === undefined ? '' : n(x.records, 'whole') }}</span>
        </li>
      </ul>
    </div>
    <div v-for="l in said.limits" :key="l.kind" class="block">
      <label class="row"
        ><input
          type="checkbox"
          :checked="!out.has(`limit ${l.kind}`)"
          @change="toggle(`limit ${l.kind}`)"
        /><span class="small">{{ t('pasted.limit') }}</span
        >{{ limitText(l, t) }}</label
      >
    </div>
    <div v-if="said.verbatim.length" class="block">
      <h3 class="sect">{{ t('pasted.verbatim') }}</h3>
      <p class="small">{{ t('pasted.verbatimSays') }}</p>
      <ul>
        <li v-for="(v, i) in said.verbatim" :key="i">
          <label v-if="v.cql" class="row"
            ><input
              type="checkbox"
              :checked="!out.has(`line ${i}`)"
              @change="toggle(`line ${i}`)"
            /><span class="mono">{{ v.query }}</span></label
          ><span v-else
            ><span class="mono">{{ v.query }}</span>
            <span class="small">{{ t('pasted.noLine') }}</span></span
          ><span class="num">{{ v.records === undefined ? '' : n(v.records, 'whole') }}</span>
        </li>
      </ul>
    </div>
    <p v-if="!said.blocks.length && !said.verbatim.length" class="small">
      {{ t('pasted.noBlock') }}
    </p>
  </section>
</template>

<style scoped>
.card {
  padding: 10px 12px;
}

.block {
  border-top: 1px solid var(--line-soft);
  padding: 7px 0 3px;
  margin-top: 7px;
}

ul {
  max-height: 240px;
  overflow-y: auto;
  margin-top: 3px;
}

li {
  display: flex;
  justify-content: space-between;
  gap: 10px;
  padding: 1px 0;
  overflow-wrap: anywhere;
}

li .row {
  gap: 7px;
  min-width: 0;
}

.heading {
  font-weight: 650;
}

select {
  max-width: 190px;
  padding: 2px 6px;
}
</style>

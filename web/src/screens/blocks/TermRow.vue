<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Bench, Block, Edit, Remark, Term } from '@/api/client'
import DraftField from '@/parts/DraftField.vue'
import OnSwitch from '@/parts/OnSwitch.vue'
import { useInstead } from '@/parts/instead'
import { useMade } from '@/parts/made'
import { useReader } from '@/parts/reader'
import { useBench } from '@/state/bench'
import { useLineActs } from '@/state/lineActs'
import { termText } from '@/state/review'
import { useSources } from '@/state/sources'
import TermActs from './TermActs.vue'
import StairStep from './StairStep.vue'
import TermName from './TermName.vue'
import TermRemarks from './TermRemarks.vue'

/** One line of a block: switched on or off, with what it finds. Alt and the arrows move it. */
const props = defineProps<{
  block: Block
  term: Term
  figures?: Bench['blocks'][number]['terms'][number]
  most: number
  first: boolean
  last: boolean
  keys: boolean
  remarks: Remark[]
  ordered: boolean // by hand: it can be moved
  sample: boolean
  whole: number
}>()
const emit = defineEmits<{ group: [] }>()

const { t, n } = useI18n()
const bench = useBench()
const reader = useReader()
const sources = useSources()
const instead = useInstead()
const made = useMade()
const there = computed(() => sources.counted?.terms[props.term.id])

const line = useLineActs(() => props)
const toggle = (on: boolean): Edit => ({
  op: 'patchTerm',
  block: props.block.id,
  id: props.term.id,
  patch: { on },
})

function onKey(e: KeyboardEvent) {
  const by = { ArrowUp: -1, ArrowDown: 1 }[e.key]
  if (!by || !e.altKey) return
  e.preventDefault()
  acts.value?.move(by)
}

/** Resting on a line shows what the block would be with it switched the other way. */
function rest(on: boolean) {
  bench.rest(
    on
      ? {
          edits: [toggle(!props.term.on)],
          label: `${props.term.on ? '−' : '+'} ${termText(props.term)}`,
          block: props.block.id,
        }
      : undefined,
  )
}

/** A heading by itself or with all that stand below it. */

const acts = ref<InstanceType<typeof TermActs>>()
const noting = ref(false)
function setNote(note: string) {
  noting.value = false
  line.setNote(note)
}

function records() {
  reader.list({ kind: 'term', term: props.term }, termText(props.term))
}
</script>

<template>
  <tr
    :class="{ off: !term.on }"
    @mouseenter="rest(true)"
    @mouseleave="rest(false)"
    @keydown="onKey"
  >
    <td class="left onoff">
      <OnSwitch
        :model-value="term.on"
        :label="t('blocks.switch', { term: termText(term) })"
        @update:model-value="line.setOn"
      />
    </td>
    <td class="left">
      <span class="lab">
        <TermName :block="block" :term="term" :figures="figures" />
        <TermRemarks :block="block" :term="term" :figures="figures" :remarks="remarks" />
        <DraftField
          v-if="term.note || noting"
          class="said"
          :value="term.note ?? ''"
          :maxlength="1000"
          :placeholder="t('blocks.noteHint')"
          :aria-label="t('blocks.noteOn', { term: termText(term) })"
          :autofocus="noting"
          @typed="setNote"
          @blur="noting = false"
        />
        <span v-if="there?.notes.length" class="note" :title="instead(there.notes[0])"
          >* {{ instead(there.notes[0]) }}</span
        >
      </span>
    </td>
    <td v-if="sources.chosen" class="records">
      <button
        v-if="there"
        class="num"
        :aria-label="
          t('counted.open', {
            n: n(there.records, 'whole'),
            source: sources.chosen.name,
            term: termText(term),
          })
        "
        :title="t('counted.made', { source: sources.chosen.name })"
        @click="made.show(there, termText(term), sources.chosen)"
      >
        {{ n(there.records, 'whole') }}<sup v-if="there.notes.length || there.refused">*</sup>
      </button>
      <span v-else class="small">{{ t('counted.notCounted') }}</span>
    </td>
    <td v-if="sample" class="records">
      <template v-if="figures?.records !== undefined"
        ><i
          class="bar"
          :style="{
            width: `${Math.max(figures.records ? 2 : 0, (figures.records / most) * 62)}px`,
          }"
        /><button
          class="num"
          :aria-label="
            t('blocks.openRecords', { n: n(figures.records, 'whole'), term: termText(term) })
          "
          @click="records"
        >
          {{ n(figures.records, 'whole') }}
        </button></template
      >
    </td>
    <td v-if="sample" :class="{ nil: !figures?.onlyHere }">
      <button
        v-if="figures?.onlyHere"
        class="link num"
        :title="t('bench.openRecords')"
        @click="reader.list({ kind: 'term', term, block: block.id, only: true }, termText(term))"
      >
        {{ n(figures.onlyHere, 'whole') }}</button><template v-else>{{
        figures?.onlyHere === undefined ? '' : n(figures.onlyHere, 'whole')
      }}</template>
    </td>
    <td v-if="keys" class="keys">
      <span v-if="figures" class="dots" aria-hidden="true"
        ><i
          v-for="k in Math.min(figures.keys, 8)"
          :key="k"
          :class="{ sole: k > Math.min(figures.keys, 8) - figures.sole }"
      /></span>
      <span
        class="num"
        :title="figures?.sole ? t('blocks.sole', { n: figures.sole }, figures.sole) : undefined"
        >{{ figures?.keys }}</span
      >
    </td>
    <td v-if="sample" class="left grows">
      <StairStep
        v-if="figures?.total !== undefined"
        :total="figures.total"
        :step="figures.step ?? 0"
        :whole="whole"
      />
    </td>
    <td class="acts">
      <TermActs
        ref="acts"
        :block="block"
        :term="term"
        :first="first"
        :last="last"
        :ordered="ordered"
        @note="noting = true"
        @group="emit('group')"
      />
    </td>
  </tr>
</template>

<style scoped>
tr:hover td {
  background: var(--card);
}

.onoff {
  width: 42px;
}

tr td {
  vertical-align: middle;
}

.lab {
  min-width: 110px;
  display: inline-flex;
  vertical-align: middle;
  flex-wrap: wrap;
  gap: 2px 7px;
  align-items: center;
  overflow-wrap: anywhere;
}

.said {
  width: 100%;
  border: 0;
  border-bottom: 1px solid transparent;
  background: none;
  font-size: 12px;
  color: var(--ink-2);
}

.said:hover,
.said:focus {
  border-bottom-color: var(--line);
}

.note {
  font-size: 11.5px;
  color: var(--gold-deep);
  background: var(--gold-soft);
  border-radius: 4px;
  padding: 1px 6px;
}

.records {
  white-space: nowrap;
}

.records button {
  border: 0;
  background: none;
  padding: 0;
  cursor: pointer;
  min-width: 34px;
  text-align: right;
}

.records button:hover {
  text-decoration: underline;
}

.bar {
  display: inline-block;
  height: 7px;
  background: var(--plum);
  border-radius: 1px;
  vertical-align: 1px;
  margin-right: 6px;
}

.off .lab,
.off .records button {
  color: var(--ink-3);
}

.off .bar {
  background: var(--sand);
}

.nil {
  color: var(--ink-3);
}

.grows {
  white-space: nowrap;
  width: 150px;
}

.keys {
  white-space: nowrap;
}

.keys .num {
  display: inline-block;
  min-width: 18px;
}

.dots {
  display: inline-flex;
  gap: 3px;
  vertical-align: 1px;
  margin-right: 6px;
}

.dots i {
  width: 6px;
  height: 6px;
  border-radius: 50%;
  background: var(--gold);
}

.dots i.sole {
  box-shadow:
    0 0 0 1.5px var(--paper),
    0 0 0 2.6px var(--gold);
}

.acts {
  white-space: nowrap;
  width: 110px;
}

/* Where it is narrow the pictures give way to the words. */
@container block (max-width: 800px) {
  .bar,
  .dots {
    display: none;
  }

  .grows {
    width: 96px;
  }

  .acts {
    width: 96px;
  }
}
</style>

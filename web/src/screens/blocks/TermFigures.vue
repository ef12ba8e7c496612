<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Bench, Block, Term } from '@/api/client'
import { useMade } from '@/parts/made'
import { useReader } from '@/parts/reader'
import { termText } from '@/state/review'
import { useSources } from '@/state/sources'
import StairStep from './StairStep.vue'

/** What a term finds: at the source, in the sample, only here, of the key studies, and what it adds to the block. */
const props = defineProps<{
  block: Block
  term: Term
  figures?: Bench['blocks'][number]['terms'][number]
  most: number
  whole: number
  keys: boolean
  sample: boolean
}>()

const { t, n } = useI18n()
const reader = useReader()
const sources = useSources()
const made = useMade()
const there = computed(() => sources.counted?.terms[props.term.id])

function records() {
  reader.list({ kind: 'term', term: props.term }, termText(props.term))
}
</script>

<template>
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
</template>

<style scoped>
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

.off .records button {
  color: var(--ink-3);
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
}
</style>

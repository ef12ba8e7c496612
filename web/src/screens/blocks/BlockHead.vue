<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Bench, Block } from '@/api/client'
import BlockStamp from '@/parts/BlockStamp.vue'
import { useMade } from '@/parts/made'
import { useReader } from '@/parts/reader'
import { useBench } from '@/state/bench'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** A block as a whole: what it stands for, what it finds, takes away and catches. */
const props = defineProps<{ block: Block; figures?: Bench['blocks'][number] }>()

const { t, n } = useI18n()
const review = useReview()
const sources = useSources()
const made = useMade()
const bench = useBench()
const reader = useReader()
const there = computed(() => sources.counted?.blocks[props.block.id])
const held = computed(
  () => review.keyStudies.length - (bench.now?.notHere?.filter(Boolean).length ?? 0),
)
const caught = computed(() => props.figures?.caught.filter(Boolean).length ?? 0)
</script>

<template>
  <div class="head">
    <BlockStamp :block="block.id" :size="26" />
    <h2 class="display">{{ block.concept || t('block.unnamed') }}</h2>
    <span class="small">{{
      [
        block.part && t(`part.${block.part}`),
        block.searched ? t('question.searched') : t('question.keptOut'),
        block.reason,
      ]
        .filter(Boolean)
        .join(' · ')
    }}</span>
    <span class="grow" />
    <div v-if="there && sources.chosen" class="big">
      <button
        class="display"
        :title="t('counted.made', { source: sources.chosen.name })"
        @click="made.show(there, block.concept, sources.chosen)"
      >
        {{ n(there.records, 'whole') }}</button><span class="small">{{
        t('counted.recordsAt', { source: sources.chosen.name })
      }}</span>
    </div>
    <div v-else-if="figures?.records !== undefined" class="big">
      <button
        class="display"
        :title="t('bench.openRecords')"
        @click="reader.list({ kind: 'block', block: block.id }, block.concept)"
      >
        {{ n(figures.records, 'whole') }}</button><span class="small">{{
        t('blocks.records')
      }}</span>
    </div>
    <button
      v-if="figures?.takenAway"
      class="link small"
      :title="t('blocks.takenAwayTip')"
      @click="
        reader.list(
          { kind: 'block', block: block.id, away: true },
          t('looked.awayTitle', { what: block.concept || block.name }),
        )
      "
    >
      {{ t('blocks.takenAway', { n: n(figures.takenAway, 'whole') }) }}
    </button>
    <span
      v-else-if="figures?.takenAway !== undefined"
      class="small"
      :title="t('blocks.takenAwayTip')"
      >{{ t('blocks.takenAway', { n: '0' }) }}</span
    >
    <div v-if="review.keyStudies.length && figures" class="big">
      <span class="display">{{ caught }}</span><span class="small"
        >/ {{ held }} {{ t('blocks.keyStudies') }}</span
      >
    </div>
  </div>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 10px;
  margin: 12px 0 8px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

.big {
  display: flex;
  align-items: baseline;
  gap: 5px;
  margin-left: 14px;
}

.big .display {
  font-size: 24px;
  font-weight: 600;
  border: 0;
  background: none;
  padding: 0;
}

.big button {
  cursor: pointer;
}

.big button:hover {
  text-decoration: underline;
}
</style>

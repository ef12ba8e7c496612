<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Bench, Block, Term } from '@/api/client'
import { termText, useReview } from '@/state/review'

/** What a term looks for, as it is read in a row: words, two words near each other, or a heading with how it is taken. */
const props = defineProps<{
  block: Block
  term: Term
  figures?: Bench['blocks'][number]['terms'][number]
}>()

const { t, n } = useI18n()
const review = useReview()

function setNarrower() {
  const narrower = !props.term.narrower
  review.change(
    {
      key: narrower ? 'withNarrower' : 'withoutNarrower',
      params: { term: termText(props.term), block: props.block.name },
    },
    { edits: [{ op: 'patchTerm', block: props.block.id, id: props.term.id, patch: { narrower } }] },
  )
}
/** What of a heading is left out, beside whether it is taken with what is below. */
const less = computed(() => [
  ...(props.term.narrower && props.term.without?.length
    ? [t('blocks.without', { n: n(props.term.without.length, 'whole') })]
    : []),
  ...(props.term.central ? [t('headings.main')] : []),
  ...(props.term.qualifiers ?? []),
  ...(props.term.until ? [t('blocks.until', { year: props.term.until })] : []),
])
</script>

<template>
  <template v-if="term.kind === 'heading'">
    <svg class="tree" viewBox="0 0 14 14" role="img" :aria-label="t('blocks.heading')">
      <path d="M2 1v10M2 4h5M2 9h5" />
      <rect x="7" y="2" width="5" height="3.4" />
      <rect x="7" y="7.4" width="5" height="3.4" />
    </svg>
    <router-link
      v-if="review.vocabulary && !figures?.unknown"
      class="heading"
      :to="{
        name: 'headings',
        params: { review: review.id },
        query: { label: term.heading, block: block.id },
      }"
      >{{ term.heading }}</router-link
    >
    <b v-else>{{ term.heading }}</b>
    <button
      v-if="review.vocabulary && !figures?.unknown && !term.until"
      class="link small"
      :aria-label="t('blocks.setNarrower', { term: term.heading })"
      :aria-pressed="!!term.narrower"
      @click="setNarrower"
    >
      {{
        term.narrower
          ? t('blocks.narrower', { n: n(figures?.narrower ?? 0, 'whole') })
          : t('blocks.alone')
      }}
    </button>
    <span v-if="less.length" class="small" :title="term.without?.join(', ')">{{
      less.join(', ')
    }}</span>
  </template>
  <span v-else-if="term.kind === 'near'" class="mono"
    >{{ term.left }} <em>{{ t('blocks.within', { n: term.within }) }}</em> {{ term.right }}</span
  >
  <span v-else class="mono">{{ term.text }}</span>
  <span v-if="term.field && term.field !== 'text' && term.kind !== 'heading'" class="small">{{
    t(`field.${term.field}`)
  }}</span>
</template>

<style scoped>
em {
  font: 12px var(--ui);
  color: var(--ink-2);
}

.heading {
  font-weight: 650;
  color: inherit;
  text-decoration: none;
}

.heading:hover {
  text-decoration: underline;
}

.tree {
  width: 13px;
  height: 13px;
  stroke: var(--ink-2);
  fill: none;
  stroke-width: 1.6;
  display: block;
}
</style>

<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Bench } from '@/api/client'
import { useReview } from '@/state/review'

/** What leaves nothing or very little: said where the two numbers stand. */
defineProps<{ narrow: NonNullable<Bench['narrow']> }>()
const { t, n } = useI18n()
const review = useReview()

const letter = (id: string) => review.document.blocks.find((b) => b.id === id)?.name ?? '?'
function text(x: NonNullable<Bench['narrow']>[number]): string {
  const [a, b] = (x.blocks ?? []).map(letter)
  const leaves = n(x.leaves, 'whole')
  if (x.limit)
    return t('narrow.limit', {
      limit: t(`coverage.limit.${x.limit}`),
      n: n(x.without, 'whole'),
    })
  if (b) return t('narrow.pair', { a, b, n: leaves }, x.leaves)
  if (x.without) return t('narrow.not', { block: a, n: n(x.without, 'whole') })
  return t('narrow.block', { block: a, n: leaves }, x.leaves)
}
</script>

<template>
  <div class="narrow" role="note">
    <b class="small">{{ t('narrow.title') }}</b>
    <ul>
      <li v-for="(x, i) in narrow" :key="i" class="small">{{ text(x) }}</li>
    </ul>
  </div>
</template>

<style scoped>
.narrow {
  margin: 6px 0 2px;
  padding: 6px 9px;
  border-left: 3px solid var(--miss);
  background: var(--miss-soft);
  border-radius: 0 4px 4px 0;
}
</style>

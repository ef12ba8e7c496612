<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { WrittenRecord } from '@/api/client'
import { useReview } from '@/state/review'

/** The strategy has changed since it was run: the record is of what was run, and this is its one open point. */
defineProps<{ open: NonNullable<WrittenRecord['open']> }>()
const { t } = useI18n()
const review = useReview()
</script>

<template>
  <section class="open" role="note" :aria-label="t('written.openTitle')">
    <p>{{ open.says }}</p>
    <details>
      <summary class="small">{{ t('written.openChanged') }}</summary>
      <p class="small">{{ open.changed }}</p>
    </details>
    <router-link
      class="btn outline"
      :to="{ name: 'strategy', params: { review: review.id }, query: { part: 'everywhere' } }"
      >{{ t('written.runAgain') }}</router-link
    >
  </section>
</template>

<style scoped>
.open {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 4px 16px;
  align-items: center;
  border-left: 3px solid var(--gold);
  background: var(--card);
  padding: 10px 14px;
  margin-bottom: 12px;
}

.open .btn {
  grid-column: 2;
  grid-row: 1 / span 2;
}
</style>

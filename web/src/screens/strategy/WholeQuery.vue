<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { TypedNote } from '@/api/client'
import SourceNotes from '@/parts/SourceNotes.vue'

/** The strategy as one query, or several whose records belong together, with what it cannot say. */
defineProps<{ queries: string[]; notes: TypedNote[]; named: boolean }>()
const { t, n } = useI18n()
</script>

<template>
  <section class="card" :aria-label="t('strategy.whole')">
    <h2 class="sect">
      {{
        queries.length > 1
          ? t('strategy.parts', { n: queries.length }, queries.length)
          : t('strategy.whole')
      }}
    </h2>
    <p v-for="(q, i) in queries" :key="i" class="mono query">{{ q }}</p>
    <SourceNotes v-if="notes.length" :notes="notes" />
    <p v-else-if="named" class="small">{{ t('strategy.noNotes') }}</p>
    <p v-if="notes.length" class="small">
      {{ t('strategy.notes', { n: n(notes.length, 'whole') }, notes.length) }}
    </p>
  </section>
</template>

<style scoped>
.card {
  padding: 10px 12px;
}

.query {
  overflow-wrap: anywhere;
  margin: 5px 0;
}

.query + .query {
  border-top: 1px solid var(--line-soft);
  padding-top: 5px;
}
</style>

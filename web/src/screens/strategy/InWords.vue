<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { ExplainedQuery } from '@/api/client'

/** What a query says, line by line, in words. */
defineProps<{ said: ExplainedQuery }>()
const { t, n } = useI18n()
</script>

<template>
  <section class="card" :aria-label="t('pasted.inWords')">
    <h2 class="sect">{{ t('pasted.inWords') }}</h2>
    <ol :class="{ one: said.lines.length === 1 }">
      <li v-for="l in said.lines" :key="l.n">
        <b class="number">{{ l.n }}</b>
        <span class="says">{{ l.says }}</span>
        <span class="num">{{ l.records === undefined ? '' : n(l.records, 'whole') }}</span>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.card {
  padding: 10px 12px;
}

ol {
  max-height: 260px;
  overflow-y: auto;
  margin-top: 4px;
}

li {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr) auto;
  gap: 8px;
  padding: 3px 0;
  border-bottom: 1px solid var(--line-soft);
  font-size: 12.5px;
}

li:last-child {
  border-bottom: 0;
}

.one .number {
  display: none;
}

.one li {
  grid-template-columns: minmax(0, 1fr) auto;
}

.number {
  font-size: 12px;
  color: var(--ink-2);
  min-width: 14px;
}

.says {
  overflow-wrap: anywhere;
}
</style>

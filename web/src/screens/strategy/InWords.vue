<script setup lang="ts">
import { ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { ExplainedQuery, QueryPart } from '@/api/client'
import QueryTree from './QueryTree.vue'

/** What a query says, line by line: in words, or as the tree that it is. */
defineProps<{ said: ExplainedQuery }>()
const emit = defineEmits<{ point: [part: QueryPart] }>()
const { t, n } = useI18n()
const tree = ref(false)
</script>

<template>
  <section class="card" :aria-label="t('pasted.inWords')">
    <div class="row">
      <h2 class="sect grow">{{ t('pasted.inWords') }}</h2>
      <button class="chip" :aria-pressed="tree" @click="tree = !tree">
        {{ t('pasted.asTree') }}
      </button>
    </div>
    <ol v-if="tree" class="trees">
      <li v-for="(p, i) in said.trees" :key="i">
        <b v-if="said.lines.length > 1" class="number">{{ said.lines[i]?.n }}</b>
        <QueryTree :part="p" @point="emit('point', $event)" />
      </li>
    </ol>
    <ol v-else :class="{ one: said.lines.length === 1 }">
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

.trees {
  max-height: 420px;
}

.trees li {
  grid-template-columns: auto minmax(0, 1fr);
  border-bottom: 0;
}

.trees li:not(:has(.number)) {
  grid-template-columns: minmax(0, 1fr);
}

.chip[aria-pressed='true'] {
  border-color: var(--plum);
  color: var(--plum);
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

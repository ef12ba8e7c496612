<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { TypedNote } from '@/api/client'
import { useInstead } from './instead'

/** What a source could not be asked, and what was asked in its place. Many notes of one kind are one, which opens. */
const props = defineProps<{ notes: TypedNote[] }>()
const said = useInstead()
const { t } = useI18n()

const few = 3
const groups = computed(() => {
  const byKind = new Map<string, TypedNote[]>()
  for (const x of props.notes) byKind.set(x.kind, [...(byKind.get(x.kind) ?? []), x])
  return [...byKind.values()].flatMap((all) => (all.length > few ? [all] : all.map((x) => [x])))
})
</script>

<template>
  <ul v-if="notes.length" class="notes">
    <li v-for="(all, i) in groups" :key="i">
      <template v-if="all.length === 1">{{ said(all[0]!) }}</template>
      <details v-else>
        <summary>
          {{ t('sourceNote.like', { said: said(all[0]!), n: all.length - 1 }, all.length - 1) }}
        </summary>
        <p v-for="(x, k) in all.slice(1)" :key="k">{{ said(x) }}</p>
      </details>
    </li>
  </ul>
</template>

<style scoped>
.notes li {
  font-size: 12.5px;
  color: var(--gold-deep);
  padding: 2px 0 2px 12px;
  position: relative;
  overflow-wrap: anywhere;
}

.notes li::before {
  content: '*';
  position: absolute;
  left: 0;
}

summary {
  cursor: pointer;
}
</style>

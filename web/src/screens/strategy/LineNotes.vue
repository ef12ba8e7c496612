<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { TypedNote } from '@/api/client'
import SourceNotes from '@/parts/SourceNotes.vue'
import { useInstead } from '@/parts/instead'

/** What is noted of how a line is typed: what changes something, and folded what changes nothing in the sample. */
defineProps<{ telling: TypedNote[]; idle: TypedNote[]; columns: number }>()

const { t } = useI18n()
const instead = useInstead()
</script>

<template>
  <tr v-if="telling.length" class="noted">
    <td :colspan="columns" />
    <td class="left typed small" colspan="2"><SourceNotes :notes="telling" /></td>
  </tr>
  <tr v-if="idle.length" class="noted">
    <td :colspan="columns" />
    <td class="left typed small" colspan="2">
      <details>
        <summary>{{ t('strategy.idle', { n: idle.length }, idle.length) }}</summary>
        <p v-for="(x, i) in idle" :key="i">{{ instead(x) }}</p>
      </details>
    </td>
  </tr>
</template>

<style scoped>
td.typed {
  border-left: 1px solid var(--line);
  padding-left: 14px;
  overflow-wrap: anywhere;
  max-width: 330px;
  font-size: 12.5px;
}

.noted td {
  padding-top: 0;
  border-bottom: 1px solid var(--line-soft);
}

.noted .typed {
  color: var(--gold-deep);
}

.noted summary {
  cursor: pointer;
  color: var(--ink-2);
}
</style>

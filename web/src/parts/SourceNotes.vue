<script setup lang="ts">
import type { SourceNote } from '@/api/client'
import { useInstead } from './instead'

/** What a source could not be asked, and what was asked in its place. */
defineProps<{ notes: SourceNote[] }>()
const said = useInstead()
</script>

<template>
  <ul v-if="notes.length" class="notes">
    <li v-for="(x, i) in notes" :key="i">{{ said(x) }}</li>
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
</style>

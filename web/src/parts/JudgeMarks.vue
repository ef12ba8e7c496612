<script setup lang="ts">
import type { Judging } from '@/api/client'

/** The records that are judged, each as a mark of what was said of it; the one in view stands out. */
defineProps<{ records: Judging['records'] }>()
const at = defineModel<number>({ required: true })
</script>

<template>
  <div class="marks" aria-hidden="true">
    <i
      v-for="(r, i) in records"
      :key="r.id"
      :class="[r.verdict, { here: i === at }]"
      @click="at = i"
    />
  </div>
</template>

<style scoped>
.marks {
  display: flex;
  flex-wrap: wrap;
  gap: 3px;
  padding: 0 16px 8px;
}

.marks i {
  width: 12px;
  height: 12px;
  border: 1px solid var(--ink-3);
  border-radius: 3px;
  cursor: pointer;
}

.marks i.here {
  outline: 2px solid var(--plum);
  outline-offset: 1px;
}

.marks i.relevant {
  background: var(--ink);
  border-color: var(--ink);
}

.marks i.not {
  background: repeating-linear-gradient(135deg, var(--sand) 0 1.6px, transparent 1.6px 3.6px);
}

.marks i.unsure {
  background: var(--gold-soft);
  border-color: var(--gold);
}
</style>

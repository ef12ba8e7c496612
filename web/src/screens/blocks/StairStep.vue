<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** One step of a block's staircase: what the terms find up to this one, and dark what this one adds. */
defineProps<{ total: number; step: number; whole: number }>()
const { t, n } = useI18n()
const part = (x: number, of: number) => `${of ? (x / of) * 100 : 0}%`
</script>

<template>
  <span
    class="stair"
    role="img"
    :aria-label="t('blocks.growsTo', { n: n(total, 'whole'), step: n(step, 'whole') })"
  >
    <i class="sofar" :style="{ width: part(total, whole) }"
      ><i class="step" :style="{ width: part(step, total) }"
    /></i>
  </span>
  <span class="small" aria-hidden="true">{{ n(total, 'whole') }}</span>
</template>

<style scoped>
.stair {
  display: inline-block;
  width: 96px;
  margin-right: 6px;
  vertical-align: middle;
}

.sofar {
  display: flex;
  justify-content: flex-end;
  height: 8px;
  border-radius: 1px;
  background: var(--plum-soft);
}

.step {
  background: var(--plum);
  border-radius: 1px;
}

@container block (max-width: 800px) {
  .stair {
    width: 44px;
  }
}

@container block (max-width: 560px) {
  .stair {
    display: none;
  }
}
</style>

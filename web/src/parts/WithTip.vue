<script setup lang="ts">
import { useId } from 'vue'

/** Something with a tip that shows when it is pointed at or has the focus. */
defineProps<{ text: string }>()
const id = useId()
</script>

<template>
  <span class="with"
    ><slot :described-by="id" /><span :id="id" role="tooltip" class="tip">{{ text }}</span></span
  >
</template>

<style scoped>
.with {
  position: relative;
  display: inline-grid;
}

.tip {
  position: absolute;
  top: calc(100% + 3px);
  right: 0;
  z-index: 20;
  width: max-content;
  max-width: 300px;
  padding: 5px 9px;
  border-radius: 4px;
  background: var(--night);
  color: var(--night-ink);
  font: 12px/1.4 var(--ui);
  text-align: left;
  white-space: normal;
  visibility: hidden;
  pointer-events: none;
}

.with:hover > .tip,
.with:focus-within > .tip {
  visibility: visible;
  transition: visibility 0s 350ms;
}
</style>

<script setup lang="ts">
/** Two sheets: what is beside it is copied. */
</script>

<template>
  <svg class="copy" viewBox="0 0 14 14" aria-hidden="true">
    <rect x="1.5" y="4" width="7.5" height="8.5" rx="1" />
    <path d="M4.5 4V1.5H12V10H9" />
  </svg>
</template>

<style scoped>
.copy {
  display: inline-block;
  vertical-align: middle;
  width: 13px;
  height: 13px;
  fill: none;
  stroke: currentColor;
  stroke-width: 1.3;
}
</style>

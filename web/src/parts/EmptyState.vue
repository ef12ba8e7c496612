<script setup lang="ts">
/** What a list says while there is nothing in it: what goes here, and the one action that fills it. */
defineProps<{ title: string; text: string }>()
</script>

<template>
  <div class="empty">
    <h2 class="display">{{ title }}</h2>
    <p>{{ text }}</p>
    <div v-if="$slots.default" class="act"><slot /></div>
  </div>
</template>

<style scoped>
.empty {
  max-width: 460px;
  padding: 34px 8px;
}

h2 {
  font-size: 18px;
  font-weight: 600;
}

p {
  margin-top: 6px;
  color: var(--ink-2);
}

.act {
  margin-top: 14px;
}
</style>

<script setup lang="ts">
/** On or off, small enough for a dense row. */
const on = defineModel<boolean>({ required: true })
defineProps<{ label: string }>()
</script>

<template>
  <button
    type="button"
    role="switch"
    class="switch"
    :aria-checked="on"
    :aria-label="label"
    @click="on = !on"
  />
</template>

<style scoped>
.switch {
  flex: none;
  width: 26px;
  height: 14px;
  border: 0;
  border-radius: 8px;
  background: var(--ink-3);
  position: relative;
  vertical-align: middle;
  cursor: pointer;
  padding: 0;
}

.switch::after {
  content: '';
  position: absolute;
  left: 2px;
  top: 2px;
  width: 10px;
  height: 10px;
  border-radius: 50%;
  background: #fff;
  transition: left 120ms;
}

.switch[aria-checked='true'] {
  background: var(--plum);
}

.switch[aria-checked='true']::after {
  left: 14px;
}

/* A larger place to hit than it looks. */
.switch::before {
  content: '';
  position: absolute;
  inset: -6px;
}
</style>

<script setup lang="ts">
import { ref } from 'vue'

/**
 * A field that shows what is saved until someone types in it. From then on what was typed stays,
 * whatever comes in from the server meanwhile, until the field is left or Enter is pressed.
 */
const props = defineProps<{ value: string; maxlength: number }>()
const emit = defineEmits<{ typed: [value: string] }>()

const draft = ref<string>()

function take() {
  const value = draft.value?.trim().slice(0, props.maxlength)
  draft.value = undefined
  if (value !== undefined && value !== props.value) emit('typed', value)
}
</script>

<template>
  <input :value="draft ?? value" :maxlength="maxlength" @input="draft = ($event.target as HTMLInputElement).value" @keydown.enter="take" @blur="take" />
</template>

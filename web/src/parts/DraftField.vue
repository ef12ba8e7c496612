<script setup lang="ts">
import { ref } from 'vue'

/**
 * A field that shows what is saved until someone types in it. From then on what was typed stays,
 * whatever comes in from the server meanwhile, until the field is left or, where it has one line, Enter is pressed.
 */
const props = defineProps<{ value: string; maxlength: number; lines?: number }>()
const emit = defineEmits<{ typed: [value: string] }>()

const draft = ref<string>()

function type(e: Event) {
  draft.value = (e.target as HTMLInputElement | HTMLTextAreaElement).value
}
function take() {
  const value = draft.value?.trim().slice(0, props.maxlength)
  draft.value = undefined
  if (value !== undefined && value !== props.value) emit('typed', value)
}
</script>

<template>
  <textarea
    v-if="lines"
    :rows="lines"
    :value="draft ?? value"
    :maxlength="maxlength"
    @input="type"
    @blur="take"
  />
  <input
    v-else
    :value="draft ?? value"
    :maxlength="maxlength"
    @input="type"
    @keydown.enter="take"
    @blur="take"
  />
</template>

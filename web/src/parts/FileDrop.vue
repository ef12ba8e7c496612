<script setup lang="ts">
import { ref } from 'vue'

/** A place that takes files: dropped on it, or chosen with the button in its slot. */
withDefaults(defineProps<{ hint: string; accept?: string }>(), {
  accept: '.ris,.txt,.bib,.json,.jsonl,.csv,.tsv,.tab,.xml,.mods,.marcxml,.gz,.zip,text/*',
})
const emit = defineEmits<{ files: [files: File[]] }>()

const over = ref(0)
const input = ref<HTMLInputElement>()

function take(list: FileList | null | undefined) {
  if (list?.length) emit('files', [...list])
  if (input.value) input.value.value = ''
}

function choose() {
  input.value?.click()
}
</script>

<template>
  <div
    class="drop"
    :class="{ over: over > 0 }"
    @dragenter.prevent="over++"
    @dragleave="over--"
    @dragover.prevent
    @drop.prevent="((over = 0), take($event.dataTransfer?.files))"
  >
    <slot :choose="choose" />
    <input
      ref="input"
      type="file"
      multiple
      :aria-label="hint"
      :accept="accept"
      hidden
      @change="take(input?.files)"
    />
    <div v-if="over > 0" class="veil" aria-hidden="true">{{ hint }}</div>
  </div>
</template>

<style scoped>
.drop {
  position: relative;
}

.veil {
  position: absolute;
  inset: 0;
  display: grid;
  place-items: center;
  background: color-mix(in srgb, var(--gold-soft) 92%, transparent);
  border: 1.5px dashed var(--gold);
  border-radius: 7px;
  font: 600 15px var(--display);
  pointer-events: none;
}
</style>

<script setup lang="ts">
import { computed } from 'vue'

/** A note in which the headings that it names can be gone to. */
const props = defineProps<{ text: string; named: string[] }>()
const emit = defineEmits<{ look: [label: string] }>()

const pieces = computed(() => {
  let out: { text: string; heading?: boolean }[] = [{ text: props.text }]
  for (const label of [...props.named].sort((a, b) => b.length - a.length))
    out = out.flatMap((p) =>
      p.heading
        ? [p]
        : p.text
            .split(label)
            .flatMap((text, i) => [...(i ? [{ text: label, heading: true }] : []), { text }]),
    )
  return out.filter((p) => p.text)
})
</script>

<template>
  <p class="note">
    <template v-for="(p, i) in pieces" :key="i"
      ><button v-if="p.heading" class="link named" @click="emit('look', p.text)">
        {{ p.text }}</button
      ><template v-else>{{ p.text }}</template></template
    >
  </p>
</template>

<style scoped>
.note {
  max-width: 640px;
}

.named {
  text-decoration: underline;
}
</style>

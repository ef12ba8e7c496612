<script setup lang="ts">
import { computed } from 'vue'
import { useReview } from '@/state/review'

/** The letter of a block in its colour; dashed when the block is not searched. */
const props = withDefaults(
  defineProps<{ block?: string; name?: string; size?: number; ghost?: boolean }>(),
  { size: 20 },
)

const review = useReview()
const found = computed(() =>
  review.document.blocks.find((b) => b.id === props.block || b.name === props.name),
)
const colour = computed(() => blockColour(found.value?.name ?? props.name ?? ''))
const dashed = computed(() => props.ghost || found.value?.searched === false)
</script>

<script lang="ts">
const colours = ['a', 'b', 'c', 'd', 'e', 'f']

/** The colour of a block, by its letter. */
export function blockColour(name: string): string {
  const n = name.charCodeAt(0) - 'A'.charCodeAt(0)
  return `var(--block-${colours[((n % colours.length) + colours.length) % colours.length] ?? 'a'})`
}
</script>

<template>
  <span
    class="stamp"
    :class="{ dashed }"
    :style="{
      '--colour': colour,
      width: `${size}px`,
      height: `${size}px`,
      fontSize: `${Math.round(size * 0.6)}px`,
    }"
    >{{ found?.name ?? name }}</span
  >
</template>

<style scoped>
.stamp {
  display: inline-grid;
  place-items: center;
  flex: none;
  border-radius: 4px;
  color: #fff;
  background: var(--colour);
  font-family: var(--ui);
  font-weight: 700;
  line-height: 1;
}

.stamp.dashed {
  background: var(--white);
  color: var(--colour);
  border: 1.5px dashed var(--colour);
}
</style>

<script setup lang="ts">
import type { Piece } from '@/api/client'
import { blockColour } from './BlockStamp.vue'

/** Text in which the words of the blocks are marked in their colours, candidates with a dotted line, what is all but a term with a wavy one. */
defineProps<{ pieces: Piece[] }>()

function style(p: Piece) {
  const blocks = p.blocks ?? []
  if (!blocks.length) return undefined
  const tints = blocks.map((b) => `color-mix(in srgb, ${blockColour(b)} 20%, transparent)`)
  return {
    background: tints.length === 1 ? tints[0] : `linear-gradient(${tints[0]} 50%, ${tints[1]} 50%)`,
    boxShadow: `inset 0 -1.5px 0 ${blockColour(blocks[0])}`,
  }
}
</script>

<template>
  <span
    ><template v-for="(p, i) in pieces" :key="i"
      ><mark
        v-if="p.blocks?.length || p.candidate || p.near"
        :class="{
          candidate: p.candidate && !p.near && !p.blocks?.length,
          near: p.near && !p.blocks?.length,
        }"
        :style="style(p)"
        :title="p.blocks?.join(', ')"
        >{{ p.text }}</mark
      ><template v-else>{{ p.text }}</template></template
    ></span
  >
</template>

<style scoped>
mark {
  background: none;
}

mark.near {
  text-decoration: underline wavy var(--gold) 1px;
  text-underline-offset: 3px;
}

mark.candidate {
  border-bottom: 2px dotted var(--miss);
  border-radius: 0;
}
</style>

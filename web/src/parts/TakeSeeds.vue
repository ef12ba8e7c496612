<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block } from '@/api/client'
import { useDecide } from '@/state/decide'
import { newTerm, useReview } from '@/state/review'

/** Where a block has no term yet: one press makes its seed words its terms, as one change. */
const props = defineProps<{ block: Block }>()
const { t } = useI18n()
const review = useReview()
const { addEdits } = useDecide()

const seeds = computed(() => (props.block.terms.length ? [] : props.block.seeds))

function take() {
  const edits = seeds.value.flatMap((text) =>
    addEdits(props.block, newTerm({ kind: 'text', text, field: 'text' })),
  )
  if (edits.length)
    review.change({ key: 'takeSeeds', params: { block: props.block.name } }, { edits })
}
</script>

<template>
  <button v-if="seeds.length" class="link small" :title="seeds.join(', ')" @click="take()">
    {{ t('blocks.takeSeeds', { n: seeds.length, block: block.name }, seeds.length) }}
  </button>
</template>

<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Suit, TallyItem } from '@/api/client'
import { useReview } from '@/state/review'
import type { Candidate } from './candidates'

/** What goes without saying elsewhere: whether it is found already, of which heading it is an entry term, what never stands without it, where it stands. */
defineProps<{ candidate: Candidate; item?: TallyItem; suit?: Suit }>()

const { t, n } = useI18n()
const review = useReview()
const letters = (ids: string[]) =>
  ids.map((id) => review.document.blocks.find((b) => b.id === id)?.name).join(', ')
</script>

<template>
  <p v-if="suit?.missed" class="small absorbs missed">
    {{ t('suit.missed', { n: suit.missed }, suit.missed) }}
  </p>
  <p v-if="suit?.inside?.length" class="small absorbs">
    {{ t('suit.inside', { block: letters(suit.inside) }) }}
  </p>
  <p v-if="item?.entryOf" class="small absorbs">
    {{ t('tree.entryOf', { heading: item.entryOf }) }}
  </p>
  <p v-if="candidate.row.absorbs?.length" class="small absorbs">
    {{ t('panel.absorbs') }}
    <span class="mono">{{ candidate.row.absorbs.slice(0, 8).join(', ') }}</span>
  </p>
  <p v-if="item?.titleOnly !== undefined" class="small absorbs">
    {{ t('stands.titleOnly', { n: n(item.titleOnly, 'whole') }, item.titleOnly) }} ·
    {{ t('stands.keywords', { n: n(item.inKeywords ?? 0, 'whole') }) }}
  </p>
</template>

<style scoped>
.absorbs {
  margin-top: 4px;
}

.missed {
  color: var(--miss);
}

.absorbs .mono {
  font-size: 12px;
}
</style>

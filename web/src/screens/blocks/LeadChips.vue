<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { TriedTerm } from '@/api/client'
import { useReview } from '@/state/review'

/** The headings that what is typed leads to, each with its records, and with all below it. */
defineProps<{ headings: TriedTerm['headings'] }>()
const emit = defineEmits<{ take: [label: string, narrower?: boolean] }>()

const { t, n } = useI18n()
const review = useReview()
</script>

<template>
  <ul class="headings">
    <li class="small">{{ t(review.vocabulary ? 'addTerm.leads' : 'addTerm.headings') }}</li>
    <li v-for="h in headings" :key="h.label">
      <button class="chip" :title="h.scopeNote" @click="emit('take', h.label)">
        <b>{{ h.label }}</b><em>{{ n(h.records, 'whole') }}</em>
      </button>
      <button
        v-if="h.narrower"
        class="link small"
        :aria-label="t('addTerm.withNarrowerOf', { heading: h.label })"
        @click="emit('take', h.label, true)"
      >
        {{ t('blocks.narrower', { n: n(h.narrower, 'whole') }) }}
      </button>
      <span v-if="h.via && h.via !== 'label'" class="small cut via">{{
        t(`addTerm.via.${h.via}`, { matched: h.matched })
      }}</span>
    </li>
  </ul>
</template>

<style scoped>
.headings {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
}

.headings li {
  display: flex;
  align-items: center;
  gap: 7px;
  max-width: 100%;
}

.via {
  max-width: 260px;
}
</style>

<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useReview } from '@/state/review'
import type { Candidate } from './candidates'

/** The ways of writing that are folded into one journal or author. An author whose name is that of another is parted. */
const props = defineProps<{ candidate: Candidate }>()
const { t, n } = useI18n()
const review = useReview()

const authors = computed(() => props.candidate.facet === 'authors')
const writings = computed(() => props.candidate.row.writings ?? [])
const parted = computed(() =>
  [props.candidate.item, ...writings.value.map((w) => w.item)].filter((w) =>
    review.document.parted?.includes(w),
  ),
)
/** A writing with initials alone is what the others are folded under. */
const partable = (writing: string) =>
  authors.value &&
  !parted.value.length &&
  (writing.split(',')[1] ?? '').replace(/\P{L}/gu, '').length > 1

function part(writing: string, apart: boolean) {
  review.change(
    { key: apart ? 'partAuthor' : 'foldAuthor', params: { author: writing } },
    { edits: [{ op: 'part', writing, apart }] },
  )
}
</script>

<template>
  <template v-if="writings.length">
    <h3 class="small">{{ t('teams.folded') }}</h3>
    <ul class="small">
      <li v-for="w in writings" :key="w.item">
        <span>{{ w.item }}</span><span class="fig">{{ n(w.records, 'whole') }}</span
        ><button
          v-if="partable(w.item)"
          class="btn bare"
          :aria-label="t('teams.part', { author: w.item })"
          :title="t('teams.partTip')"
          @click="part(w.item, true)"
        >
          {{ t('teams.partShort') }}
        </button>
      </li>
    </ul>
  </template>
  <p v-for="w in parted" :key="w" class="small">
    {{ t('teams.parted') }}
    <button class="btn bare" :aria-label="t('teams.fold', { author: w })" @click="part(w, false)">
      {{ t('teams.foldShort') }}
    </button>
  </p>
</template>

<style scoped>
h3 {
  margin: 13px 0 4px;
  text-transform: uppercase;
  letter-spacing: 0.06em;
  font-weight: 650;
}

li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 44px 66px;
  align-items: baseline;
  gap: 6px;
  min-height: 26px;
}

.fig {
  text-align: right;
}
</style>

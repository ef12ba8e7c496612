<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { TallyItem } from '@/api/client'
import { useReader } from '@/parts/reader'
import { newTerm, useReview } from '@/state/review'
import type { Candidate } from './candidates'

/** What goes with an item: what a heading means, what stands right beside it, and what its records carry or say besides. */
const props = defineProps<{ candidate: Candidate; item?: TallyItem }>()
const { t, n } = useI18n()
const review = useReview()
const reader = useReader()

/** Opens the records of a heading with a qualifier, from either of the two. */
function beside(other: string) {
  const own = props.candidate.item
  const [heading, qualifier] = props.candidate.facet === 'headings' ? [own, other] : [other, own]
  reader.list(
    { kind: 'term', term: newTerm({ kind: 'heading', heading, qualifiers: [qualifier] }) },
    `${heading} / ${qualifier}`,
  )
}
function along(other: string) {
  const facet = props.candidate.facet === 'headings' ? 'words' : 'headings'
  reader.list({ kind: 'item', facet, item: other }, other)
}
</script>

<template>
  <router-link
    v-if="item && review.vocabulary && (item.facet === 'headings' || item.entryOf)"
    class="small"
    :to="{
      name: 'headings',
      params: { review: review.id },
      query: { label: item.entryOf ?? item.item },
    }"
    >{{ t('headings.look', { heading: item.entryOf ?? item.item }) }}</router-link
  >
  <template v-if="item?.scopeNote">
    <h3 class="small">{{ t('tree.scope') }}</h3>
    <p class="small">{{ item.scopeNote }}</p>
  </template>
  <template v-if="item?.entry?.length">
    <h3 class="small">{{ t('tree.entry') }}</h3>
    <p class="small">{{ item.entry.slice(0, 30).join(' · ') }}</p>
  </template>
  <template v-if="item?.beside?.length">
    <h3 class="small">
      {{ t(candidate.facet === 'headings' ? 'tree.qualifiers' : 'tree.behind') }}
    </h3>
    <p class="goes">
      <button v-for="b in item.beside" :key="b.item" class="chip" @click="beside(b.item)">
        {{ b.item }} <em>{{ n(b.records, 'whole') }}</em>
      </button>
    </p>
  </template>
  <template v-if="item?.with.length">
    <h3 class="small">{{ t(candidate.facet === 'headings' ? 'tree.words' : 'goes.title') }}</h3>
    <p class="goes">
      <button
        v-for="h in item.with"
        :key="h.item"
        class="chip"
        :title="t('goes.tip', { n: n(h.records, 'whole'), pull: n(h.pull, 'whole') })"
        @click="along(h.item)"
      >
        {{ h.item }} <em>{{ n(h.records, 'whole') }}</em>
      </button>
    </p>
  </template>
</template>

<style scoped>
h3 {
  margin: 13px 0 4px;
  text-transform: uppercase;
  letter-spacing: 0.06em;
  font-weight: 650;
}

.goes {
  display: flex;
  flex-wrap: wrap;
  gap: 5px;
}

.goes .chip {
  font-size: 12px;
  padding: 1px 7px;
}
</style>

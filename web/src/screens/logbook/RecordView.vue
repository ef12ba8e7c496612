<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { figures, useFigure } from '@/figures'
import { useCopying } from '@/parts/copying'
import MakingProgress from '@/parts/MakingProgress.vue'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import BundleMenu from './BundleMenu.vue'
import FlowPicture from './FlowPicture.vue'
import RecordOpen from './RecordOpen.vue'
import RecordItems from './RecordItems.vue'
import RecordSection from './RecordSection.vue'

/** The written record of the search, as it would print, and beside it what a report is to say. */
const { t } = useI18n()
const review = useReview()
const sources = useSources()
const problem = useProblem()
const copy = useCopying()

const asked = useFigure(figures.writtenRecord, () => ({ holdings: sources.holdings.length }), {
  keep: true,
  holds: 0,
})
const record = computed(() => asked.data.value)
const page = ref<HTMLElement>()

/** Brings a section into view and says where one is. */
function lead(id: string) {
  const section = page.value?.querySelector<HTMLElement>(`[id='${id}']`)
  section?.scrollIntoView({ block: 'start' })
  section?.focus()
}
const file = (format: string) =>
  `/api/reviews/${review.id}/record/file?format=${format}${review.look.name ? `&look=${review.look.name}` : ''}`
</script>

<template>
  <div>
    <p v-if="asked.error.value && !record" class="wrong" role="alert">
      {{ problem(asked.error.value) }}
    </p>
    <template v-else-if="record">
      <div class="row top">
        <p class="small grow">{{ t('written.hint') }}</p>
        <button class="btn bare" @click="copy(record.methods, t('written.methods'))">
          {{ t('written.copyMethods') }}
        </button>
        <a class="btn outline" :href="file('md')" download>Markdown</a>
        <a class="btn outline" :href="file('html')" download>HTML</a>
        <a class="btn outline" :href="file('json')" download>JSON</a>
        <a class="btn outline" :href="file('docx')" download>DOCX</a>
        <BundleMenu />
      </div>
      <RecordOpen v-if="record.open" :open="record.open" />
      <div class="beside">
        <article ref="page" class="page">
          <h1>{{ record.document.title }}</h1>
          <p class="small">{{ record.document.under }}</p>
          <FlowPicture v-if="record.flow.sources.length" :flow="record.flow" />
          <RecordSection v-for="s in record.document.sections" :key="s.id" :section="s" />
        </article>
        <RecordItems :items="record.items" @lead="lead" />
      </div>
    </template>
    <template v-else>
      <p class="small" role="status">{{ t('written.writing') }}</p>
      <MakingProgress :label="t('written.writing')" />
    </template>
  </div>
</template>

<style scoped>
.top {
  gap: 8px;
  margin-bottom: 10px;
  flex-wrap: wrap;
}

.top p {
  flex: 1 1 260px;
}

.beside {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 260px;
  gap: 22px;
  align-items: start;
}

.page {
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: 4px;
  padding: 26px 30px;
  overflow-wrap: anywhere;
}

h1 {
  font: 600 24px/1.2 var(--display);
}

.wrong {
  color: var(--miss);
}

@media (max-width: 1100px) {
  .beside {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>

<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Draw, Sample } from '@/api/client'
import EmptyState from '@/parts/EmptyState.vue'
import FileDrop from '@/parts/FileDrop.vue'
import ImportProgress from '@/parts/ImportProgress.vue'
import { useImports } from '@/state/imports'
import { useReview } from '@/state/review'
import CompareDialog from './CompareDialog.vue'
import DrawPanel from './DrawPanel.vue'
import DrawProgress from './DrawProgress.vue'
import DrawReport from './DrawReport.vue'
import NoticesDialog from './NoticesDialog.vue'
import SampleRow from './SampleRow.vue'
import VocabularyPart from './VocabularyPart.vue'

const { t, n } = useI18n()
const review = useReview()
const imports = useImports()

const reading = ref<Sample>()
const comparing = ref(false)
const drawn = ref<Draw>()
const report = (s: Sample) => ({
  import: s.import ?? 0,
  name: s.name,
  fileName: s.fileName,
  sum: t('notices.sum', { records: n(s.records, 'whole'), skipped: n(s.skipped, 'whole') }),
})
const others = computed(() => review.samples.filter((s) => s.id !== review.look.sample))
const contrast = computed({
  get: () =>
    review.look.against !== undefined
      ? String(review.look.against)
      : review.look.rest
        ? 'rest'
        : 'none',
  set: (v) =>
    void review.lookAt({
      source: review.look.source,
      sample: review.look.sample,
      against: v === 'rest' || v === 'none' ? undefined : Number(v),
      rest: v === 'rest',
    }),
})
/** The years that all pictures share, so that they can be compared. */
const span = computed(() => {
  const years = review.samples.flatMap((s) => s.years.map((y) => y.year)).filter((y) => y > 0)
  return years.length ? { from: Math.min(...years), to: Math.max(...years) } : undefined
})
</script>

<template>
  <div class="screen">
    <FileDrop :hint="t('samples.drop')" class="place" @files="imports.bring($event, 'sample')">
      <template #default="{ choose }">
        <DrawPanel />
        <div class="row head">
          <h2 class="sect">{{ t('samples.title') }}</h2>
          <span class="grow" />
          <template v-if="review.sample">
            <label class="small" for="contrast">{{
              t('samples.against', { sample: review.sample.name })
            }}</label>
            <select id="contrast" v-model="contrast" class="chip">
              <option value="rest">{{ t('samples.rest') }}</option>
              <option v-for="s in others" :key="s.id" :value="String(s.id)">{{ s.name }}</option>
              <option value="none">{{ t('samples.nothing') }}</option>
            </select>
          </template>
          <button v-if="review.samples.length > 1" class="btn bare" @click="comparing = true">
            {{ t('compare.open') }}
          </button>
          <button class="btn outline" @click="choose">{{ t('samples.bring') }}</button>
        </div>
        <ImportProgress kind="sample" />
        <table v-if="review.samples.length" class="figures">
          <thead>
            <tr>
              <th class="left">{{ t('samples.sample') }}</th>
              <th class="left">{{ t('samples.from') }}</th>
              <th>{{ t('samples.records') }}</th>
              <th class="left">{{ t('draw.drawn') }}</th>
              <th class="left">{{ span ? t('samples.years', span) : '' }}</th>
              <th>{{ t('samples.date') }}</th>
              <th>
                <span class="visually-hidden">{{ t('samples.acts') }}</span>
              </th>
            </tr>
          </thead>
          <tbody>
            <SampleRow
              v-for="s in review.samples"
              :key="s.id"
              :sample="s"
              :span="span"
              @reading="reading = s"
              @drawn="drawn = $event"
            />
          </tbody>
        </table>
        <DrawProgress />
        <EmptyState
          v-if="!review.samples.length"
          :title="t('samples.emptyTitle')"
          :text="t('samples.emptyText')"
          ><button class="btn" @click="choose">{{ t('samples.bring') }}</button></EmptyState
        >
        <p v-if="review.samples.length" class="small hint">{{ t('samples.dropHint') }}</p>
        <VocabularyPart />
      </template>
    </FileDrop>
    <CompareDialog v-if="comparing" @close="comparing = false" />
    <DrawReport v-if="drawn" :draw="drawn" @close="drawn = undefined" />
    <NoticesDialog v-if="reading" :of="report(reading)" @close="reading = undefined" />
  </div>
</template>

<style scoped>
.screen {
  height: 100%;
  overflow-y: auto;
}

.place {
  min-height: 100%;
}

.head {
  min-height: 34px;
  flex-wrap: wrap;
}

select.chip {
  font: 12.5px var(--ui);
  color: var(--ink);
  max-width: 240px;
}

.hint {
  padding: 10px 8px;
}
</style>

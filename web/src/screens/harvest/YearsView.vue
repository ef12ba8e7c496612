<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Tally } from '@/api/client'
import { useReader } from '@/parts/reader'
import ChartButtons from './ChartButtons.vue'
import LimitCost from './LimitCost.vue'
import { useLimit } from './limits'
import YearsChart from './YearsChart.vue'
import YearsTable from './YearsTable.vue'

/** Records by year, with what has no headings yet, and a handle that says what a cut-off would cost. */
const props = defineProps<{ tally: Tally }>()

const { t } = useI18n()
const reader = useReader()
const { resting, set, limit } = useLimit('years')

const chart = ref<InstanceType<typeof YearsChart>>()
const years = computed(() => {
  const known = new Map(props.tally.rows.map((r) => [Number(r.item), r]))
  const all = [...known.keys()].sort((a, b) => a - b)
  if (!all.length) return []
  // A year that is far from all others is most often a slip; the axis does not stretch to it without end.
  const first = Math.max(all[0], all[all.length - 1] - 150)
  return Array.from({ length: all[all.length - 1] - first + 1 }, (_, i) => ({
    year: first + i,
    row: known.get(first + i),
  }))
})

const from = ref<number>()
const first = computed(() => years.value[0]?.year ?? 0)
watch(
  () => [set.value?.from, first.value],
  () => (from.value = set.value?.from),
  { immediate: true },
)
const cut = computed(() =>
  from.value !== undefined && from.value > first.value ? from.value : undefined,
)
const moved = computed(() => from.value !== undefined && from.value !== set.value?.from)
watch(
  [cut, moved],
  () =>
    (resting.value =
      cut.value !== undefined && moved.value
        ? { kind: 'years', from: cut.value, to: set.value?.to }
        : undefined),
)

/** A limit from a year that no record says costs what one from the next that is said does. */
const firstKept = computed(() =>
  cut.value === undefined ? undefined : years.value.find((d) => d.row && d.year >= cut.value!)?.row,
)

const records = (year: number) =>
  reader.list({ kind: 'item', facet: 'years', item: String(year) }, String(year))
</script>

<template>
  <div class="from-above">
    <p v-if="!years.length" class="small">{{ t('years.none') }}</p>
    <template v-else>
      <div class="main">
        <YearsChart
          ref="chart"
          v-model:from="from"
          :years="years"
          :looked="tally.looked"
          :contrast="tally.contrast"
          :has-keys="tally.hasKeys"
          :cut="cut"
          @open="records"
        />
        <YearsTable :tally="tally" :years="years" :cut="cut" @open="records" />
      </div>
      <aside>
        <LimitCost
          v-if="firstKept?.loses && cut"
          :title="t('years.text', { year: cut })"
          :loss="firstKept.loses"
          :tally="tally"
          :item="firstKept.item"
          :resting="resting !== undefined"
        />
        <p v-else class="small">{{ t('years.all') }}</p>
        <button
          v-if="cut && moved"
          class="btn outline"
          @click="limit({ kind: 'years', from: cut, to: set?.to }, t('years.from', { year: cut }))"
        >
          {{ t('years.limit', { year: cut }) }}
        </button>
        <button
          v-if="set"
          class="btn bare"
          @click="limit(undefined, t('years.from', { year: set.from ?? '' }))"
        >
          {{ t('shape.take') }}
        </button>
        <ChartButtons :name="t('facet.years')" :svg="() => chart?.drawing" />
      </aside>
    </template>
  </div>
</template>

<style scoped>
.btn {
  margin-top: 10px;
}
</style>

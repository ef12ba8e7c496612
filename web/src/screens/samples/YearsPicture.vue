<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Sample } from '@/api/client'

/** A small picture of the years of a sample, over the years that all samples share. */
const props = defineProps<{ years: Sample['years']; from: number; to: number }>()

const { t, n } = useI18n()
const width = 136
const height = 24

const bars = computed(() => {
  const counts = new Map(props.years.map((y) => [y.year, y.records]))
  const most = Math.max(1, ...props.years.filter((y) => y.year > 0).map((y) => y.records))
  const step = width / (props.to - props.from + 1)
  return Array.from({ length: props.to - props.from + 1 }, (_, i) => {
    const records = counts.get(props.from + i) ?? 0
    const h = records ? Math.max(1, (records / most) * height) : 0
    return {
      x: i * step,
      y: height - h,
      w: Math.max(1, step - 1),
      h,
      recent: props.from + i > props.to - 7,
    }
  })
})
const label = computed(() => {
  const best = props.years
    .filter((y) => y.year > 0)
    .reduce((a, y) => (y.records > a.records ? y : a), { year: 0, records: 0 })
  return t('samples.yearsLabel', { year: String(best.year), n: n(best.records, 'whole') })
})
</script>

<template>
  <svg :width="width" :height="height" role="img" :aria-label="label">
    <title>{{ label }}</title>
    <rect
      v-for="(b, i) in bars"
      :key="i"
      :x="b.x"
      :y="b.y"
      :width="b.w"
      :height="b.h"
      :fill="b.recent ? 'var(--plum)' : '#a886a0'"
    />
  </svg>
</template>

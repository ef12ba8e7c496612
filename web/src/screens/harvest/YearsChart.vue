<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { TallyRow } from '@/api/client'
import YearsLegend from './YearsLegend.vue'
import { useYearHandle } from './yearHandle'

/** Records by year as columns, with what has no headings yet, and a handle at the first year that is kept. */
const props = defineProps<{
  years: { year: number; row?: TallyRow }[]
  looked: number
  contrast: number
  hasKeys: boolean
  /** The first year that is kept, where some are left out. */
  cut?: number
}>()
const from = defineModel<number>('from')
const emit = defineEmits<{ open: [year: number] }>()

const { t, n } = useI18n()
const holder = ref<HTMLElement>()
const drawing = ref<SVGSVGElement>()
const { width } = useElementSize(holder)
const high = 210
const left = 34

const most = computed(() => Math.max(1, ...props.years.map((y) => y.row?.records ?? 0)))
const step = computed(() => Math.max(2, (width.value - left - 8) / Math.max(1, props.years.length)))
const y = (records: number) => high - 22 - (records / most.value) * (high - 52)
const x = (i: number) => left + i * step.value
const ticks = computed(() => {
  const rough = most.value / 3
  const unit = 10 ** Math.floor(Math.log10(Math.max(1, rough)))
  const by = [1, 2, 5, 10].map((k) => k * unit).find((k) => k >= rough) ?? unit
  return Array.from(
    { length: Math.floor(most.value / Math.max(1, by)) + 1 },
    (_, i) => i * Math.max(1, by),
  )
})
const labelEvery = computed(() => [1, 2, 5, 10, 20, 50].find((k) => k * step.value > 36) ?? 50)
/** The contrast as if it were as large as what is looked at. */
const elsewhere = computed(() =>
  props.years
    .map(
      (d, i) =>
        `${x(i) + step.value / 2},${y(Math.min(most.value * 1.1, (d.row?.contrastShare ?? 0) * props.looked))}`,
    )
    .join(' '),
)

const first = computed(() => props.years[0]?.year ?? 0)
const last = computed(() => props.years.at(-1)?.year ?? 0)
const at = (clientX: number) =>
  first.value +
  Math.round((clientX - (drawing.value?.getBoundingClientRect().left ?? 0) - left) / step.value)
const { grab, drag, drop, onKey } = useYearHandle(from, first, last, at)

defineExpose({ drawing })
</script>

<template>
  <div ref="holder" class="holder">
    <svg ref="drawing" role="group" :aria-label="t('years.label')" :width="width" :height="high">
      <defs>
        <pattern
          id="bare"
          width="5"
          height="5"
          patternUnits="userSpaceOnUse"
          patternTransform="rotate(45)"
        >
          <rect width="5" height="5" fill="#fff" />
          <rect width="2" height="5" fill="#6b2d5c" />
        </pattern>
      </defs>
      <g v-for="v in ticks" :key="v" class="axis">
        <line :x1="left" :x2="width - 8" :y1="y(v)" :y2="y(v)" stroke="#ded7c8" stroke-width="1" />
        <text :x="left - 5" :y="y(v) + 4" text-anchor="end">{{ n(v, 'whole') }}</text>
      </g>
      <g
        v-for="(d, i) in years"
        :key="d.year"
        :opacity="cut !== undefined && d.year < cut ? 0.3 : 1"
      >
        <template v-if="d.row">
          <rect
            class="column"
            :x="x(i) + step * 0.12"
            :y="y(d.row.records - (d.row.unindexed ?? 0))"
            :width="step * 0.76"
            :height="Math.max(0, high - 22 - y(d.row.records - (d.row.unindexed ?? 0)))"
            fill="#6b2d5c"
          />
          <rect
            v-if="d.row.unindexed"
            :x="x(i) + step * 0.12"
            :y="y(d.row.records)"
            :width="step * 0.76"
            :height="y(d.row.records - d.row.unindexed) - y(d.row.records)"
            fill="url(#bare)"
            stroke="#6b2d5c"
            stroke-width="0.8"
          />
          <g v-if="d.row.keys">
            <circle :cx="x(i) + step / 2" :cy="y(d.row.records) - 9" r="3.4" fill="#e0a526" />
            <text
              v-if="d.row.keys > 1"
              class="keys"
              :x="x(i) + step / 2"
              :y="y(d.row.records) - 15"
              text-anchor="middle"
            >
              {{ d.row.keys }}
            </text>
          </g>
          <rect
            class="hit"
            data-screen
            :x="x(i)"
            y="0"
            :width="step"
            :height="high - 22"
            fill="transparent"
            @click="emit('open', d.year)"
          >
            <title>
              {{
                t('years.unindexedIn', {
                  year: d.year,
                  n: n(d.row.records, 'whole'),
                  bare: n(d.row.unindexed ?? 0, 'whole'),
                  keys: d.row.keys ?? 0,
                })
              }}
            </title>
          </rect>
        </template>
        <text
          v-if="(d.year - first) % labelEvery === 0"
          class="year"
          :x="x(i) + step / 2"
          :y="high - 7"
          text-anchor="middle"
        >
          {{ d.year }}
        </text>
      </g>
      <polyline
        v-if="contrast"
        :points="elsewhere"
        fill="none"
        stroke="#8a6d1b"
        stroke-width="1.3"
        stroke-dasharray="4 3"
      />
      <g
        data-screen
        class="handle"
        role="slider"
        tabindex="0"
        :aria-label="t('years.handle')"
        :aria-valuemin="first"
        :aria-valuemax="last"
        :aria-valuenow="from ?? first"
        :transform="`translate(${x((cut ?? first) - first)} 0)`"
        @pointerdown="grab"
        @pointermove="drag"
        @pointerup="drop"
        @keydown="onKey"
      >
        <rect x="-9" y="0" width="18" :height="high - 20" fill="transparent" />
        <line y1="4" :y2="high - 20" stroke="#b8860b" stroke-width="2" />
        <path d="M-6 2h12v12l-6 6-6-6z" fill="#e0a526" stroke="#8a6508" stroke-width="1" />
      </g>
    </svg>
  </div>
  <YearsLegend :contrast="contrast > 0" :has-keys="hasKeys" />
</template>

<style scoped>
.holder {
  background: var(--card);
  border: 1px solid var(--line);
  border-radius: var(--radius);
  padding: 6px 6px 0;
}

svg {
  display: block;
  max-width: 100%;
  touch-action: none;
}

text {
  font: 10.5px var(--ui);
  fill: var(--ink-2);
}

.hit {
  cursor: pointer;
}

.hit:hover {
  fill: rgb(224 165 38 / 14%);
}

.handle {
  cursor: ew-resize;
  outline: none;
}

.handle:focus-visible path {
  stroke: var(--plum);
  stroke-width: 2.5;
}
</style>

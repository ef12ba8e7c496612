<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Tally } from '@/api/client'
import { useReader } from '@/parts/reader'
import ChartButtons from './ChartButtons.vue'
import LimitCost from './LimitCost.vue'
import { useLimit } from './limits'

/** Records by year, with what has no headings yet, and a handle that says what a cut-off would cost. */
const props = defineProps<{ tally: Tally }>()

const { t, n } = useI18n()
const reader = useReader()
const { resting, set, limit } = useLimit('years')

const holder = ref<HTMLElement>()
const drawing = ref<SVGSVGElement>()
const { width } = useElementSize(holder)
const high = 210
const left = 34

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
const most = computed(() => Math.max(1, ...years.value.map((y) => y.row?.records ?? 0)))
const step = computed(() => Math.max(2, (width.value - left - 8) / Math.max(1, years.value.length)))
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
  years.value
    .map(
      (d, i) =>
        `${x(i) + step.value / 2},${y(Math.min(most.value * 1.1, (d.row?.contrastShare ?? 0) * props.tally.looked))}`,
    )
    .join(' '),
)

const from = ref<number>()
const first = computed(() => years.value[0]?.year ?? 0)
const last = computed(() => years.value.at(-1)?.year ?? 0)
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

const clamp = (year: number) => Math.min(Math.max(year, first.value), last.value)
const place = (e: PointerEvent) =>
  clamp(
    first.value +
      Math.round(
        (e.clientX - (drawing.value?.getBoundingClientRect().left ?? 0) - left) / step.value,
      ),
  )
const dragging = ref(false)
function grab(e: PointerEvent) {
  dragging.value = true
  ;(e.currentTarget as Element).setPointerCapture(e.pointerId)
  from.value = place(e)
}
function drag(e: PointerEvent) {
  if (dragging.value) from.value = place(e)
}
function onKey(e: KeyboardEvent) {
  const by = {
    ArrowRight: 1,
    ArrowUp: 1,
    ArrowLeft: -1,
    ArrowDown: -1,
    PageUp: 10,
    PageDown: -10,
    Home: -1e4,
    End: 1e4,
  }[e.key]
  if (!by) return
  e.preventDefault()
  from.value = clamp((from.value ?? first.value) + by)
}
const records = (year: number) =>
  reader.list({ kind: 'item', facet: 'years', item: String(year) }, String(year))
</script>

<template>
  <div class="from-above">
    <p v-if="!years.length" class="small">{{ t('years.none') }}</p>
    <template v-else>
      <div class="main">
        <div ref="holder" class="holder">
          <svg
            ref="drawing"
            role="group"
            :aria-label="t('years.label')"
            :width="width"
            :height="high"
          >
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
              <line
                :x1="left"
                :x2="width - 8"
                :y1="y(v)"
                :y2="y(v)"
                stroke="#ded7c8"
                stroke-width="1"
              />
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
                  @click="records(d.year)"
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
              v-if="tally.contrast"
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
              @pointerup="dragging = false"
              @keydown="onKey"
            >
              <rect x="-9" y="0" width="18" :height="high - 20" fill="transparent" />
              <line y1="4" :y2="high - 20" stroke="#b8860b" stroke-width="2" />
              <path d="M-6 2h12v12l-6 6-6-6z" fill="#e0a526" stroke="#8a6508" stroke-width="1" />
            </g>
          </svg>
        </div>
        <p class="small legend">
          <i class="dark" />{{ t('years.indexed') }} <i class="bare" />{{ t('years.unindexed') }}
          <template v-if="tally.hasKeys"><i class="gold" />{{ t('years.keys') }}</template>
          <template v-if="tally.contrast"><i class="dash" />{{ t('years.contrast') }}</template>
        </p>
        <table>
          <thead>
            <tr>
              <th scope="col">{{ t('shape.item.years') }}</th>
              <th scope="col" class="fig">{{ t('figure.records') }}</th>
              <th scope="col" class="fig">{{ t('shape.share') }}</th>
              <th v-if="tally.contrast" scope="col" class="fig">{{ t('shape.contrastShare') }}</th>
              <th scope="col" class="fig">{{ t('years.unindexed') }}</th>
              <th v-if="tally.hasKeys" scope="col" class="fig">{{ t('figure.keys') }}</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="d in [...years].reverse().filter((d) => d.row)"
              :key="d.year"
              :class="{ out: cut !== undefined && d.year < cut }"
            >
              <th scope="row">{{ d.year }}</th>
              <td class="fig">
                <button class="link" @click="records(d.year)">
                  {{ n(d.row!.records, 'whole') }}
                </button>
              </td>
              <td class="fig">{{ n(d.row!.share, 'share') }}</td>
              <td v-if="tally.contrast" class="fig">{{ n(d.row!.contrastShare ?? 0, 'share') }}</td>
              <td class="fig">
                <button
                  v-if="d.row!.unindexed"
                  class="link"
                  :aria-label="t('shape.bareOf', { n: n(d.row!.unindexed, 'whole'), item: d.year })"
                  @click="
                    reader.list(
                      { kind: 'aspect', facet: 'years', item: d.row!.item, aspect: 'bare' },
                      t('looked.bare', { item: d.year }),
                    )
                  "
                >
                  {{ n(d.row!.bare ?? 0, 'share') }}</button><template v-else>{{
                  n(0, 'share')
                }}</template>
              </td>
              <td v-if="tally.hasKeys" class="fig">{{ d.row!.keys }}</td>
            </tr>
            <tr v-if="tally.missing">
              <th scope="row">{{ t('shape.missing') }}</th>
              <td class="fig">
                <button
                  class="link"
                  @click="
                    reader.list(
                      { kind: 'aspect', facet: 'years', aspect: 'missing' },
                      t('shape.missing'),
                    )
                  "
                >
                  {{ n(tally.missing, 'whole') }}
                </button>
              </td>
              <td class="fig">{{ n(tally.missingShare, 'share') }}</td>
              <td v-if="tally.contrast" />
              <td />
              <td v-if="tally.hasKeys" class="fig">{{ tally.missingKeys }}</td>
            </tr>
          </tbody>
        </table>
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
        <ChartButtons :name="t('facet.years')" :svg="() => drawing" />
      </aside>
    </template>
  </div>
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

.legend {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 8px;
  margin: 5px 2px 10px;
}

.legend i {
  width: 14px;
  height: 10px;
  border-radius: 2px;
}

.dark {
  background: var(--plum);
}

.bare {
  border: 1px solid var(--plum);
  background: repeating-linear-gradient(-45deg, var(--plum) 0 1.5px, #fff 1.5px 4.5px);
}

.legend .gold {
  background: var(--gold-bright);
  width: 8px;
  height: 8px;
  border-radius: 50%;
}

.legend .dash {
  height: 0;
  border-top: 2px dashed #8a6d1b;
}

tr.out {
  color: var(--ink-3);
}

.btn {
  margin-top: 10px;
}
</style>

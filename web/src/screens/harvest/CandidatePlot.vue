<script setup lang="ts">
import { useElementSize, watchDebounced } from '@vueuse/core'
import { ScatterChart } from 'echarts/charts'
import { GridComponent } from 'echarts/components'
import { init, use, type ECharts } from 'echarts/core'
import { LabelLayout } from 'echarts/features'
import { CanvasRenderer, SVGRenderer } from 'echarts/renderers'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { blockColour } from '@/parts/BlockStamp.vue'
import { saveBlob } from '@/parts/files/blob'
import { useReview } from '@/state/review'
import type { Area, Candidate } from './candidates'
import { placeNames, type Placed } from './plotNames'

/**
 * Every item as a dot: farther right in more records, higher up more typical. A click selects, a drawn
 * rectangle keeps what lies in it; the list shows the same.
 */
use([ScatterChart, GridComponent, LabelLayout, CanvasRenderer, SVGRenderer])
const props = defineProps<{
  rows: Candidate[]
  selected?: string
  hasContrast: boolean
  area?: Area
}>()
const emit = defineEmits<{ select: [c: Candidate]; area: [a: Area | undefined] }>()

const { t, n } = useI18n()
const review = useReview()
const holder = ref<HTMLElement>()
const chart = shallowRef<ECharts>()
const { width, height } = useElementSize(holder)
const drawn = ref<{ x0: number; y0: number; x1: number; y1: number }>()

// The figures span orders of magnitude; logarithms spread them over the plot.
const right = (records: number) => Math.log(records)
const up = (pull: number) => Math.sign(pull) * Math.log1p(Math.abs(pull))
const down = (y: number) => Math.sign(y) * Math.expm1(Math.abs(y))

function resolve(colour: string): string {
  const name = /var\((--[\w-]+)\)/.exec(colour)?.[1]
  return name && holder.value ? getComputedStyle(holder.value).getPropertyValue(name) : colour
}

const upOf = (c: Candidate) => (props.hasContrast ? up(c.row.pull ?? 0) : (c.row.keys ?? 0))

/** A dot needs no more than a place: items of the same figures are drawn once, the first of them named. */
const dots = computed(() => {
  const seen = new Map<number, Candidate>()
  for (const c of props.rows) {
    const place = c.row.records * 1e6 + Math.round((c.row.pull ?? c.row.keys ?? 0) * 4)
    const has = seen.get(place)
    if (!has || (has.state === 'open' && c.state === 'kept')) seen.set(place, c)
  }
  return [...seen.values()]
})

/** The dots that have names: what is kept, and the first of the others. */
const mostCalled = 24
const firstOnes = 8
const called = computed(() => [
  ...dots.value.filter((c) => c.state === 'kept').slice(0, mostCalled),
  ...dots.value.filter((c) => c.state !== 'kept').slice(0, firstOnes),
])

const option = computed(() => {
  const point = (c: Candidate) => ({ value: [right(c.row.records), upOf(c)] })
  const plain = dots.value.filter((c) => c.state !== 'kept')
  const looks = (c: Candidate) => {
    const block = review.document.blocks.find((b) => b.id === c.blocks[0])
    return block
      ? {
          symbolSize: 8,
          itemStyle: {
            color: resolve(blockColour(block.name)),
            borderColor: '#fff',
            borderWidth: 1,
          },
        }
      : { symbolSize: 4.5, itemStyle: { color: 'rgba(34, 28, 43, 0.4)' } }
  }
  const label = (c: Candidate) => ({
    show: true,
    formatter: short(c),
    position: 'right' as const,
    color: '#221c2b',
    fontFamily: 'Atkinson Hyperlegible Next Variable',
    fontSize: 11.5,
  })
  const named = [...called.value, ...dots.value.filter((c) => c.state === 'kept').slice(mostCalled)]
  return {
    animation: false,
    grid: { left: 26, right: 90, top: 14, bottom: 14 },
    xAxis: {
      type: 'value' as const,
      min: 'dataMin' as const,
      axisLabel: { show: false },
      axisTick: { show: false },
      splitLine: { show: false },
      axisLine: { lineStyle: { color: '#ded7c8' } },
    },
    yAxis: {
      type: 'value' as const,
      min: 'dataMin' as const,
      max: 'dataMax' as const,
      axisLabel: { show: false },
      axisTick: { show: false },
      splitLine: { show: false },
      axisLine: { show: true, lineStyle: { color: '#ded7c8' } },
    },
    series: [
      // Drawn as one shape: thousands of dots that nobody points at one by one.
      {
        type: 'scatter' as const,
        silent: true,
        large: true,
        largeThreshold: 200,
        symbolSize: 4.5,
        itemStyle: { color: 'rgba(34, 28, 43, 0.22)' },
        data: plain.slice(firstOnes).map((c) => [right(c.row.records), upOf(c)]),
      },
      {
        type: 'scatter' as const,
        silent: true,
        z: 4,
        labelLayout: { hideOverlap: true },
        data: named.map((c) => ({ ...point(c), ...looks(c), label: label(c) })).reverse(),
      },
    ],
  }
})
const short = (c: Candidate) => (c.item.length > 26 ? `${c.item.slice(0, 25)}…` : c.item)

/** What is selected, and names, stand on top of the plot, which so is not drawn again with every key press. */
const gold = shallowRef<{ left: string; top: string }>()
const names = shallowRef<(Placed & { selected: boolean })[]>([])
function mark() {
  const at = (c: Candidate) => chart.value?.convertToPixel('grid', [right(c.row.records), upOf(c)])
  const c = props.rows.find((row) => row.key === props.selected)
  const here = c && at(c)
  gold.value = here ? { left: `${here[0]}px`, top: `${here[1]}px` } : undefined
  const named = [
    ...(c ? [c] : []),
    ...called.value.filter((x) => x.key !== props.selected),
  ].flatMap((x) => {
    const place = at(x)
    return place ? [{ x: place[0], y: place[1], text: short(x) }] : []
  })
  names.value = placeNames(named, width.value, height.value, c !== undefined).map((x) => ({
    ...x,
    selected: here !== undefined && x.x === here[0] && x.y === here[1] && x.text === short(c!),
  }))
}

function draw() {
  // On the screen names stand on top; in a saved plot they are part of it.
  const series = option.value.series.map((s) => ({
    ...s,
    data: s.data.map((d) => ('label' in d ? { ...d, label: { show: false } } : d)),
  }))
  chart.value?.setOption({ ...option.value, series }, { replaceMerge: ['series'] })
  mark()
}

onMounted(() => {
  if (!holder.value) return
  chart.value = init(holder.value)
  draw()
})
onBeforeUnmount(() => chart.value?.dispose())
// What the option rests on is watched, not the option: that would work it out with every key press.
watchDebounced(() => [props.rows, props.hasContrast, review.document.blocks], draw, {
  debounce: 120,
  maxWait: 600,
})
watch(() => props.selected, mark)
watch([width, height], () => {
  chart.value?.resize()
  mark()
})

function place(e: PointerEvent): [number, number] {
  const box = holder.value!.getBoundingClientRect()
  return [e.clientX - box.left, e.clientY - box.top]
}

function press(e: PointerEvent) {
  if (e.button !== 0) return
  const [x, y] = place(e)
  drawn.value = { x0: x, y0: y, x1: x, y1: y }
  holder.value?.setPointerCapture(e.pointerId)
}

const near = shallowRef<Candidate>()
function move(e: PointerEvent) {
  const [x, y] = place(e)
  if (drawn.value) drawn.value = { ...drawn.value, x1: x, y1: y }
  near.value = drawn.value ? undefined : closest(x, y)
}

function release() {
  const d = drawn.value
  drawn.value = undefined
  if (!d || !chart.value) return
  if (Math.abs(d.x1 - d.x0) < 5 && Math.abs(d.y1 - d.y0) < 5) {
    const c = closest(d.x0, d.y0)
    if (c) emit('select', c)
    else if (props.area) emit('area', undefined)
    return
  }
  const from = chart.value.convertFromPixel('grid', [Math.min(d.x0, d.x1), Math.max(d.y0, d.y1)])
  const to = chart.value.convertFromPixel('grid', [Math.max(d.x0, d.x1), Math.min(d.y0, d.y1)])
  emit('area', {
    records: [Math.exp(from[0]), Math.exp(to[0])],
    pull: props.hasContrast ? [down(from[1]), down(to[1])] : [-Infinity, Infinity],
  })
}

/** The item within a few pixels of a place. */
function closest(x: number, y: number): Candidate | undefined {
  let best: Candidate | undefined
  let least = 100
  for (const c of dots.value) {
    const at = chart.value?.convertToPixel('grid', [right(c.row.records), upOf(c)])
    if (!at) continue
    const far = (at[0] - x) ** 2 + (at[1] - y) ** 2
    if (far < least) [best, least] = [c, far]
  }
  return best
}

const hint = computed(() => {
  const c = near.value
  if (!c) return t('plot.hint')
  return [
    c.item,
    t('count.records', { n: n(c.row.records, 'whole') }, c.row.records),
    c.row.pull === undefined ? '' : t('plot.pull', { n: n(c.row.pull, 'whole') }),
  ]
    .filter(Boolean)
    .join(' · ')
})
const box = computed(() => {
  const d = drawn.value
  return (
    d && {
      left: `${Math.min(d.x0, d.x1)}px`,
      top: `${Math.min(d.y0, d.y1)}px`,
      width: `${Math.abs(d.x1 - d.x0)}px`,
      height: `${Math.abs(d.y1 - d.y0)}px`,
    }
  )
})

/** Saves the plot as it stands. */
function save(name: string, as: 'png' | 'svg') {
  if (as === 'svg') {
    // Drawn once more, apart: as shapes, each of them by itself.
    const apart = init(null, null, {
      renderer: 'svg',
      ssr: true,
      width: width.value,
      height: height.value,
    })
    const { series, ...rest } = option.value
    apart.setOption({
      ...rest,
      backgroundColor: '#fff',
      series: series.map((s) => ({ ...s, large: false })),
    })
    saveBlob(new Blob([apart.renderToSVGString()], { type: 'image/svg+xml' }), `${name}.svg`)
    apart.dispose()
    return
  }
  chart.value?.setOption(option.value, { replaceMerge: ['series'] })
  chart.value
    ?.renderToCanvas({ pixelRatio: 2, backgroundColor: '#fff' })
    .toBlob((drawn) => drawn && saveBlob(drawn, `${name}.png`), 'image/png')
  draw()
}
defineExpose({ save })
</script>

<template>
  <figure class="plot card" :aria-label="t('plot.label', { n: n(rows.length, 'whole') })">
    <span class="up small" aria-hidden="true">{{
      hasContrast ? t('plot.up') : t('plot.upKeys')
    }}</span>
    <div
      ref="holder"
      class="holder"
      aria-hidden="true"
      @pointerdown="press"
      @pointermove="move"
      @pointerup="release"
      @pointerleave="near = undefined"
    />
    <span
      v-for="x in names"
      :key="x.text"
      class="name"
      :class="{ selected: x.selected }"
      :style="{ left: `${x.left}px`, top: `${x.top}px` }"
      aria-hidden="true"
      >{{ x.text }}</span
    >
    <span v-if="gold" class="gold" :style="{ left: gold.left, top: gold.top }" aria-hidden="true" />
    <div v-if="box" class="box" :style="box" />
    <figcaption class="small">
      <span class="cut">{{ hint }}</span>
      <button v-if="area" class="btn bare" @click="emit('area', undefined)">
        {{ t('plot.clear') }}
      </button>
      <span class="right" aria-hidden="true">{{ t('plot.right') }}</span>
    </figcaption>
  </figure>
</template>

<style scoped>
.plot {
  position: relative;
  margin-top: 10px;
  height: 138px;
  flex: none;
}

.holder {
  position: absolute;
  inset: 0 0 16px;
  touch-action: none;
  cursor: crosshair;
}

.box {
  position: absolute;
  border: 1px solid var(--gold);
  background: color-mix(in srgb, var(--gold-bright) 18%, transparent);
  pointer-events: none;
}

.gold {
  position: absolute;
  pointer-events: none;
}

.gold::before {
  content: '';
  position: absolute;
  left: -6px;
  top: -6px;
  width: 12px;
  height: 12px;
  border-radius: 50%;
  border: 1.2px solid #fff;
  background: var(--gold-bright);
}

.name {
  position: absolute;
  padding: 0 3px;
  font-size: 11.5px;
  line-height: 15px;
  white-space: nowrap;
  pointer-events: none;
}

.name.selected {
  font-weight: 700;
  color: var(--gold-deep);
  background: var(--card);
  border-radius: 3px;
}

.up {
  position: absolute;
  left: -30px;
  top: 44px;
  width: 80px;
  text-align: center;
  transform: rotate(-90deg);
  transform-origin: center;
  font-size: 11px;
}

figcaption {
  position: absolute;
  left: 28px;
  right: 10px;
  bottom: 1px;
  display: flex;
  align-items: center;
  gap: 10px;
  font-size: 11px;
}

figcaption .btn {
  padding: 0 4px;
}

.right {
  margin-left: auto;
  white-space: nowrap;
}
</style>

<script setup lang="ts">
import { useElementSize, watchDebounced } from '@vueuse/core'
import { ScatterChart } from 'echarts/charts'
import { GridComponent } from 'echarts/components'
import { init, use, type ECharts } from 'echarts/core'
import { LabelLayout } from 'echarts/features'
import { CanvasRenderer, SVGRenderer } from 'echarts/renderers'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { saveBlob } from '@/parts/files/blob'
import { useReview } from '@/state/review'
import type { Area, Candidate } from './candidates'
import { saveShapes } from './plotFile'
import { placeNames, type Placed } from './plotNames'
import { calledOf, dotsOf, plotOption, right, short, upOf } from './plotOption'
import { usePlotPointer } from './plotPointer'

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

function resolve(colour: string): string {
  const name = /var\((--[\w-]+)\)/.exec(colour)?.[1]
  return name && holder.value ? getComputedStyle(holder.value).getPropertyValue(name) : colour
}

const dots = computed(() => dotsOf(props.rows))
const called = computed(() => calledOf(dots.value))

const option = computed(() =>
  plotOption(dots.value, review.document.blocks, props.hasContrast, resolve),
)

/** What is selected, and names, stand on top of the plot, which so is not drawn again with every key press. */
const gold = shallowRef<{ left: string; top: string }>()
const names = shallowRef<(Placed & { selected: boolean })[]>([])
function mark() {
  const at = (c: Candidate) =>
    chart.value?.convertToPixel('grid', [right(c.row.records), upOf(c, props.hasContrast)])
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

const { near, box, press, move, release } = usePlotPointer(
  holder,
  chart,
  dots,
  () => props.hasContrast,
  (c) => emit('select', c),
  (a) => (a || props.area) && emit('area', a),
)
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
/** Saves the plot as it stands. */
function save(name: string, as: 'png' | 'svg') {
  if (as === 'svg') return saveShapes(option.value, width.value, height.value, name)
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

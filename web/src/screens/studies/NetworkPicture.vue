<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { computed, ref, watchEffect } from 'vue'
import { useI18n } from 'vue-i18n'
import type { CitationNetwork } from '@/api/client'
import { layOut, marksOf, nearest, pathOf } from './network'

/** Who cites whom over the years: it is moved by dragging and by its keys, and shows what belongs to the work in hand. */
const props = defineProps<Pick<CitationNetwork, 'works' | 'links'>>()
const emit = defineEmits<{ open: [place: number] }>()
const here = defineModel<number>()
const { t } = useI18n()
const width = 1000
const height = 430

const laid = computed(() => layOut(props.works, width, height))
const all = computed(() => pathOf(laid.value.spots, props.links))
const lit = computed(() =>
  here.value === undefined
    ? []
    : props.links.filter(([a, b]) => a === here.value || b === here.value),
)
const marks = computed(() => marksOf(props.works, laid.value.spots, props.works.keys()))
/** What belongs to the work in hand is drawn once more above the others. */
const above = computed(() =>
  here.value === undefined
    ? []
    : marksOf(props.works, laid.value.spots, new Set([...lit.value.flat(), here.value])),
)

// It is drawn larger or smaller about the middle of what shows. While it is moved it is a layer of its own, which is drawn once
// and then only shown at another place; when it comes to rest it is drawn sharp again.
const zoom = ref(1)
const shift = ref({ x: 0, y: 0 }) // in pixels of the picture as it is at first
const moving = ref(false)
const rest = useDebounceFn(() => (moving.value = false), 200)
function move(x: number, y: number) {
  moving.value = true
  void rest()
  shift.value = { x: shift.value.x + x / zoom.value, y: shift.value.y + y / zoom.value }
}
const larger = (by: number) => (zoom.value = Math.min(8, Math.max(1, zoom.value * by)))
let held: { x: number; y: number } | undefined
let dragged = 0 // so far, in pixels: what was dragged is not opened
/** The work under the pointer. */
function under(e: PointerEvent | MouseEvent) {
  const at = stage.value?.getScreenCTM()
  if (!at) return undefined
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(at.inverse())
  return nearest(laid.value.spots, p.x, p.y, 3 / zoom.value)
}
function drag(e: PointerEvent) {
  if (!held) return void (here.value = under(e))
  move(e.clientX - held.x, e.clientY - held.y)
  dragged += Math.hypot(e.clientX - held.x, e.clientY - held.y)
  held = { x: e.clientX, y: e.clientY }
}
function take(e: PointerEvent) {
  held = { x: e.clientX, y: e.clientY }
  dragged = 0
}
function open(e: MouseEvent) {
  const i = dragged < 5 ? under(e) : undefined
  if (i !== undefined) emit('open', i)
}
function keyed(e: KeyboardEvent) {
  const by = { ArrowLeft: [40, 0], ArrowRight: [-40, 0], ArrowUp: [0, 40], ArrowDown: [0, -40] }[
    e.key
  ]
  if (by) move(by[0]!, by[1]!)
  else if (e.key === '+') larger(1.4)
  else if (e.key === '-') larger(1 / 1.4)
  else return
  e.preventDefault()
}
const whole = () => {
  zoom.value = 1
  shift.value = { x: 0, y: 0 }
}
// Set by hand: what is drawn does not change with it, and is not to be compared anew for each step of a drag.
const stage = ref<SVGSVGElement>()
watchEffect(
  () => {
    if (!stage.value) return
    stage.value.style.transform = `scale(${zoom.value}) translate(${shift.value.x}px, ${shift.value.y}px)`
    stage.value.style.willChange = moving.value ? 'transform' : ''
  },
  { flush: 'post' },
)

defineExpose({ larger, whole })
</script>

<template>
  <div
    class="picture"
    :class="{ pointed: here !== undefined }"
    role="img"
    tabindex="0"
    :aria-label="t('found.pictureLabel', { works: works.length, links: links.length })"
    @pointerdown="take"
    @pointermove="drag"
    @pointerup="held = undefined"
    @click="open"
    @pointerleave="((held = undefined), (here = undefined))"
    @keydown="keyed"
  >
    <svg ref="stage" :viewBox="`0 0 ${width} ${height + 26}`">
      <g class="axis">
        <template v-for="y in laid.years" :key="y.year">
          <line :x1="y.x" :x2="y.x" y1="0" :y2="height" />
          <text :x="y.x" :y="height + 20">
            {{ y.year }}
          </text>
        </template>
      </g>
      <g class="all" :class="{ faint: here !== undefined }">
        <path class="links" :d="all" />
        <path v-for="m in marks" :key="m.mark" :class="m.mark" :d="m.d" />
      </g>
      <path class="links lit" :d="pathOf(laid.spots, lit)" />
      <path v-for="m in above" :key="m.mark" :class="m.mark" :d="m.d" />
    </svg>
  </div>
</template>

<style scoped>
.picture {
  overflow: hidden;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--paper, #fffdf8);
  touch-action: none;
  cursor: grab;
}

.picture.pointed {
  cursor: pointer;
}

svg {
  display: block;
  width: 100%;
  max-height: 56vh;
}

.axis line {
  stroke: var(--line-soft);
}

.axis text {
  font: 11px var(--ui);
  fill: var(--ink-2);
  text-anchor: middle;
}

.links {
  fill: none;
  stroke: var(--ink-3);
  stroke-width: 0.5;
  stroke-opacity: 0.28; /* not the whole's: it would be drawn apart first */
}

.links.lit {
  stroke: var(--plum);
  stroke-width: 1.1;
  stroke-opacity: 0.85;
}

.dot {
  fill: var(--ink-3);
  stroke: var(--ink-3);
}

.dot.hollow {
  fill: var(--paper, #fffdf8);
  stroke: var(--miss);
}

.dot.belongs {
  stroke-width: 2.4;
}

svg .key {
  fill: var(--ink);
  stroke: var(--ink);
}

svg .key.hollow {
  fill: var(--paper, #fffdf8);
  stroke: var(--miss);
  stroke-width: 2;
}

.all.faint {
  opacity: 0.25;
}
</style>

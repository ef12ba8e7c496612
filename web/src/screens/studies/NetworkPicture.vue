<script setup lang="ts">
import { computed, ref, watchEffect } from 'vue'
import { useI18n } from 'vue-i18n'
import type { CitationNetwork } from '@/api/client'
import { layOut, pathOf } from './network'

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
const beside = computed(() => new Set(lit.value.flat()))

// It is drawn larger or smaller about its middle.
const zoom = ref(1)
const shift = ref({ x: 0, y: 0 })
const larger = (by: number) => (zoom.value = Math.min(8, Math.max(1, zoom.value * by)))
let held: { x: number; y: number } | undefined
let dragged = 0 // so far, in pixels: what was dragged is not opened
function drag(e: PointerEvent) {
  if (!held) return
  const scale = width / (e.currentTarget as SVGElement).getBoundingClientRect().width
  shift.value = {
    x: shift.value.x + ((e.clientX - held.x) * scale) / zoom.value,
    y: shift.value.y + ((e.clientY - held.y) * scale) / zoom.value,
  }
  dragged += Math.hypot(e.clientX - held.x, e.clientY - held.y)
  held = { x: e.clientX, y: e.clientY }
}
function take(e: PointerEvent) {
  held = { x: e.clientX, y: e.clientY }
  dragged = 0
}
const open = (i: number) => dragged < 5 && emit('open', i)
function keyed(e: KeyboardEvent) {
  const by = { ArrowLeft: [40, 0], ArrowRight: [-40, 0], ArrowUp: [0, 40], ArrowDown: [0, -40] }[
    e.key
  ]
  if (by)
    shift.value = {
      x: shift.value.x + by[0]! / zoom.value,
      y: shift.value.y + by[1]! / zoom.value,
    }
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
const stage = ref<SVGGElement>()
watchEffect(
  () =>
    stage.value?.setAttribute(
      'transform',
      `translate(${width / 2} ${height / 2}) scale(${zoom.value}) translate(${shift.value.x - width / 2} ${shift.value.y - height / 2})`,
    ),
  { flush: 'post' },
)

const side = (i: number) => Math.max(5, Math.min(11, laid.value.spots[i]!.r * 2))

defineExpose({ larger, whole })
</script>

<template>
  <svg
    :viewBox="`0 0 ${width} ${height + 26}`"
    role="img"
    tabindex="0"
    :aria-label="t('found.pictureLabel', { works: works.length, links: links.length })"
    @pointerdown="take"
    @pointermove="drag"
    @pointerup="held = undefined"
    @pointerleave="((held = undefined), (here = undefined))"
    @keydown="keyed"
  >
    <g ref="stage">
      <g class="axis">
        <template v-for="y in laid.years" :key="y.year">
          <line :x1="y.x" :x2="y.x" y1="0" :y2="height" />
          <text :x="y.x" :y="height + 20">
            {{ y.year }}
          </text>
        </template>
      </g>
      <path class="links" :class="{ faint: here !== undefined }" :d="all" />
      <path class="links lit" :d="pathOf(laid.spots, lit)" />
      <template v-for="(w, i) in works" :key="w.record.id">
        <rect
          v-if="w.verdict === 'key'"
          class="key"
          :class="{ hollow: !w.caught, faint: here !== undefined && !beside.has(i) }"
          :x="laid.spots[i]!.x - side(i) / 2"
          :y="laid.spots[i]!.y - side(i) / 2"
          :width="side(i)"
          :height="side(i)"
          rx="2"
          @pointerenter="here = i"
          @click="open(i)"
        />
        <circle
          v-else
          class="dot"
          :class="{
            hollow: !w.caught,
            belongs: w.verdict === 'relevant',
            faint: here !== undefined && !beside.has(i),
          }"
          :cx="laid.spots[i]!.x"
          :cy="laid.spots[i]!.y"
          :r="laid.spots[i]!.r"
          @pointerenter="here = i"
          @click="open(i)"
        />
      </template>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  height: auto;
  max-height: 56vh;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--paper, #fffdf8);
  touch-action: none;
  cursor: grab;
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
  opacity: 0.28;
}

.links.faint {
  opacity: 0.08;
}

.links.lit {
  stroke: var(--plum);
  stroke-width: 1.1;
  opacity: 0.85;
}

.dot {
  fill: var(--ink-3);
  stroke: var(--ink-3);
  cursor: pointer;
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
  cursor: pointer;
}

svg .key.hollow {
  fill: var(--paper, #fffdf8);
  stroke: var(--miss);
  stroke-width: 2;
}

.faint:not(path) {
  opacity: 0.25;
}
</style>

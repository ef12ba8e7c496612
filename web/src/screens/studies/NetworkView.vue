<script setup lang="ts">
import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed, ref, watchEffect } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask } from '@/api/client'
import EmptyState from '@/parts/EmptyState.vue'
import { useReader } from '@/parts/reader'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { layOut, pathOf } from './network'

/** Who cites whom over the years, as a picture and as a table: key studies are squares, those the strategy misses are hollow. */
const { t, n } = useI18n()
const review = useReview()
const reader = useReader()
const problem = useProblem()
const width = 1000
const height = 430

const network = useQuery({
  queryKey: computed(() => ['found', 'network', review.id, review.revision, review.keysStamp]),
  queryFn: () => ask(api.GET('/api/reviews/{review}/found/network', { params: review.asked })),
  enabled: () => review.id > 0,
  placeholderData: keepPreviousData,
})
const works = computed(() => network.data.value?.works ?? [])
const links = computed(() => network.data.value?.links ?? [])
const laid = computed(() => layOut(works.value, width, height))
const all = computed(() => pathOf(laid.value.spots, links.value))
const here = ref<number>()
const lit = computed(() =>
  here.value === undefined
    ? []
    : links.value.filter(([a, b]) => a === here.value || b === here.value),
)
const beside = computed(() => new Set(lit.value.flat()))

// The picture is moved by dragging and by its keys, and drawn larger or smaller about its middle.
const zoom = ref(1)
const shift = ref({ x: 0, y: 0 })
const larger = (by: number) => (zoom.value = Math.min(8, Math.max(1, zoom.value * by)))
let held: { x: number; y: number } | undefined
function drag(e: PointerEvent) {
  if (!held) return
  const scale = width / (e.currentTarget as SVGElement).getBoundingClientRect().width
  shift.value = {
    x: shift.value.x + ((e.clientX - held.x) * scale) / zoom.value,
    y: shift.value.y + ((e.clientY - held.y) * scale) / zoom.value,
  }
  held = { x: e.clientX, y: e.clientY }
}
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

const rows = computed(() =>
  works.value
    .map((w, i) => ({ ...w, i, cites: links.value.filter(([a]) => a === i).length }))
    .sort((a, b) => b.cited + b.cites - (a.cited + a.cites)),
)
const several = 100
const shown = ref(several)
const open = (i: number) => reader.one(works.value[i]!.record.id, works.value[i]!.record.title)
</script>

<template>
  <div>
    <p v-if="network.error.value" class="wrong" role="alert">{{ problem(network.error.value) }}</p>
    <EmptyState
      v-else-if="network.data.value && !links.length"
      :title="t('found.noLinks')"
      :text="t('found.noneYetText')"
    />
    <template v-else-if="network.data.value">
      <div class="row head">
        <p class="small">
          {{
            t('found.network', {
              works: n(works.length, 'whole'),
              of: n(network.data.value.of, 'whole'),
              links: n(links.length, 'whole'),
            })
          }}
        </p>
        <span class="grow" />
        <span class="row small legend">
          <i class="key" />{{ t('found.legendKey') }} <i class="key hollow" />{{
            t('found.legendMissed')
          }}
          <i class="dot" />{{ t('found.legendWork') }} <i class="dot hollow" />{{
            t('found.legendWorkMissed')
          }}
        </span>
        <button class="btn outline" :aria-label="t('found.larger')" @click="larger(1.4)">+</button>
        <button class="btn outline" :aria-label="t('found.smaller')" @click="larger(1 / 1.4)">
          −
        </button>
        <button class="btn bare" @click="whole">{{ t('found.wholePicture') }}</button>
      </div>
      <svg
        :viewBox="`0 0 ${width} ${height + 26}`"
        role="img"
        tabindex="0"
        :aria-label="t('found.pictureLabel', { works: works.length, links: links.length })"
        @pointerdown="held = { x: $event.clientX, y: $event.clientY }"
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
      <p class="small told" aria-hidden="true">
        <template v-if="here !== undefined"
          ><b>{{ works[here]!.record.title }}</b> {{ works[here]!.record.byline }}
          {{ works[here]!.record.year || '' }},
          {{ t('found.citedHere', { n: works[here]!.cited }, works[here]!.cited) }}</template
        >
        <template v-else>{{ t('found.pointAt') }}</template>
      </p>
      <table class="figures">
        <thead>
          <tr>
            <th class="left">{{ t('found.worksHead') }}</th>
            <th>{{ t('keys.year') }}</th>
            <th>{{ t('found.cites') }}</th>
            <th>{{ t('found.citedBy') }}</th>
            <th class="left">{{ t('found.isWhat') }}</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="w in rows.slice(0, shown)"
            :key="w.record.id"
            @pointerenter="here = w.i"
            @pointerleave="here = undefined"
          >
            <td class="left">
              <button class="link" @click="open(w.i)">{{ w.record.title }}</button>
              <div class="small">{{ w.record.byline }}</div>
            </td>
            <td>{{ w.record.year || '–' }}</td>
            <td>{{ w.cites }}</td>
            <td>{{ w.cited }}</td>
            <td class="left small">
              {{ w.verdict ? t(`found.verdict.${w.verdict}`) : t('found.verdict.open') }},
              {{ t(w.caught ? 'strip.caught' : 'strip.missed') }}
            </td>
          </tr>
        </tbody>
      </table>
      <button v-if="rows.length > shown" class="btn bare" @click="shown += several">
        {{ t('found.more', { n: n(rows.length - shown, 'whole') }) }}
      </button>
    </template>
  </div>
</template>

<style scoped>
.head {
  flex-wrap: wrap;
  gap: 4px 10px;
}

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

.legend {
  gap: 4px 6px;
  flex-wrap: wrap;
}

.legend i {
  width: 11px;
  height: 11px;
  display: inline-block;
  background: var(--ink);
  border: 1.5px solid var(--ink);
  margin-left: 6px;
}

.legend .key {
  border-radius: 3px;
}

.legend .dot {
  border-radius: 50%;
  background: var(--ink-3);
  border-color: var(--ink-3);
}

.legend .hollow {
  background: none;
  border-color: var(--miss);
}

.told {
  min-height: 20px;
}

.wrong {
  color: var(--miss);
}
</style>

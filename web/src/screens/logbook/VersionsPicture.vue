<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Version } from '@/api/client'
import { useVersionName } from './versions'

/** How the search came to be: each version by what there is to read and what it catches, joined in the order of time. */
const props = defineProps<{ versions: Version[]; keys: number; chosen: number[] }>()
const emit = defineEmits<{ choose: [revision: number] }>()
const { t, n } = useI18n()
const named = useVersionName()

const width = 620
const height = 170
const left = 44
const right = 24
const top = 14
const bottom = 34

const shown = computed(() => props.versions.filter((v) => v.records !== undefined))
/** What the axes span: the marks with some room, so that small steps are seen; never beyond what there can be. */
const across = computed(() =>
  span(
    shown.value.map((v) => v.records!),
    Infinity,
    10,
  ),
)
const upward = computed(() =>
  span(
    shown.value.map((v) => v.caught),
    props.keys,
    2,
  ),
)
function span(of: number[], top: number, least: number) {
  const low = Math.min(...of)
  const high = Math.max(...of)
  const room = Math.max(least, (high - low) * 0.15)
  return { low: Math.max(0, Math.floor(low - room)), high: Math.min(top, Math.ceil(high + room)) }
}
const x = (records: number) =>
  left +
  ((records - across.value.low) / (across.value.high - across.value.low || 1)) *
    (width - left - right)
const y = (caught: number) =>
  height -
  bottom -
  ((caught - upward.value.low) / (upward.value.high - upward.value.low || 1)) *
    (height - top - bottom)
const marks = computed(() =>
  shown.value.map((v, i) => ({
    v,
    x: x(v.records!),
    y: y(v.caught),
    number: i + 1,
    label: t('versions.mark', {
      name: named(v),
      records: n(v.records!, 'whole'),
      caught: v.caught,
      keys: props.keys,
    }),
  })),
)
const path = computed(() =>
  marks.value.map((m, i) => `${i ? 'L' : 'M'}${m.x.toFixed(1)} ${m.y.toFixed(1)}`).join(''),
)
const ends = (of: { low: number; high: number }) => [
  ...new Set([of.low, Math.round((of.low + of.high) / 2), of.high]),
]
const steps = computed(() => ends(across.value))
const levels = computed(() => ends(upward.value))
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" role="group" :aria-label="t('versions.picture')">
    <g class="axis">
      <template v-for="s in steps" :key="`x${s}`">
        <path :d="`M${x(s)} ${top}V${height - bottom}`" />
        <text :x="x(s)" :y="height - bottom + 14" text-anchor="middle">{{ n(s, 'whole') }}</text>
      </template>
      <template v-for="l in levels" :key="`y${l}`">
        <path :d="`M${left} ${y(l)}H${width - right}`" />
        <text :x="left - 8" :y="y(l) + 4" text-anchor="end">{{ l }}</text>
      </template>
      <text :x="width - right" :y="height - 4" text-anchor="end">{{ t('versions.toRead') }}</text>
      <text :x="left - 30" :y="height - 4">{{ t('versions.upKeys') }}</text>
    </g>
    <path :d="path" class="way" />
    <g
      v-for="m in marks"
      :key="m.v.revision"
      class="mark"
      :class="{ by: m.v.why, chosen: chosen.includes(m.v.revision), now: m.v.current }"
      role="button"
      tabindex="0"
      :aria-label="m.label"
      :aria-pressed="chosen.includes(m.v.revision)"
      @click="emit('choose', m.v.revision)"
      @keydown.enter="emit('choose', m.v.revision)"
      @keydown.space.prevent="emit('choose', m.v.revision)"
    >
      <title>{{ m.label }}</title>
      <circle :cx="m.x" :cy="m.y" r="8" />
      <text :x="m.x" :y="m.y + 3.5" text-anchor="middle">{{ m.number }}</text>
    </g>
  </svg>
</template>

<style scoped>
svg {
  width: 100%;
  max-width: 760px;
}

.axis path {
  stroke: var(--line-soft);
  fill: none;
}

text {
  font-size: 11px;
  fill: var(--ink-2);
}

.way {
  fill: none;
  stroke: var(--ink-3);
  stroke-width: 1.5;
}

.mark {
  cursor: pointer;
}

.mark circle {
  fill: var(--plum);
  stroke: var(--paper);
  stroke-width: 2;
}

.mark text {
  fill: #fff;
  font-weight: 650;
  font-size: 10px;
}

.mark.by circle {
  fill: var(--paper);
  stroke: var(--plum);
}

.mark.by text {
  fill: var(--plum);
}

.mark.now circle {
  fill: var(--gold);
}

.mark.now text {
  fill: var(--ink);
}

.mark.chosen circle {
  stroke: var(--gold-deep);
  stroke-width: 3;
}
</style>

<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Pruning } from '@/api/client'

/** Pruning as a curve of records against terms; a point is marked while it is rested on. */
const props = defineProps<{ pruning: Pruning; at?: number }>()

const { t, n } = useI18n()

// The curve, in a box of 100 by 40: terms go from left to right, records stay above.
const all = computed(() => [props.pruning.records, ...props.pruning.steps.map((s) => s.left)])
// Where few are lost the curve begins high: the axis says from where.
const low = computed(() => Math.floor(Math.min(...all.value) * 0.98))
const points = computed(() => {
  const most = Math.max(1, props.pruning.records)
  return all.value.map((left, i) => ({
    x: 2 + (i / Math.max(1, props.pruning.terms)) * 96,
    y: 36 - ((left - low.value) / Math.max(1, most - low.value)) * 32,
  }))
})
const line = computed(() =>
  points.value
    .map((p, i) =>
      i ? `L${p.x.toFixed(2)} ${p.y.toFixed(2)}` : `M${p.x.toFixed(2)} ${p.y.toFixed(2)}`,
    )
    .join(''),
)
</script>

<template>
  <div>
    <p class="row axes small" aria-hidden="true">
      <span>{{ n(pruning.records, 'whole') }} {{ t('prune.up') }}</span>
    </p>
    <svg
      viewBox="0 0 100 40"
      class="curve"
      role="img"
      :aria-label="t('prune.curve')"
      preserveAspectRatio="none"
    >
      <path d="M2 2V37H98" class="axis" vector-effect="non-scaling-stroke" />
      <path :d="line" class="line" vector-effect="non-scaling-stroke" />
      <path
        v-if="at !== undefined && points[at + 1]"
        :d="`M${points[at + 1].x} 2V37`"
        class="here"
        vector-effect="non-scaling-stroke"
      />
    </svg>
    <p class="row axes small" aria-hidden="true">
      <span>{{ n(low, 'whole') }}</span><span class="grow" /><span
        >{{ t('prune.right') }} {{ n(pruning.terms, 'whole') }}</span
      >
    </p>
  </div>
</template>

<style scoped>
.curve {
  width: 100%;
  height: 130px;
}

.axis,
.here {
  fill: none;
  stroke: var(--line);
}

.here {
  stroke: var(--gold);
  stroke-dasharray: 3 3;
}

.line {
  fill: none;
  stroke: var(--plum);
  stroke-width: 2;
}

.axes {
  font-size: 11px;
}
</style>

<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Plan } from '@/api/client'

/** A plan as a curve: key studies caught against records to read. */
const props = defineProps<{ plan: Plan }>()

const { t } = useI18n()

// The curve, in a box of 100 by 60.
const points = computed(() => {
  const all = [{ hits: props.plan.hits, caught: props.plan.caught }, ...props.plan.steps]
  const least = all[0].hits
  const most = Math.max(all.at(-1)!.hits, least + 1)
  const of = Math.max(1, props.plan.of)
  return all.map((p) => ({
    x: 3 + ((p.hits - least) / (most - least)) * 92,
    y: 56 - (p.caught / of) * 52,
  }))
})
const line = computed(() =>
  points.value
    .map((p, i) =>
      i ? `H${p.x.toFixed(2)}V${p.y.toFixed(2)}` : `M${p.x.toFixed(2)} ${p.y.toFixed(2)}`,
    )
    .join(''),
)
</script>

<template>
  <svg
    viewBox="0 0 100 60"
    class="curve"
    role="img"
    :aria-label="t('plan.curve')"
    preserveAspectRatio="none"
  >
    <path d="M3 4V56H97" class="axis" vector-effect="non-scaling-stroke" />
    <path :d="line" class="line" vector-effect="non-scaling-stroke" />
  </svg>
  <p class="row axes small" aria-hidden="true">
    <span>{{ t('plan.up') }}</span><span class="grow" /><span>{{ t('plan.right') }}</span>
  </p>
</template>

<style scoped>
.curve {
  width: 100%;
  height: 120px;
  margin-top: 10px;
}

.axis {
  fill: none;
  stroke: var(--line);
  stroke-width: 1;
}

.line {
  fill: none;
  stroke: var(--plum);
  stroke-width: 2;
}

.axes {
  font-size: 11px;
  margin-bottom: 8px;
}
</style>

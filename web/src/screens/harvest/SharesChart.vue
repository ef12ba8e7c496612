<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { TallyRow } from '@/api/client'

/** The largest rows as bars, drawn to be saved: it is not shown. */
const props = defineProps<{ rows: TallyRow[] }>()

const { n } = useI18n()
const drawn = ref<SVGSVGElement>()
const largest = computed(() => props.rows.slice(0, 30))
const most = computed(() => Math.max(1, ...props.rows.map((r) => r.records)))
const height = computed(() => largest.value.length * 24 + 8)

defineExpose({ drawn })
</script>

<template>
  <svg
    ref="drawn"
    class="hidden"
    aria-hidden="true"
    width="640"
    :height="height"
    :viewBox="`0 0 640 ${height}`"
  >
    <g v-for="(r, i) in largest" :key="r.item" font-family="sans-serif" font-size="13">
      <text x="196" :y="i * 24 + 19" text-anchor="end">{{ r.item.slice(0, 30) }}</text>
      <rect x="204" :y="i * 24 + 6" :width="(r.records / most) * 360" height="16" fill="#6b2d5c" />
      <text :x="212 + (r.records / most) * 360" :y="i * 24 + 19">{{ n(r.records, 'whole') }}</text>
    </g>
  </svg>
</template>

<style scoped>
.hidden {
  position: absolute;
  left: -9999px;
}
</style>

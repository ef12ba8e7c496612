<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { saveChart } from './chartFile'

/** Saves the chart of a view as it stands. */
const props = defineProps<{ name: string; svg: () => SVGSVGElement | undefined }>()
const { t } = useI18n()

function save(as: 'svg' | 'png') {
  const drawn = props.svg()
  if (drawn) void saveChart(drawn, props.name, as)
}
</script>

<template>
  <p class="small chart">
    {{ t('shape.saveChart') }}
    <button class="btn bare" @click="save('svg')">{{ t('shape.svg') }}</button><button
      class="btn bare"
      @click="save('png')"
    >
      {{ t('shape.png') }}
    </button>
  </p>
</template>

<style scoped>
.chart {
  margin-top: 14px;
}
</style>

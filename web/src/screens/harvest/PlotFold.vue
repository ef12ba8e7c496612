<script setup lang="ts">
import { useI18n } from 'vue-i18n'

/** Folds the plot away, and back. */
const plotted = defineModel<boolean>({ required: true })
const { t } = useI18n()
</script>

<template>
  <button
    class="btn bare"
    :aria-expanded="plotted"
    :aria-label="t('plot.foldTip')"
    :title="t('plot.foldTip')"
    @click="plotted = !plotted"
  >
    {{ t(plotted ? 'plot.fold' : 'plot.unfold') }}
  </button>
</template>

<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import PartTabs from '@/parts/PartTabs.vue'
import DialectsView from './DialectsView.vue'
import EverywhereView from './EverywhereView.vue'
import LinesView from './LinesView.vue'
import PasteView from './PasteView.vue'

/** The strategy as lines that leave the house, run everywhere, and queries that come in. */
const { t } = useI18n()
const parts = {
  lines: LinesView,
  everywhere: EverywhereView,
  paste: PasteView,
  dialects: DialectsView,
}
</script>

<template>
  <PartTabs :label="t('strategy.partsOf')" words="strategy.part" :parts="parts" />
</template>

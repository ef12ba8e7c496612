<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import PartTabs from '@/parts/PartTabs.vue'
import CameFrom from './CameFrom.vue'
import FindMore from './FindMore.vue'
import NetworkView from './NetworkView.vue'
import SaysView from './SaysView.vue'

/** Where key studies come from: ways of looking beside the strategy, what they brought, and what that says of the search. */
const { t } = useI18n()
const parts = { find: FindMore, studies: CameFrom, network: NetworkView, says: SaysView }
</script>

<template>
  <PartTabs :label="t('found.partsOf')" words="found.part" :parts="parts" />
</template>

<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import PartTabs from '@/parts/PartTabs.vue'
import AgainView from './AgainView.vue'
import CheckView from './CheckView.vue'
import RecordView from './RecordView.vue'
import RunsView from './RunsView.vue'
import TalkView from './TalkView.vue'
import VersionsView from './VersionsView.vue'

/** What was done, as it can be shown: versions, runs, what runs again, and the written record of the search. */
const { t } = useI18n()
const parts = {
  versions: VersionsView,
  runs: RunsView,
  again: AgainView,
  check: CheckView,
  notes: TalkView,
  record: RecordView,
}
</script>

<template>
  <PartTabs :label="t('logbook.partsOf')" words="logbook.part" :parts="parts" />
</template>

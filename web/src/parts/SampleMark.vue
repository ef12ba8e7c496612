<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import { useSources } from '@/state/sources'

/** The one quiet mark of a figure that is over the sample while counts of a source are shown. */
const { t } = useI18n()
const sources = useSources()
</script>

<template>
  <span
    v-if="sources.chosen"
    class="mark"
    role="img"
    :aria-label="t('free.mark', { source: sources.chosen.name })"
    :title="t('free.mark', { source: sources.chosen.name })"
    >◦</span
  >
</template>

<style scoped>
.mark {
  margin-left: 3px;
  color: var(--ink-2);
  font-weight: 400;
  cursor: help;
}
</style>

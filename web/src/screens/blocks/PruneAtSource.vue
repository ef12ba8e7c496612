<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Block, Over } from '@/api/client'
import { useSources } from '@/state/sources'
import type { usePruneAtSource } from './pruneAtSource'

/** What the terms that can go would cost at the source: by which records it was told so far, and the press that asks. */
defineProps<{
  there: ReturnType<typeof usePruneAtSource>
  block: Block
  steps: number
  over: Over
}>()
const { t, n } = useI18n()
const sources = useSources()
</script>

<template>
  <div class="row at">
    <template v-if="there.asking.value">
      <v-progress-linear
        class="asked"
        :model-value="(100 * there.asked.value) / (steps + 1)"
        color="primary"
        :aria-label="t('prune.asking', { n: there.asked.value, of: steps + 1 })"
      />
      <span class="small" role="status">{{
        t('prune.asking', { n: there.asked.value, of: steps + 1 })
      }}</span>
      <button class="btn bare" @click="there.stop()">{{ t('act.cancel') }}</button>
    </template>
    <p v-else-if="there.losses.value.length && sources.chosen" role="status">
      {{
        t('prune.atWhole', {
          source: sources.chosen.name,
          now: n(there.counts.value[0], 'whole'),
          left: n(there.counts.value.at(-1)!, 'whole'),
        })
      }}
    </p>
    <template v-else>
      <p class="small">
        {{ t('prune.sampleOnly', { n: n(over.records, 'whole'), block: block.name }) }}
      </p>
      <button v-if="sources.chosen" class="btn outline" @click="there.start()">
        {{ t('prune.ask', { source: sources.chosen.name }) }}
      </button>
    </template>
  </div>
  <p v-if="there.failed.value" class="wrong" role="alert">{{ there.failed.value }}</p>
</template>

<style scoped>
.at {
  gap: 12px;
  margin: 6px 0;
}

.asked {
  max-width: 220px;
}
</style>

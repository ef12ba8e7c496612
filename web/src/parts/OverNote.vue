<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, Over } from '@/api/client'
import { useSources } from '@/state/sources'
import { useDrawFree } from './drawFree'

/** By which records is told what a block lacks or could do without; where its own words chose all there are, how to draw others. */
const props = defineProps<{ block: Block; over?: Over; about?: string }>()
const { t, n } = useI18n()
const sources = useSources()
const free = useDrawFree(() => props.block)
const under = computed(
  () => free.draw.value && !['done', 'failed', 'stopped'].includes(free.draw.value.state),
)
</script>

<template>
  <p v-if="over" class="small over">
    <template v-if="about">{{ about }}{{ ' ' }}</template
    >{{
      t(
        `free.${over.how}`,
        { n: n(over.records, 'whole'), from: over.from.join(', '), block: block.name },
        over.records,
      )
    }}<template v-if="sources.chosen">
      {{ ' ' }}{{ t('free.notAt', { source: sources.chosen.name }) }}</template
    >
  </p>
  <div v-else class="over none" role="status">
    <p>{{ t('free.none', { block: block.name }) }}</p>
    <p v-if="under" class="small">
      {{
        t('free.drawing', {
          got: n(free.draw.value!.got, 'whole'),
          wanted: n(free.draw.value!.wanted, 'whole'),
        })
      }}
    </p>
    <button v-else-if="free.source.value" class="btn outline" @click="free.begin()">
      {{
        free.concepts.value.length
          ? t('free.draw', {
              blocks: free.concepts.value.map((c) => c.name).join(', '),
              source: free.source.value.name,
            })
          : t('free.drawRandom', { source: free.source.value.name })
      }}
    </button>
    <p v-if="free.failed.value" class="wrong" role="alert">{{ free.failed.value }}</p>
  </div>
</template>

<style scoped>
.over {
  margin: 6px 0 0;
  color: var(--ink-2);
}

.none {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 14px;
  padding: 8px 12px;
  border: 1px dashed var(--gold);
  border-radius: 5px;
  color: var(--ink);
}

.none p {
  flex: 1 1 320px;
}
</style>

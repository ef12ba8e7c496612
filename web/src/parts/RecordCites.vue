<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { MarkedRecord } from '@/api/client'
import { useReview } from '@/state/review'
import { useReader } from './reader'

/** What a record cites and how often it is cited, where its source says so; from there a round goes on. */
defineProps<{ record: MarkedRecord }>()
const { t, n } = useI18n()
const review = useReview()
const reader = useReader()
</script>

<template>
  <div v-if="record.cites || record.timesCited !== undefined" class="cites">
    <h4 class="sect">{{ t('record.cites') }}</h4>
    <p class="small row">
      <span v-if="record.timesCited !== undefined">{{
        t('record.timesCited', { n: n(record.timesCited, 'whole') }, record.timesCited)
      }}</span>
      <router-link
        class="link"
        :to="{
          name: 'studies',
          params: { review: review.id },
          query: { way: 'both', of: JSON.stringify({ kind: 'picked', ids: [record.id] }) },
        }"
        @click="reader.open = false"
        >{{ t('record.follow') }}</router-link
      >
    </p>
    <details v-if="record.cites">
      <summary class="small">
        {{ t('record.references', { n: n(record.cites, 'whole') }, record.cites) }}
      </summary>
      <ol class="small">
        <li v-for="(line, i) in record.references" :key="i">{{ line }}</li>
      </ol>
      <p v-if="record.references.length < record.cites" class="small">
        {{ t('record.more', { n: n(record.cites - record.references.length, 'whole') }) }}
      </p>
    </details>
  </div>
</template>

<style scoped>
h4 {
  margin: 14px 0 4px;
}

.row {
  gap: 14px;
}

summary {
  cursor: pointer;
}

ol {
  max-width: 68ch;
  padding-left: 26px;
  margin: 6px 0;
}

li {
  margin: 2px 0;
  overflow-wrap: anywhere;
}
</style>

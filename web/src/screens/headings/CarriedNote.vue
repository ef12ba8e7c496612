<script setup lang="ts">
import { useI18n } from 'vue-i18n'
import type { Headings, RecordSet } from '@/api/client'
import { useThrough } from './through'

/** Of how many records that say the words the headings are told, and how many of those carry none. */
defineProps<{ found: Headings; saying: RecordSet; bare: RecordSet }>()

const { n } = useI18n()
const through = useThrough()
</script>

<template>
  <p class="small start">
    <i18n-t keypath="headings.carriedNote" :plural="found.saying" scope="global">
      <template #n
        ><button
          class="link under"
          :disabled="found.said.length !== 1"
          @click="through.list(saying, found.said.join(', '))"
        >
          {{ n(found.saying, 'whole') }}
        </button></template
      >
      <template #words>{{ found.said.join(', ') }}</template>
      <template #without
        ><button
          class="link under"
          :disabled="found.said.length !== 1 || !found.without"
          @click="through.list(bare, found.said.join(', '))"
        >
          {{ n(found.without, 'whole') }}
        </button></template
      >
    </i18n-t>
  </p>
</template>

<style scoped>
.start {
  padding: 8px 10px;
}

.under {
  text-decoration: underline;
}
</style>

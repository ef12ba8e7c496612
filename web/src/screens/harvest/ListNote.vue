<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Tally } from '@/api/client'
import { useReader } from '@/parts/reader'

/** What a list does not tell of by itself: records without headings, and records in a language whose words are not folded. */
const props = defineProps<{ tally: Tally }>()

const { t, n } = useI18n()
const reader = useReader()

/** Headings lag behind: how many records have none, and where most of them are. */
const unindexed = computed(() => {
  if (props.tally.unindexedShare === undefined) return ''
  const last = props.tally.unindexed?.filter((y) => y.year > 0).at(-1)
  const all = t('harvest.unindexed', { share: n(props.tally.unindexedShare, 'share') })
  return last
    ? `${all} ${t('harvest.unindexedLast', { year: last.year, n: n(last.unindexed, 'whole'), of: n(last.records, 'whole') })}`
    : all
})

/** Word lists are English: where many records are in other languages, that is said. */
const foreign = computed(() => {
  const other = props.tally.foreign ?? 0
  return other > props.tally.looked * 0.2
    ? t('harvest.foreign', { n: n(other, 'whole') }, other)
    : ''
})
</script>

<template>
  <p v-if="unindexed || foreign" class="small told">
    {{ unindexed || foreign }}
    <button
      v-if="unindexed && tally.missing"
      class="link"
      @click="
        reader.list(
          { kind: 'aspect', facet: 'headings', aspect: 'missing' },
          t('looked.missing', { facet: t('facet.headings') }),
        )
      "
    >
      {{ t('harvest.showThem') }}
    </button>
  </p>
</template>

<style scoped>
.told {
  margin-top: 6px;
}

.link {
  text-decoration: underline;
  text-decoration-color: var(--sand);
}
</style>

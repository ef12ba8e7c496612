<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import { useBench } from '@/state/bench'

/** What a limit would lose: of what is looked at, of the key studies, and of what is to be read. */
const props = defineProps<{
  title: string
  records: number
  of: number
  missing: number
  keys?: number
  ofKeys?: number
  source?: number
  sourceName?: string
  counting: boolean
  /** It is not set yet: what it would change can be told. */
  resting: boolean
}>()

const { t, n } = useI18n()
const bench = useBench()
const reading = computed(() => ({ from: bench.now?.records, to: bench.ahead?.records }))
const share = computed(() => (props.of ? props.records / props.of : 0))
</script>

<template>
  <section class="cost" role="status">
    <h2>{{ title }}</h2>
    <p><b>{{ t('shape.records', { n: n(records, 'whole'), of: n(of, 'whole'), share: n(share, 'share') }, records) }}</b></p>
    <p v-if="missing" class="small">{{ t('shape.ofThem', { n: n(missing, 'whole') }) }}</p>
    <p v-if="ofKeys !== undefined" :class="{ wrong: keys }">{{ t('shape.keys', { n: keys ?? 0, of: ofKeys }) }}</p>
    <dl v-if="resting" class="small">
      <template v-if="reading.from !== undefined"><dt>{{ t('shape.reading') }}</dt><dd>{{ reading.to === undefined ? t('shape.counting') : t('shape.now', { from: n(reading.from, 'whole'), to: n(reading.to, 'whole') }) }}</dd></template>
      <template v-if="sourceName"><dt>{{ t('shape.atSource', { source: sourceName }) }}</dt><dd>{{ source !== undefined ? n(source, 'whole') : counting ? t('shape.counting') : '–' }}</dd></template>
    </dl>
  </section>
</template>

<style scoped>
h2 {
  font-size: 13.5px;
  font-weight: 650;
}

.wrong {
  color: var(--miss);
}

dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  margin-top: 6px;
}

dd {
  margin: 0;
}
</style>

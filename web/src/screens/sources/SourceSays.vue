<script setup lang="ts">
import { computed } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Source } from '@/api/client'
import { useReview } from '@/state/review'
import { useVocabularies } from '@/state/vocabularies'

/** What a source offers and lacks, and whose headings its records carry. */
const props = defineProps<{ source: Source }>()
const emit = defineEmits<{ vocabulary: [name: string] }>()

const { t } = useI18n()
const review = useReview()
const features = [
  'near',
  'ends',
  'inside',
  'narrower',
  'central',
  'qualify',
  'sort',
  'scan',
] as const
/** What a source may say of citations. */
const links = ['cites', 'citedBy', 'timesCited']
const offers = computed(() => {
  const s = props.source
  return [
    ...Object.keys(s.map.indexes)
      .map((f) => t(`sources.fieldName.${f}`))
      .sort(),
    ...features.filter((f) => s.map[f]).map((f) => t(`sources.can_.${f}`)),
  ]
})
const lacks = computed(() => {
  const s = props.source
  return [
    ...[...s.lacks, ...links.filter((f) => !s.map.indexes[f])].map((f) =>
      t(`sources.fieldName.${f}`),
    ),
    ...features.filter((f) => !s.map[f]).map((f) => t(`sources.cannot.${f}`)),
  ]
})
/** The vocabularies that a source can be tied to: those that the program has, and the one that it is tied to. */
const { vocabularies } = useVocabularies()
const vocabularyNames = computed(() =>
  [
    ...new Set([
      ...vocabularies.value.map((v) => v.name),
      ...(props.source.vocabulary ? [props.source.vocabulary] : []),
    ]),
  ].sort(),
)
const here = computed(
  () => !!props.source.vocabulary && review.vocabulary?.name === props.source.vocabulary,
)
</script>

<template>
  <dl class="says">
    <dt class="sect">{{ t('sources.offers') }}</dt>
    <dd>{{ offers.join(' · ') }}</dd>
    <dt class="sect">{{ t('sources.lacks') }}</dt>
    <dd class="lack">{{ lacks.length ? lacks.join(' · ') : '–' }}</dd>
    <dt class="sect">{{ t('sources.vocabulary') }}</dt>
    <dd>
      <select
        class="field vocabulary"
        :aria-label="t('sources.vocabularyOf', { source: source.name })"
        :value="source.vocabulary"
        @change="emit('vocabulary', ($event.target as HTMLSelectElement).value)"
      >
        <option value="">{{ t('sources.noVocabulary') }}</option>
        <option v-for="v in vocabularyNames" :key="v" :value="v">{{ v }}</option>
      </select>
      <span v-if="source.vocabulary" class="small">{{
        t(here ? 'sources.inReview' : 'sources.notInReview')
      }}</span>
    </dd>
  </dl>
</template>

<style scoped>
.vocabulary {
  width: auto;
  max-width: 260px;
  margin-right: 8px;
}

.says {
  display: grid;
  grid-template-columns: 96px minmax(0, 1fr);
  gap: 6px 12px;
  align-items: baseline;
  margin-bottom: 14px;
}

dd {
  margin: 0;
}

.lack {
  color: var(--ink-2);
}
</style>

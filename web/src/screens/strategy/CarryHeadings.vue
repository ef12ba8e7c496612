<script setup lang="ts">
import { computed, ref } from 'vue'
import { useI18n } from 'vue-i18n'
import { api, ask, type TypedStrategy } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useAsked } from '@/parts/asked'
import { useProblem } from '@/state/problem'
import { newTerm, useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import CarryHeading from './CarryHeading.vue'

/** The headings in the vocabulary of another source: each is accepted or declined, and remembered for the next review. */
const props = defineProps<{ carry: NonNullable<TypedStrategy['carry']>; dialect: string }>()
const { t, n } = useI18n()
const review = useReview()
const problem = useProblem()
const sources = useSources()
const wrong = ref('')

/** What records of the source carry that say the words of the headings: told apart, it takes longer. */
const said = useFigure(
  figures.counterparts,
  () => ({ dialect: props.dialect, headings: props.carry.headings.map((h) => h.heading) }),
  { enabled: () => props.carry.there },
)
const saidOf = (heading: string) => said.data.value?.headings.find((h) => h.heading === heading)
/** What the source itself finds for what is proposed: asked a few at a time, of the first source that goes by the vocabulary. */
const place = computed(() => sources.on.find((s) => s.vocabulary === props.carry.vocabulary))
const labels = computed(() => [
  ...new Set(
    props.carry.headings.flatMap((h) => [
      ...h.stands,
      ...h.proposals.map((p) => p.heading),
      ...(saidOf(h.heading)?.found.map((f) => f.heading) ?? []),
    ]),
  ),
])
const keyOf = (label: string) => `${place.value?.id} ${label}`
const asked = useAsked(
  computed(() => (place.value ? labels.value.map(keyOf) : [])),
  4,
  (of) =>
    ask(
      api.POST('/api/reviews/{review}/count-terms', {
        params: {
          ...review.asked,
          query: { ...review.asked.query, source: place.value!.id },
        },
        body: of.map((key) => newTerm({ kind: 'heading', heading: key.slice(keyOf('').length) })),
      }),
    ),
)
const there = (label: string) => asked.of(keyOf(label))?.count?.records

async function decide(heading: string, stands: string, forget: boolean) {
  wrong.value = ''
  try {
    await ask(
      api.POST('/api/reviews/{review}/counterparts', {
        params: { path: { review: review.id } },
        body: { heading, vocabulary: props.carry.vocabulary, stands, forget },
      }),
    )
    sources.fresh(figures.typedIn, figures.lines, figures.counts, figures.everywhere)
  } catch (error) {
    wrong.value = problem(error)
  }
}
</script>

<template>
  <section class="card" :aria-label="t('carry.title', { vocabulary: carry.vocabulary })">
    <h2 class="sect">{{ t('carry.title', { vocabulary: carry.vocabulary }) }}</h2>
    <p class="small">
      {{ t(carry.there ? 'carry.says' : 'carry.notThere', { vocabulary: carry.vocabulary }) }}
    </p>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
    <p v-if="asked.problem.value" class="wrong" role="alert">{{ asked.problem.value }}</p>
    <p v-if="said.error.value" class="wrong" role="alert">{{ problem(said.error.value) }}</p>
    <p v-else-if="said.data.value" class="small">
      {{
        said.data.value.sample
          ? t('carry.over', {
              sample: said.data.value.sample.name,
              n: n(said.data.value.sample.records, 'whole'),
            })
          : t('carry.noSample')
      }}
    </p>
    <ul>
      <CarryHeading
        v-for="h in carry.headings"
        :key="h.heading"
        :heading="h"
        :said="saidOf(h.heading)"
        :there="there"
        :source="place?.name"
        @decide="(stands, forget) => decide(h.heading, stands, forget)"
      />
    </ul>
  </section>
</template>

<style scoped>
.card {
  padding: 10px 12px;
  margin-top: 14px;
}

.wrong {
  color: var(--miss);
}
</style>

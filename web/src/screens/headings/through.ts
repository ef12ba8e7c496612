import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { type RecordSet } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useReader } from '@/parts/reader'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'
import { useVocabularies } from '@/state/vocabularies'

/**
 * Which vocabulary headings are looked at in: the review's own, or that of another of the sources, over what was drawn there.
 * The review goes by its own all the while.
 */
export const useThrough = defineStore('through', () => {
  const review = useReview()
  const sources = useSources()
  const reader = useReader()

  const { vocabularies, usedBy, same } = useVocabularies()
  /** The review's own, and the latest edition of each that a source is tied to. */
  const choices = computed(() =>
    vocabularies.value.filter(
      (v) =>
        v.id === review.vocabulary?.id ||
        (!v.later && !same(v.name, review.vocabulary?.name ?? '') && usedBy(v.name).length > 0),
    ),
  )
  const wanted = ref<number>()
  const other = computed(() =>
    choices.value.find((v) => v.id === wanted.value && v.id !== review.vocabulary?.id),
  )
  const vocabulary = computed(() => other.value ?? review.vocabulary)

  const taken = useFigure(
    figures.lookThrough,
    () => ({ sample: review.look.sample, through: other.value?.id ?? 0 }),
    { enabled: () => other.value !== undefined },
  )
  const look = computed(() => (other.value ? taken.data.value : review.look))
  /** What figures are asked of; undefined until it is known. */
  const asked = computed(
    () =>
      look.value && {
        path: { review: review.id },
        query: { look: look.value.name || undefined },
      },
  )
  const source = computed(() => sources.all.find((s) => s.id === look.value?.source))
  const list = (of: RecordSet, heading: string) =>
    reader.list(of, heading, undefined, other.value && look.value?.name)

  return { choices, wanted, other, vocabulary, look, asked, source, list }
})

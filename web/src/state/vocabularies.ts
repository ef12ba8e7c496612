import { computed } from 'vue'
import { figures, useFigure } from '@/figures'
import { useReview } from './review'
import { useSources } from './sources'
import { labelKey } from '@/state/labelKey'

/** The vocabularies that the program has, and which sources are tied to one. */
export function useVocabularies() {
  const review = useReview()
  const sources = useSources()
  const all = useFigure(figures.vocabularies, () => ({ own: review.vocabulary?.id }))
  const vocabularies = computed(() => all.data.value ?? [])
  const same = (a: string, b: string) => labelKey(a) === labelKey(b)
  /** The names of the sources whose records carry its headings. */
  const usedBy = (name: string) =>
    sources.all.filter((s) => same(s.vocabulary, name)).map((s) => s.name)

  return { vocabularies, usedBy, same, refetch: all.refetch }
}

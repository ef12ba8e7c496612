import { computed, type Ref } from 'vue'
import { figures, useFigure } from '@/figures'
import { useReview } from '@/state/review'

/** The key studies with what is known of each: in the order they were brought, or those that are missed first. */
export function useStudies(missedFirst: Ref<boolean>) {
  const review = useReview()
  const coverage = useFigure(figures.coverage, () => null, { keep: true })
  const rows = computed(() => {
    const byId = new Map((coverage.data.value?.studies ?? []).map((s) => [s.id, s]))
    const all = review.keyStudies.flatMap((k) => {
      const s = byId.get(k.id)
      return s ? [{ ...k, ...s }] : []
    })
    return missedFirst.value
      ? [
          ...all.filter((s) => !s.caught && !s.notHere),
          ...all.filter((s) => s.caught),
          ...all.filter((s) => s.notHere),
        ]
      : all
  })
  const missed = computed(() => rows.value.filter((s) => !s.caught && !s.notHere))

  return { coverage, rows, missed }
}

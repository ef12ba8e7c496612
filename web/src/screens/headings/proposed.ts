import { computed } from 'vue'
import { type CoveringHeading } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { decisionKey, useReview } from '@/state/review'

/** The headings, with all below them, that what is looked at and the key studies point to by themselves, but what was dropped. */
export function useProposed(enabled: () => boolean = () => true) {
  const review = useReview()
  const found = useFigure(figures.headingsProposed, () => null, { enabled })
  const open = (c: CoveringHeading) =>
    review.decisions.get(decisionKey('headings', c.key))?.state !== 'dropped'
  const proposed = computed(() => {
    const p = found.data.value
    return (
      p && {
        ...p,
        keys: p.keys.filter(open),
        shared: p.shared.filter(open),
        sample: p.sample.filter(open),
      }
    )
  })
  return { proposed, isPending: found.isPending }
}

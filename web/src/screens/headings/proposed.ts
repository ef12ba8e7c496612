import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, type CoveringHeading } from '@/api/client'
import { decisionKey, useReview } from '@/state/review'

/** The headings, with all below them, that what is looked at and the key studies point to by themselves, but what was dropped. */
export function useProposed(enabled: () => boolean = () => true) {
  const review = useReview()
  const found = useQuery({
    queryKey: computed(() => [
      'headings-proposed',
      review.id,
      review.lookStamp,
      review.keysStamp,
      review.vocabulary?.id,
    ]),
    queryFn: ({ signal }) =>
      ask(api.GET('/api/reviews/{review}/headings/proposed', { params: review.asked, signal })),
    enabled,
  })
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

import { useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask } from '@/api/client'
import { useReview } from '@/state/review'

/** The headings, with all below them, that what is looked at and the key studies point to by themselves. */
export function useProposed(enabled: () => boolean = () => true) {
  const review = useReview()
  return useQuery({
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
}

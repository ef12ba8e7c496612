import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask } from '@/api/client'
import { useReview } from '@/state/review'

/** What the ways by which key studies were found say of the search. */
export function useSaid() {
  const review = useReview()
  return useQuery({
    queryKey: computed(() => ['foundSays', review.id, review.revision, review.keysStamp]),
    queryFn: () => ask(api.GET('/api/reviews/{review}/found/says', { params: review.asked })),
    enabled: () => review.id > 0,
    placeholderData: keepPreviousData,
  })
}

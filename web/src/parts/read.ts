import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { computed } from 'vue'
import { api, ask, type Facet } from '@/api/client'
import { useReview } from '@/state/review'

/** A record with the words of the blocks marked, to be read; besides, those of an item that it was opened by. */
export function useRead(
  record: () => number | undefined,
  item: () => { facet: Facet; item: string } | undefined = () => undefined,
  open: () => boolean = () => true,
) {
  const review = useReview()
  return useQuery({
    queryKey: computed(() => [
      'record',
      review.id,
      review.revision,
      review.keysStamp,
      record(),
      item(),
    ]),
    queryFn: () =>
      ask(
        api.GET('/api/reviews/{review}/records/{record}', {
          params: {
            path: { review: review.id, record: record() ?? 0 },
            query: { ...review.asked.query, ...item() },
          },
        }),
      ),
    enabled: () => open() && record() !== undefined,
    placeholderData: keepPreviousData,
  })
}

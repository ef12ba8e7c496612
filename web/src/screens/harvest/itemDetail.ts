import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed } from 'vue'
import { api, ask } from '@/api/client'
import { useReview } from '@/state/review'
import type { Candidate } from './candidates'

/** What is told of a candidate beyond its row, once somebody stays at it. */
export function useItemDetail(candidate: () => Candidate) {
  const review = useReview()
  // Someone who runs down the list with a key held does not want the words of every item.
  const settled = refDebounced(
    computed(() => candidate().item),
    90,
  )
  const detail = useQuery({
    queryKey: computed(() => [
      'item',
      review.id,
      review.lookStamp,
      review.keysStamp,
      candidate().facet,
      settled.value,
    ]),
    queryFn: () =>
      ask(
        api.GET('/api/reviews/{review}/item', {
          params: {
            path: { review: review.id },
            query: { look: review.look.name, facet: candidate().facet, item: settled.value },
          },
        }),
      ),
    placeholderData: keepPreviousData,
  })
  const item = computed(() =>
    detail.data.value?.item === candidate().item ? detail.data.value : undefined,
  )

  return { settled, item }
}

import { keepPreviousData, useQuery } from '@tanstack/vue-query'
import { watchDebounced } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { api, ask, type Bench } from '@/api/client'
import { applyOps, type Op } from './ops'
import { useReview } from './review'

/** What the pointer or the keyboard rests on, as the edits that it would make. */
interface Resting {
  ops: Op[]
  label: string
  block: string
}

/** The two numbers in view, and what they would be with what is rested on. */
export const useBench = defineStore('bench', () => {
  const review = useReview()
  const resting = shallowRef<Resting>()
  const settled = shallowRef<Resting>()
  watchDebounced(resting, (on) => (settled.value = on), { debounce: 60 })

  const question = computed(() => ['bench', review.id, review.revision, review.viewStamp, review.keysStamp])
  const bench = useQuery({
    queryKey: question,
    queryFn: ({ signal }) => ask(api.POST('/api/reviews/{review}/bench', { params: { path: { review: review.id } }, body: {}, signal })),
    enabled: () => review.id > 0,
    placeholderData: keepPreviousData,
  })
  const proposal = computed(() => settled.value && JSON.stringify(settled.value.ops))
  const preview = useQuery({
    queryKey: computed(() => [...question.value, 'preview', proposal.value]),
    queryFn: ({ signal }) =>
      ask(
        api.POST('/api/reviews/{review}/bench', {
          params: { path: { review: review.id } },
          body: { document: applyOps(review.document, settled.value?.ops ?? []) },
          signal,
        }),
      ),
    enabled: () => review.id > 0 && settled.value !== undefined,
    retry: false,
    gcTime: 60_000,
  })

  const now = computed<Bench | undefined>(() => bench.data.value)
  const ahead = computed<Bench | undefined>(() => (resting.value && resting.value === settled.value ? preview.data.value : undefined))

  function rest(on: Resting | undefined) {
    resting.value = on
  }

  return { now, ahead, resting, rest, pending: bench.isFetching, error: bench.error }
})

/** The marks of a catch strip, one for each key study. */
export type Mark = 'caught' | 'missed' | 'would' | 'away'

export function stripMarks(now: boolean[], then?: boolean[], notHere?: boolean[]): Mark[] {
  return now.map((caught, i) => (notHere?.[i] ? 'away' : then && then[i] !== caught ? (then[i] ? 'would' : 'missed') : caught ? 'caught' : 'missed'))
}

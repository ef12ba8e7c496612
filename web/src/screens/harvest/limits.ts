import { useQuery } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { api, ask, type Limit } from '@/api/client'
import { useBench } from '@/state/bench'
import { applyOps, type Op } from '@/state/ops'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** What a limit would cost, before it is set: on the bench over the sample, and at the source. */
export function useLimit(kind: Limit['kind']) {
  const review = useReview()
  const bench = useBench()
  const sources = useSources()
  const resting = ref<Limit>()

  const set = computed(() => review.document.limits.find((l) => l.kind === kind))
  const opsOf = (limit: Limit | undefined): Op[] => [{ op: 'limits', limits: [...review.document.limits.filter((l) => l.kind !== kind), ...(limit ? [limit] : [])] }]

  watch(resting, (limit) => bench.rest(limit ? { ops: opsOf(limit), label: '', block: '' } : undefined))
  onBeforeUnmount(() => bench.rest(undefined))

  const settled = refDebounced(resting, 350)
  const atSource = useQuery({
    queryKey: computed(() => ['count-whole', review.id, review.revision, sources.chosen?.id, settled.value]),
    queryFn: ({ signal }) => ask(api.POST('/api/reviews/{review}/count-whole', { params: { path: { review: review.id } }, body: applyOps(review.document, opsOf(settled.value)), signal })),
    enabled: () => settled.value !== undefined && sources.chosen !== undefined && settled.value === resting.value,
    retry: false,
  })
  /** What the source would find, once it has been counted for what is rested on. */
  const source = computed(() => (settled.value && settled.value === resting.value ? atSource.data.value?.records : undefined))

  /** Sets the limit, or takes it away. */
  function limit(to: Limit | undefined, name: string) {
    review.change({ key: to ? 'limit' : 'noLimit', params: { limit: name } }, { ops: opsOf(to) })
    resting.value = undefined
  }

  return { resting, set, limit, source, counting: atSource.isFetching, sourceName: computed(() => sources.chosen?.name) }
}

import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { Limit } from '@/api/client'
import { useBench } from '@/state/bench'
import type { Edit } from '@/api/client'
import { useReview } from '@/state/review'

/** A limit that is thought of: the bench says what it would cost before it is set. */
export function useLimit(kind: Limit['kind']) {
  const review = useReview()
  const bench = useBench()
  const resting = ref<Limit>()

  const set = computed(() => review.document.limits.find((l) => l.kind === kind))
  const editsOf = (limit: Limit | undefined): Edit[] => [
    {
      op: 'limits',
      limits: [...review.document.limits.filter((l) => l.kind !== kind), ...(limit ? [limit] : [])],
    },
  ]

  watch(resting, (limit) =>
    bench.rest(limit ? { edits: editsOf(limit), label: '', block: '' } : undefined),
  )
  onBeforeUnmount(() => bench.rest(undefined))

  /** Sets the limit, or takes it away. */
  function limit(to: Limit | undefined, name: string) {
    review.change(
      { key: to ? 'limit' : 'noLimit', params: { limit: name } },
      { edits: editsOf(to) },
    )
    resting.value = undefined
  }

  return { resting, set, limit }
}

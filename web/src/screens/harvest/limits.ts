import { computed, onBeforeUnmount, ref, watch } from 'vue'
import type { Edit, Limit } from '@/api/client'
import { useBench } from '@/state/bench'
import { useReview } from '@/state/review'
import { labelKey } from '@/state/labelKey'

/** The kinds of limit that go by headings: these can keep out what is something else, and let in what nobody has indexed. */
export const byHeadings = (kind: string) => kind === 'ages' || kind === 'humans'

const same = (a: string, b: string) => labelKey(a) === labelKey(b)

/** Whether a limit is to an item, among others. */
export const limitedTo = (limit: Limit | undefined, item: string) =>
  limit?.values?.some((v) => same(v, item)) ?? false

/** Of all items of a facet those that a limit to some would keep out: all others. */
export const othersThan = (values: string[], all: string[]) =>
  all.filter((x) => !values.some((v) => same(v, x)))

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

  return { resting, set, limit, editsOf }
}

import { computed, ref, watch, type Ref } from 'vue'
import { api, ask, type Edit } from '@/api/client'
import { useAsked } from '@/parts/asked'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** How many values a source is asked for. */
const most = 12

/** What the chosen source would find with a limit to each of some values, and without any change, once somebody wants it. */
export function useAskedEach(items: Ref<string[]>, editsTo: (item: string) => Edit[]) {
  const review = useReview()
  const sources = useSources()
  const on = ref(false)
  watch([() => review.searchStamp, () => sources.chosen?.id], () => (on.value = false))

  const keyOf = (edits: Edit[]) => JSON.stringify([sources.chosen?.id, review.searchStamp, edits])
  const keys = computed(() =>
    on.value ? [keyOf([]), ...items.value.slice(0, most).map((item) => keyOf(editsTo(item)))] : [],
  )
  const { of, asking, problem } = useAsked(keys, 1, async ([key]) => [
    await ask(
      api.POST('/api/reviews/{review}/count-whole', {
        params: review.asked,
        body: {
          revision: review.revision,
          edits: [...review.queue.flatMap((w) => w.edits), ...(JSON.parse(key)[2] as Edit[])],
        },
      }),
    ),
  ])
  const now = computed(() => (on.value ? of(keyOf([]))?.records : undefined))
  const found = computed(() => {
    const out = new Map<string, number>()
    if (on.value)
      for (const item of items.value) {
        const records = of(keyOf(editsTo(item)))?.records
        if (records !== undefined) out.set(item, records)
      }
    return out
  })

  return { on, found, now, asking, problem, most }
}

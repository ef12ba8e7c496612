import { onBeforeUnmount, ref, shallowRef, watch, type Ref } from 'vue'
import { api, ask, type Edit } from '@/api/client'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** How many values a source is asked for at once: it is asked for one after the other. */
const most = 12

/**
 * What the chosen source would find with a limit to each of some values, and without any change: asked when somebody wants it.
 * What was asked is forgotten when the strategy, the source or the way of limiting becomes another.
 */
export function useAskedEach(editsTo: (item: string) => Edit[], way: Ref<unknown>) {
  const review = useReview()
  const sources = useSources()
  const problem = useProblem()
  const found = shallowRef(new Map<string, number>())
  const now = ref<number>()
  const asking = ref(false)
  const wrong = ref('')
  let stop: AbortController | undefined

  function forget() {
    stop?.abort()
    found.value = new Map()
    now.value = undefined
    wrong.value = ''
    asking.value = false
  }
  watch([() => review.searchStamp, () => sources.chosen?.id, way], forget)
  onBeforeUnmount(forget)

  async function askEach(items: string[]) {
    forget()
    const mine = (stop = new AbortController())
    const count = async (edits: Edit[]) =>
      (
        await ask(
          api.POST('/api/reviews/{review}/count-whole', {
            params: review.asked,
            body: {
              revision: review.revision,
              edits: [...review.queue.flatMap((w) => w.edits), ...edits],
            },
            signal: mine.signal,
          }),
        )
      ).records
    asking.value = true
    try {
      const whole = await count([])
      if (mine.signal.aborted) return
      now.value = whole
      for (const item of items.slice(0, most)) {
        const records = await count(editsTo(item))
        if (mine.signal.aborted) return
        found.value = new Map(found.value).set(item, records)
      }
    } catch (e) {
      if (!mine.signal.aborted) wrong.value = problem(e)
    } finally {
      if (stop === mine) asking.value = false
    }
  }

  return { found, now, asking, wrong, askEach, most }
}

import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import { api, ask, type Block, type Edit } from '@/api/client'
import { useProblem } from '@/state/problem'
import { useReview } from '@/state/review'

/**
 * Asks the source for the count of the whole strategy as it is, and without the terms that can go, one after the other. One call
 * is on its way at a time, so the source is asked politely; what was answered holds as long as the strategy is the same.
 */
export function usePruneAtSource(block: () => Block, terms: Ref<string[]>) {
  const review = useReview()
  const problem = useProblem()
  const counts = shallowRef<number[]>([]) // as it is, then without the first, without the first two …
  const asked = ref(0)
  const asking = ref(false)
  const failed = ref('')
  let call = 0

  const off = (n: number): Edit[] =>
    terms.value
      .slice(0, n)
      .map((id) => ({ op: 'patchTerm', block: block().id, id, patch: { on: false } }))

  async function start() {
    const mine = ++call
    failed.value = ''
    asking.value = true
    const found: number[] = []
    try {
      for (let n = 0; n <= terms.value.length && mine === call; n++) {
        asked.value = n
        const count = await ask(
          api.POST('/api/reviews/{review}/count-whole', {
            params: review.asked,
            body: { revision: review.revision, edits: off(n) },
          }),
        )
        found.push(count.records)
      }
      if (mine === call) counts.value = found
    } catch (error) {
      if (mine === call) failed.value = problem(error)
    } finally {
      if (mine === call) asking.value = false
    }
  }

  function stop() {
    call++
    asking.value = false
  }

  // Of another strategy, source or list of terms the answer is another.
  watch([() => review.revision, () => review.look.source, terms], () => {
    stop()
    counts.value = []
  })

  /** Records that the source loses with a term after those before it, by the place of the term. */
  const losses = computed(() => counts.value.slice(1).map((n, i) => counts.value[i] - n))
  return { start, stop, asking, asked, failed, counts, losses }
}

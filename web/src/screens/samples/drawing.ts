import { ref } from 'vue'
import { api, ask, type NewDraw } from '@/api/client'
import { figures } from '@/figures'
import { useProblem } from '@/state/problem'
import { useOnce } from '@/state/request'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** Begins to draw what is ordered; one order is on its way at a time. */
export function useDrawing(order: () => NewDraw) {
  const review = useReview()
  const sources = useSources()
  const problem = useProblem()
  const once = useOnce()
  const failed = ref('')
  const beginning = ref(false)

  async function begin(other: Partial<NewDraw> = {}) {
    failed.value = ''
    beginning.value = true
    try {
      const body = { ...order(), ...other }
      await once(
        (headers) =>
          ask(
            api.POST('/api/reviews/{review}/draws', {
              params: { path: { review: review.id } },
              headers,
              body,
            }),
          ),
        body,
      )
      sources.fresh(figures.draws)
    } catch (error) {
      failed.value = problem(error)
    } finally {
      beginning.value = false
    }
  }

  return { begin, beginning, failed }
}

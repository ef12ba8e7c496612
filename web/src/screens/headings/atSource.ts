import { ref, shallowRef, watch, onBeforeUnmount, type Ref } from 'vue'
import { api, ask } from '@/api/client'
import { useProblem } from '@/state/problem'
import { newTerm, useReview } from '@/state/review'
import { useSources } from '@/state/sources'

const atOnce = 3 // headings in one call, each alone and with narrower

/** What the chosen source finds for the headings in sight, a few at a time, as long as it is wanted. */
export function useAtSource(labels: Ref<string[]>, wanted: () => boolean) {
  const review = useReview()
  const sources = useSources()
  const problem = useProblem()
  const known = shallowRef(new Map<string, number | undefined>())
  const counted = ref<Date>()
  const asking = ref(false)
  const said = ref('')
  let gone = false
  onBeforeUnmount(() => (gone = true))

  const key = (label: string, narrower: boolean) =>
    `${sources.chosen?.id} ${review.vocabulary?.id} ${narrower} ${label}`
  const missing = () => labels.value.filter((l) => !known.value.has(key(l, true)))

  async function fill() {
    if (asking.value) return
    asking.value = true
    said.value = ''
    try {
      while (!gone && wanted() && missing().length) {
        const now = missing().slice(0, atOnce)
        const keys = now.flatMap((l) => [key(l, false), key(l, true)])
        const terms = now.flatMap((heading) =>
          [false, true].map((narrower) => newTerm({ kind: 'heading', heading, narrower })),
        )
        const counts = await ask(
          api.POST('/api/reviews/{review}/count-terms', { params: review.asked, body: terms }),
        )
        const next = new Map(known.value)
        counts.forEach((c, i) => {
          next.set(keys[i], c.count?.records)
          if (c.count) counted.value = new Date(c.count.at)
        })
        known.value = next
      }
    } catch (error) {
      said.value = problem(error)
    } finally {
      asking.value = false
    }
  }
  watch([labels, wanted], () => wanted() && missing().length && void fill(), { immediate: true })

  return {
    of: (label: string, narrower: boolean) => known.value.get(key(label, narrower)),
    asking,
    counted,
    problem: said,
  }
}

import { computed, type Ref } from 'vue'
import { api, ask } from '@/api/client'
import { useAsked } from '@/parts/asked'
import { newTerm } from '@/state/review'
import { useThrough } from './through'

/** What the chosen source finds for the headings in sight, alone and with narrower. */
export function useAtSource(labels: Ref<string[]>, wanted: () => boolean) {
  const through = useThrough()
  const where = computed(() => `${through.source?.id} ${through.vocabulary?.id} `)
  const keys = computed(() => (wanted() ? labels.value.map((l) => where.value + l) : []))
  const asked = useAsked(keys, 3, async (of) => {
    const terms = of
      .map((k) => k.slice(where.value.length))
      .flatMap((heading) =>
        [false, true].map((narrower) => newTerm({ kind: 'heading', heading, narrower })),
      )
    const counts = await ask(
      api.POST('/api/reviews/{review}/count-terms', { params: through.asked!, body: terms }),
    )
    return of.map((_, i) => ({ alone: counts[2 * i].count, narrower: counts[2 * i + 1].count }))
  })
  const counted = computed(() => {
    const last = [...asked.known.value.values()].at(-1)
    return last?.narrower && new Date(last.narrower.at)
  })
  return {
    of: (label: string, narrower: boolean) =>
      asked.of(where.value + label)?.[narrower ? 'narrower' : 'alone']?.records,
    asking: asked.asking,
    counted,
    problem: asked.problem,
  }
}

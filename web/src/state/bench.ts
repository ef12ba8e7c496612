import { watchDebounced } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { type Bench, type Edit } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useReview } from './review'
import { useSources } from './sources'

/** What the pointer or the keyboard rests on, as the edits that it would make. */
interface Resting {
  edits: Edit[]
  label: string
  block: string
}

/** The two numbers in view, and what they would be with what is rested on. */
export const useBench = defineStore('bench', () => {
  const review = useReview()
  const sources = useSources()
  const resting = shallowRef<Resting>()
  const settled = shallowRef<Resting>()
  watchDebounced(resting, (on) => (settled.value = on), { debounce: 60 })

  const bench = useFigure(figures.bench, () => ({}), { keep: true })
  const preview = useFigure(figures.bench, () => proposed(settled.value), {
    enabled: () => settled.value !== undefined,
    once: true,
    stays: 60_000,
  })

  // Over the sample it is known at once; the source is asked when something is rested on for a while, and once a day.
  const lasting = shallowRef<Resting>()
  watchDebounced(resting, (on) => (lasting.value = on), { debounce: 900 })
  const atSource = useFigure(
    figures.countWhole,
    () => ({ ...proposed(lasting.value), revision: () => review.revision }),
    {
      enabled: () =>
        lasting.value !== undefined &&
        lasting.value === resting.value &&
        sources.chosen !== undefined,
      once: true,
      stays: 60_000,
    },
  )
  /** What the source would find, once it has been counted. */
  const there = computed(() =>
    resting.value && resting.value === lasting.value ? atSource.data.value : undefined,
  )

  /** What is saved, with what waits to be, and with what is rested on. */
  function proposed(on?: Resting) {
    return {
      revision: review.revision,
      edits: [...review.queue.flatMap((w) => w.edits), ...(on?.edits ?? [])],
    }
  }

  const now = computed<Bench | undefined>(() => bench.data.value)
  const ahead = computed<Bench | undefined>(() =>
    resting.value && resting.value === settled.value ? preview.data.value : undefined,
  )

  function rest(on: Resting | undefined) {
    resting.value = on
  }

  return {
    now,
    ahead,
    there,
    asking: atSource.isFetching,
    resting,
    rest,
    pending: bench.isFetching,
    error: bench.error,
  }
})

/** The marks of a catch strip, one for each key study. */
export type Mark = 'caught' | 'missed' | 'would' | 'away'

export function stripMarks(now: boolean[], then?: boolean[], notHere?: boolean[]): Mark[] {
  return now.map((caught, i) =>
    notHere?.[i]
      ? 'away'
      : then && then[i] !== caught
        ? then[i]
          ? 'would'
          : 'missed'
        : caught
          ? 'caught'
          : 'missed',
  )
}

import { refDebounced } from '@vueuse/core'
import { computed } from 'vue'
import { figures, useFigure } from '@/figures'
import type { Candidate } from './candidates'

/** What is told of a candidate beyond its row, once somebody stays at it. */
export function useItemDetail(candidate: () => Candidate) {
  // Someone who runs down the list with a key held does not want the words of every item.
  const settled = refDebounced(
    computed(() => candidate().item),
    90,
  )
  const detail = useFigure(
    figures.item,
    () => ({ facet: candidate().facet, item: settled.value }),
    { keep: true },
  )
  const item = computed(() =>
    detail.data.value?.item === candidate().item ? detail.data.value : undefined,
  )

  return { settled, item }
}

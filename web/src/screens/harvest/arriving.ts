import { nextTick, watch, type Ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Facet, Tally } from '@/api/client'
import { facets } from './tallies'

/** What was found elsewhere is gone to: a facet, or an item of one, named in the address. */
export function useArriving(
  facet: Ref<Facet>,
  tally: Ref<Tally | undefined>,
  find: (item: string) => void,
) {
  const route = useRoute()
  const router = useRouter()
  watch(
    () => [route.query.item, route.query.facet, tally.value?.facet] as const,
    ([item, wanted, has]) => {
      if (typeof item !== 'string' && typeof wanted !== 'string') return
      if (typeof wanted === 'string' && facets.includes(wanted as Facet) && facet.value !== wanted)
        facet.value = wanted as Facet
      if (has !== facet.value) return
      if (typeof item === 'string') void nextTick(() => find(item))
      void router.replace({ query: { look: route.query.look } })
    },
    { immediate: true },
  )
}

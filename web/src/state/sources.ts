import { keepPreviousData, useQuery, useQueryClient } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, ask } from '@/api/client'
import type { News } from './news'
import { useReview } from './review'

/** The literature sources, and what the chosen one says of the review: counts, draws, key studies it holds. */
export const useSources = defineStore('sources', () => {
  const review = useReview()
  const queries = useQueryClient()
  const path = () => ({ params: { path: { review: review.id } } })

  const list = useQuery({ queryKey: ['sources'], queryFn: () => ask(api.GET('/api/sources')) })
  const all = computed(() => list.data.value ?? [])
  const on = computed(() => all.value.filter((s) => !s.off))
  const chosen = computed(() => all.value.find((s) => s.id === review.look.source))

  const counts = useQuery({
    queryKey: computed(() => ['counts', review.id, review.revision, review.look.source]),
    queryFn: () => ask(api.GET('/api/reviews/{review}/counts', { params: review.asked })),
    enabled: () => review.id > 0 && chosen.value !== undefined,
    // What one source counted is never shown as another's.
    placeholderData: (before, query) =>
      query?.queryKey.at(-1) === review.look.source ? before : undefined,
    // Counting goes on in the background; news of it may be missed.
    refetchInterval: (q) => (q.state.data?.waiting ? 2000 : false),
  })
  const counted = computed(() => (chosen.value ? counts.data.value : undefined))

  const draws = useQuery({
    queryKey: computed(() => ['draws', review.id]),
    queryFn: () => ask(api.GET('/api/reviews/{review}/draws', path())),
    enabled: () => review.id > 0,
    placeholderData: keepPreviousData,
  })
  const holdings = useQuery({
    queryKey: computed(() => ['holdings', review.id, review.keysStamp]),
    queryFn: () => ask(api.GET('/api/reviews/{review}/holdings', path())),
    enabled: () => review.id > 0,
    // Looking up goes on in the background; news of it may be missed.
    refetchInterval: (q) =>
      (q.state.data?.length ?? 0) < review.keyStudies.length * on.value.length &&
      q.state.dataUpdateCount < 30
        ? 2000
        : false,
    placeholderData: keepPreviousData,
  })

  const fresh = (...names: string[]) =>
    names.forEach((name) => void queries.invalidateQueries({ queryKey: [name] }))

  /** How far the looking up of key studies is; undefined while none is under way. */
  const lookedUp = ref<{ done: number; of: number }>()

  function hearLookUp(news: News) {
    lookedUp.value = news.of ? { done: news.done ?? 0, of: news.of } : undefined
    // Figures of key studies, which are nearly everywhere, go by the records that were found.
    if (news.of) fresh('holdings')
    else void queries.invalidateQueries()
  }

  /** Takes news that is about sources; says whether it was. */
  function hear(news: News): boolean {
    if (news.kind === 'counts') fresh('counts')
    else if (news.kind === 'draw') fresh('draws')
    else if (news.kind === 'holdings') hearLookUp(news)
    else if (news.kind === 'runs') fresh('everywhere', 'runs', 'record', 'since', 'watch')
    else if (news.kind === 'versions') fresh('versions', 'record')
    else if (news.kind === 'checks') fresh('checks', 'record')
    else if (news.kind === 'notes') fresh('talk')
    else if (news.kind === 'notices') fresh('told', 'since')
    else if (news.kind === 'rounds') fresh('rounds', 'found', 'record')
    else if (news.kind === 'judged') fresh('found', 'judging')
    else if (news.kind === 'sources') fresh('sources')
    else {
      fresh('draws')
      return false
    }
    return true
  }

  async function countAgain() {
    await ask(api.POST('/api/reviews/{review}/counts', { params: review.asked }))
    fresh('counts')
  }

  function choose(source: number | undefined) {
    return review.countAt(source)
  }

  return {
    all,
    on,
    chosen,
    counted,
    counting: counts.isFetching,
    draws: computed(() => draws.data.value ?? []),
    holdings: computed(() => holdings.data.value ?? []),
    lookedUp,
    hear,
    fresh,
    countAgain,
    choose,
  }
})

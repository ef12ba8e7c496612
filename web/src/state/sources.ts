import { useQueryClient } from '@tanstack/vue-query'
import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, ask } from '@/api/client'
import { figures, useFigure, useFresh } from '@/figures'
import type { News } from './news'
import { useReview } from './review'

/** The literature sources, and what the chosen one says of the review: counts, draws, key studies it holds. */
export const useSources = defineStore('sources', () => {
  const review = useReview()
  const queries = useQueryClient()

  const list = useFigure(figures.sources, () => null)
  const all = computed(() => list.data.value ?? [])
  const on = computed(() => all.value.filter((s) => !s.off))
  const chosen = computed(() => all.value.find((s) => s.id === review.look.source))

  const counts = useFigure(figures.counts, () => null, {
    enabled: () => chosen.value !== undefined,
    // What one source counted is never shown as another's.
    keep: (key) => key.at(-2) === review.look.source,
    // Counting goes on in the background; news of it may be missed.
    again: (q) => (q.state.data?.waiting ? 2000 : false),
  })
  const counted = computed(() => (chosen.value ? counts.data.value : undefined))

  const draws = useFigure(figures.draws, () => null, { keep: true })
  const holdings = useFigure(figures.holdings, () => null, {
    keep: true,
    // Looking up goes on in the background; news of it may be missed.
    again: (q) =>
      (q.state.data?.length ?? 0) < review.keyStudies.length * on.value.length &&
      q.state.dataUpdateCount < 30
        ? 2000
        : false,
  })

  const fresh = useFresh()

  /** How far the looking up of key studies is; undefined while none is under way. */
  const lookedUp = ref<{ done: number; of: number }>()

  function hearLookUp(news: News) {
    lookedUp.value = news.of ? { done: news.done ?? 0, of: news.of } : undefined
    // Figures of key studies, which are nearly everywhere, go by the records that were found.
    if (news.of) fresh(figures.holdings)
    else void queries.invalidateQueries()
  }

  /** Takes news that is about sources; says whether it was. */
  function hear(news: News): boolean {
    if (news.kind === 'counts') fresh(figures.counts)
    else if (news.kind === 'draw') fresh(figures.draws)
    else if (news.kind === 'holdings') hearLookUp(news)
    else if (news.kind === 'runs')
      fresh(figures.everywhere, figures.runs, figures.writtenRecord, figures.since, figures.watched)
    else if (news.kind === 'versions') fresh(figures.versions, figures.writtenRecord)
    else if (news.kind === 'checks') fresh(figures.checks, figures.writtenRecord)
    else if (news.kind === 'notes') fresh(figures.comments)
    else if (news.kind === 'notices') fresh(figures.told, figures.since)
    else if (news.kind === 'rounds') fresh(figures.rounds, figures.found, figures.writtenRecord)
    else if (news.kind === 'judged') fresh(figures.found, figures.judging)
    else if (news.kind === 'sources') fresh(figures.sources)
    else {
      fresh(figures.draws)
      return false
    }
    return true
  }

  async function countAgain() {
    await ask(api.POST('/api/reviews/{review}/counts', { params: review.asked }))
    fresh(figures.counts)
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

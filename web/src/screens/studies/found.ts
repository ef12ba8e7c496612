import { computed, ref, shallowRef, watch } from 'vue'
import { useI18n } from 'vue-i18n'
import { useRoute, useRouter } from 'vue-router'
import { api, ask, type FoundWork, type Verdict } from '@/api/client'
import { figures, useFresh, usePages } from '@/figures'
import { useAct } from '@/state/act'
import { useNotes } from '@/state/notes'
import { useReview } from '@/state/review'
import { useShelf } from '@/state/shelf'

export const shows = ['open', 'missed', 'keys', 'belongs', 'not', 'unsure', 'all'] as const
export const orders = ['ties', 'cited', 'alike', 'year', 'title', 'random'] as const
export type Show = (typeof shows)[number]

const page = 100

/** The works that rounds brought, one of them chosen, and what is said of it with one key. */
export function useFound() {
  const { t } = useI18n()
  const review = useReview()
  const shelf = useShelf()
  const notes = useNotes()
  const router = useRouter()
  const route = useRoute()
  const fresh = useFresh()

  const show = ref<Show>('open')
  const round = ref(Number(route.query.round) || 0)
  // Whoever wants to know how many are left is led to read at random.
  const order = ref(orders.find((x) => x === route.query.order) ?? 'ties')
  const found = usePages(
    figures.found,
    () => ({ show: show.value, order: order.value, round: round.value, most: page }),
    (last, all) => (all.length * page < last.total ? all.length * page : undefined),
  )
  const first = computed(() => found.data.value?.pages[0])
  const came = computed(() => found.data.value?.pages.flatMap((p) => p.works) ?? [])
  // Judging one changes what the others are tied to. They keep their places under the hand of who judges until they are put in
  // order anew: a list that moves is not read to its end.
  const places = shallowRef(new Map<number, number>())
  watch([show, round, order], () => (places.value = new Map()))
  watch(
    came,
    (now) => {
      const next = new Map(places.value)
      for (const w of now) if (!next.has(w.record.id)) next.set(w.record.id, next.size)
      if (next.size > places.value.size) places.value = next
    },
    { immediate: true },
  )
  const works = computed(() => {
    const at = (w: FoundWork) => places.value.get(w.record.id) ?? Infinity
    return [...came.value].sort((a, b) => at(a) - at(b))
  })
  const moved = computed(() => works.value.some((w, i) => w !== came.value[i]))
  function anew() {
    places.value = new Map(came.value.map((w, i) => [w.record.id, i]))
    chosen.value = came.value[0]?.record.id
  }

  const chosen = ref<number>()
  const place = ref(0)
  const here = computed(() => works.value.find((w) => w.record.id === chosen.value))
  // What was judged leaves the list of open ones; the one that takes its place is next.
  watch(works, (now) => {
    if (!now.some((w) => w.record.id === chosen.value))
      chosen.value = now[Math.min(place.value, now.length - 1)]?.record.id
  })
  watch(chosen, (id) => {
    const at = works.value.findIndex((w) => w.record.id === id)
    if (at >= 0) place.value = at
  })
  function go(by: number) {
    const at = works.value.findIndex((w) => w.record.id === chosen.value)
    const next = works.value[Math.min(Math.max(at + by, 0), works.value.length - 1)]
    if (next) chosen.value = next.record.id
    if (at + by >= works.value.length - 5 && found.hasNextPage.value) void found.fetchNextPage()
    return next
  }

  const act = useAct(figures.found, figures.foundSays, figures.holdings)
  const judging = ref(false)

  /** Says what a work is; key makes it a key study. One that the strategy misses leads to Coverage. */
  async function say(work: FoundWork, verdict: 'key' | Verdict) {
    if (judging.value || work.verdict === 'key') return
    judging.value = true
    try {
      if (verdict === 'key') await take(work)
      else
        await act(
          ask(
            api.PUT('/api/reviews/{review}/judgements/{record}', {
              params: { path: { review: review.id, record: work.record.id } },
              body: { verdict },
            }),
          ),
        )
    } finally {
      judging.value = false
    }
  }

  async function take(work: FoundWork) {
    const done = await act(
      review.act(() =>
        ask(
          api.POST('/api/reviews/{review}/key-studies', {
            params: { path: { review: review.id } },
            body: {
              records: [work.record.id],
              way: 'round',
              origin: t('found.origin', { n: work.rounds.at(0) ?? 0 }),
            },
          }),
        ),
      ),
    )
    if (!done) return
    const study = review.keyStudies.find((k) => k.record === work.record.id)
    notes.say({
      text: t(work.caught ? 'found.tookCaught' : 'found.tookMissed', { title: work.record.title }),
      ...(work.caught || !study
        ? {}
        : {
            action: {
              label: t('found.inCoverage'),
              run: () =>
                router.push({
                  name: 'coverage',
                  params: { review: review.id },
                  query: { study: study.id },
                }),
            },
          }),
    })
  }

  function shelve(work: FoundWork) {
    const on = work.records.find((id) => review.shelf.has(id)) ?? work.record.id
    shelf.toggle(on, work.record.title)
    fresh(figures.found)
  }

  return { show, round, order, found, first, works, moved, anew, chosen, here, go, say, shelve }
}

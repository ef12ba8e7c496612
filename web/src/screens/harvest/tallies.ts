import { type UseQueryReturnType } from '@tanstack/vue-query'
import { refDebounced } from '@vueuse/core'
import { computed, ref, shallowRef, watch, watchEffect, type Ref } from 'vue'
import { type Facet, type Suit, type Tally, type TallyRow } from '@/api/client'
import { figures, keyOf, useFigure } from '@/figures'
import { taken } from '@/state/decide'
import { useLooked } from '@/state/looked'
import { useReview } from '@/state/review'
import type { Wanted } from './wanted'

export const facets: Facet[] = [
  'words',
  'headings',
  'qualifiers',
  'keywords',
  'journals',
  'authors',
  'years',
  'types',
  'languages',
  'countries',
  'ages',
  'humans',
  'substances',
]

/** Facets of few items, of which what counts is how large a share each has. */
export const shared: Facet[] = ['types', 'languages', 'countries', 'ages', 'humans']

const mostKept = 50_000 // rows that came by windows

/** The tally of each facet of what is looked at, the one in view first, and what its items suit. */
export function useTallies(facet: Ref<Facet>, wanted: Wanted) {
  const review = useReview()
  const looked = useLooked()

  const of = (f: Facet, window?: object) => ({
    facet: f,
    times: looked.ordered.times,
    window,
  })
  const keyed = (f: Facet) => JSON.stringify(keyOf(figures.tally, review, of(f)))
  const next = ref<Facet>()
  const tallies = Object.fromEntries(
    facets.map((f) => [
      f,
      useFigure(figures.tally, () => of(f), {
        enabled: () => review.sample !== undefined && (f === facet.value || f === next.value),
        keep: true,
      }),
    ]),
  ) as Record<Facet, UseQueryReturnType<Tally, Error>>
  // Few sources say of what substances their records tell: where none does, nothing is offered.
  const offered = computed(() =>
    facets.filter(
      (f) => f !== 'substances' || f === facet.value || tallies[f].data.value?.rows.length,
    ),
  )
  const current = computed(() => tallies[facet.value])
  // What is looked at comes first; the others are counted behind it, one after another: a browser asks few things at once,
  // and what is decided meanwhile must not wait.
  watchEffect(() => {
    const busy = !current.value.isFetched.value || current.value.isFetching.value
    next.value = busy
      ? undefined
      : facets.find((f) => f !== facet.value && !tallies[f].isFetched.value)
  })

  // Of a tally with more rows than are sent, what is filtered or sorted for is asked for: any row may be among it.
  const cut = computed(() => {
    const t = current.value.data.value
    return t !== undefined && t.rows.length < t.all
  })
  const asked = refDebounced(wanted.query, 250)
  const windowed = useFigure(figures.tally, () => of(facet.value, asked.value), {
    enabled: () => cut.value && asked.value !== undefined,
    keep: (key) =>
      JSON.stringify([...key.slice(0, -1), of(facet.value)]) === keyed(facet.value) &&
      (key.at(-1) as { facet?: Facet }).facet === facet.value,
  })
  // What came once stays: it may have been decided on meanwhile, and is still to be seen when the filter is gone.
  const more = shallowRef<{ of: string; rows: Map<string, TallyRow> }>({ of: '', rows: new Map() })
  watch(
    () => [keyed(facet.value), windowed.data.value] as const,
    ([now, came]) => {
      const rows = new Map(more.value.of === now ? more.value.rows : [])
      const old = came === undefined || windowed.isPlaceholderData.value
      if (!old && cut.value && asked.value !== undefined) {
        if (rows.size > mostKept) rows.clear()
        for (const r of came.rows) rows.set(r.item, r)
      }
      more.value = { of: now, rows }
    },
  )
  const tally = computed(() => {
    const first = current.value.data.value
    if (!first || !cut.value || !more.value.rows.size) return first
    const has = new Set(first.rows.map((r) => r.item))
    return {
      ...first,
      rows: [...first.rows, ...[...more.value.rows.values()].filter((r) => !has.has(r.item))],
    }
  })
  /** Of what is filtered or sorted for there is more than was sent: how many. */
  const beyond = computed(() => {
    const t = asked.value === undefined ? undefined : windowed.data.value
    const of = cut.value && (t ?? current.value.data.value)
    return of && of.passing > of.sent ? of.passing : 0
  })
  /** What stands there is of what was looked at before: what is looked at now is being counted. */
  const old = computed(() => review.looking || current.value.isPlaceholderData.value)

  // Which block each item suits is asked for anew when the blocks have changed and were left alone for a moment.
  const settledSearch = refDebounced(
    computed(() => review.searchStamp),
    700,
  )
  const suited = useFigure(
    figures.suits,
    () => ({ facet: facet.value, search: settledSearch.value }),
    {
      enabled: () =>
        review.sample !== undefined && taken.includes(facet.value) && current.value.isFetched.value,
      keep: true,
    },
  )
  const suits = computed(
    () => new Map<string, Suit>((suited.data.value?.items ?? []).map((s) => [s.item, s])),
  )
  /** They are not known yet, and that for a while: in a large sample it takes longer than counting. */
  const proposing = refDebounced(
    computed(() => suited.isFetching.value && !suited.isFetched.value),
    900,
  )

  return { tallies, offered, current, tally, beyond, old, suits, proposing }
}

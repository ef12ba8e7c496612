import { computed, ref, watch, type Ref } from 'vue'
import type { Facet, Suit, Tally, TallyRow } from '@/api/client'
import { taken, type Item } from '@/state/decide'
import { decisionKey, useReview, type Decided } from '@/state/review'
import type { Column } from './filters'
import { inOrder, passesFigures } from './rows'
import type { Wanted } from './wanted'

export type State = 'open' | 'kept' | 'parked' | 'dropped'
export const states = ['open', 'kept', 'parked', 'dropped', 'all'] as const

/** A row of the list: an item with its figures and what is decided about it. */
export interface Candidate extends Item {
  row: TallyRow
  rank: number
  state: State
  blocks: string[]
  reason: string
  /** When it was parked or dropped, by whom, in which sample; while that is not saved, unknown. */
  decided?: Decided
}

/** A part of the plot, drawn with the pointer. */
export interface Area {
  records: [number, number]
  pull: [number, number]
}

/** The rows of a tally as a specialist wants them: with what is decided, sorted, filtered. */
export function useCandidates(
  tally: Ref<Tally | undefined>,
  facet: Ref<Facet>,
  suits: Ref<Map<string, Suit>>,
  { filters, sort, pattern }: Wanted,
) {
  const review = useReview()
  const show = ref<(typeof states)[number]>('open')
  const area = ref<Area>()

  // What a term of its block finds already steps aside when the order is made anew, never under the reader's eyes.
  const withAside = ref(false)
  const aside = ref(new Set<string>())
  watch(
    tally,
    (t) => {
      const steps = (row: TallyRow) => {
        const block = suits.value.get(row.item)?.block // known where it was asked for before
        return row.inside?.length && (!block || row.inside.includes(block))
      }
      aside.value = new Set((t?.rows ?? []).filter(steps).map((row) => row.item))
    },
    { immediate: true },
  )

  // The rows change with the tally; what is decided changes with each key press, and for few of them.
  const undecided = computed<Candidate[]>(() =>
    (tally.value?.rows ?? []).map((row, rank) => ({
      facet: facet.value,
      item: row.item,
      key: row.key ?? row.item,
      forms: row.forms?.map((f) => f.item),
      row,
      rank,
      state: 'open',
      blocks: [],
      reason: '',
    })),
  )
  const places = computed(() => {
    const at = new Map<string, number>()
    undecided.value.forEach((c, i) => {
      for (const key of c.forms ?? [c.key]) at.set(decisionKey(c.facet, key), i)
    })
    return at
  })
  const decided = computed(() => {
    const { kept, decisions } = review
    const list = new Map<number, Candidate>()
    for (const at of new Set([...kept.keys(), ...decisions.keys()])) {
      const i = places.value.get(at)
      if (i === undefined) continue
      // Several variants of one item may have been decided on: one that is kept keeps it.
      const before = list.get(i)
      const blocks = [...new Set([...(before?.blocks ?? []), ...(kept.get(at) ?? [])])]
      const decision = decisions.get(at)
      const state = blocks.length ? 'kept' : (decision?.state ?? before?.state ?? 'open')
      if (state !== 'open')
        list.set(i, {
          ...undecided.value[i],
          state,
          blocks,
          reason: decision?.reason || before?.reason || '',
          decided: decision ?? before?.decided,
        })
    }
    return list
  })
  const all = computed(() => {
    const list = [...undecided.value]
    for (const [i, c] of decided.value) list[i] = c
    return list
  })
  const counts = computed(() => {
    const n: Record<State, number> = {
      open: (tally.value?.all ?? 0) - decided.value.size,
      kept: 0,
      parked: 0,
      dropped: 0,
    }
    for (const c of decided.value.values()) n[c.state]++
    return n
  })
  const ordered_ = computed(() => inOrder(all.value, sort.value))

  /** Whether a row passes everything but what is decided about it. */
  function passes(c: Candidate): boolean {
    if (!passesFigures(c, pattern.value, filters.value)) return false
    const { missed, unmatched } = filters.value
    const suit = suits.value.get(c.item)
    if (missed && !suit?.missed) return false
    if (unmatched && suit?.inside?.length) return false
    const a = area.value
    if (!a) return true
    const pull = c.row.pull ?? 0
    return (
      c.row.records >= a.records[0] &&
      c.row.records <= a.records[1] &&
      pull >= a.pull[0] &&
      pull <= a.pull[1]
    )
  }
  // So does a piece of a sentence, which nobody would type; what was decided on stays.
  const stepsAside = (c: Candidate) =>
    c.state === 'open' && (c.row.piece === true || aside.value.has(c.item))
  const by = computed(() => (taken.includes(facet.value) ? show.value : 'all'))
  const passing = computed(() =>
    ordered_.value.filter((c) => (by.value === 'all' || c.state === by.value) && passes(c)),
  )
  const asideHere = computed(() =>
    by.value === 'open' ? passing.value.filter(stepsAside).length : 0,
  )
  const shown = computed(() =>
    by.value === 'open' && !withAside.value && asideHere.value
      ? passing.value.filter((c) => !stepsAside(c))
      : passing.value,
  )

  function sortBy(column: Column) {
    const now = sort.value
    const first = column !== 'item' // figures begin with the largest
    if (now?.column !== column) sort.value = { column, down: first }
    else if (now.down === first) sort.value = { column, down: !first }
    else sort.value = undefined
  }

  return {
    show,
    area,
    sortBy,
    all,
    counts,
    shown,
    asideHere,
    withAside,
  }
}

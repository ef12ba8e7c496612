import { computed, ref, type Ref } from 'vue'
import type { Facet, Tally, TallyRow } from '@/api/client'
import { taken, type Item } from '@/state/decide'
import { decisionKey, useReview } from '@/state/review'

export type State = 'open' | 'kept' | 'parked' | 'dropped'
export const states = ['open', 'kept', 'parked', 'dropped', 'all'] as const
export type Column = 'item' | 'records' | 'withNarrower' | 'lift' | 'pull' | 'keys'

/** A row of the list: an item with its figures and what is decided about it. */
export interface Candidate extends Item {
  row: TallyRow
  rank: number
  state: State
  blocks: string[]
  reason: string
}

/** A part of the plot, drawn with the pointer. */
export interface Area {
  records: [number, number]
  pull: [number, number]
}

/** The rows of a tally as a specialist wants them: with what is decided, sorted, filtered. */
export function useCandidates(tally: Ref<Tally | undefined>, facet: Ref<Facet>) {
  const review = useReview()
  const show = ref<(typeof states)[number]>('open')
  const words = ref('')
  const area = ref<Area>()
  const sort = ref<{ column: Column; down: boolean }>()

  // The rows change with the tally; what is decided changes with each key press, and for few of them.
  const undecided = computed<Candidate[]>(() =>
    (tally.value?.rows ?? []).map((row, rank) => ({
      facet: facet.value, item: row.item, key: row.key ?? row.item, forms: row.forms?.map((f) => f.item), row, rank, state: 'open', blocks: [], reason: '',
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
      if (state !== 'open') list.set(i, { ...undecided.value[i], state, blocks, reason: decision?.reason || before?.reason || '' })
    }
    return list
  })
  const all = computed(() => {
    const list = [...undecided.value]
    for (const [i, c] of decided.value) list[i] = c
    return list
  })
  const counts = computed(() => {
    const n: Record<State, number> = { open: undecided.value.length - decided.value.size, kept: 0, parked: 0, dropped: 0 }
    for (const c of decided.value.values()) n[c.state]++
    return n
  })
  const ordered = computed(() => {
    const by = sort.value
    if (!by) return all.value
    const figure = (c: Candidate) => (by.column === 'item' ? c.item : (c.row[by.column] ?? -Infinity))
    return [...all.value].sort((a, b) => {
      const x = figure(a)
      const y = figure(b)
      const less = x < y ? -1 : x > y ? 1 : 0
      return (by.down ? -less : less) || a.rank - b.rank
    })
  })
  const shown = computed(() => {
    const text = words.value.trim().toLowerCase()
    const a = area.value
    const by = taken.includes(facet.value) ? show.value : 'all'
    return ordered.value.filter((c) => {
      if (by !== 'all' && c.state !== by) return false
      if (text && !(c.forms ?? [c.item]).some((form) => form.toLowerCase().includes(text))) return false
      if (!a) return true
      const pull = c.row.pull ?? 0
      return c.row.records >= a.records[0] && c.row.records <= a.records[1] && pull >= a.pull[0] && pull <= a.pull[1]
    })
  })

  function sortBy(column: Column) {
    const now = sort.value
    const first = column !== 'item' // figures begin with the largest
    if (now?.column !== column) sort.value = { column, down: first }
    else if (now.down === first) sort.value = { column, down: !first }
    else sort.value = undefined
  }

  return { show, words, area, sort, sortBy, all, counts, shown }
}

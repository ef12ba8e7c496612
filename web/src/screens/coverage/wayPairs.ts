import type { Ref } from 'vue'
import type { RecordSet } from '@/api/client'
import { useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/**
 * Which two ways of finding records say something of what neither found. Of two of which one holds the other by its making
 * nothing follows, nor of a block and its own blind spot, which share nothing by their making.
 */
export function useWayPairs(ways: Ref<RecordSet[]>) {
  const review = useReview()
  const sources = useSources()

  const inLooked = ['strategy', 'any', 'block', 'spot']
  function tells(a: RecordSet, b: RecordSet): boolean {
    const kinds = [a.kind, b.kind]
    const blocks = [a, b].filter((x) => x.kind === 'block' || x.kind === 'spot')
    if (kinds.includes('any') && kinds.some((k) => inLooked.includes(k) && k !== 'any'))
      return false
    if (kinds.includes('strategy') && kinds.some((k) => k === 'block' || k === 'spot')) return false
    // A blind spot is disjoint from its own block and, with two blocks, lies in the other.
    if (kinds.includes('spot') && blocks.length === 2) return false
    const sample = [a, b].find((x) => x.kind === 'sample')
    if (sample?.kind === 'sample' && kinds.some((k) => inLooked.includes(k)))
      return sample.sample !== review.look.sample
    return true
  }

  /** By what means a way was made: by which source or file, or by the words of the strategy. */
  function means(w: RecordSet): string {
    if (w.kind !== 'sample') return w.kind === 'shelf' ? 'shelf' : 'words'
    const draw = sources.draws.find((d) => d.sample === w.sample)
    return draw ? `source ${draw.source}` : `file ${w.sample}`
  }

  /** What can stand beside a way, what was made by other means first. */
  function beside(first: number): number[] {
    const one = ways.value[first]
    if (!one) return []
    const all = ways.value.map((_, i) => i).filter((i) => i !== first && tells(one, ways.value[i]))
    const other = (i: number) => (means(ways.value[i]) === means(one) ? 1 : 0)
    return all.sort((a, b) => other(a) - other(b))
  }

  /** The pair that is shown first: one of different means, where there is any. */
  function first(): [number, number] {
    for (const i of ways.value.keys()) {
      const j = beside(i).find((k) => means(ways.value[k]) !== means(ways.value[i]))
      if (j !== undefined) return [i, j]
    }
    return [0, beside(0)[0] ?? 0]
  }

  return { beside, first }
}

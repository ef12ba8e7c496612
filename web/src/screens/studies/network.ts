import type { CitationNetwork } from '@/api/client'

export interface Spot {
  x: number
  y: number
  r: number
}

export interface Laid {
  spots: Spot[]
  years: { year: number; x: number }[]
}

/**
 * Lays works out on a plain axis of time: each stands above its year, what is cited more nearer to the middle, nothing on top of
 * another. Works without a year stand before the first.
 */
export function layOut(works: CitationNetwork['works'], width: number, height: number): Laid {
  const years = works.map((w) => w.record.year).filter((y) => y > 0)
  const first = years.length ? Math.min(...years) : 0
  const last = years.length ? Math.max(...years) : 0
  const columns = last - first + 2 // the first is for what has no year
  const step = width / columns
  const by = new Map<number, number[]>()
  works.forEach((w, i) => {
    const column = w.record.year > 0 ? w.record.year - first + 1 : 0
    by.set(column, [...(by.get(column) ?? []), i])
  })
  const spots: Spot[] = works.map(() => ({ x: 0, y: 0, r: 0 }))
  for (const [column, all] of by) {
    const most = Math.max(1, Math.floor(height / 13))
    // As many columns beside each other as the year needs; where even those are too narrow, marks get smaller.
    const beside = Math.ceil(all.length / most)
    const wide = step / beside
    const sorted = [...all].sort(
      (a, b) =>
        Number(works[b]!.record.key) - Number(works[a]!.record.key) ||
        works[b]!.cited - works[a]!.cited ||
        a - b,
    )
    sorted.forEach((i, n) => {
      const row = Math.floor(n / beside)
      const rows = Math.ceil(all.length / beside)
      const tall = Math.min(26, height / rows)
      const away = (row % 2 ? 1 : -1) * Math.ceil(row / 2)
      const room = Math.max(1.5, Math.min(wide, tall) / 2 - 0.8)
      spots[i] = {
        x: (column + ((n % beside) + 0.5) / beside) * step,
        y: height / 2 + away * tall,
        r: Math.min(room, 3 + Math.sqrt(works[i]!.cited) * 1.3),
      }
    })
  }
  const every = Math.max(1, Math.ceil(columns / 12))
  return {
    spots,
    years: years.length
      ? Array.from({ length: columns - 1 }, (_, i) => ({
          year: first + i,
          x: (i + 1.5) * step,
        })).filter((y) => y.year % every === 0 || columns <= 12)
      : [],
  }
}

/** The links as one path, so that thousands of them are drawn at once. */
export function pathOf(spots: Spot[], links: number[][]): string {
  return links
    .map(([a, b]) => {
      const from = spots[a!]!
      const to = spots[b!]!
      const bend = Math.abs(from.x - to.x) * 0.12
      return `M${from.x.toFixed(1)} ${from.y.toFixed(1)}Q${((from.x + to.x) / 2).toFixed(1)} ${((from.y + to.y) / 2 - bend).toFixed(1)} ${to.x.toFixed(1)} ${to.y.toFixed(1)}`
    })
    .join('')
}

/** Half the side of a key study's square. */
const halfSide = (r: number) => Math.max(5, Math.min(11, r * 2)) / 2

type Mark = 'dot' | 'dot hollow' | 'dot belongs' | 'dot hollow belongs' | 'key' | 'key hollow'

/** How a work is marked: key studies are squares, what the strategy misses is hollow. */
export const markOf = (w: CitationNetwork['works'][number]): Mark =>
  w.verdict === 'key'
    ? w.caught
      ? 'key'
      : 'key hollow'
    : `dot${w.caught ? '' : ' hollow'}${w.verdict === 'relevant' ? ' belongs' : ''}`

/** The marks of some works, each kind as one path, key studies last: they stand above the others. */
export function marksOf(
  works: CitationNetwork['works'],
  spots: Spot[],
  some: Iterable<number>,
): { mark: Mark; d: string }[] {
  const by = new Map<Mark, string>()
  for (const i of some) {
    const { x, y, r } = spots[i]!
    const mark = markOf(works[i]!)
    const h = halfSide(r)
    const d = mark.startsWith('key')
      ? `M${x - h} ${y - h}h${2 * h}v${2 * h}h${-2 * h}z`
      : `M${x - r} ${y}a${r} ${r} 0 1 0 ${2 * r} 0a${r} ${r} 0 1 0 ${-2 * r} 0`
    by.set(mark, (by.get(mark) ?? '') + d)
  }
  return [...by]
    .map(([mark, d]) => ({ mark, d }))
    .sort((a, b) => Number(a.mark.startsWith('key')) - Number(b.mark.startsWith('key')))
}

/** The work whose mark is nearest to a point and no further than its edge and a little, if any is. */
export function nearest(spots: Spot[], x: number, y: number, little: number): number | undefined {
  let best: number | undefined
  let least = Infinity
  spots.forEach((s, i) => {
    const away = Math.hypot(s.x - x, s.y - y)
    if (away <= Math.max(s.r, halfSide(s.r)) + little && away < least) {
      least = away
      best = i
    }
  })
  return best
}

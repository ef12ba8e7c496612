import { describe, expect, it } from 'vitest'
import type { CitationNetwork } from '@/api/client'
import { layOut, marksOf, nearest, pathOf } from './network'

type Works = CitationNetwork['works']
const works = (n: number, year: (i: number) => number): Works =>
  Array.from({ length: n }, (_, i) => ({
    record: {
      id: i,
      title: `Work ${i}`,
      byline: '',
      year: year(i),
      journal: '',
      indexed: true,
      key: i % 17 === 0,
    },
    caught: i % 2 === 0,
    cited: i % 40,
  }))

describe('a network of citations on an axis of time', () => {
  it('lays no work on another and none outside, up to five hundred of one year', () => {
    for (const all of [
      works(500, (i) => 1990 + (i % 30)),
      works(500, () => 2020),
      works(3, () => 0),
      works(1, () => 2001),
    ]) {
      const { spots } = layOut(all, 900, 420)
      for (const s of spots) {
        expect(s.x).toBeGreaterThan(0)
        expect(s.x).toBeLessThan(900)
        expect(s.y - s.r).toBeGreaterThanOrEqual(-14)
        expect(s.y + s.r).toBeLessThanOrEqual(434)
      }
      let over = 0
      for (let a = 0; a < spots.length; a++)
        for (let b = a + 1; b < spots.length; b++) {
          const apart = Math.hypot(spots[a]!.x - spots[b]!.x, spots[a]!.y - spots[b]!.y)
          if (apart <= Math.min(spots[a]!.r, spots[b]!.r)) over++
        }
      expect(over).toBe(0)
    }
  })

  it('puts what is later further to the right', () => {
    const { spots, years } = layOut(
      works(40, (i) => 2000 + i),
      900,
      420,
    )
    spots.slice(1).forEach((s, i) => expect(s.x).toBeGreaterThan(spots[i]!.x))
    expect(years.length).toBeLessThanOrEqual(13)
  })

  it('draws each link once', () => {
    const { spots } = layOut(
      works(4, (i) => 2000 + i),
      900,
      420,
    )
    expect(
      pathOf(spots, [
        [3, 0],
        [2, 1],
      ]).match(/M/g),
    ).toHaveLength(2)
    expect(pathOf(spots, [])).toBe('')
    expect(layOut([], 900, 420)).toEqual({ spots: [], years: [] })
  })

  it('draws each work once, by its kind, and tells which one is pointed at', () => {
    const all = works(500, (i) => 1990 + (i % 30))
    all.forEach((w, i) => (w.verdict = i % 17 === 0 ? 'key' : i % 5 === 0 ? 'relevant' : undefined))
    const { spots } = layOut(all, 900, 420)
    const marks = marksOf(all, spots, all.keys())
    const drawn = (kind: (mark: string) => boolean) =>
      marks.filter((m) => kind(m.mark)).reduce((sum, m) => sum + (m.d.match(/M/g)?.length ?? 0), 0)
    expect(drawn(() => true)).toBe(500)
    expect(drawn((m) => m.startsWith('key'))).toBe(all.filter((w) => w.verdict === 'key').length)
    expect(drawn((m) => m.includes('hollow'))).toBe(all.filter((w) => !w.caught).length)
    expect(marks.at(-1)!.mark).toMatch(/^key/)
    spots.forEach((s, i) => expect(nearest(spots, s.x, s.y, 3)).toBe(i))
    expect(nearest(spots, -200, 0, 3)).toBeUndefined()
    expect(nearest([], 0, 0, 3)).toBeUndefined()
  })
})

import { describe, expect, it } from 'vitest'
import type { CitationNetwork } from '@/api/client'
import { layOut, pathOf } from './network'

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
})

import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { figures, keyOf } from '.'

const here = join(process.cwd(), 'src')
const files = (readdirSync(here, { recursive: true }) as string[]).filter(
  (f) => /\.(ts|vue)$/.test(f) && !f.endsWith('.test.ts'),
)
const read = (f: string) => readFileSync(join(here, f), 'utf8')
const all = Object.values(figures)

type Review = Parameters<typeof keyOf>[1]
const review = (over: object = {}) =>
  ({
    id: 7,
    revision: 1,
    searchStamp: 's',
    dropStamp: 'd',
    keysStamp: 'k',
    lookStamp: 'l',
    stamp: 3,
    look: { source: 2 },
    samples: [{ id: 1, records: 10 }],
    ...over,
  }) as unknown as Review

describe('the catalogue of figures', () => {
  it('has each under a name of its own', () => {
    expect(new Set(all.map((f) => f.name)).size).toBe(all.length)
  })

  it('asks each endpoint in one place', () => {
    const asked = files
      .filter((f) => f.startsWith('figures'))
      .flatMap((f) =>
        [...read(f).matchAll(/api\s*\.(GET|POST)\(\s*'([^']+)'/g)].map((m) => m[1] + m[2]),
      )
    expect(asked.length).toBe(all.length)
    expect(new Set(asked).size).toBe(asked.length)
  })

  it('is where all keys are made', () => {
    const made = files.filter(
      (f) => !f.startsWith('figures') && /\buseQuery\(|useInfiniteQuery\(/.test(read(f)),
    )
    expect(made).toEqual([])
  })
})

describe('the key of a figure', () => {
  it('changes with what the figure rests on, and with nothing else', () => {
    const key = (r: Review) => JSON.stringify(keyOf(figures.rescue, r, { study: 1 }))
    const now = key(review())
    for (const rest of ['searchStamp', 'dropStamp', 'lookStamp', 'keysStamp'])
      expect(key(review({ [rest]: 'other' }))).not.toBe(now)
    expect(key(review({ revision: 2 }))).toBe(now)
    expect(key(review({ stamp: 4 }))).toBe(now)
    expect(key(review({ id: 8 }))).not.toBe(now)
    expect(JSON.stringify(keyOf(figures.rescue, review(), { study: 2 }))).not.toBe(now)
  })

  it('of the program goes by no review', () => {
    expect(keyOf(figures.sources, review(), null)).toEqual(
      keyOf(figures.sources, review({ id: 8 }), null),
    )
  })
})

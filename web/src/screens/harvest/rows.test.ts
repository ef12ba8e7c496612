import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { TallyRow } from '@/api/client'
import { bounded, noFilters, type Column } from './filters'
import { patternOf } from './patterns'
import { inOrder, passesFigures } from './rows'

// The same examples are read where the program picks rows that were not sent.
const { rows, examples } = JSON.parse(
  readFileSync(new URL('../../../../app/figures/testdata/rows.json', import.meta.url), 'utf8'),
) as {
  rows: TallyRow[]
  examples: {
    window: Record<string, number | string | boolean>
    refused?: boolean
    items: string[]
  }[]
}

describe('the rows of a tally that are wanted', () => {
  it.each(examples)('$window', ({ window, refused, items }) => {
    const pattern = patternOf(String(window.words ?? ''))
    expect(pattern.refused).toBe(refused ?? false)
    if (refused) return
    const filters = noFilters()
    for (const f of bounded) {
      filters.from[f] = window[`${f}From`] as number | undefined
      filters.to[f] = window[`${f}To`] as number | undefined
    }
    const all = rows.map((row) => ({ item: row.item, forms: row.forms?.map((f) => f.item), row }))
    const by = window.sort
      ? { column: window.sort as Column, down: window.down === true }
      : undefined
    const picked = inOrder(all, by).filter((c) => passesFigures(c, pattern, filters))
    expect(picked.map((c) => c.item)).toEqual(items)
  })
})

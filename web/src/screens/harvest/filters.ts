export type Column = 'item' | 'records' | 'withNarrower' | 'lift' | 'pull' | 'keys'

/** The figures that a filter can hold within bounds. */
export const bounded = ['records', 'lift', 'pull'] as const

/** What is shown beyond the words that are filtered for. */
export interface Filters {
  from: Partial<Record<(typeof bounded)[number], number>>
  to: Partial<Record<(typeof bounded)[number], number>>
  missed: boolean
  unmatched: boolean
}

export const noFilters = (): Filters => ({ from: {}, to: {}, missed: false, unmatched: false })

/** How many filters are on. */
export function filtersOn(f: Filters): number {
  return (
    bounded.filter((b) => f.from[b] !== undefined || f.to[b] !== undefined).length +
    Number(f.missed) +
    Number(f.unmatched)
  )
}

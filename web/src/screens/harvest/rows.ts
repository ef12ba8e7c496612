import type { TallyRow } from '@/api/client'
import { bounded, type Column, type Filters } from './filters'
import type { Pattern } from './patterns'

/** What of a row is looked at: an item with its figures. */
interface Picked {
  item: string
  forms?: string[]
  row: TallyRow
}

/** Whether a row is filtered for: its words, and its figures within bounds; one that it does not have is 0. The program does the
 * same with rows that were not sent: the examples hold the two together. */
export function passesFigures(c: Picked, pattern: Pattern, { from, to }: Filters): boolean {
  if (pattern.match && !(c.forms ?? [c.item]).some(pattern.match)) return false
  return bounded.every((figure) => {
    const value = c.row[figure] ?? 0
    return value >= (from[figure] ?? -Infinity) && value <= (to[figure] ?? Infinity)
  })
}

/** Rows by a column; those that are alike stay as they stand. What a row has no figure of is below every other. */
export function inOrder<T extends Picked>(rows: T[], by?: { column: Column; down: boolean }): T[] {
  if (!by) return rows
  const figure = (c: T) => (by.column === 'item' ? c.item : (c.row[by.column] ?? -Infinity))
  return [...rows].sort((a, b) => {
    const x = figure(a)
    const y = figure(b)
    const less = x < y ? -1 : x > y ? 1 : 0
    return by.down ? -less : less
  })
}

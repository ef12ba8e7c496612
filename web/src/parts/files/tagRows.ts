import type { TagMap } from '@/api/client'

/** One line of the form for each tag; a field may have several. */
export interface TagRow {
  tag: string
  field: string
  split: string
}

export const rowsOf = (m: TagMap): TagRow[] =>
  m.fields.flatMap((f) => f.tags.map((tag) => ({ tag, field: f.field, split: f.split ?? '' })))

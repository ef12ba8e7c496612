import type { Clash, Edit, NewDecision, ReviewDocument, ShelfPatch, What } from '@/api/client'

/** A change as it waits to be saved. */
export interface Waiting {
  id: string
  what: What
  edits: Edit[]
  decisions?: NewDecision[]
  samples?: { id: number; name?: string; deleted?: boolean }[]
  keyStudies?: { id: number; deleted: boolean }[]
  shelf?: ShelfPatch[]
}

/** Two people changed the same thing: someone has to choose. */
export interface Conflict {
  waiting: Waiting
  clashes: Clash[]
  mine: ReviewDocument // as it was meant to be
}

/** Whether what is mine can be had: what it was put into may be gone for good. */
export const canKeepMine = (c: Conflict) =>
  !c.clashes.some((x) => x.what === 'gone' || x.what === 'revision')

/**
 * Returns the change as it is to be sent on top of what is there now, so that mine holds: what was taken out there is put
 * in again first.
 */
export function keepMine(c: Conflict): Waiting {
  const again: Edit[] = []
  for (const x of c.clashes) {
    if (x.theirs !== '' || x.part) continue
    const block = c.mine.blocks.find((b) => b.id === x.id)
    const of = c.mine.blocks.find((b) => b.terms.some((t) => t.id === x.id))
    const term = of?.terms.find((t) => t.id === x.id)
    if (x.what === 'block' && block) again.push({ op: 'addBlock', block })
    if (x.what === 'term' && of && term) again.push({ op: 'addTerm', block: of.id, term })
  }
  return { ...c.waiting, edits: [...again, ...c.waiting.edits] }
}

/** Returns what is left of a change where theirs holds; nothing, where all of it was in question. */
export function takeTheirs(c: Conflict): Waiting | undefined {
  const edits = c.waiting.edits.filter((e) => !c.clashes.some((x) => about(e, x)))
  const rest =
    edits.length +
    (c.waiting.decisions?.length ?? 0) +
    (c.waiting.samples?.length ?? 0) +
    (c.waiting.keyStudies?.length ?? 0) +
    (c.waiting.shelf?.length ?? 0)
  if (edits.length === c.waiting.edits.length || rest === 0) return undefined
  return { ...c.waiting, edits }
}

/** Whether an edit is about what two people made something else of. */
function about(e: Edit, x: Clash): boolean {
  switch (x.what) {
    case 'journal':
      return e.op === 'handSearch' && e.journal === x.id
    case 'order':
      return e.op === 'moveBlock' || e.op === 'moveTerm'
    case 'gone':
      return (e.op === 'addTerm' && e.term.id === x.id) || ('id' in e && e.id === x.id)
    case 'block':
      return (
        ('id' in e && e.id === x.id) ||
        ('block' in e && (typeof e.block === 'string' ? e.block : e.block.id) === x.id)
      )
    case 'line':
      return 'id' in e && e.id === x.id
    case 'term':
      return (e.op === 'addTerm' && e.term.id === x.id) || ('id' in e && e.id === x.id)
    default:
      return e.op === x.what
  }
}

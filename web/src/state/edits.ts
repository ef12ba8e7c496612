import type { Edit, ReviewDocument } from '@/api/client'

/** A document is data as JSON has it; this copies also what Vue watches. */
function copy<T>(x: T): T {
  return JSON.parse(JSON.stringify(x)) as T
}

/**
 * Returns the document with the edits made; the document itself stays as it is. An edit of something that is gone does
 * nothing. The program makes the same edits (core/review): core/review/testdata/edits.json holds the two together.
 */
export function applied(document: ReviewDocument, edits: Edit[]): ReviewDocument {
  if (edits.length === 0) return document
  const doc: ReviewDocument = copy(document)
  for (const edit of edits) make(doc, copy(edit))
  return doc
}

function make(doc: ReviewDocument, edit: Edit): void {
  const block = (id: string) => doc.blocks.find((b) => b.id === id)
  switch (edit.op) {
    case 'question':
      doc.question = edit.text
      return
    case 'frame':
      doc.frame = edit.frame
      return
    case 'order':
      doc.order = edit.order
      return
    case 'limits':
      doc.limits = edit.limits
      return
    case 'vocabulary':
      doc.vocabulary = edit.vocabulary
      return
    case 'halves':
      doc.halves = edit.halves
      return
    case 'part': {
      const others = (doc.parted ?? []).filter((w) => w !== edit.writing)
      doc.parted = edit.apart ? [...others, edit.writing] : others
      return
    }
    case 'handSearch': {
      const before = doc.handSearch?.find((h) => h.journal === edit.journal)
      if (!edit.on) doc.handSearch = doc.handSearch?.filter((h) => h !== before)
      else if (before) before.note = edit.note ?? before.note
      else
        doc.handSearch = [
          ...(doc.handSearch ?? []),
          { journal: edit.journal, name: edit.name, note: edit.note ?? '' },
        ]
      return
    }
    case 'addBlock':
      if (!block(edit.block.id))
        putBefore(
          doc.blocks,
          { ...edit.block, name: freeLetter(doc, edit.block.name) },
          edit.before,
        )
      return
    case 'patchBlock':
      Object.assign(block(edit.id) ?? {}, edit.patch)
      return
    case 'removeBlock':
      doc.blocks = doc.blocks.filter((b) => b.id !== edit.id)
      return
    case 'moveBlock':
      moveBefore(doc.blocks, edit.id, edit.before)
      return
    case 'addTerm': {
      const terms = block(edit.block)?.terms
      if (terms && !terms.some((t) => t.id === edit.term.id))
        putBefore(terms, edit.term, edit.before)
      return
    }
    case 'patchTerm':
      Object.assign(block(edit.block)?.terms.find((t) => t.id === edit.id) ?? {}, edit.patch)
      return
    case 'removeTerm': {
      const b = block(edit.block)
      if (b) b.terms = b.terms.filter((t) => t.id !== edit.id)
      return
    }
    case 'moveTerm':
      moveBefore(block(edit.block)?.terms ?? [], edit.id, edit.before)
      return
    case 'addLine': {
      const lines = (doc.lines ??= [])
      if (!lines.some((l) => l.id === edit.line.id)) putBefore(lines, edit.line, edit.before)
      return
    }
    case 'patchLine':
      Object.assign(doc.lines?.find((l) => l.id === edit.id) ?? {}, edit.patch)
      return
    case 'removeLine':
      doc.lines = doc.lines?.filter((l) => l.id !== edit.id)
      return
  }
}

/** Puts something before what has an id, or last. */
function putBefore<T extends { id: string }>(list: T[], x: T, before?: string) {
  const at = list.findIndex((y) => y.id === before)
  list.splice(at < 0 ? list.length : at, 0, x)
}

function moveBefore<T extends { id: string }>(list: T[], id: string, before?: string) {
  const from = list.findIndex((x) => x.id === id)
  if (from >= 0) putBefore(list, list.splice(from, 1)[0], before)
}

/** The edit that moves a term up or down by so many lines. */
export function moved(
  block: { id: string; terms: { id: string }[] },
  id: string,
  by: number,
): Edit {
  const rest = block.terms.filter((t) => t.id !== id)
  const to = Math.max(0, block.terms.findIndex((t) => t.id === id) + by)
  return { op: 'moveTerm', block: block.id, id, before: rest[to]?.id }
}

/** The wanted letter, or the first that no block has. */
export function freeLetter(doc: ReviewDocument, wanted = ''): string {
  const taken = new Set(doc.blocks.map((b) => b.name))
  if (wanted && !taken.has(wanted)) return wanted
  return [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].find((c) => !taken.has(c)) ?? '?'
}

/** A name for something new that no other window gives. */
export function newId(): string {
  return crypto.randomUUID()
}

import type { Block, Limit, ReviewDocument, Term } from '@/api/client'

/**
 * One edit of the document, as data: so that it can be kept while the program cannot be reached, and
 * made again on whatever the document has become meanwhile.
 */
export type Op =
  | { op: 'question'; text: string }
  | { op: 'frame'; frame: string }
  | { op: 'addBlock'; block: Block }
  | { op: 'patchBlock'; id: string; patch: Partial<Omit<Block, 'id' | 'terms'>> }
  | { op: 'removeBlock'; id: string }
  | { op: 'addTerm'; block: string; term: Term }
  | { op: 'patchTerm'; block: string; id: string; patch: Partial<Term> }
  | { op: 'removeTerm'; block: string; id: string }
  | { op: 'moveTerm'; block: string; id: string; by: number }
  | { op: 'replaceBlock'; block: Block }
  | { op: 'limits'; limits: Limit[] }
  | { op: 'vocabulary'; vocabulary?: number }
  | { op: 'part'; writing: string; apart: boolean }
  | { op: 'handSearch'; journal: string; name: string; note?: string; on: boolean }

/** A document is data as JSON has it; this copies also what Vue watches. */
function copy<T>(x: T): T {
  return JSON.parse(JSON.stringify(x)) as T
}

/** Returns the document with the edits made. An edit of something that is gone does nothing. */
export function applyOps(document: ReviewDocument, ops: Op[]): ReviewDocument {
  if (ops.length === 0) return document
  const doc: ReviewDocument = copy(document)
  for (const op of ops) applyOne(doc, op)
  return doc
}

function applyOne(doc: ReviewDocument, op: Op): void {
  const block = (id: string) => doc.blocks.find((b) => b.id === id)
  switch (op.op) {
    case 'question':
      doc.question = op.text
      return
    case 'frame':
      doc.frame = op.frame
      return
    case 'limits':
      doc.limits = op.limits
      return
    case 'vocabulary':
      doc.vocabulary = op.vocabulary
      return
    case 'part': {
      const others = (doc.parted ?? []).filter((w) => w !== op.writing)
      doc.parted = op.apart ? [...others, op.writing] : others
      return
    }
    case 'handSearch': {
      const list = (doc.handSearch ?? []).filter((h) => h.journal !== op.journal)
      const before = doc.handSearch?.find((h) => h.journal === op.journal)
      if (!op.on) doc.handSearch = list
      else if (before) Object.assign(before, { note: op.note ?? before.note })
      else doc.handSearch = [...list, { journal: op.journal, name: op.name, note: op.note ?? '' }]
      return
    }
    case 'addBlock':
      if (!block(op.block.id)) doc.blocks.push({ ...copy(op.block), name: freeLetter(doc, op.block.name) })
      return
    case 'patchBlock':
      Object.assign(block(op.id) ?? {}, op.patch)
      return
    case 'removeBlock':
      doc.blocks = doc.blocks.filter((b) => b.id !== op.id)
      return
    case 'replaceBlock': {
      const at = doc.blocks.findIndex((b) => b.id === op.block.id)
      if (at >= 0) doc.blocks[at] = copy(op.block)
      else doc.blocks.push(copy(op.block))
      return
    }
    case 'addTerm': {
      const terms = block(op.block)?.terms
      if (terms && !terms.some((t) => t.id === op.term.id)) terms.push(copy(op.term))
      return
    }
    case 'patchTerm':
      Object.assign(block(op.block)?.terms.find((t) => t.id === op.id) ?? {}, op.patch)
      return
    case 'removeTerm': {
      const b = block(op.block)
      if (b) b.terms = b.terms.filter((t) => t.id !== op.id)
      return
    }
    case 'moveTerm': {
      const terms = block(op.block)?.terms ?? []
      const from = terms.findIndex((t) => t.id === op.id)
      if (from < 0) return
      const to = Math.min(Math.max(from + op.by, 0), terms.length - 1)
      terms.splice(to, 0, ...terms.splice(from, 1))
      return
    }
  }
}

/** The wanted letter, or the first that no block has. */
export function freeLetter(doc: ReviewDocument, wanted = ''): string {
  const taken = new Set(doc.blocks.map((b) => b.name))
  if (wanted && !taken.has(wanted)) return wanted
  return [...'ABCDEFGHIJKLMNOPQRSTUVWXYZ'].find((c) => !taken.has(c)) ?? '?'
}

/** The blocks that edits touch. */
export function touched(ops: Op[]): string[] {
  return [...new Set(ops.flatMap((op) => ('block' in op ? [typeof op.block === 'string' ? op.block : op.block.id] : 'id' in op ? [op.id] : [])))]
}

/** A name for something new that no other window gives. */
export function newId(): string {
  return crypto.randomUUID()
}

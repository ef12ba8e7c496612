import type { ReviewDocument } from '@/api/client'

/** What of a term or block is said beside the search: it finds nothing, and no figure of the search goes by it. */
const beside = new Set(['note', 'from', 'quiet', 'reason', 'origin'])

/** Stands for all of a document that finds records: two documents that find by the same have the same. */
export function stampOf(d: ReviewDocument | undefined): string {
  const said = JSON.stringify([d?.blocks, d?.limits], (key, value) =>
    beside.has(key) ? undefined : (value as unknown),
  )
  return digest(said)
}

/** A short text for a long one: two long ones have the same by chance once in some ten thousand million million. */
function digest(text: string): string {
  let a = 0xdeadbeef
  let b = 0x41c6ce57
  for (let i = 0; i < text.length; i++) {
    const c = text.charCodeAt(i)
    a = Math.imul(a ^ c, 2654435761)
    b = Math.imul(b ^ c, 1597334677)
  }
  a = Math.imul(a ^ (a >>> 16), 2246822507) ^ Math.imul(b ^ (b >>> 13), 3266489909)
  b = Math.imul(b ^ (b >>> 16), 2246822507) ^ Math.imul(a ^ (a >>> 13), 3266489909)
  return `${(b >>> 0).toString(36)}${(a >>> 0).toString(36)}${text.length.toString(36)}`
}

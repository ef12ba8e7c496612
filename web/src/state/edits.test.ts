import { readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import type { Edit, ReviewDocument } from '@/api/client'
import { applied, moved } from './edits'

interface Example {
  name: string
  from: ReviewDocument
  edits: Edit[]
  to: ReviewDocument
}

// The same examples are read where the program makes the edits.
const examples = JSON.parse(
  readFileSync(new URL('../../../core/review/testdata/edits.json', import.meta.url), 'utf8'),
) as Example[]

/** What is empty may be said or left out. */
function lean(x: unknown): unknown {
  if (Array.isArray(x)) return x.map(lean)
  if (x === null || typeof x !== 'object') return x
  return Object.fromEntries(
    Object.entries(x)
      .map(([k, v]) => [k, lean(v)] as const)
      .filter(
        ([k, v]) =>
          k === 'on' ||
          !(
            v === undefined ||
            v === null ||
            v === '' ||
            v === false ||
            v === 0 ||
            (Array.isArray(v) && v.length === 0)
          ),
      ),
  )
}

describe('edits make of a document what the examples say', () => {
  it.each(examples)('$name', ({ from, edits, to }) => {
    const before = JSON.stringify(from)
    expect(lean(applied(from, edits))).toEqual(lean(to))
    expect(JSON.stringify(from)).toBe(before)
  })
})

it('a term is moved by lines, and not past the ends', () => {
  const block = { id: 'a', terms: ['1', '2', '3'].map((id) => ({ id })) }
  expect(moved(block, '1', 1)).toEqual({ op: 'moveTerm', block: 'a', id: '1', before: '3' })
  expect(moved(block, '2', 1)).toEqual({ op: 'moveTerm', block: 'a', id: '2', before: undefined })
  expect(moved(block, '3', -1)).toEqual({ op: 'moveTerm', block: 'a', id: '3', before: '2' })
  expect(moved(block, '1', -1)).toEqual({ op: 'moveTerm', block: 'a', id: '1', before: '2' })
})

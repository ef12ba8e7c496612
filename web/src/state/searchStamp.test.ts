import { describe, expect, it } from 'vitest'
import type { ReviewDocument } from '@/api/client'
import { stampOf } from './searchStamp'

const with_ = (term: object, block: object = {}) =>
  ({
    blocks: [
      { id: 'a', name: 'A', terms: [{ id: 't', kind: 'text', text: 'heat', ...term }], ...block },
    ],
    limits: [],
  }) as unknown as ReviewDocument

describe('the stamp of a search', () => {
  const now = stampOf(with_({}))

  it('stays with what is noted, and where a term came from', () => {
    for (const beside of [
      { note: 'Sol asked for it' },
      { from: { facet: 'words', item: 'heat' } },
      { quiet: ['rare'] },
    ])
      expect(stampOf(with_(beside))).toBe(now)
    expect(stampOf(with_({}, { reason: 'the question says so' }))).toBe(now)
  })

  it('changes with what finds records', () => {
    for (const other of [{ text: 'heat*' }, { on: false }, { field: 'title' }, { id: 'u' }])
      expect(stampOf(with_(other))).not.toBe(now)
    expect(stampOf(with_({}, { searched: false }))).not.toBe(now)
    expect(
      stampOf({ ...with_({}), limits: [{ kind: 'years', from: 2010 }] } as ReviewDocument),
    ).not.toBe(now)
  })

  it('is as short for a long search', () => {
    expect(stampOf(with_({ text: 'heat '.repeat(10_000) })).length).toBeLessThan(24)
  })
})

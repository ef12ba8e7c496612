import { expect, it } from 'vitest'
import type { Block, Clash, Edit, Term } from '@/api/client'
import { canKeepMine, keepMine, takeTheirs, type Conflict } from './queue'

const term = (id: string): Term => ({ id, kind: 'text', text: id, on: true })
const block = (id: string, ...terms: Term[]): Block => ({
  id,
  name: 'A',
  concept: '',
  part: '',
  seeds: [],
  searched: true,
  reason: '',
  negated: false,
  terms,
})
const clash = (c: Partial<Clash> & Pick<Clash, 'what'>): Clash => ({ mine: 'x', theirs: 'y', ...c })
const conflict = (edits: Edit[], ...clashes: Clash[]): Conflict => ({
  waiting: { id: '1', what: { key: 'x', params: {} }, edits },
  clashes,
  mine: { question: '', frame: '', limits: [], blocks: [block('a', term('t'))] },
})

it('puts in again what was taken out there, where mine is kept', () => {
  const off: Edit = { op: 'patchTerm', block: 'a', id: 't', patch: { on: false } }
  expect(keepMine(conflict([off], clash({ what: 'term', id: 't', theirs: '' }))).edits).toEqual([
    { op: 'addTerm', block: 'a', term: term('t') },
    off,
  ])
  expect(keepMine(conflict([off], clash({ what: 'block', id: 'a', theirs: '' }))).edits[0]).toEqual(
    { op: 'addBlock', block: block('a', term('t')) },
  )
  expect(
    keepMine(conflict([off], clash({ what: 'term', part: 'on', id: 't', theirs: '' }))).edits,
  ).toEqual([off])
})

it('lets go of what is in question alone, where theirs is taken', () => {
  const question: Edit = { op: 'question', text: 'Q' }
  const add: Edit = { op: 'addTerm', block: 'a', term: term('n') }
  expect(takeTheirs(conflict([question, add], clash({ what: 'question' })))?.edits).toEqual([add])
  expect(takeTheirs(conflict([question, add], clash({ what: 'block', id: 'a' })))?.edits).toEqual([
    question,
  ])
  expect(takeTheirs(conflict([question], clash({ what: 'question' })))).toBeUndefined()
  expect(takeTheirs(conflict([add], clash({ what: 'halves' })))).toBeUndefined()
  const decided = conflict([question], clash({ what: 'question' }))
  decided.waiting.decisions = [{ facet: 'words', item: 'heat', state: 'parked' }]
  expect(takeTheirs(decided)?.edits).toEqual([])
})

it('cannot keep what has no place any more', () => {
  expect(canKeepMine(conflict([], clash({ what: 'gone' })))).toBe(false)
  expect(canKeepMine(conflict([], clash({ what: 'term' })))).toBe(true)
})

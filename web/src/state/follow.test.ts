import { expect, it } from 'vitest'
import type { Review, Step } from '@/api/client'
import { Follower, withStep } from './follow'

const review = (number = 1): Review => ({
  id: 1,
  name: 'Heat',
  number,
  revision: 1,
  document: { question: '', frame: '', blocks: [], limits: [] },
  samples: [],
  keyStudies: [],
  decisions: [],
  shelf: [4],
  look: { name: 'x', rest: true, samples: [] },
  imports: [],
})
const step = (number: number, more: Partial<Step> = {}): Step => ({
  number,
  revision: number,
  edits: [{ op: 'question', text: `Q${number}` }],
  decisions: [],
  shelf: [],
  whole: false,
  merged: false,
  ...more,
})

it('takes up steps in their order, each once, whenever they come', () => {
  const f = new Follower()
  f.hear(step(3))
  let r = f.follow(review())
  expect(r.missed).toBe(true)
  expect(r.review.number).toBe(1)
  f.hear(step(2))
  r = f.follow(r.review)
  expect(r.missed).toBe(false)
  expect(r.review).toMatchObject({ number: 3, revision: 3, document: { question: 'Q3' } })
  f.hear(step(2))
  expect(f.follow(r.review)).toEqual({ review: r.review, missed: false })
})

it('asks anew where a step does not tell all', () => {
  const f = new Follower()
  f.hear(step(2))
  f.hear(step(3, { whole: true }))
  const r = f.follow(review())
  expect(r.missed).toBe(true)
  expect(r.review.number).toBe(2)
  // Once all was asked for anew, what was missed is past.
  expect(f.follow(review(3))).toEqual({ review: review(3), missed: false })
})

it('tells decisions and the shelf', () => {
  const parked = withStep(
    review(),
    step(2, {
      decisions: [{ facet: 'words', item: 'heat', state: 'parked' }],
      shelf: [
        { record: 4, on: false },
        { record: 9, on: true },
      ],
    }),
  )
  expect(parked.decisions).toMatchObject([
    { facet: 'words', item: 'heat', state: 'parked', reason: '' },
  ])
  expect(parked.shelf).toEqual([9])
  expect(
    withStep(parked, step(3, { decisions: [{ facet: 'words', item: 'heat', state: 'open' }] }))
      .decisions,
  ).toEqual([])
})

import { readdirSync, readFileSync } from 'node:fs'
import { describe, expect, it } from 'vitest'
import { groups, shown, withMember } from './dialectForm'

const folder = new URL('../../../../core/dialect/known/', import.meta.url)
const files = readdirSync(folder).filter((f) => f.endsWith('.json'))
const members = Object.values(groups).flat()

describe('a dialect that ships is the same after each member of it is typed again', () => {
  it.each(files)('%s', (name) => {
    const body = JSON.parse(readFileSync(new URL(name, folder), 'utf8')) as Record<string, unknown>
    let again = { ...body }
    for (const m of members) again = withMember(again, m, shown(again, m))
    expect(again).toEqual(body)
    // Nothing of it is left out of the form.
    const empty = members.reduce((b, m) => withMember(b, m, ''), body)
    expect(Object.keys(empty).sort()).toEqual([
      ...['brackets', 'clauses', 'fields', 'operators', 'tamiz', 'terms'],
    ])
    expect(Object.values(empty.terms as object)).toEqual([])
  })
})

it('what is typed into a member is read as what it is', () => {
  const m = (path: string) => members.find((x) => x.path === path)!
  expect(withMember({}, m('terms.marks'), '"\n( )')).toEqual({
    terms: {
      marks: [
        ['"', '"'],
        ['(', ')'],
      ],
    },
  })
  expect(withMember({}, m('operators.ranks'), 'not\nand, or')).toEqual({
    operators: { ranks: [['not'], ['and', 'or']] },
  })
  expect(withMember({ near: { most: 3 } }, m('near.most'), '')).toEqual({})
  expect(withMember({}, m('longest'), '250')).toEqual({ longest: 250 })
  expect(withMember({ terms: { end: true } }, m('terms.end'), 'false')).toEqual({ terms: {} })
})

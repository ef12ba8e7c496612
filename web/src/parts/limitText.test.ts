import { describe, expect, it } from 'vitest'
import { limitText } from './limitText'

const t = (key: string, named: Record<string, unknown>) => `${key} ${JSON.stringify(named)}`

describe('what a limit says', () => {
  it('names years, open at either end', () => {
    expect(limitText({ kind: 'years', from: 2010 }, t)).toBe('bench.years {"from":2010,"to":"…"}')
    expect(limitText({ kind: 'years', to: 2020 }, t)).toBe('bench.years {"from":"…","to":2020}')
  })
  it('names what it lets in, and that titles may say so', () => {
    expect(limitText({ kind: 'types', values: ['Review', 'Letter'] }, t)).toBe('Review, Letter')
    expect(limitText({ kind: 'types', values: ['Review'], titles: ['overview'] }, t)).toBe(
      'Review, shape.orTitles {}',
    )
  })
  it('names what it keeps out', () => {
    expect(
      limitText({ kind: 'humans', values: ['Humans'], against: ['Animals', 'Plants'] }, t),
    ).toBe('shape.notAgainst {"against":"Animals, Plants","but":"Humans"}')
  })
})

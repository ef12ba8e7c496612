import { describe, expect, it } from 'vitest'
import { marked } from './marked'

describe('words that changed are marked', () => {
  it('in both versions of a line', () => {
    expect(marked('farm worker* in title', 'farm labourer* in title')).toEqual([
      { text: 'farm ', other: false },
      { text: 'worker*', other: true },
      { text: ' in title', other: false },
    ])
  })
  it('none where nothing changed, all where everything did', () => {
    expect(marked('shade', 'shade')).toEqual([{ text: 'shade', other: false }])
    expect(marked('shade', 'rest')).toEqual([{ text: 'shade', other: true }])
    expect(marked('', 'rest')).toEqual([])
  })
  it('says the line again, whatever is marked', () => {
    const line = 'a b  c a d'
    expect(
      marked(line, 'b a c d e')
        .map((m) => m.text)
        .join(''),
    ).toBe(line)
  })
})

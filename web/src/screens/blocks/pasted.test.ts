import { describe, expect, it } from 'vitest'
import { termsOf } from './pasted'

describe('a list that is pasted', () => {
  it('is parted by lines and by OR, without quotes and empty lines', () => {
    expect(termsOf('"rest break*"\r\nshade OR “cool room”\n\n  OR hydration ')).toEqual([
      'rest break*',
      'shade',
      'cool room',
      'hydration',
    ])
  })
  it('leaves words alone that hold the letters', () => {
    expect(termsOf('orchard\nmotor OR order')).toEqual(['orchard', 'motor', 'order'])
  })
  it('is nothing where nothing stands', () => expect(termsOf(' \n ')).toEqual([]))
})

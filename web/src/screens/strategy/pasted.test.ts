import { describe, expect, it } from 'vitest'
import { mended, stretches, unit } from './pasted'

describe('a query with findings', () => {
  it('is mended at code points, whatever the browser counts', () => {
    expect(mended('𝒙 and (heat', { from: 6, to: 11 }, '(heat)')).toBe('𝒙 and (heat)')
    expect(unit('𝒙 and', 1)).toBe(2)
  })
  it('is cut where findings begin and end, and nothing is lost', () => {
    const parts = stretches('heat or shade', [
      { from: 0, to: 13 },
      { from: 8, to: 13 },
    ])
    expect(parts.map((p) => p.text)).toEqual(['heat or ', 'shade'])
    expect(parts.map((p) => p.findings)).toEqual([[0], [0, 1]])
    expect(
      stretches('heat', [{ from: 2, to: 99 }])
        .map((p) => p.text)
        .join(''),
    ).toBe('heat')
  })
})

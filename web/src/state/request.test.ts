import { describe, expect, it } from 'vitest'
import { useOnce } from './request'

describe('a call that is made once', () => {
  it('keeps its name until it is answered, and takes another for other words', async () => {
    const once = useOnce()
    const names: string[] = []
    const send = (what: unknown, fails = false) =>
      once((headers) => {
        names.push(headers['Tamiz-Request'])
        return fails ? Promise.reject(new Error('lost')) : Promise.resolve('done')
      }, what).catch(() => 'lost')
    expect(await send({ words: 'a' }, true)).toBe('lost')
    expect(await send({ words: 'a' })).toBe('done') // sent again: the same call
    expect(await send({ words: 'a' })).toBe('done') // said once more: another
    expect(await send({ words: 'a' }, true)).toBe('lost')
    expect(await send({ words: 'b' })).toBe('done') // in other words: another
    expect(names[1]).toBe(names[0])
    expect(new Set(names).size).toBe(4)
  })
})

import { describe, expect, it } from 'vitest'
import examples from '../../../testdata/keys.json'
import { labelKey } from './labelKey'

describe('keys', () => {
  it.each(examples)('$written is known as $key', ({ written, key }) => {
    expect(labelKey(written)).toBe(key)
  })
  it('makes nothing else of a key', () => {
    for (const { key } of examples.filter((x) => x.key !== 'ʼn'))
      expect(labelKey(key), key).toBe(key)
  })
})

import { beforeEach, describe, expect, it, vi } from 'vitest'
import { nextTick, ref } from 'vue'
import type { Look, NewLook, Review } from '@/api/client'

// What the program is asked, each waiting to be answered.
const asked: { body: NewLook; answer: (look: Look) => void; fail: (error: unknown) => void }[] = []
vi.mock('@/api/client', () => ({
  CallError: class extends Error {},
  ask: (x: unknown) => x,
  api: {
    POST: (_: string, { body }: { body: NewLook }) =>
      new Promise((answer, fail) => asked.push({ body, answer, fail })),
    GET: () => Promise.reject(new Error('none')),
  },
}))
// What is stored of what was chosen, until the address follows.
const stored: { choosing?: { value: unknown } } = {}
vi.mock('@vueuse/core', () => ({
  useStorage: (name: string, first: unknown) => {
    const kept = ref(first)
    if (name === 'tamiz-choosing') stored.choosing = kept
    return kept
  },
}))
vi.stubGlobal('sessionStorage', {})
vi.stubGlobal('location', { search: '' })

const { useLook } = await import('./look')

const review = (...samples: [number, number][]) =>
  ({
    id: 1,
    samples: samples.map(([id, records]) => ({ id, records })),
    document: {},
    look: { rest: true, samples: [] },
  }) as unknown as Review
const look = (name: string, body: NewLook, ...samples: [number, number][]): Look => ({
  ...body,
  rest: body.rest ?? false,
  name,
  samples: samples.map(([id, records]) => ({ id, records })),
})
const settle = async () => {
  for (let i = 0; i < 5; i++) await nextTick()
}

describe('what a window looks at', () => {
  beforeEach(() => (asked.length = 0))

  async function opened() {
    const saved = ref<Review>()
    const failed = vi.fn()
    const looks = useLook(saved, failed)
    const r = review([7, 10])
    const open = looks.open(r)
    await settle()
    asked[0].answer(look('first', asked[0].body, [7, 10]))
    await open
    saved.value = r
    await settle()
    asked.length = 0
    return { saved, looks, failed }
  }

  it('is what was chosen last, though samples change before it has its name', async () => {
    const { saved, looks } = await opened()
    void looks.lookAt({ sample: 7, rest: false, set: { kind: 'any' } })
    await settle()
    saved.value = review([7, 10], [8, 3]) // another sample came in
    await settle()
    const last = asked.at(-1)!
    expect(last.body.set).toEqual({ kind: 'any' })
    last.answer(look('second', last.body, [7, 10]))
    await settle()
    asked[0].answer(look('late', asked[0].body, [7, 10]))
    await settle()
    expect(looks.look.value?.name).toBe('second')
  })

  it('is gone on to when it is loaded anew before the address follows', async () => {
    const { looks, saved } = await opened()
    vi.stubGlobal('location', { search: '?look=first' })
    void looks.lookAt({ sample: 7, rest: false })
    await settle()
    asked[0].answer(look('second', asked[0].body, [7, 10]))
    await settle()
    expect(looks.look.value?.name).toBe('second')
    expect(stored.choosing?.value).toHaveProperty('1')
    vi.stubGlobal('location', { search: '?look=second' })
    looks.followed()
    expect(stored.choosing?.value).toEqual({})
    vi.stubGlobal('location', { search: '' })
    void saved
  })

  it('is what it was where the new cannot be had', async () => {
    const { looks, failed } = await opened()
    void looks.lookAt({ sample: 99, rest: false })
    expect(looks.looking.value).toBe(true)
    await settle()
    asked[0].fail(new Error('gone'))
    await settle()
    expect(failed).toHaveBeenCalledOnce()
    expect(looks.looking.value).toBe(false)
    expect(looks.look.value?.name).toBe('first')
    void looks.countAt(3)
    await settle()
    expect(asked.at(-1)!.body).toMatchObject({ source: 3, rest: true })
    expect(asked.at(-1)!.body.sample).toBeUndefined()
  })
})

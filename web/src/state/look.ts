import { useStorage } from '@vueuse/core'
import { computed, ref, shallowRef, watch, type Ref } from 'vue'
import { api, ask, CallError, type Look, type NewLook, type Review } from '@/api/client'

/**
 * What this window looks at in the review that is open: everybody has their own. It stands in the address, and is
 * remembered in this browser. When what it is made of changes (a sample is drawn further, the vocabulary is another), it is
 * taken anew.
 */
export function useLook(saved: Ref<Review | undefined>, failed: (error: unknown) => void) {
  const look = shallowRef<Look>()
  const wanted = ref<NewLook>({ rest: true }) // as it was chosen; what is not there any more gives way until it is again
  const remembered = useStorage<Record<string, string>>('tamiz-looks', {})
  // What was chosen and has no name yet, and what was looked at then: loaded anew, a window goes on to it.
  const choosing = useStorage<Record<string, { from: string[]; want: NewLook }>>(
    'tamiz-choosing',
    {},
    sessionStorage,
  )
  const looking = ref(false)
  let calls = 0
  let asking: string | undefined // what the look that is being named is made of

  /** Opens the look that an address names, else the one that was had last here, else that which the review begins with. */
  async function open(r: Review, named?: string) {
    const call = ++calls
    let found: Look | undefined
    for (const name of [named, remembered.value[r.id]]) {
      if (!name) continue
      try {
        found = await ask(
          api.GET('/api/reviews/{review}/looks/{look}', {
            params: { path: { review: r.id, look: name } },
          }),
        )
        break
      } catch (error) {
        if (error instanceof CallError && error.passing) throw error
      }
    }
    const pending = choosing.value[r.id]
    if (pending && found && pending.from.includes(found.name))
      found = await nameOf(r.id, pending.want).catch(() => found)
    // What a review begins with is kept by its name once somebody looks at it.
    found ??= await nameOf(r.id, choiceOf(r.look))
    if (call === calls) keep(r.id, found, found)
  }

  function keep(review: number, l: Look, choice: NewLook) {
    wanted.value = choiceOf(choice)
    look.value = l
    asking = undefined
    remembered.value = { ...remembered.value, [review]: l.name }
    looking.value = false
    // Until the address follows, a window that is loaded anew finds the look before there, and has to go on to this one.
    if (addressed() === l.name) settled(review)
  }

  /** The address has followed what is looked at. */
  function followed() {
    const review = saved.value?.id
    if (review && choosing.value[review] && !looking.value && addressed() === look.value?.name)
      settled(review)
  }

  function settled(review: number) {
    choosing.value = Object.fromEntries(
      Object.entries(choosing.value).filter(([id]) => id !== String(review)),
    )
    looking.value = false
  }

  const nameOf = (review: number, choice: NewLook) =>
    ask(api.POST('/api/reviews/{review}/looks', { params: { path: { review } }, body: choice }))

  /** What can be looked at of what is wanted. */
  const possible = computed<NewLook>(() => {
    const there = new Set(saved.value?.samples.map((s) => s.id) ?? [])
    const { sample, against, ...rest } = wanted.value
    const of = sample !== undefined && there.has(sample) ? sample : undefined
    const to = against !== undefined && there.has(against) && against !== of ? against : undefined
    return {
      ...rest,
      sample: of,
      against: to,
      rest: rest.rest || (against !== undefined && to === undefined),
    }
  })

  async function take(choice: NewLook, want = choice) {
    const review = saved.value?.id
    if (!review) return
    const call = ++calls
    const before = wanted.value
    // From now on it is what is wanted, also where the samples change before it has its name.
    wanted.value = choiceOf(want)
    asking = made.value
    // The address follows a look a little later: either may stand there when it is loaded anew.
    if (look.value)
      choosing.value = {
        ...choosing.value,
        [review]: { from: [look.value.name, addressed()], want },
      }
    looking.value = true
    try {
      const l = await nameOf(review, choice)
      if (call === calls && saved.value?.id === review)
        keep(review, l, { ...want, revision: l.revision })
    } catch (error) {
      if (call !== calls) return
      if (error instanceof CallError && error.problem.type === 'source-gone')
        return take({ ...choice, source: undefined }, { ...want, source: undefined })
      asking = undefined
      wanted.value = before
      // What cannot be reached now is gone on to when it is loaded anew.
      if (error instanceof CallError && error.passing) looking.value = false
      else settled(review)
      failed(error)
    }
  }

  /** Looks at something else. */
  const lookAt = (next: NewLook) => take(choiceOf(next))

  /** Shows the counts of another source, or of none. */
  const countAt = (source?: number) => take({ ...wanted.value, source })

  // What a look is made of, as the review is now.
  const made = computed(() => {
    const r = saved.value
    if (!r || !look.value) return undefined
    const { sample, against, rest } = possible.value
    const of = sample ?? r.samples.at(-1)?.id
    const others = r.samples.filter(
      (s) => s.id !== of && (against === undefined ? rest : s.id === against),
    )
    return JSON.stringify([
      of,
      others.map((s) => s.id).sort((a, b) => a - b),
      r.samples.map((s) => `${s.id}:${s.records}`),
      r.document.vocabulary ?? 0,
      r.document.parted ?? [],
    ])
  })
  const had = computed(() => {
    const l = look.value
    if (!l) return undefined
    const all = new Map(l.samples.map((s) => [s.id, s.records]))
    const sizes = (saved.value?.samples ?? []).map((s) => `${s.id}:${all.get(s.id) ?? s.records}`)
    return JSON.stringify([
      l.samples[0]?.id,
      l.samples
        .slice(1)
        .map((s) => s.id)
        .sort((a, b) => a - b),
      sizes,
      l.vocabulary ?? 0,
      l.parted ?? [],
    ])
  })
  watch([made, saved], ([now]) => {
    if (now !== undefined && now !== had.value && now !== asking)
      void take(possible.value, wanted.value)
  })

  // By other samples of the review is told what a block lacks: when one comes or goes, the look is another.
  const others = computed(() =>
    saved.value ? `${saved.value.id} ${saved.value.samples.map((s) => s.id).join(' ')}` : '',
  )
  watch(others, (now, before) => {
    const same = now.split(' ')[0] === before.split(' ')[0]
    if (same && look.value && !looking.value) void take(possible.value, wanted.value)
  })

  return { look, looking, open, lookAt, countAt, followed }
}

const addressed = () => new URLSearchParams(location.search).get('look') ?? ''

/** What of a look was chosen; the rest follows from it. */
function choiceOf({ source, sample, against, rest, set, revision }: NewLook): NewLook {
  return { source, sample, against, rest, set, revision }
}

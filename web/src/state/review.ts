import { useStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import {
  api,
  ask,
  CallError,
  type DecisionState,
  type Facet,
  type Import,
  type KeyStudy,
  type Look,
  type Review,
  type ReviewDocument,
  type Sample,
  type Step,
  type Term,
  type What,
} from '@/api/client'
import { applied, newId } from './edits'
import { Follower } from './follow'
import { useLook } from './look'
import { stampOf } from './searchStamp'
import { keepMine, takeTheirs, type Conflict, type Waiting } from './queue'
import { asRequest } from './request'
import { self } from './who'

export type Decided = {
  state: DecisionState
  reason: string
  at?: string
  who?: string
  sample?: number
}

/**
 * The review that is open: what the server last said of it, and on top of that the changes that are
 * not saved yet. Those are kept in the browser until they are, across reloads and outages.
 */
export const useReview = defineStore('review', () => {
  const saved = shallowRef<Review>()
  const queue = ref<Waiting[]>([])
  const offline = ref<CallError>() // why the program could not be reached, while it cannot
  const savedAt = ref<Date>()
  const conflict = ref<Conflict>()
  const refused = ref<unknown>() // why a change could not be made
  const missing = ref(false)
  const imports = ref(new Map<number, Import>())

  // One list for all reviews, so that what waits for one is not lost while another is open.
  const stored = useStorage<Record<string, Waiting[]>>('tamiz-queue', {})
  let sending: Promise<void> | undefined
  let follower = new Follower()
  let acting = 0 // calls on their way that change something, besides what waits
  /** Counts what came from the server: for lists that are asked for again whenever anything may have changed. */
  const stamp = ref(0)
  let retry: ReturnType<typeof setTimeout> | undefined

  const id = computed(() => saved.value?.id ?? 0)
  const document = computed<ReviewDocument>(() => {
    const base = saved.value?.document ?? { question: '', frame: '', blocks: [], limits: [] }
    return applied(
      base,
      queue.value.flatMap((w) => w.edits),
    )
  })
  const samples = computed<Sample[]>(() => {
    const patches = queue.value.flatMap((w) => w.samples ?? [])
    return (saved.value?.samples ?? [])
      .map((s) =>
        patches
          .filter((p) => p.id === s.id)
          .reduce((a, p) => ({ ...a, name: p.name ?? a.name }), s),
      )
      .filter((s) => !patches.some((p) => p.id === s.id && p.deleted))
  })
  const keyStudies = computed<KeyStudy[]>(() => {
    const gone = new Set(
      queue.value
        .flatMap((w) => w.keyStudies ?? [])
        .filter((k) => k.deleted)
        .map((k) => k.id),
    )
    return (saved.value?.keyStudies ?? []).filter((k) => !gone.has(k.id))
  })
  /** The vocabulary that headings go by, less one whose removal is not saved yet. */
  const vocabulary = computed(() =>
    document.value.vocabulary === saved.value?.vocabulary?.id ? saved.value?.vocabulary : undefined,
  )
  /** The records on the shelf, by number. */
  const shelf = computed(() => {
    const on = new Set(saved.value?.shelf ?? [])
    for (const p of queue.value.flatMap((w) => w.shelf ?? [])) {
      if (p.on) on.add(p.record)
      else on.delete(p.record)
    }
    return on
  })
  const looks = useLook(saved, (error) => {
    if (error instanceof CallError && error.passing) lost(error)
    else refused.value = error
  })
  const look = computed<Look>(() => looks.look.value ?? { name: '', rest: true, samples: [] })
  /** What figures are asked of. */
  const asked = computed(() => ({
    path: { review: id.value },
    query: { look: look.value.name || undefined },
  }))
  const sample = computed(() => samples.value.find((s) => s.id === look.value.sample))
  const decisions = computed(() => {
    const all = new Map<string, Decided>()
    const put = (d: {
      facet: Facet
      item: string
      state: DecisionState
      reason?: string
      at?: string
      who?: string
      sample?: number
    }) => {
      if (d.state === 'open') all.delete(decisionKey(d.facet, d.item))
      else
        all.set(decisionKey(d.facet, d.item), {
          state: d.state,
          reason: d.reason ?? '',
          at: d.at,
          who: d.who,
          sample: d.sample,
        })
    }
    saved.value?.decisions.forEach(put)
    queue.value.flatMap((w) => w.decisions ?? []).forEach(put)
    return all
  })
  /** By facet and item, the blocks that hold a term of it. */
  const kept = computed(() => {
    const all = new Map<string, string[]>()
    const put = (key: string, block: string) => {
      const has = all.get(key) ?? []
      if (!has.includes(block)) all.set(key, [...has, block])
    }
    for (const b of document.value.blocks) {
      for (const t of b.terms) {
        if (t.from?.facet) put(decisionKey(t.from.facet, t.from.item), b.id)
        if (!t.key) continue
        if (t.kind === 'heading') put(decisionKey('headings', t.key), b.id)
        else if (t.kind === 'text') {
          put(decisionKey('words', t.key), b.id)
          put(decisionKey('keywords', t.key), b.id)
          put(decisionKey('substances', t.key), b.id)
        }
      }
    }
    return all
  })
  /** Changes whenever figures may have changed: part of the key of every figure. */
  const revision = computed(() => saved.value?.revision ?? 0)
  /** Changes whenever a figure of blocks, terms or limits may have; not with notes and the like (see searchStamp.ts). */
  const searchStamp = computed(() => stampOf(saved.value?.document))
  /** Changes with what is dropped, once that is saved: what is proposed is asked for anew then, and it is not among it. */
  const dropStamp = computed(() =>
    (saved.value?.decisions ?? [])
      .filter((d) => d.state === 'dropped')
      .map((d) => decisionKey(d.facet, d.item))
      .sort()
      .join('\n'),
  )
  const keysStamp = computed(
    () =>
      `${(saved.value?.keyStudies ?? []).map((k) => k.id).join()}/${saved.value?.document.halves?.test.join() ?? ''}`,
  )
  const lookStamp = computed(() => look.value.name)
  const canUndo = computed(() => queue.value.at(-1)?.what ?? saved.value?.undo)
  const canRedo = computed(() => (queue.value.length ? undefined : saved.value?.redo))

  async function open(review: number, named?: string) {
    if (saved.value?.id !== review) {
      saved.value = undefined
      follower = new Follower()
      imports.value = new Map()
      queue.value = [...(stored.value[review] ?? [])]
    }
    missing.value = false
    await refresh(review, named)
    void flush()
  }

  async function refresh(review = id.value, named?: string): Promise<void> {
    if (!review) return
    try {
      const r = await ask(api.GET('/api/reviews/{review}', { params: { path: { review } } }))
      // What was done meanwhile may not be in this answer yet: it was heard of, and follows.
      if (saved.value?.id === review && saved.value.number > r.number) return refresh(review)
      if (saved.value?.id !== review) await looks.open(r, named)
      saved.value = r
      stamp.value++
      if (!queue.value.length) saved.value = follower.follow(r).review
      for (const i of r.imports) imports.value.set(i.id, i)
      reached()
    } catch (error) {
      if (error instanceof CallError && error.passing) lost(error)
      else missing.value = true
    }
  }

  /** Makes a change: it shows at once, is kept in the browser, and is sent when it can be. */
  function change(what: What, parts: Partial<Omit<Waiting, 'id' | 'what'>>) {
    queue.value.push({ id: newId(), what, edits: [], ...parts })
    keep()
    setTimeout(() => void flush()) // what it changes on the screen comes first
  }

  function keep() {
    const all = { ...stored.value }
    if (queue.value.length) all[id.value] = queue.value
    else delete all[id.value]
    stored.value = all
  }

  function done(waiting: Waiting) {
    queue.value = queue.value.filter((w) => w.id !== waiting.id)
    keep()
  }

  function flush(): Promise<void> {
    sending ??= send().finally(() => {
      sending = undefined
      void follow()
    })
    return sending
  }

  async function send() {
    while (queue.value.length && saved.value && !conflict.value) {
      const next = queue.value[0]
      const review = id.value
      const base = saved.value
      try {
        const { id: request, ...body } = next
        const step = await ask(
          api.POST('/api/reviews/{review}/changes', {
            params: { path: { review }, header: { 'If-Match': `"${base.revision}"` } },
            headers: asRequest(request),
            body,
          }),
        )
        if (id.value !== review) return
        await take(step)
        done(next)
      } catch (error) {
        if (!(error instanceof CallError)) throw error
        if (error.passing) return lost(error)
        if (error.problem.type === 'conflict') {
          conflict.value = {
            waiting: next,
            clashes: error.problem.clashes ?? [],
            mine: applied(base.document, next.edits),
          }
          await refresh(review)
          return
        }
        // It will never go through: it is taken back, and said why.
        done(next)
        refused.value = error
        await refresh(review)
      }
    }
  }

  /** Ends a conflict: mine is made again on what is there now, or gives way. */
  async function settle(choice: 'mine' | 'theirs') {
    const c = conflict.value
    if (!c) return
    await refresh() // the choice is made on what is there now
    conflict.value = undefined
    const kept = choice === 'mine' ? keepMine(c) : takeTheirs(c)
    queue.value = queue.value.flatMap((w) => (w.id === c.waiting.id ? (kept ? [kept] : []) : [w]))
    keep()
    void flush()
  }

  /** Takes up what was done here, with what others did before it; asks anew where that is not all that is needed. */
  async function take(step: Step) {
    if (!saved.value) return
    follower.hear(step)
    const { review, missed } = follower.follow(saved.value)
    if (missed || step.whole || review.number < step.number) await refresh()
    else {
      saved.value = { ...review, undo: step.undo, redo: step.redo }
      stamp.value++
    }
    reached()
    savedAt.value = new Date()
  }

  /** Takes up what others did, once nothing of one's own waits: what waits is thought out on what was there before. */
  async function follow() {
    if (!saved.value || queue.value.length || sending || acting) return
    const { review, missed } = follower.follow(saved.value)
    if (missed) return refresh()
    if (review === saved.value) return
    saved.value = review
    stamp.value++
  }

  function reached() {
    offline.value = undefined
    savedAt.value ??= new Date()
  }

  function lost(why: CallError) {
    offline.value = why
    clearTimeout(retry)
    retry = setTimeout(() => {
      if (conflict.value) void refresh()
      else void flush().then(() => (queue.value.length ? undefined : refresh()))
    }, 1000)
  }

  /** Makes a call that changes the review, and takes up what it did. */
  async function act(call: () => Promise<Step>): Promise<Step> {
    acting++
    try {
      const step = await call()
      await take(step)
      return step
    } finally {
      acting--
      void follow()
    }
  }

  /** Takes back one's last change, saved or not; or makes the last one again that was taken back. */
  async function step(
    direction: 'undo' | 'redo',
    as = newId(),
    tries = 0,
  ): Promise<What | undefined> {
    await flush()
    if (queue.value.length || conflict.value || !id.value) return undefined
    try {
      const path = { params: { path: { review: id.value } }, headers: asRequest(as) }
      return (
        await act(() =>
          ask(
            direction === 'undo'
              ? api.POST('/api/reviews/{review}/undo', path)
              : api.POST('/api/reviews/{review}/redo', path),
          ),
        )
      ).what
    } catch (error) {
      if (!(error instanceof CallError && error.passing)) {
        refused.value = error
        return undefined
      }
      lost(error)
      if (tries >= stepTries) return undefined
      // Whether it was done is not known where the answer was lost: asked again as the same, it is done once.
      await new Promise((resolve) => setTimeout(resolve, 1000))
      return step(direction, as, tries + 1)
    }
  }

  /** Splits the key studies at random into halves, or puts them together again. */
  async function split(into: boolean) {
    await flush()
    if (queue.value.length || conflict.value) return
    try {
      await act(() =>
        ask(
          api.POST('/api/reviews/{review}/halves', {
            params: { path: { review: id.value }, query: { split: into } },
          }),
        ),
      )
    } catch (error) {
      if (error instanceof CallError && error.passing) lost(error)
      else refused.value = error
    }
  }

  async function watchImport(number: number) {
    try {
      const i = await ask(
        api.GET('/api/imports/{import}', { params: { path: { import: number } } }),
      )
      imports.value.set(i.id, i)
      if (i.state === 'done' || i.state === 'failed') await refresh()
    } catch (error) {
      if (error instanceof CallError && error.passing) lost(error)
      else imports.value.delete(number) // someone left the file out
    }
  }

  /** Calls when news of the review come in. Those that come while something waits or is being sent follow afterwards. */
  function hear(news: { kind: string; import?: number; step?: Step }) {
    if (news.kind === 'import' && news.import) return void watchImport(news.import)
    if (!news.step) return void (queue.value.length || sending || acting ? undefined : refresh())
    if (saved.value && news.step.number <= saved.value.number) return
    // What another window of this browser did changes what can be taken back here.
    follower.hear(
      news.step.self === self.value && !sending && !acting
        ? { ...news.step, whole: true }
        : news.step,
    )
    void follow()
  }

  return {
    saved,
    id,
    document,
    samples,
    keyStudies,
    vocabulary,
    shelf,
    stamp,
    look,
    looking: looks.looking,
    lookAt: looks.lookAt,
    act,
    lookFollowed: looks.followed,
    countAt: looks.countAt,
    openLook: looks.open,
    asked,
    sample,
    decisions,
    kept,
    revision,
    searchStamp,
    dropStamp,
    keysStamp,
    lookStamp,
    canUndo,
    canRedo,
    queue,
    offline,
    savedAt,
    conflict,
    refused,
    missing,
    imports,
    open,
    refresh,
    change,
    step,
    split,
    settle,
    hear,
    flush,
    watchImport,
  }
})

/** How often undoing is tried again where the program does not answer. */
const stepTries = 5

export function decisionKey(facet: Facet, item: string): string {
  return `${facet}\n${item}`
}

/** A new term, switched on. */
export function newTerm(parts: Partial<Term> & Pick<Term, 'kind'>): Term {
  return { on: true, ...parts, id: parts.id || newId() }
}

/** How a term is written: as typed, `left ~3 right`, or its heading with the year up to which it is looked for. */
export function termText(t: Term): string {
  if (t.kind === 'near') return `${t.left} ~${t.within} ${t.right}`
  if (t.kind === 'heading') return (t.heading ?? '') + (t.until ? ` ≤ ${t.until}` : '')
  return t.text ?? ''
}

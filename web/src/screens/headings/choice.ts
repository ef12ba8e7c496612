import { computed, reactive, watch, type Ref } from 'vue'
import type { Block, Edit, HeadingWhole, Term } from '@/api/client'
import { itemOf, useDecide } from '@/state/decide'
import { newTerm } from '@/state/review'
import { labelKey } from '@/state/labelKey'

/** How a heading is taken: alone, with all below it, or with what is ticked below. */
export type How = 'all' | 'alone' | 'some'

export interface Choice {
  how: How
  without: string[] // left out, with what is come to through them alone
  central: boolean
  qualifiers: string[]
  words: string[] // ticked entry terms
  extra: string[] // ticked words of its records
  older: string[] // headings that were used before, taken too
}

/** What is chosen of the heading in view, and the edits that would take it into a block. */
export function useChoice(
  of: Ref<HeadingWhole | undefined>,
  block: Ref<Block | undefined>,
  wordsAlone: () => boolean, // a heading of another vocabulary is no term
) {
  const { addEdits, termOf } = useDecide()
  const choice = reactive<Choice>({
    how: 'alone',
    without: [],
    central: false,
    qualifiers: [],
    words: [],
    extra: [],
    older: [],
  })

  /** The term that the block has of it already. */
  const there = computed(() =>
    block.value?.terms.find(
      (t) =>
        t.kind === 'heading' &&
        !t.until &&
        labelKey(t.heading ?? '') === labelKey(of.value?.heading ?? ''),
    ),
  )
  // Each heading begins as its block has it, else as most are taken: with all below.
  watch(
    () => [of.value?.heading, of.value?.block, there.value?.id],
    () => {
      const whole = of.value
      if (!whole) return
      const had = there.value
      const below = whole.children.length > 0
      choice.how = had
        ? had.narrower
          ? had.without?.length
            ? 'some'
            : 'all'
          : 'alone'
        : below
          ? 'all'
          : 'alone'
      choice.without = [...(had?.without ?? [])]
      choice.central = had?.central ?? false
      choice.qualifiers = [...(had?.qualifiers ?? [])]
      choice.words = whole.entryTerms.filter((w) => w.ticked && !w.language).map((w) => w.text)
      choice.older = []
      choice.extra = []
    },
    { immediate: true },
  )

  const parts = computed<Partial<Term>>(() => ({
    narrower: choice.how !== 'alone',
    without: choice.how === 'some' ? [...choice.without].sort() : [],
    central: choice.central,
    qualifiers: [...choice.qualifiers].sort(),
  }))
  const term = computed<Term | undefined>(() =>
    of.value
      ? {
          ...termOf(itemOf({ kind: 'heading', item: of.value.heading })),
          ...parts.value,
        }
      : undefined,
  )

  function edits(into: Block): Edit[] {
    const whole = of.value
    if (!whole || !term.value) return []
    const had = into.terms.find(
      (t) =>
        t.kind === 'heading' && !t.until && labelKey(t.heading ?? '') === labelKey(whole.heading),
    )
    const out: Edit[] = []
    if (wordsAlone()) return wordEdits(into, whole)
    if (!had) out.push({ op: 'addTerm', block: into.id, term: term.value })
    else if (differs(had, parts.value))
      out.push({ op: 'patchTerm', block: into.id, id: had.id, patch: { ...parts.value } })
    for (const o of whole.before.filter((o) => choice.older.includes(o.label)))
      out.push(
        ...addEdits(
          into,
          newTerm({ kind: 'heading', heading: o.label, until: o.until || undefined }),
        ),
      )
    return [...out, ...wordEdits(into, whole)]
  }
  function wordEdits(into: Block, whole: HeadingWhole): Edit[] {
    const out: Edit[] = []
    for (const w of whole.entryTerms.filter((w) => choice.words.includes(w.text)))
      for (const text of [w.text, ...w.forms])
        out.push(...addEdits(into, termOf(itemOf({ kind: 'text', item: text }))))
    for (const text of choice.extra)
      out.push(...addEdits(into, termOf(itemOf({ kind: 'text', item: text }))))
    return out
  }

  return { choice, term, there, edits }
}

function differs(had: Term, wanted: Partial<Term>): boolean {
  const same = (a: string[] = [], b: string[] = []) =>
    [...a].sort().join('\n') === [...b].sort().join('\n')
  return (
    (had.narrower ?? false) !== wanted.narrower ||
    (had.central ?? false) !== wanted.central ||
    !same(had.qualifiers, wanted.qualifiers) ||
    !same(had.without, wanted.without)
  )
}

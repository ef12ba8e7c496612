import { useI18n } from 'vue-i18n'
import type { Block, Edit, Facet, NewDecision, Term } from '@/api/client'
import { useNotes } from './notes'
import { newId } from './edits'
import { decisionKey, newTerm, termText, useReview } from './review'
import { who } from './who'
import { labelKey } from '@/state/labelKey'

/** An item that someone may want in a block: what it is called, by what it is decided on, and its variants. */
export interface Item {
  facet: Facet
  item: string
  key: string
  forms?: string[]
}

/** What is proposed for a block as an item, the same wherever that is: words and headings go by how they are compared. */
export const itemOf = ({ kind, item }: { kind: string; item: string }): Item => ({
  facet: kind === 'heading' ? 'headings' : 'words',
  item,
  key: labelKey(item),
})

/** The facets whose items can be taken into blocks; the others are there to be looked at. */
export const taken: readonly Facet[] = ['words', 'headings', 'keywords', 'substances']

/** Whether the items of a facet go into a block as words. */
export const textual = (facet: Facet): boolean => taken.includes(facet) && facet !== 'headings'

/** By what an item may have been decided on: any of its variants. */
const keysOf = (item: Item) => item.forms ?? [item.key]

/** The reasons for dropping a candidate, in the order of their keys. */
export const dropReasons = ['other-meaning', 'too-broad', 'other-concept', 'says-nothing'] as const

/** What can be decided about an item: each is one change, which can be undone as one. */
export function useDecide() {
  const review = useReview()
  const notes = useNotes()
  const { t } = useI18n()

  /** The term that an item becomes; typed is how it is to be written, where that differs. */
  function termOf(item: Item, typed = item.item): Term {
    const from = {
      facet: item.facet,
      item: item.key,
      sample: review.look.sample,
      who: who.value.trim() || undefined,
      at: new Date().toISOString(),
    }
    if (item.facet === 'headings') return newTerm({ kind: 'heading', heading: typed, from })
    return newTerm({ kind: 'text', text: typed, field: 'text', from })
  }

  function has(block: Block, term: Term): boolean {
    return block.terms.some(
      (x) =>
        x.kind === term.kind &&
        labelKey(termText(x)) === labelKey(termText(term)) &&
        (x.field ?? 'text') === (term.field ?? 'text'),
    )
  }

  /** The edits that put a term into a block; none when it stands there already. */
  function addEdits(block: Block, term: Term): Edit[] {
    return has(block, term) ? [] : [{ op: 'addTerm', block: block.id, term }]
  }

  /** Puts terms into a block, as one change. */
  function add(block: Block, terms: Term | Term[], items: Item | Item[] = []) {
    const all = [terms].flat()
    const edits = all.flatMap((term) => addEdits(block, term))
    const text = all.map(termText).join(', ')
    if (!edits.length) {
      notes.say({ text: t('note.already', { term: text, block: block.name }) })
      return
    }
    review.change(
      { key: 'addTerm', params: { term: text, block: block.name } },
      { edits, decisions: [items].flat().flatMap(opened) },
    )
  }

  /** Begins a concept with terms, as one change, and returns the block that it has. */
  function addConcept(name: string, terms: Term[], items: Item[]): string {
    const block: Block = {
      id: newId(),
      name: '',
      concept: name,
      part: '',
      seeds: [],
      searched: true,
      reason: '',
      negated: false,
      terms: [],
    }
    review.change(
      { key: 'addConcept', params: { concept: name } },
      {
        edits: [
          { op: 'addBlock', block },
          ...terms.map((term): Edit => ({ op: 'addTerm', block: block.id, term })),
        ],
        decisions: items.flatMap(opened),
      },
    )
    return block.id
  }

  /** What opens an item again that was parked or dropped. */
  function opened(item: Item): NewDecision[] {
    return keysOf(item)
      .filter((key) => review.decisions.has(decisionKey(item.facet, key)))
      .map((key) => ({ facet: item.facet, item: key, state: 'open' }))
  }

  function decide(items: Item[], state: 'parked' | 'dropped', reason = '') {
    review.change(
      { key: state, params: { item: items[0].item, n: String(items.length) } },
      {
        decisions: items.map((i) => ({
          facet: i.facet,
          item: i.key,
          state,
          reason,
          sample: review.look.sample,
        })),
      },
    )
  }

  /** Opens items again: out of the blocks that hold them, and out of what was parked or dropped. */
  function takeBack(items: Item[]) {
    const edits = review.document.blocks.flatMap((b) =>
      b.terms
        .filter((term) => items.some((item) => isItem(term, item)))
        .map((term): Edit => ({ op: 'removeTerm', block: b.id, id: term.id })),
    )
    review.change(
      { key: 'takeBack', params: { item: items[0].item } },
      { edits, decisions: items.flatMap(opened) },
    )
  }

  function isItem(term: Term, item: Item): boolean {
    const keys = keysOf(item)
    if (term.from?.facet === item.facet && keys.includes(term.from.item)) return true
    if (term.key === undefined || !keys.includes(term.key)) return false
    return term.kind === 'heading'
      ? item.facet === 'headings'
      : term.kind === 'text' && item.facet !== 'headings'
  }

  return { termOf, addEdits, add, addConcept, decide, takeBack }
}

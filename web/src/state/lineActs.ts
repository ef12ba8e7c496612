import { useI18n } from 'vue-i18n'
import type { Block, Term } from '@/api/client'
import { useBench } from './bench'
import { moved, newId } from './edits'
import { useNotes } from './notes'
import { termText, useReview } from './review'
import { useSteps } from './steps'

/** What can be done to a line of a block, wherever it is shown: each is one change, undone as one. */
export function useLineActs(of: () => { block: Block; term: Term }) {
  const { t } = useI18n()
  const review = useReview()
  const bench = useBench()
  const notes = useNotes()
  const steps = useSteps()

  const said = () => ({ term: termText(of().term), block: of().block.name })
  const patch = (key: string, fields: Partial<Term>) =>
    review.change(
      { key, params: said() },
      {
        edits: [{ op: 'patchTerm', block: of().block.id, id: of().term.id, patch: fields }],
      },
    )

  function setOn(on: boolean) {
    bench.rest(undefined)
    patch(on ? 'switchOn' : 'switchOff', { on })
  }

  function setNote(note: string) {
    if (note !== (of().term.note ?? '')) patch('noteTerm', { note })
  }

  function ungroup() {
    patch('ungroup', { group: '' })
  }

  function remove() {
    bench.rest(undefined)
    const what = said()
    review.change(
      { key: 'removeTerm', params: what },
      { edits: [{ op: 'removeTerm', block: of().block.id, id: of().term.id }] },
    )
    notes.say({
      text: t('change.removeTerm', what),
      action: { label: t('steps.undo'), run: steps.undo },
    })
  }

  /** Up or down by so many lines. */
  function move(by: number) {
    review.change(
      { key: 'moveTerm', params: said() },
      { edits: [moved(of().block, of().term.id, by)] },
    )
  }

  /** Puts the line into another block. */
  function moveTo(other: Block) {
    bench.rest(undefined)
    review.change(
      { key: 'moveTo', params: { ...said(), to: other.name } },
      {
        edits: [
          { op: 'removeTerm', block: of().block.id, id: of().term.id },
          { op: 'addTerm', block: other.id, term: of().term },
        ],
      },
    )
  }

  /** A second one like it, switched off, to be changed into something else. */
  function double() {
    const { block, term } = of()
    const next = block.terms[block.terms.findIndex((x) => x.id === term.id) + 1]
    review.change(
      { key: 'doubleTerm', params: said() },
      {
        edits: [
          {
            op: 'addTerm',
            block: block.id,
            term: { ...term, id: newId(), on: false },
            before: next?.id,
          },
        ],
      },
    )
  }

  return { setOn, setNote, ungroup, remove, move, moveTo, double }
}

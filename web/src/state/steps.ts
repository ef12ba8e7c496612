import { useI18n } from 'vue-i18n'
import type { What } from '@/api/client'
import { useNotes } from './notes'
import { useReview } from './review'
import { who } from './who'

/** Undo and redo, with a word of what was taken back or made again. */
export function useSteps() {
  const review = useReview()
  const notes = useNotes()
  const { t, te } = useI18n()

  function say(what: What): string {
    const said = te(`change.${what.key}`) ? t(`change.${what.key}`, what.params) : t('change.other')
    return what.who && what.who !== who.value.trim()
      ? t('steps.by', { what: said, who: what.who })
      : said
  }

  async function undo() {
    const before = review.refused
    const what = await review.step('undo')
    if (review.refused !== before) return // why it could not be is said already
    if (what)
      notes.say({
        text: t('steps.undone', { what: say(what) }),
        action: { label: t('steps.redo'), run: redo },
      })
    else if (!review.offline) notes.say({ text: t('steps.nothingToUndo') })
  }

  async function redo() {
    const before = review.refused
    const what = await review.step('redo')
    if (review.refused !== before) return
    if (what)
      notes.say({
        text: t('steps.redone', { what: say(what) }),
        action: { label: t('steps.undo'), run: undo },
      })
    else if (!review.offline) notes.say({ text: t('steps.nothingToRedo') })
  }

  return { undo, redo, say }
}

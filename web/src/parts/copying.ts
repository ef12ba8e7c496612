import { useI18n } from 'vue-i18n'
import { useNotes } from '@/state/notes'

/** Returns a function that copies text, and says so or why it could not be. */
export function useCopying() {
  const { t } = useI18n()
  const notes = useNotes()
  return async (text: string, what: string) => {
    try {
      await navigator.clipboard.writeText(text)
      notes.say({ text: t('strategy.copied', { what }) })
    } catch {
      notes.say({ text: t('strategy.notCopied'), wrong: true })
    }
  }
}

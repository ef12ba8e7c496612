import { useI18n } from 'vue-i18n'
import type { SourceNote } from '@/api/client'

/** Returns a function that says what a source could not be asked, and what was asked in its place. */
export function useInstead() {
  const { t, te } = useI18n()
  return (x: SourceNote): string => {
    const key =
      x.kind === 'no-headings' && x.instead
        ? 'sourceNote.no-headings-words'
        : x.kind === 'no-field' && !x.instead
          ? 'sourceNote.no-field-none'
          : `sourceNote.${x.kind}`
    return te(key) ? t(key, { term: x.term, instead: x.instead ?? '' }) : x.term
  }
}

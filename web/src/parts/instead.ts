import { useI18n } from 'vue-i18n'
import type { TypedNote } from '@/api/client'

/** Returns a function that says what a source could not be asked, what was asked in its place, and what that costs. */
export function useInstead() {
  const { t, te, n } = useI18n()
  return (x: TypedNote): string => {
    const key =
      x.kind === 'no-headings' && x.instead
        ? 'sourceNote.no-headings-words'
        : x.kind === 'no-field' && !x.instead
          ? 'sourceNote.no-field-none'
          : `sourceNote.${x.kind}`
    const said = te(key)
      ? t(key, { term: x.term, instead: x.instead || t('sourceNote.nothing') })
      : x.term
    if (!x.more && !x.fewer) return said
    const cost = [
      x.more ? t('sourceNote.more', { n: n(x.more, 'whole') }) : '',
      x.fewer ? t('sourceNote.fewer', { n: n(x.fewer, 'whole') }) : '',
    ].filter(Boolean)
    return `${said}: ${cost.join(', ')}`
  }
}

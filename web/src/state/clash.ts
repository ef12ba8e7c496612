import { useI18n } from 'vue-i18n'
import type { Clash } from '@/api/client'

/** Says what two people made something else of: what it is, and what each made of it. */
export function useClash() {
  const { t, te } = useI18n()

  function named(c: Clash): string {
    const key = `conflict.what.${c.what}`
    const part = c.part && te(`conflict.part.${c.part}`) ? t(`conflict.part.${c.part}`) : ''
    const what = te(key) ? t(key, { name: c.name ?? '', block: c.block ?? '' }) : c.what
    return part ? t('conflict.of', { part, what }) : what
  }

  /** What one side made of it; nothing is that it was taken out there. */
  function side(c: Clash, of: 'mine' | 'theirs'): string {
    if (c.what === 'order' || c.what === 'revision') return t('conflict.changed')
    if (c[of] === '')
      return t(
        c.part || c.what === 'question' || c.what === 'frame' ? 'conflict.empty' : 'conflict.gone',
      )
    if (c[of] === 'true' || c[of] === 'false') return t(`conflict.${c[of]}`)
    return c[of]
  }

  return { named, side }
}

import { useI18n } from 'vue-i18n'
import type { TriedTerm } from '@/api/client'

/** Returns a function that says in words why a typed term is refused. */
export function useRefusal() {
  const { t, te } = useI18n()
  return (r: NonNullable<TriedTerm['refused']>): string =>
    te(`refused.${r.reason}`) ? t(`refused.${r.reason}`, { token: r.token ?? '' }) : r.message
}

/** Returns a function that says what a typed term finds: records, where there is a sample, and key studies. */
export function useFinds() {
  const { t, n } = useI18n()
  return (x: TriedTerm): string => {
    const keys = t('count.keys', { n: n(x.keys ?? 0, 'whole') }, x.keys ?? 0)
    if (x.records === undefined) return t('addTerm.keys', { keys })
    return t('panel.tried', {
      records: t('count.records', { n: n(x.records, 'whole') }, x.records),
      keys,
    })
  }
}

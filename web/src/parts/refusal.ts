import { useI18n } from 'vue-i18n'
import type { TriedTerm } from '@/api/client'

/** Returns a function that says in words why a typed term is refused. */
export function useRefusal() {
  const { t, te } = useI18n()
  return (r: NonNullable<TriedTerm['refused']>): string => (te(`refused.${r.reason}`) ? t(`refused.${r.reason}`, { token: r.token ?? '' }) : r.message)
}

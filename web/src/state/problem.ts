import { useI18n } from 'vue-i18n'
import { CallError, type Problem } from '@/api/client'
import { useClash } from './clash'

/** Returns a function that says a failed call in words: what happened, what was kept, what to do. */
export function useProblem() {
  const { t, te } = useI18n()
  const { named } = useClash()
  return (error: unknown): string => {
    const p: Problem =
      error instanceof CallError
        ? error.problem
        : { type: 'internal', title: String(error), status: 0 }
    return te(`problem.${p.type}`)
      ? t(`problem.${p.type}`, { what: p.clashes?.map(named).join(', ') ?? '', ...p.params })
      : p.title || t('problem.internal')
  }
}

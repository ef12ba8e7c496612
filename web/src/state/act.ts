import { useFresh, type Figure } from '@/figures'
import { useNotes } from './notes'
import { useProblem } from './problem'

/**
 * Does something at the program: what goes wrong is said, and figures that may have changed are asked for anew. It tells
 * whether it was done.
 */
export function useAct(...changed: Pick<Figure<never, unknown>, 'name'>[]) {
  const notes = useNotes()
  const problem = useProblem()
  const fresh = useFresh()
  return async (call: Promise<unknown>): Promise<boolean> => {
    try {
      await call
      return true
    } catch (error) {
      notes.say({ text: problem(error), wrong: true })
      return false
    } finally {
      fresh(...changed)
    }
  }
}

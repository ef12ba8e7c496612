import { useQueryClient } from '@tanstack/vue-query'
import { useNotes } from './notes'
import { useProblem } from './problem'

/**
 * Does something at the program: what goes wrong is said, and what may have changed is asked for anew, by its names. It tells
 * whether it was done.
 */
export function useAct(...names: string[]) {
  const notes = useNotes()
  const problem = useProblem()
  const queries = useQueryClient()
  return async (call: Promise<unknown>): Promise<boolean> => {
    try {
      await call
      return true
    } catch (error) {
      notes.say({ text: problem(error), wrong: true })
      return false
    } finally {
      for (const name of names) void queries.invalidateQueries({ queryKey: [name] })
    }
  }
}

import { onBeforeUnmount, ref, shallowRef, watch, type Ref } from 'vue'
import { useProblem } from '@/state/problem'

/**
 * Asks for what is in sight, a few at a time, as long as it is wanted; what was answered is kept. A source is asked
 * politely so: never more than one call is on its way.
 */
export function useAsked<Answer>(
  wanted: Ref<string[]>,
  atOnce: number,
  ask: (keys: string[]) => Promise<Answer[]>,
) {
  const problem = useProblem()
  const known = shallowRef(new Map<string, Answer>())
  const asking = ref(false)
  const said = ref('')
  let gone = false
  onBeforeUnmount(() => (gone = true))

  const missing = () => wanted.value.filter((k) => !known.value.has(k))
  async function fill() {
    if (asking.value) return
    asking.value = true
    said.value = ''
    try {
      while (!gone && missing().length) {
        const keys = missing().slice(0, atOnce)
        const answers = await ask(keys)
        const next = new Map(known.value)
        keys.forEach((k, i) => next.set(k, answers[i]))
        known.value = next
      }
    } catch (error) {
      said.value = problem(error)
    } finally {
      asking.value = false
    }
  }
  watch(wanted, () => missing().length && void fill(), { immediate: true })

  return { of: (key: string) => known.value.get(key), known, asking, problem: said }
}

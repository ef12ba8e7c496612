import { computed, ref } from 'vue'
import { bounded, noFilters, type Column } from './filters'
import { patternOf } from './patterns'

/** Which rows of a tally are wanted, and in what order. Where a tally has more rows than are sent, the program looks through all
 * of them; what it sends is filtered and sorted here by the same rules. */
export function useWanted() {
  const words = ref('')
  const filters = ref(noFilters())
  const sort = ref<{ column: Column; down: boolean }>()
  const pattern = computed(() => patternOf(words.value))

  /** As the program is asked it; undefined where nothing is. */
  const query = computed(() => {
    const { from, to } = filters.value
    const q: Record<string, string | number | boolean> = {}
    const typed = words.value.trim()
    if (typed && !pattern.value.refused) q.words = typed
    if (sort.value) Object.assign(q, { sort: sort.value.column, down: sort.value.down })
    for (const f of bounded) {
      if (from[f] !== undefined) q[`${f}From`] = from[f]
      if (to[f] !== undefined) q[`${f}To`] = to[f]
    }
    return Object.keys(q).length ? q : undefined
  })

  function clear() {
    words.value = ''
    filters.value = noFilters()
    sort.value = undefined
  }

  return { words, filters, sort, pattern, query, clear }
}

export type Wanted = ReturnType<typeof useWanted>

import type { Candidate, useCandidates } from './candidates'
import { noFilters } from './filters'
import type { Wanted } from './wanted'

/** Goes to an item of the list by its name, whatever the filter shows. */
export function useFinding(
  { all, shown, area, show, withAside }: ReturnType<typeof useCandidates>,
  wanted: Wanted,
  select: (c: Candidate) => void,
) {
  const { words, filters } = wanted
  return function find(item: string) {
    const c = all.value.find((x) => x.item === item || x.forms?.includes(item))
    if (!c) {
      // It may stand further down than what was sent.
      wanted.clear()
      words.value = item
      withAside.value = true
      show.value = 'all'
      return
    }
    if (!shown.value.includes(c)) {
      words.value = ''
      filters.value = noFilters()
      area.value = undefined
      withAside.value = true
      show.value = c.state === 'open' ? 'open' : 'all'
    }
    select(c)
  }
}

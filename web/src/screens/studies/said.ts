import { figures, useFigure } from '@/figures'

/** What the ways by which key studies were found say of the search. */
export function useSaid() {
  return useFigure(figures.foundSays, () => null, { keep: true })
}

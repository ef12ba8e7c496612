import { type Facet } from '@/api/client'
import { figures, useFigure } from '@/figures'

/** A record with the words of the blocks marked, to be read; besides, those of an item that it was opened by. */
export function useRead(
  record: () => number | undefined,
  item: () => { facet: Facet; item: string } | undefined = () => undefined,
  open: () => boolean = () => true,
) {
  return useFigure(figures.readRecord, () => ({ record: record() ?? 0, item: item() }), {
    enabled: () => open() && record() !== undefined,
    keep: true,
  })
}

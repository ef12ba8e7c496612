import * as blocks from './blocks'
import * as headings from './headings'
import * as house from './house'
import * as logbook from './logbook'
import * as looked from './looked'
import * as strategy from './strategy'
import * as studies from './studies'

/** All figures, each of which stands here once: what it is called, what it rests on, how it is asked for. */
export const figures = {
  ...blocks,
  ...headings,
  ...house,
  ...logbook,
  ...looked,
  ...strategy,
  ...studies,
}

export { keyOf, type Figure } from './figure'
export { useFigure, useFresh, usePages } from './useFigure'

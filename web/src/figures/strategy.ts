import { api, ask, type SourceMap } from '@/api/client'
import { figure } from './figure'

/** What is told of the strategy as a whole: as it is typed, and what sources say of it. */

/** What each source found of the strategy, and what the answers share. */
export const everywhere = figure(
  'everywhere',
  ['document', 'look', 'keys'],
  (_: { holdings: number }, asked, signal) =>
    ask(api.GET('/api/reviews/{review}/everywhere', { params: asked, signal })),
)

/** The strategy as it is typed in a dialect; the body of one that somebody wrote changes. */
export const typedIn = figure(
  'typed',
  ['document', 'look', 'vocabulary'],
  (a: { dialect?: string; body?: string }, asked, signal) =>
    ask(
      api.POST('/api/reviews/{review}/typed', {
        params: asked,
        body: { dialect: a.dialect },
        signal,
      }),
    ),
)

/** The strategy line by line, as a source is asked. */
export const lines = figure(
  'lines',
  ['document', 'vocabulary'],
  (a: { source?: number; map?: SourceMap }, { path }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/lines', {
        params: { path, query: { source: a.source } },
        signal,
      }),
    ),
)

/** What a query that somebody wrote says. */
export const explained = figure(
  'explain',
  ['look', 'keys', 'vocabulary'],
  (body: { text: string; dialect?: string }, asked, signal) =>
    ask(api.POST('/api/reviews/{review}/explain', { params: asked, body, signal })),
)

/** What may stand for headings in another vocabulary. */
export const counterparts = figure(
  'stand-ins',
  ['look', 'samples'],
  (a: { dialect: string; headings: string[] }, asked, signal) =>
    ask(
      api.POST('/api/reviews/{review}/stand-ins', {
        params: asked,
        body: { dialect: a.dialect },
        signal,
      }),
    ),
)

/** What the chosen source counted. */
export const counts = figure('counts', ['document', 'source'], (_: null, asked, signal) =>
  ask(api.GET('/api/reviews/{review}/counts', { params: asked, signal })),
)

import { api, ask } from '@/api/client'
import { figure } from './figure'

/** What is told of key studies and of works that rounds brought. */

export const rounds = figure('rounds', [], (_: null, { path }, signal) =>
  ask(api.GET('/api/reviews/{review}/rounds', { params: { path }, signal })),
)

/** Works that rounds brought, from one on. */
export const found = figure(
  'found',
  ['document', 'keys'],
  (
    a: { show: string; order: string; round?: number; most: number; page: number },
    { path, query },
    signal,
  ) =>
    ask(
      api.GET('/api/reviews/{review}/found', {
        params: {
          path,
          query: {
            ...query,
            show: a.show,
            order: a.order,
            from: a.page,
            most: a.most,
            round: a.round || undefined,
          },
        },
        signal,
      }),
    ),
)

/** References of a round that led nowhere. */
export const lost = figure('lost', [], (a: { round: number }, { path }, signal) =>
  ask(
    api.GET('/api/reviews/{review}/rounds/{round}/lost', {
      params: { path: { ...path, round: a.round } },
      signal,
    }),
  ),
)

/** How works hang together by citations. */
export const network = figure(
  'found-network',
  ['document', 'keys', 'look'],
  (_: null, asked, signal) =>
    ask(api.GET('/api/reviews/{review}/found/network', { params: asked, signal })),
)

/** What the ways by which key studies were found say of the search. */
export const foundSays = figure(
  'foundSays',
  ['document', 'keys', 'look'],
  (_: null, asked, signal) =>
    ask(api.GET('/api/reviews/{review}/found/says', { params: asked, signal })),
)

/** Which sources hold the key studies. */
export const holdings = figure('holdings', ['keys'], (_: null, { path }, signal) =>
  ask(api.GET('/api/reviews/{review}/holdings', { params: { path }, signal })),
)

export const draws = figure('draws', [], (_: null, { path }, signal) =>
  ask(api.GET('/api/reviews/{review}/draws', { params: { path }, signal })),
)

/** What a draw could not get; it grows with what it got. */
export const troubles = figure(
  'troubles',
  [],
  (a: { draw: number; got: number; troubles: number }, { path }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/draws/{draw}/troubles', {
        params: { path: { ...path, draw: a.draw } },
        signal,
      }),
    ),
)

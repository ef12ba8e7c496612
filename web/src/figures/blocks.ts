import { api, ask, type AlikeQuestion } from '@/api/client'
import { figure } from './figure'

/** What is told of blocks, of their terms and of key studies that they miss. */

export interface Typed {
  typed: string
  field?: string
}

/** What a term that is typed would find. */
export const term = figure('term', ['look', 'keys'], (body: Typed, asked, signal) =>
  ask(api.POST('/api/reviews/{review}/terms', { params: asked, body, signal })),
)

/** What the lines of a pasted list would be. */
export const termList = figure(
  'terms',
  ['document', 'look', 'keys'],
  (body: { typed: string[]; field?: string; block: string }, asked, signal) =>
    ask(api.POST('/api/reviews/{review}/terms/list', { params: asked, body, signal })),
)

/** Words used like others; of a block they change with it. */
export const alike = figure('alike', ['look', 'search'], (body: AlikeQuestion, asked, signal) =>
  ask(api.POST('/api/reviews/{review}/alike', { params: asked, body, signal })),
)

interface OfBlock {
  block: string
}

export const blindSpot = figure(
  'blindspot',
  ['search', 'drops', 'look'],
  (a: OfBlock, { path, query }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/blocks/{block}/blind-spot', {
        params: { path: { ...path, block: a.block }, query },
        signal,
      }),
    ),
)

export const pruning = figure(
  'pruning',
  ['search', 'look', 'keys'],
  (a: OfBlock & { share: number }, { path, query }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/blocks/{block}/pruning', {
        params: { path: { ...path, block: a.block }, query: { ...query, share: a.share } },
        signal,
      }),
    ),
)

/** Remarks on the terms of a block; which are quiet is said in the document. */
export const remarks = figure(
  'remarks',
  ['document', 'look', 'keys'],
  (a: OfBlock, { path, query }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/blocks/{block}/remarks', {
        params: { path: { ...path, block: a.block }, query },
        signal,
      }),
    ),
)

export const coverage = figure('coverage', ['search', 'keys', 'look'], (_: null, asked, signal) =>
  ask(api.GET('/api/reviews/{review}/coverage', { params: asked, signal })),
)

/** What would bring a missed key study back. */
export const rescue = figure(
  'rescue',
  ['search', 'drops', 'look', 'keys'],
  (a: { study: number }, { path, query }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/coverage/{study}', {
        params: { path: { ...path, study: a.study }, query },
        signal,
      }),
    ),
)

export const plan = figure('plan', ['search', 'drops', 'look', 'keys'], (_: null, asked, signal) =>
  ask(api.GET('/api/reviews/{review}/plan', { params: asked, signal })),
)

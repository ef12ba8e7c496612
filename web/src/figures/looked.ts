import { api, ask, type Edit, type Facet, type RecordSet } from '@/api/client'
import { figure, type Asked } from './figure'

/** What is told of what is looked at. */

/** How far the reading of what is looked at is. */
export const making = figure('making', ['look'], (_: null, asked, signal) =>
  ask(api.GET('/api/reviews/{review}/making', { params: asked, signal })),
)

export interface Proposal {
  revision?: number
  edits?: Edit[]
}

/** What the blocks find and which key studies they catch, with edits that are not made yet. */
export const bench = figure(
  'bench',
  ['document', 'look', 'keys'],
  (body: Proposal, asked, signal) =>
    ask(api.POST('/api/reviews/{review}/bench', { params: asked, body, signal })),
)

/**
 * What the source would find of the whole, with edits that are not made yet. It is told the revision that they are of, but is not
 * asked anew with each: a note changes no count.
 */
export const countWhole = figure(
  'count-whole',
  ['search', 'source'],
  (a: { edits: Edit[]; revision: () => number }, asked, signal) =>
    ask(
      api.POST('/api/reviews/{review}/count-whole', {
        params: asked,
        body: { edits: a.edits, revision: a.revision() },
        signal,
      }),
    ),
)

/** The tally of a facet; times grows when what is proposed is ordered anew. */
export const tally = figure(
  'tally',
  ['look', 'keys'],
  (a: { facet: Facet; times: number; window?: object }, { path, query }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/tally', {
        params: { path, query: { look: query.look, facet: a.facet, ...a.window } },
        signal,
      }),
    ),
)

/** Which block each item of a facet suits, of a search. */
export const suits = figure(
  'suits',
  ['look', 'keys'],
  (a: { facet: Facet; search: string }, { path, query }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/suits', {
        params: { path, query: { look: query.look, facet: a.facet } },
        signal,
      }),
    ),
)

/** What is told of one item, of this look or of another. */
export const item = figure(
  'item',
  ['look', 'keys'],
  (a: { facet: Facet; item: string; look?: string }, { path, query }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/item', {
        params: { path, query: { look: a.look ?? query.look, facet: a.facet, item: a.item } },
        signal,
      }),
    ),
)

export const teams = figure('teams', ['look', 'keys'], (_: null, asked, signal) =>
  ask(api.GET('/api/reviews/{review}/teams', { params: asked, signal })),
)

export const headingTree = figure('heading-tree', ['look', 'keys'], (_: null, asked, signal) =>
  ask(api.GET('/api/reviews/{review}/heading-tree', { params: asked, signal })),
)

export interface Listed {
  of: RecordSet
  at: number
  limit: number
  look?: string // another than that which is had
}

/** Some records of a set. */
export const records = figure('records', ['document', 'look'], (a: Listed, asked, signal) =>
  ask(
    api.POST('/api/reviews/{review}/records', {
      params: a.look ? { ...asked, query: { look: a.look } } : asked,
      body: { of: a.of, at: a.at, limit: a.limit },
      signal,
    }),
  ),
)

export interface OneRecord {
  record: number
  item?: { facet?: Facet; item?: string }
}

/** One record, with what the strategy and an item find marked in it. */
export const readRecord = figure(
  'read-record',
  ['document', 'look', 'keys'],
  (a: OneRecord, { path, query }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/records/{record}', {
        params: { path: { ...path, record: a.record }, query: { ...query, ...a.item } },
        signal,
      }),
    ),
)

/** A few records of a set, drawn at random. */
export const judging = figure(
  'judging',
  ['document', 'look', 'keys'],
  (body: { of: RecordSet; n: number }, asked, signal) =>
    ask(api.POST('/api/reviews/{review}/judging', { params: asked, body, signal })),
)

/** What two samples share. */
export const comparedSamples = figure(
  'compared-samples',
  ['look'],
  (body: { a: number; b: number }, { path }: Asked, signal) =>
    ask(api.POST('/api/reviews/{review}/compared', { params: { path }, body, signal })),
)

/** How much two lists miss together. */
export const estimate = figure(
  'estimate',
  ['document', 'look', 'keys'],
  (body: { first: RecordSet; second: RecordSet }, asked, signal) =>
    ask(api.POST('/api/reviews/{review}/estimate', { params: asked, body, signal })),
)

export const shelf = figure('shelf', ['anything', 'look'], (_: null, asked, signal) =>
  ask(api.GET('/api/reviews/{review}/shelf', { params: asked, signal })),
)

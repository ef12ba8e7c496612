import { api, ask, type Term } from '@/api/client'
import { figure, type Asked } from './figure'

/** What is told of headings: of the review's vocabulary, or through another, of whose look they are asked. */

interface Through {
  through?: Asked
  other?: number // the vocabulary that is looked through
  language?: string
  block?: string
}

/** Headings that words lead to. */
export const headings = figure(
  'headings',
  ['look', 'keys', 'vocabulary'],
  (a: Through & { words: string[] }, { path }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/headings', {
        params: {
          path,
          query: { ...a.through?.query, word: a.words, language: a.language, block: a.block },
        },
        signal,
      }),
    ),
)

/** One heading, whole. */
export const heading = figure(
  'heading',
  ['document', 'look', 'keys', 'vocabulary'],
  (a: Through & { label: string }, { path }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/headings/one', {
        params: {
          path,
          query: { ...a.through?.query, label: a.label, block: a.block, language: a.language },
        },
        signal,
      }),
    ),
)

/** The headings right below one. */
export const headingsBelow = figure(
  'heading-below',
  ['look', 'keys'],
  (a: Through & { label: string }, { path }, signal) =>
    ask(
      api.GET('/api/reviews/{review}/headings/below', {
        params: { path, query: { ...a.through?.query, label: a.label } },
        signal,
      }),
    ),
)

/** The headings that what is looked at and the key studies point to by themselves. */
export const headingsProposed = figure(
  'headings-proposed',
  ['look', 'keys', 'vocabulary'],
  (_: null, asked, signal) =>
    ask(api.GET('/api/reviews/{review}/headings/proposed', { params: asked, signal })),
)

/** What taking a heading would cost. */
export const headingPrice = figure(
  'heading-price',
  ['look', 'keys', 'vocabulary'],
  (body: Term, asked, signal) =>
    ask(api.POST('/api/reviews/{review}/headings/price', { params: asked, body, signal })),
)

/** The look at what was drawn from sources that go by another vocabulary. */
export const lookThrough = figure(
  'look-through',
  ['look'],
  (a: { sample?: number; through: number }, { path }, signal) =>
    ask(
      api.POST('/api/reviews/{review}/looks', {
        params: { path },
        body: { sample: a.sample, rest: false, through: a.through },
        signal,
      }),
    ),
)

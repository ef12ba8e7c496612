import type { useReview } from '@/state/review'

/**
 * What a figure rests on: when that changes, the figure is asked for anew. `document` is all that is said of a review, `search` the
 * part of it that finds records, `drops` what was dropped, `look` what is looked at, `keys` the key studies and their halves, `source`
 * whose counts are shown, `vocabulary` which one the review goes by, `samples` which there are, `anything` whatever came from the
 * program.
 */
export type Rest =
  | 'document'
  | 'search'
  | 'drops'
  | 'look'
  | 'keys'
  | 'source'
  | 'vocabulary'
  | 'samples'
  | 'anything'

type Review = ReturnType<typeof useReview>
/** What figures of a review are asked of: which one, and by which look. */
export type Asked = Review['asked']

/** A figure: what it is called, what it rests on, and how it is asked for. A house figure is of no review. */
export interface Figure<Args, Answer> {
  name: string
  rests: readonly Rest[]
  house: boolean
  ask: (args: Args, asked: Asked, signal?: AbortSignal) => Promise<Answer>
}

const stamps: Record<Rest, (r: Review) => unknown> = {
  document: (r) => r.revision,
  search: (r) => r.searchStamp,
  drops: (r) => r.dropStamp,
  look: (r) => r.lookStamp,
  keys: (r) => r.keysStamp,
  source: (r) => r.look.source,
  vocabulary: (r) => r.vocabulary?.id,
  samples: (r) => r.samples.map((s) => `${s.id}:${s.records}`).join(),
  anything: (r) => r.stamp,
}

/** The key of a figure: all keys of one begin with its name, those of one review with that and the review's number. */
export function keyOf<Args, Answer>(
  figure: Figure<Args, Answer>,
  review: Review,
  args: Args,
): unknown[] {
  if (figure.house) return [figure.name, args]
  return [figure.name, review.id, ...figure.rests.map((rest) => stamps[rest](review)), args]
}

/** A figure of a review. */
export const figure = <Args, Answer>(
  name: string,
  rests: readonly Rest[],
  ask: (args: Args, asked: Asked, signal?: AbortSignal) => Promise<Answer>,
): Figure<Args, Answer> => ({ name, rests, house: false, ask })

/** A figure of the program, of no review. */
export const ofHouse = <Args, Answer>(
  name: string,
  ask: (args: Args, signal?: AbortSignal) => Promise<Answer>,
): Figure<Args, Answer> => ({
  name,
  rests: [],
  house: true,
  ask: (args, _, signal) => ask(args, signal),
})

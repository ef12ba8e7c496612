import type { Review, Step } from '@/api/client'
import { applied } from './edits'

/** Returns a review as it is after a step, which has to follow on it. */
export function withStep(r: Review, s: Step): Review {
  const decided = new Set(s.decisions.map((d) => `${d.facet}\n${d.item}`))
  const touched = new Set(s.shelf.map((x) => x.record))
  return {
    ...r,
    number: s.number,
    revision: s.revision,
    document: applied(r.document, s.edits),
    decisions: decided.size
      ? [
          ...r.decisions.filter((d) => !decided.has(`${d.facet}\n${d.item}`)),
          ...s.decisions
            .filter((d) => d.state !== 'open')
            .map((d) => ({ ...d, reason: d.reason ?? '', at: d.at ?? new Date().toISOString() })),
        ]
      : r.decisions,
    shelf: touched.size
      ? [
          ...r.shelf.filter((x) => !touched.has(x)),
          ...s.shelf.filter((x) => x.on).map((x) => x.record),
        ]
      : r.shelf,
  }
}

/**
 * Keeps what was done until it is its turn: steps are taken up in the order of their numbers, and none twice. Where one
 * is missing, or tells that more changed than it says, all is to be asked for anew.
 */
export class Follower {
  private readonly heard = new Map<number, Step>()

  hear(s: Step) {
    this.heard.set(s.number, s)
  }

  /** Returns the review with all that follows on it; missed is that it has to be asked for anew. */
  follow(r: Review): { review: Review; missed: boolean } {
    for (const n of [...this.heard.keys()]) if (n <= r.number) this.heard.delete(n)
    let missed = false
    for (let s = this.heard.get(r.number + 1); s; s = this.heard.get(r.number + 1)) {
      if (s.whole) {
        missed = true
        break
      }
      this.heard.delete(s.number)
      r = withStep(r, s)
    }
    return { review: r, missed: missed || this.heard.size > 0 }
  }
}

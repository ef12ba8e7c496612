import { refDebounced, useStorage } from '@vueuse/core'
import { computed } from 'vue'
import { type QueryFinding } from '@/api/client'
import { figures, useFigure } from '@/figures'
import { useReview } from '@/state/review'

/** Text with a part of it changed. Places are in code points, as the program counts them. */
export function mended(text: string, f: Pick<QueryFinding, 'from' | 'to'>, by: string): string {
  const all = [...text]
  return all.slice(0, f.from).join('') + by + all.slice(f.to).join('')
}

/** A place in code points as the browser counts it. */
export function unit(text: string, at: number): number {
  return [...text].slice(0, at).join('').length
}

/** A stretch of text with the findings that it is part of. */
export interface Stretch {
  text: string
  findings: number[]
}

/** Text cut where findings begin and end. */
export function stretches(text: string, findings: Pick<QueryFinding, 'from' | 'to'>[]): Stretch[] {
  const all = [...text]
  const ends = new Set([0, all.length])
  for (const f of findings) {
    ends.add(Math.min(f.from, all.length))
    ends.add(Math.min(f.to, all.length))
  }
  const cuts = [...ends].sort((a, b) => a - b)
  return cuts.slice(0, -1).map((from, i) => ({
    text: all.slice(from, cuts[i + 1]).join(''),
    findings: findings.flatMap((f, k) => (f.from <= from && f.to >= (cuts[i + 1] ?? 0) ? [k] : [])),
  }))
}

/** A query that somebody wrote, as it is read while it is typed: kept in the browser, one a review. */
export function usePasted() {
  const review = useReview()
  const kept = useStorage<Record<string, string>>('tamiz-pasted', {})
  const text = computed({
    get: () => kept.value[review.id] ?? '',
    set: (v) => {
      const all = { ...kept.value }
      if (v) all[review.id] = v
      else delete all[review.id]
      kept.value = all
    },
  })
  const dialect = useStorage<string>('tamiz-pasted-dialect', '')
  const settled = refDebounced(text, 400)
  const asked = useFigure(
    figures.explained,
    () => ({ text: settled.value, dialect: dialect.value || undefined }),
    { enabled: () => settled.value.trim() !== '', keep: true },
  )
  const said = computed(() => (text.value.trim() ? asked.data.value : undefined))
  /** What was read is what stands there. */
  const current = computed(() => said.value?.text === text.value)
  return { text, dialect, asked, said, current }
}

import { computed, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Term, WrittenLine } from '@/api/client'
import { useBench } from '@/state/bench'
import { termText, useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** A line with what it is meant to say and its figures. */
export interface Line extends WrittenLine {
  meant: string
  heading: boolean
  field?: string
  note?: string
  records?: number // of the sample
  there?: number // at the source whose counts are shown
  caught?: number
}

/** Numbers as they are read: a run of them by its ends. */
export function runs(numbers: number[]): string[] {
  const out: string[] = []
  for (let i = 0; i < numbers.length;) {
    let k = i
    while (numbers[k + 1] === numbers[k] + 1) k++
    if (k - i > 1) out.push(`${numbers[i]}–${numbers[k]}`)
    else for (let x = i; x <= k; x++) out.push(String(numbers[x]))
    i = k + 1
  }
  return out
}

/** The lines of a strategy with their figures: those over the sample, and those at the source whose counts are shown. */
export function useLines(written: Ref<WrittenLine[]>) {
  const { t } = useI18n()
  const review = useReview()
  const bench = useBench()
  const sources = useSources()

  const termOf = (l: WrittenLine): Term | undefined =>
    review.document.blocks.find((b) => b.id === l.block)?.terms.find((x) => x.id === l.term)
  function meant(l: WrittenLine): string {
    const term = termOf(l)
    if (term)
      return term.kind === 'heading'
        ? `[${termText(term)}${term.narrower ? ' +' : ''}]`
        : termText(term)
    if (l.parts.length) {
      const parts = runs(l.parts)
      return l.join === 'or'
        ? t('strategy.together', { parts: parts.join(', ') })
        : parts.join(` ${t(`strategy.join.${l.join ?? 'and'}`)} `)
    }
    const limit = review.document.limits.find((x) => x.kind === l.limit)
    if (limit?.kind === 'years')
      return t('bench.years', { from: limit.from ?? '…', to: limit.to ?? '…' })
    return [...(limit?.values ?? []), ...(limit?.titles?.length ? [t('shape.orTitles')] : [])].join(
      ', ',
    )
  }
  return computed<Line[]>(() => {
    const last = written.value.at(-1)?.number
    return written.value.map((l) => {
      const block = bench.now?.blocks.find((b) => b.id === l.block)
      const term = termOf(l)
      const line: Line = {
        ...l,
        meant: meant(l),
        heading: term?.kind === 'heading',
        field: term && term.kind !== 'heading' && term.field !== 'text' ? term.field : undefined,
        note: term?.note,
      }
      const counted = sources.counted
      if (l.kind === 'term') {
        const figures = block?.terms.find((x) => x.id === l.term)
        return {
          ...line,
          records: figures?.records,
          caught: figures?.keys,
          there: counted?.terms[l.term ?? '']?.records,
        }
      }
      if (l.kind === 'block')
        return {
          ...line,
          records: block?.records,
          caught: block?.caught.filter(Boolean).length,
          there: counted?.blocks[l.block ?? '']?.records,
        }
      if (l.kind === 'whole' && l.number === last)
        return {
          ...line,
          records: bench.now?.records,
          caught: bench.now?.caught.filter(Boolean).length,
          there: counted?.whole?.records,
        }
      return line
    })
  })
}

import { computed, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Term, TypedNote, TypedStrategy, WrittenLine } from '@/api/client'
import { limitText } from '@/parts/limitText'
import { useBench } from '@/state/bench'
import { termText, useReview } from '@/state/review'
import { useSources } from '@/state/sources'

/** A line with what it is meant to say, its figures, and how it is typed. */
export interface Line extends WrittenLine {
  texts: string[]
  numbers: number[] // as they are typed
  notes: TypedNote[]
  asTyped?: number // records of the sample that it finds as it is typed
  meant: string
  heading: boolean
  worded?: boolean // its block is said in words of its own: it is not typed
  off: boolean // switched off: it has no number and is not typed
  field?: string
  note?: string
  records?: number // of the sample
  there?: number // at the source whose counts are shown
  caught?: number
  beforeNot?: boolean // all before NOT takes away
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
export function useLines(written: Ref<WrittenLine[]>, typed: Ref<TypedStrategy | undefined>) {
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
    if (l.kind === 'own') return l.text
    if (l.parts.length) {
      const parts = runs(l.parts)
      return l.join === 'or'
        ? t('strategy.together', { parts: parts.join(', ') })
        : parts.join(` ${t(`strategy.join.${l.join ?? 'and'}`)} `)
    }
    const limit = review.document.limits.find((x) => x.kind === l.limit)
    return limit ? limitText(limit, t) : ''
  }
  /** The lines with those that are switched off, where they would stand; they have no number. */
  function withOff(): WrittenLine[] {
    const out = [...written.value]
    for (const b of review.document.blocks.filter((x) => x.searched)) {
      b.terms.forEach((term, i) => {
        // What was switched off just now stands there still, until the lines are written anew.
        if (term.on || out.some((l) => l.term === term.id)) return
        const before = b.terms.slice(i + 1).map((x) => x.id)
        const same = (l: WrittenLine) => l.kind === 'term' && l.block === b.id
        let at = out.findIndex((l) => same(l) && before.includes(l.term ?? ''))
        if (at < 0) at = out.findLastIndex(same) + 1
        const off: WrittenLine = {
          number: 0,
          kind: 'term',
          block: b.id,
          term: term.id,
          parts: [],
          text: '',
          notes: [],
        }
        if (at > 0 || same(out[0]!)) out.splice(at, 0, off)
      })
    }
    return out
  }

  return computed<Line[]>(() => {
    const last = written.value.findLast((l) => l.kind === 'whole')?.number
    return withOff().map((l) => {
      const block = bench.now?.blocks.find((b) => b.id === l.block)
      const term = termOf(l)
      const as = typed.value?.lines.find((x) => x.number === l.number)
      const off = term !== undefined && !term.on
      const line: Line = {
        ...l,
        number: off ? 0 : l.number,
        off,
        worded: review.document.blocks
          .find((b) => b.id === l.block)
          ?.wordings?.some((w) => w.dialect === typed.value?.dialect),
        texts: off ? [] : (as?.texts ?? [l.text]),
        numbers: as?.numbers ?? [l.number],
        notes: as?.notes ?? l.notes,
        asTyped: as?.records,
        meant: meant(l),
        heading: term?.kind === 'heading',
        field: term && term.kind !== 'heading' && term.field !== 'text' ? term.field : undefined,
        note: term?.note ?? review.document.lines?.find((x) => x.id === l.line)?.note,
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
      if (l.kind === 'own') {
        const figures = bench.now?.lines.find((x) => x.id === l.line)
        return {
          ...line,
          records: figures?.records,
          caught: figures?.keys,
          there: counted?.lines[l.line ?? '']?.records,
        }
      }
      if (l.kind === 'whole' && l.number === last)
        return {
          ...line,
          records: bench.now?.records,
          caught: bench.now?.caught.filter(Boolean).length,
          there: counted?.whole?.records,
        }
      const beforeNot = l.limit === undefined
      const figures = beforeNot
        ? bench.now?.before
        : bench.now?.limits.find((x) => x.kind === l.limit)
      return { ...line, beforeNot, records: figures?.records, caught: figures?.keys }
    })
  })
}

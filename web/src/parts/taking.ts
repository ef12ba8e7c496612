import { useTextSelection } from '@vueuse/core'
import { computed, type Ref } from 'vue'
import { useI18n } from 'vue-i18n'
import type { Block, MarkedRecord } from '@/api/client'
import { useDecide, type Item } from '@/state/decide'
import { useNotes } from '@/state/notes'
import { decisionKey, useReview } from '@/state/review'

/** Takes words that are marked in a record, or all that it is indexed with, as candidates. */
export function useTaking(
  article: Ref<HTMLElement | undefined>,
  record: Ref<MarkedRecord | undefined>,
) {
  const { t } = useI18n()
  const review = useReview()
  const notes = useNotes()
  const { termOf, add, decide } = useDecide()
  const picked = useTextSelection()

  /** Words that are marked in the title or the abstract. */
  const marked = computed(() => {
    const words = whole(picked.text.value, picked.selection.value).replace(/\s+/g, ' ').trim()
    const where = picked.selection.value?.anchorNode
    return words.length > 1 &&
      words.length <= 120 &&
      where &&
      article.value?.contains(where) &&
      where.parentElement?.closest('h3, .abstract')
      ? words
      : ''
  })

  /** Puts the marked words into a block, or parks them. */
  function takeWords(block?: Block) {
    const words = marked.value
      .replace(/[.,;:()“”"]/g, ' ')
      .replace(/\s+/g, ' ')
      .trim()
      .toLowerCase()
    const item: Item = { facet: 'words', item: words, key: words }
    if (block)
      add(
        block,
        { ...termOf(item), from: { facet: 'words', item: words, record: record.value?.id } },
        item,
      )
    else decide([item], 'parked')
    window.getSelection()?.removeAllRanges()
  }

  /** All that a good record is indexed with becomes candidates, to be decided on later. */
  function parkAll() {
    const r = record.value
    if (!r) return
    const items: Item[] = [
      ...r.headings.map((c) => ({ facet: 'headings' as const, item: c.label, key: c.key })),
      ...r.keywords.map((c) => ({ facet: 'keywords' as const, item: c.label, key: c.key })),
    ]
    const fresh = items.filter(
      (x) =>
        !review.decisions.has(decisionKey(x.facet, x.key)) &&
        !review.kept.has(decisionKey(x.facet, x.key)),
    )
    if (fresh.length) decide(fresh, 'parked', 'from-record')
    notes.say({ text: t('take.parked', { n: fresh.length }, fresh.length) })
  }

  return { marked, takeWords, parkAll }
}

/** A word that is marked in part is taken whole. */
function whole(words: string, at: Selection | null): string {
  const range = at?.rangeCount ? at.getRangeAt(0) : undefined
  if (!range || !words.trim()) return words
  const before =
    /[\p{L}\p{N}-]*$/u.exec(
      range.startContainer.textContent?.slice(0, range.startOffset) ?? '',
    )?.[0] ?? ''
  const after =
    /^[\p{L}\p{N}-]*/u.exec(range.endContainer.textContent?.slice(range.endOffset) ?? '')?.[0] ?? ''
  return (/^\s/.test(words) ? '' : before) + words + (/\s$/.test(words) ? '' : after)
}

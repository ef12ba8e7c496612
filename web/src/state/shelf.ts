import { useI18n } from 'vue-i18n'
import { useReview } from './review'

/** Tags, as they are typed: parted by commas. */
export function tagsOf(text: string): string[] {
  return [
    ...new Set(
      text
        .split(/[,;]/)
        .map((x) => x.trim().replace(/\s+/g, ' ').slice(0, 60))
        .filter(Boolean),
    ),
  ].slice(0, 20)
}

/** What can be done with the shelf: each is one change, which can be undone as one. */
export function useShelf() {
  const { t } = useI18n()
  const review = useReview()
  const short = (title: string) => (title || t('record.noTitle')).slice(0, 200)

  /** Puts a record on the shelf, or takes it off. */
  function toggle(record: number, title: string) {
    const on = !review.shelf.has(record)
    review.change(
      { key: on ? 'shelve' : 'unshelve', params: { title: short(title) } },
      { shelf: [{ record, on }] },
    )
  }

  function takeOff(records: { id: number; title: string }[]) {
    if (records.length === 1) return toggle(records[0].id, records[0].title)
    review.change(
      { key: 'unshelveMany', params: { n: String(records.length) } },
      { shelf: records.map((r) => ({ record: r.id, on: false })) },
    )
  }

  function note(record: number, title: string, text: string) {
    review.change(
      { key: 'shelfNote', params: { title: short(title) } },
      { shelf: [{ record, on: true, note: text }] },
    )
  }

  function tag(record: number, title: string, tags: string[]) {
    review.change(
      { key: 'shelfTags', params: { title: short(title) } },
      { shelf: [{ record, on: true, tags }] },
    )
  }

  return { toggle, takeOff, note, tag }
}

import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import type { Facet, RecordSet } from '@/api/client'

/** What is open in the record reader: the records behind a figure, or one record. */
export const useReader = defineStore('reader', () => {
  const open = ref(false)
  const title = ref('')
  const set = shallowRef<RecordSet>()
  const single = ref<number>()
  /** Records that are marked: what is done is done with them alone. */
  const marked = ref<ReadonlySet<number>>(new Set())
  const item = shallowRef<{ facet: Facet; item: string }>()
  /** The look that records are told of, where it is not the review's. */
  const look = ref<string>()

  /** Opens the records behind a figure; at, the record to begin with. */
  function list(of: RecordSet, heading: string, at?: number, as?: string) {
    set.value = of
    look.value = as
    title.value = heading
    single.value = at
    marked.value = new Set()
    item.value =
      of.kind === 'item' || (of.kind === 'aspect' && of.item)
        ? { facet: of.facet, item: of.item ?? '' }
        : undefined
    open.value = true
  }

  /** Opens one record. */
  function one(record: number, heading: string) {
    set.value = undefined
    look.value = undefined
    title.value = heading
    single.value = record
    marked.value = new Set()
    item.value = undefined
    open.value = true
  }

  function mark(record: number) {
    const next = new Set(marked.value)
    if (!next.delete(record)) next.add(record)
    marked.value = next
  }
  const unmark = () => (marked.value = new Set())

  /** What is marked, or all where nothing is. */
  const meant = computed<RecordSet>(() =>
    marked.value.size || !set.value
      ? { kind: 'picked', ids: marked.value.size ? [...marked.value] : [single.value ?? 0] }
      : set.value,
  )

  return { open, title, set, single, item, look, marked, mark, unmark, meant, list, one }
})

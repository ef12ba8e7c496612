import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { Facet, RecordSet } from '@/api/client'

/** What is open in the record reader: the records behind a figure, or one record. */
export const useReader = defineStore('reader', () => {
  const open = ref(false)
  const title = ref('')
  const set = shallowRef<RecordSet>()
  const single = ref<number>()
  const item = shallowRef<{ facet: Facet; item: string }>()

  /** Opens the records behind a figure; at, the record to begin with. */
  function list(of: RecordSet, heading: string, at?: number) {
    set.value = of
    title.value = heading
    single.value = at
    item.value =
      of.kind === 'item' || (of.kind === 'aspect' && of.item)
        ? { facet: of.facet, item: of.item ?? '' }
        : undefined
    open.value = true
  }

  /** Opens one record. */
  function one(record: number, heading: string) {
    set.value = undefined
    title.value = heading
    single.value = record
    item.value = undefined
    open.value = true
  }

  return { open, title, set, single, item, list, one }
})

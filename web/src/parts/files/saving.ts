import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { RecordSet } from '@/api/client'

/** The set of records that is about to be saved as a file. */
export const useSaving = defineStore('saving', () => {
  const open = ref(false)
  const set = shallowRef<RecordSet>({ kind: 'all' })
  const name = ref('')
  const count = ref<number>()

  /** Asks in which form the records are wanted; count, how many they are, where that is known. */
  function save(of: RecordSet, called: string, records?: number) {
    set.value = of
    name.value = called
    count.value = records
    open.value = true
  }

  return { open, set, name, count, save }
})

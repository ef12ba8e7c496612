import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { Source, SourceCount } from '@/api/client'

/** A count of which it is shown what its source made of the query. */
export const useMade = defineStore('made', () => {
  const open = shallowRef<{ count: SourceCount; of: string; source: Source }>()

  function show(count: SourceCount, of: string, source: Source) {
    open.value = { count, of, source }
  }

  return { open, show }
})

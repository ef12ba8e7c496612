import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { RecordSet } from '@/api/client'

/** A set of records of which a few are judged by reading. */
export const useJudging = defineStore('judging', () => {
  const open = ref(false)
  const title = ref('')
  const set = shallowRef<RecordSet>()

  function judge(of: RecordSet, heading: string) {
    set.value = of
    title.value = heading
    open.value = true
  }

  return { open, title, set, judge }
})

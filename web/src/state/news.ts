import { onScopeDispose, watch, type Ref } from 'vue'
import type { Problem } from '@/api/client'

export interface News {
  kind: string
  import?: number
  done?: number // of work in parts, how many are done
  of?: number
  problem?: Problem // why work that someone waits for came to nothing
}

/** Calls hear with each piece of news of a review, and once whenever listening begins (again). */
export function useNews(review: Ref<number>, hear: (news: News) => void) {
  let source: EventSource | undefined

  watch(
    review,
    (id) => {
      source?.close()
      source = new EventSource(`/api/reviews/${id}/events`)
      source.onopen = () => hear({ kind: 'change' }) // something may have happened before
      source.onmessage = (e) => hear(JSON.parse(e.data) as News)
    },
    { immediate: true },
  )
  onScopeDispose(() => source?.close())
}

import { defineStore } from 'pinia'
import { onBeforeUnmount, shallowRef } from 'vue'

/** Something a screen can do: what it is called, and the key that does it there. */
export interface Action {
  name: string
  hint?: string
  go: () => unknown
}

/** What the screen in view can do, for whoever looks for it by name. */
export const useActions = defineStore('actions', () => {
  const offered = shallowRef<() => Action[]>(() => [])
  return { offered }
})

/** Offers what a screen can do for as long as it shows. */
export function offer(actions: () => Action[]) {
  const store = useActions()
  store.offered = actions
  onBeforeUnmount(() => {
    if (store.offered === actions) store.offered = () => []
  })
}

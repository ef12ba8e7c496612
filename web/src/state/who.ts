import { useStorage } from '@vueuse/core'

/** Who works here, as they call themselves: kept in this browser, sent with each call, shown beside what they decide. */
export const who = useStorage('tamiz-who', '')

/** The longest name that is kept. */
export const longestName = 80

/** What this browser calls itself: by it everybody takes back their own. */
export const self = useStorage('tamiz-self', crypto.randomUUID())

import type { TallyRow } from '@/api/client'

/** By what a journal is known, however it is written. */
export const journalKey = (r: TallyRow) => r.key ?? r.item

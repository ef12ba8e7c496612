import { fields, lists } from '@/api/fields'

/** The fields that a column or a tag can stand for, in the order in which they are offered; '' leaves it out. */
export const fieldChoices = ['', ...fields] as const

/**
 * Whether a field holds a list of values that one cell or line may give together. Titles and abstracts in other languages do
 * not: they hold the signs that would part them.
 */
export function manyOf(field: string): boolean {
  return (lists as readonly string[]).includes(field) && !field.startsWith('other')
}

/** What may part the values of a list, by the name under which it is offered. */
export const splits = {
  none: '',
  semicolon: ';',
  comma: ',',
  bar: '|',
  line: '\n',
  and: ' and ',
  auto: 'auto',
} as const

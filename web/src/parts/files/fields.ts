/** The fields that a column or a tag can stand for, in the order in which they are offered. */
export const fieldChoices = [
  '',
  'title',
  'abstract',
  'authors',
  'journal',
  'year',
  'volume',
  'issue',
  'pages',
  'firstPage',
  'lastPage',
  'keywords',
  'headings',
  'types',
  'languages',
  'countries',
  'substances',
  'doi',
  'accession',
  'localId',
  'issn',
  'urls',
  'otherTitles',
  'otherAbstracts',
  'extra',
] as const

/** Whether a field holds a list of values that one cell or line may give together. */
export function manyOf(field: string): boolean {
  return [
    'authors',
    'keywords',
    'headings',
    'types',
    'languages',
    'countries',
    'substances',
    'urls',
  ].includes(field)
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

/** The fields that a column or a tag can stand for, in the order in which they are offered. */
export const fieldChoices = [
  '', 'title', 'abstract', 'authors', 'journal', 'year', 'volume', 'issue', 'pages', 'firstPage', 'lastPage', 'keywords', 'headings', 'types', 'languages', 'countries', 'doi', 'accession', 'localId', 'issn', 'urls', 'otherTitles', 'otherAbstracts', 'extra',
] as const

/** Whether a field holds a list of values that one cell or line may give together. */
export function manyOf(field: string): boolean {
  return ['authors', 'keywords', 'headings', 'types', 'languages', 'countries', 'urls'].includes(field)
}

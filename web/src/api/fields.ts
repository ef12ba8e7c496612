// Made from exchange.Targets by `make contract`; not written by hand.

/** The fields that a column or a tag of a file can stand for. */
export const fields = [
  'title',
  'abstract',
  'authors',
  'journal',
  'year',
  'volume',
  'issue',
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
  'pages',
  'extra',
] as const

/** Those that hold a list of values. */
export const lists = [
  'authors',
  'keywords',
  'headings',
  'types',
  'languages',
  'countries',
  'substances',
  'urls',
  'otherTitles',
  'otherAbstracts',
] as const

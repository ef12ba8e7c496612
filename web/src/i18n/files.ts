/** What Tamiz says of files that come in and go out, and of the shelf, in English. */
export default {
  screen: { shelf: 'Shelf' },
  change: { shelve: 'put on the shelf: {title}', unshelve: 'taken off the shelf: {title}', shelveMany: '{n} records put on the shelf', unshelveMany: '{n} records taken off the shelf', shelfNote: 'noted on the shelf: {title}', shelfTags: 'tagged on the shelf: {title}' },
  recordField: {
    '': 'left out', title: 'Title', abstract: 'Abstract', authors: 'Authors', journal: 'Journal', year: 'Year', volume: 'Volume', issue: 'Issue', firstPage: 'First page', lastPage: 'Last page', pages: 'Pages, first and last', keywords: 'Author keywords', headings: 'Headings', types: 'Types', languages: 'Languages', countries: 'Countries', substances: 'Substances',
    doi: 'DOI', accession: 'Number at the source', localId: 'Own number', issn: 'ISSN', urls: 'Addresses', otherTitles: 'Title in another language', otherAbstracts: 'Abstract in another language', extra: 'kept as it is',
  },
  format: { ris: 'RIS', bibtex: 'BibTeX', csl: 'CSL-JSON', csv: 'CSV', tsv: 'Table with tabs', mods: 'MODS', marcxml: 'MARCXML', dc: 'Dublin Core', tagged: 'Tagged text', html: 'Page to print', skos: 'SKOS' },
  formatFor: { ris: 'for screening and references', bibtex: 'for LaTeX and references', csl: 'citation styles', csv: 'spreadsheets', tsv: 'spreadsheets', mods: 'catalogues; holds everything', html: 'to read, print or send' },
  asked: {
    isVocabulary: 'This is a vocabulary (SKOS), not a file of records.', isRecords: 'This is a file of records ({format}), not a vocabulary.', as: { sample: 'Bring it in as a sample', keys: 'As key studies', vocabulary: 'Bring it in as the vocabulary' },
    columns: 'its columns have to be named', tags: 'no reader knows this kind of text', doubles: '1 record is of the same work as another | {n} records are of the same work as another', name: 'Name the columns', explain: 'Explain the text', look: 'Look at them', giveUp: 'Leave the file out', giveUpOne: 'Leave {name} out', apart: 'Keep all apart', join: 'Join all', leave: 'Leave all later ones out',
  },
  columns: {
    title: 'Columns of {name}', text: 'Say what each column is. The records on the right are the first of the file, as they will be.', column: 'Column {n}', means: 'What “{name}” is', delimiter: 'Cells are parted by', quote: 'and quoted with', head: 'The first row names the columns', split: 'many in one cell, parted by', splitOf: 'What parts the values of “{name}”', remember: 'Do the same with every table that has these heads', read: 'Read the file so', example: 'e.g.',
    sign: { comma: 'commas', semicolon: 'semicolons', tab: 'tabs', bar: 'bars' }, splits: { none: 'nothing: one value', semicolon: 'semicolons', comma: 'commas', bar: 'bars', line: 'line ends', and: 'the word and', auto: 'semicolons, else commas' },
  },
  tags: {
    title: 'How {name} is to be read', text: 'No reader knows this kind of text. Say how it marks its fields; the records on the right follow at once.', file: 'The beginning of the file', line: 'A marked line', before: 'before the tag', letters: 'the tag is', after: 'after the tag', padded: 'with any spaces between', listed: 'only the tags below are tags', letter: { code: 'capitals', word: 'one word', label: 'words' },
    records: 'Records', begins: 'begin with the tag', beginsAny: 'whatever comes first', ends: 'end with the tag', blank: 'end at a blank line', rule: 'end at a line that begins with', goOn: 'A value goes on', on: { any: 'on lines without a tag', indented: 'on indented lines only' }, fields: 'Tags', tag: 'Tag {n}', means: 'What {tag} is', addTag: 'Add a tag', dropTag: 'Remove {tag}', name: 'Name of this kind of text', remember: 'Keep the reader map under this name', kept: 'A reader map that is kept', choose: 'choose…', take: 'Take a map from a file', save: 'Save the map as a file', drop: 'Forget “{name}”', notMap: 'This file is no reader map.', split: 'many, parted by',
  },
  preview: { title: 'The first records, as they will be', none: 'No record is found so.', own: 'kept as it is', more: '{n} more', looking: 'reading…', record: 'Record {n}' },
  doubles: {
    title: 'Records of the same work in {name}', text: 'Two records are one work when their DOIs are equal, or title, first author and year. Say what becomes of the later one.', rule: 'For all', one: 'For this one', apart: 'keep apart', join: 'join', leave: 'leave out', joinTip: 'The earlier record takes what it lacks from the later one.', of: 'record {place} of the file, beside record {of}', same: 'They are written alike in every field.', field: 'Field', earlier: 'Earlier in the file', later: 'Later in the file', go: 'Go on', shown: 'The first {n} of {of} are shown; the rule holds for the others.', empty: '—',
  },
  save: {
    open: 'Save…', title: 'Save {n} record | Save {n} records', titleAny: 'Save records', format: 'Format', fields: 'Fields', all: 'all', none: 'none', some: '{n} of {of}', extra: 'Fields of its own format', name: 'Name of the file', go: 'Save the file', fetching: 'Fetching…', page: 'Open the page', mark: 'Mark what a spreadsheet would take for a formula with an apostrophe before it', hint: 'Headings and keywords keep their nature; what a format cannot hold stands in the guide to formats.', missed: 'Save the missed', missedName: 'missed key studies', sample: 'Save {name}', joined: 'Save these records',
  },
  shelf: {
    title: 'Shelf', text: 'Records that are kept, whatever becomes of the samples they were found in.', count: '{n} record | {n} records', filter: 'Filter by words, notes or tags', tags: 'Tags', all: 'all', none: 'Nothing fits the filter.', note: 'Note on {title}', notePlace: 'note', tagsOf: 'Tags of {title}', tagPlace: 'tags, parted by commas', added: 'Added', take: 'Take off', takeOne: 'Take {title} off the shelf', chosen: '{n} chosen', choose: 'Choose {title}', chooseAll: 'Choose all that are shown', save: 'Save {n}…',
    emptyTitle: 'Nothing on the shelf yet', emptyText: 'Press K on any record in the reader, and it is kept here with room for a note and tags. It stays until you take it off.', on: 'On the shelf', put: 'Keep on the shelf', off: 'Take off the shelf', key: 'K', record: 'Record', noted: 'Note and tags',
  },
  notice: {
    'double-left': 'Another record of the same work stands earlier in the file ({detail}); this one was left out', 'double-joined': 'Another record of the same work stands earlier in the file ({detail}); this one was joined to it',
    'cut-off': 'The file ends in the middle of this record ({detail})', unclosed: 'A brace or quote of this record ({detail}) is not closed before the next one begins', 'bad-entry': 'The record ({detail}) cannot be made out from here on', broken: 'The file breaks the rules of its format here ({detail})', 'no-crossref': 'The record takes fields from another ({detail}) that is not in the file; kept without them', 'no-tag': 'A line without a tag was left out: “{detail}”',
    'other-format': 'From here on the file holds another format (“{detail}”). It was not read: bring it in as a file of its own', unread: 'What follows in the file could not be read', dtd: 'The file has a document type declaration; it was not followed', 'no-close': 'The file ends before its outermost element does; all records before are kept', 'other-claim': 'The file says that it is {detail}, which it is not; it was read as what it is', 'row-length': 'The row has cells of another number than the table ({detail}); kept', 'cut-char': 'The file ends in the middle of a character; the rest of the file may be missing', part: 'Now comes {detail} of the packed file', 'part-unknown': '{detail} of the packed file is in no format that is known; left out',
  },
  noticeEnd: { kept: '{what}; kept as far as it could be read', skipped: '{what}; skipped' },
}

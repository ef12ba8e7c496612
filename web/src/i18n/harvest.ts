/** The texts of what is looked at from above. */
export default {
  looked: {
    at: 'What is looked at', records: 'Records of the sample and what it is set against', any: 'what the blocks find now', block: 'what {block} finds', spot: 'blind spot of {block}', only: 'only found by {term}', term: 'found by {term}', item: '{item} ({facet})', team: 'the team of {name}',
    ids: '{n} selected record | {n} selected records', strategy: 'what all blocks find together', shelf: 'the shelf', joined: 'two samples together', rest: 'the rest of both', restOf: 'the rest of {set}', within: '{item}, of {set}', missing: '{facet}: not said', lost: 'lost by a limit to {item}', lostYears: 'lost by a limit from {item} on', bare: '{item}, without headings', said: { typed: '{kind} by type', titled: '{kind} by title', both: '{kind} by type and title', either: '{kind} by type or title' }, restHint: 'sample and contrast together, without it',
    groupSamples: 'A sample', groupBlocks: 'What terms find, in sample and contrast together', back: 'The sample again', anew: 'Order anew', anewTip: 'Counts what the blocks find now, and puts aside what their terms match by now', changes: '{n} change since | {n} changes since', aside: '{n} aside', asideTip: 'Items that a term of the block they suit matches by now. Show them too', fromAbove: 'Look at these from above', empty: 'No record of sample and contrast is in this set.',
  },
  making: {
    reading: 'Reading {n} record | Reading {n} records', indexing: 'Indexing {n} record | Indexing {n} records', counting: 'Counting the words of {n} record | Counting the words of {n} records', step: { reading: 'read', indexing: 'index', counting: 'count' },
    leave: 'This is done once for a sample and its contrast. Go on elsewhere meanwhile; it is ready when you come back.',
  },
  suit: { proposing: 'working out blocks…', proposed: 'suits {block}', inside: 'found by {block} already', none: 'No block suits it clearly; a digit says which', missed: 'in {n} missed key study | in {n} missed key studies' },
  marked: { title: '{n} items selected', text: 'What is decided holds for all of them, as one change.', clear: 'Select one alone' },
  filters: {
    title: 'More filters', records: 'Records', lift: 'Lift', pull: 'Pull', from: '{figure} from', to: '{figure} to', missed: 'in missed key studies', unmatched: 'not matched by any term', clear: 'Clear all', hint: 'Filter, or stem*', refused: 'A pattern needs two letters beside its * or ?', on: '1 filter | {n} filters',
  },
  alike: { title: 'Used alike', likeWhat: 'Like which term', text: 'They keep the company that {item} keeps', of: 'Words used like the terms of {block}', tip: 'Likeness {alike}; together in {together} of {records} records', together: '{n} together', none: 'It stands in too few records to say which company it keeps.', button: 'Used alike' },
  goes: { title: 'Headings that go with it', tip: 'In {n} of its records; pull {pull}' },
  stands: { title: 'Where else', titleOnly: 'in {n} title only | in {n} titles only', keywords: 'a keyword in {n} | a keyword in {n}', phrase: 'as a phrase', near: 'near each other', words: 'anywhere', take: 'Add as words that stand near' },
  outside: { title: 'What {term} finds besides', fine: 'fine', out: 'keep out', note: 'Words that are kept out are not searched: then the forms are listed one by one.', show: 'What it finds besides' },
  own: { reason: 'own words', label: 'The reason in own words' },
  shape: {
    share: 'Share', contrastShare: 'Elsewhere', missing: 'not said', missingText: '{n} record says nothing of it. | {n} records say nothing of it.', chart: 'Chart', showLost: 'Show what would be lost', bareOf: '{n} records of {item} without headings', item: { years: 'Year', types: 'Type', languages: 'Language', countries: 'Country', journals: 'Journal', authors: 'Author' },
    loses: 'A limit to {item} would lose', records: '{n} of {of} records looked at ({share}) | {n} of {of} records looked at ({share})', ofThem: '{n} of them because nothing is said', keys: '{n} of {of} key studies', reading: 'Records to read', atSource: 'At {source}', now: '{from} → {to}', counting: 'counting…', limit: 'Limit to {item}', add: 'And {item}', take: 'Take the limit away', noLimit: 'Tamiz sets no limit on countries: sources know them too rarely.', hover: 'Rest on a line to see what a limit to it would cost.',
    said: 'Or does the title say so?', saidText: 'Records that carry the type, records whose title says it (English words), both, and either.', kind: { trial: 'trial', review: 'review', protocol: 'protocol', comment: 'comment' }, typed: 'By type', titled: 'By title', both: 'Both', either: 'Either', svg: 'SVG', png: 'PNG', saveChart: 'Save the chart',
  },
  years: {
    label: 'Records by year; dark with headings, hatched without', from: 'From {year} on', text: 'A limit from {year} on would lose', unindexed: 'without headings', indexed: 'with headings', contrast: 'share elsewhere', keys: 'key studies', handle: 'First year that is kept', limit: 'Limit to {year} and later', none: 'No record says its year.', all: 'Nothing is cut off. Move the handle, or press an arrow key on it.', unindexedIn: '{year}: {n} records, {bare} without headings, {keys} key studies',
  },
  journals: {
    half: 'Half of these records stand in the first {n} journal | Half of these records stand in the first {n} journals', cumulated: 'Up to here', unindexed: 'Unindexed', unindexedTip: 'Its part of the records that carry no heading: what searching by headings misses', share: 'Its part of what is looked at', keys: 'Key studies in it', list: 'Hand-search list', listText: 'Journals to read by hand, to make up for weak indexing. Kept with the review.', empty: 'No journal yet. Mark those that are worth reading by hand.', add: 'Put {journal} on the hand-search list', remove: 'Take {journal} off the hand-search list', note: 'Note on {journal}', notePlace: 'A note: years, issues, who reads it', save: 'Save the list:', print: 'Print', noteHead: 'Note', madeOf: 'Figures of {day}, over {sample}.',
  },
  teams: { title: 'Teams', save: 'Save the teams (CSV)', text: 'Authors who signed two or more records together, directly or through others.', none: 'No two authors signed two records together.', years: '{from} to {to}', more: '{n} more', lookAt: 'Look at its records from above', folded: 'Written as', part: 'Part {author} from the others', partShort: 'Part', partTip: 'Someone else: not to be folded with the others', parted: 'Parted from others of this name.', fold: 'Fold {author} with the others again', foldShort: 'Fold again' },
  saveTally: {
    open: 'Save', csv: 'This tally as CSV', xlsx: 'This tally as XLSX', plot: 'The plot as PNG', plotSvg: 'The plot as SVG', out: 'Candidates with what is decided, as CSV', in: 'Bring decisions in from CSV…', candidates: 'candidates', unread: 'This is no list of candidates: it needs the columns item and state. Nothing was changed.', tooLarge: 'The file is larger than 20 MB. Nothing was changed.', read: '{n} decisions brought in.', passed: '1 line was passed over: {lines} | {n} lines were passed over, among them {lines}',
  },
  palette: { open: 'Find anything', hint: 'Find a term, heading, record, screen or action', none: 'Nothing is called so.', kind: { screen: 'Screens', action: 'Actions', term: 'Terms', heading: 'Headings', candidate: 'Words', record: 'Records' }, look: 'Look at {name}', ofItem: '{what}: {item}', harvest: 'In Harvest: {what}', go: { next: 'Next item', previous: 'Previous item', first: 'First item', last: 'Last item' }, addHere: 'in block {block}' },
  tree: {
    asTree: 'As a tree', asList: 'As a list', label: 'Headings in their tree', heading: 'Heading', none: 'Without a vocabulary headings stand in no tree. Bring one in on Question.', open: 'Open {heading}', close: 'Close {heading}', spread: 'spread over {n}', spreadTip: 'This branch holds much of what is looked at in {n} headings, none of which holds half of it', cut: 'The tree is larger than what is shown here.',
    scope: 'What it means', entry: 'Entry terms', words: 'Words that stand for it', entryOf: 'It leads to the heading {heading}',
  },
}

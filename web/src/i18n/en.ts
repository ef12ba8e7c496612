/** All that Tamiz says, in English. A bar parts forms for one and for many. */
export default {
  screen: { reviews: 'Reviews', question: 'Question', samples: 'Samples', harvest: 'Harvest', blocks: 'Blocks', coverage: 'Coverage' },
  act: {
    rename: 'Rename', delete: 'Delete', remove: 'Remove', dismiss: 'Dismiss', add: 'Add', addTo: 'Add to {block}', park: 'Park', drop: 'Drop…', takeBack: 'Take back', lookAgain: 'Look again',
  },
  count: {
    records: '{n} record | {n} records', samples: '{n} sample | {n} samples', keys: '{n} key study | {n} key studies',
  },
  rail: { label: 'Screens', reviews: 'All reviews', missed: '{n} key studies missed' },
  top: { sample: 'The sample that is looked at' },
  saved: { at: 'Saved {time}', saving: 'Saving…', offline: 'Not reached; it is tried again | Not saved yet: 1 change is kept here and sent again | Not saved yet: {n} changes are kept here and sent again', full: 'The disk is full: nothing can be saved | The disk is full: 1 change is kept here and sent again | The disk is full: {n} changes are kept here and sent again', again: '{why} It is tried again by itself.', awayTitle: 'This review cannot be read just now' },
  who: { as: 'You work here as {name}', unnamed: 'Say who works here', title: 'Who works here', place: 'a name or initials', text: 'It stands beside what you decide and add, for those who share the review. It is kept in this browser.' },
  steps: {
    by: '{what} ({who})',
    undo: 'Undo', redo: 'Redo', undone: 'Undone: {what}', redone: 'Made again: {what}', nothingToUndo: 'There is nothing to undo', nothingToRedo: 'There is nothing to make again',
  },
  change: {
    other: 'a change', demo: 'the demo review', question: 'the question', frame: 'the frame: {frame}', addConcept: 'a new concept', removeBlock: 'concept {block} removed', renameConcept: '{block} called “{concept}”',
    part: 'the part of {block}: {part}', seeds: 'seed words of {block}: {seed}', dropSeed: 'seed word of {block} removed: {seed}', searched: '{block} searched', keptOut: '{block} kept out', reason: 'why {block} is kept out',
    addTerm: '{term} added to {block}', removeTerm: '{term} removed from {block}', moveTerm: '{term} moved in {block}', switchOn: '{term} switched on in {block}', switchOff: '{term} switched off in {block}',
    parked: '{item} parked', candidates: 'decisions of {name}', handSearch: '{journal} on the hand-search list', notHandSearch: '{journal} off the hand-search list', handNote: 'a note on {journal}', partAuthor: '{author} parted from others', foldAuthor: '{author} folded with others again', limit: 'a limit: {limit}', noLimit: 'limit taken away: {limit}', dropped: '{item} dropped', takeBack: '{item} taken back',
    renameSample: 'sample “{from}” called “{to}”', deleteSample: 'sample “{name}” deleted', removeStudy: 'key study removed: {title}',
    'import.sample': '{name} brought in', 'import.vocabulary': 'vocabulary {name} brought in', removeVocabulary: 'vocabulary “{name}” removed', withNarrower: '{term} with its narrower headings in {block}', withoutNarrower: '{term} without its narrower headings in {block}', split: 'key studies split in halves', join: 'key studies put together again', plan: 'the first {n} steps of the rescue plan', 'import.keys': 'key studies of {name} brought in',
  },
  note: {
    already: '{term} stands in {block} already',
    removedConcept: 'Concept {block} removed | Concept {block} removed, with its term | Concept {block} removed, with its {n} terms',
    removedStudy: 'Key study removed: {title}', deletedSample: 'Sample “{name}” deleted', removedVocabulary: 'Vocabulary “{name}” removed from the review',
  },
  review: { goneTitle: 'This review is not there', goneText: 'It may have been deleted. A review that was deleted can be taken back right after, in the list of reviews.' },
  reviews: {
    title: 'Reviews', motto: 'From a sample of records to the words a search lacks', name: 'Name of the review', newName: 'Name of the new review', newPlaceholder: 'Name of a new review', begin: 'Begin a review',
    holds: '{samples}, {keys}', renameOne: 'Rename {name}', deleteOne: 'Delete {name}', deleted: 'Review “{name}” deleted', reading: 'The reviews are being read…', emptyTitle: 'No review yet', emptyText: 'A review holds one question and all the work on it. Give it a name to begin; the name can change later.',
  },
  bench: {
    inSample: 'In sample', title: 'Bench', over: 'over {sample}', noSample: 'no sample', fold: 'Fold the bench away', unfold: 'Show the bench', caught: 'of {of} key studies caught', toRead: 'records to read', toReadTitle: 'Records to read', noKeys: 'No key studies yet: bring them in on Question.',
    whole: 'The whole strategy', openRecords: 'Open the records', terms: '{words} · {headings}', words: 'no words | 1 word | {n} words', headings: 'no headings | 1 heading | {n} headings', notSearched: 'not searched', negated: 'taken away (NOT)', limit: 'Limit', years: '{from} to {to}', failed: 'The bench could not be counted just now.',
  },
  strip: { summary: '{what}: {caught} caught, {missed} missed, {would} would be caught', caught: 'caught', missed: 'missed', would: 'would be caught' },
  block: { unnamed: 'Unnamed concept' },
  frame: {
    none: 'No frame', 'population-intervention-outcome': 'Effect of an intervention', 'population-intervention-comparison-outcome': 'Effect, with a comparison', 'population-exposure-outcome': 'Effect of an exposure', 'population-phenomenon-context': 'Experience', 'population-test-condition': 'Accuracy of a test',
  },
  part: { population: 'population', intervention: 'intervention', comparison: 'comparison', outcome: 'outcome', exposure: 'exposure', phenomenon: 'phenomenon', context: 'context', test: 'test', condition: 'condition' },
  question: {
    label: 'The question', placeholder: 'Write the question as you would say it', concepts: 'Concepts', chooseFrame: 'Choose a frame', changeFrame: 'Change frame', addConcept: 'Add a concept', noConcepts: 'A concept is one idea of the question. Choose a frame to be offered its parts, or add concepts one by one.',
    concept: 'Concept {block}', conceptName: 'Name of concept {block}', partOf: 'Part of {block} in the frame', noPart: 'no part', removeConcept: 'Remove this concept', dropSeed: 'Remove seed word {seed}', addSeed: '+ seed word', seedsOf: 'Seed words of {block}', searched: 'searched', keptOut: 'kept out', searchedLabel: '{block} is searched', why: 'why?', whyLabel: 'Why {block} is kept out',
  },
  keys: {
    title: 'Key studies', count: '1 known to belong | {n} known to belong', bring: 'Bring in a file', drop: 'Drop files of key studies here', study: 'Key study', year: 'Year', headings: 'Headings', caught: 'Caught', one: 'Key study', removeOne: 'Remove {title}',
    emptyTitle: 'No key studies yet', emptyText: 'Key studies are papers that must be found. They are the test of every block: bring them in from a file of records, or drop one here.',
  },
  record: { noTitle: 'Record without title', noAbstract: 'No abstract', key: 'key study', unindexed: 'unindexed', indexed: 'indexed', headings: 'Headings', keywords: 'Author keywords', central: 'a main point of the record' },
  samples: {
    title: 'Samples of this review', bring: 'Bring in a file', drop: 'Drop files of records here, each becomes a sample', dropHint: 'Files of records can also be dropped anywhere on this page: RIS, BibTeX, CSL-JSON, tables, MODS, MARCXML, Dublin Core, packed or not. The marked sample is the one that all figures are counted over.', against: '{sample} is compared with', rest: 'all other records', nothing: 'nothing', sample: 'Sample', from: 'From', records: 'Records', years: 'Years, {from} to {to}', yearsLabel: 'Most records in {year}: {n}', date: 'Date', acts: 'What can be done', name: 'Name of the sample',
    look: 'Look at {name}', skipped: '1 skipped | {n} skipped', remarks: '1 remark | {n} remarks', harvestOne: 'Harvest {name}', renameOne: 'Rename {name}', deleteOne: 'Delete {name}', emptyTitle: 'No sample yet', emptyText: 'A sample is a set of records from a rough search. Bring in a file of records, or drop one here: its words are then counted and set against those of other records.',
  },
  vocabulary: {
    title: 'Vocabulary', bring: 'Bring in a vocabulary', other: 'Bring in another', drop: 'Drop a SKOS vocabulary here', holds: '{n} heading | {n} headings', removeOne: 'Remove {name}', none: 'Without a vocabulary a keyword with a * or a / is taken for a heading. Bring in the source’s vocabulary (SKOS as N-Triples, RDF/XML or JSON-LD): then headings are told from keywords, a lay word leads to its heading, and a heading can be searched with all that stand below it.',
  },
  import: { again: 'Bring in again', giveUp: 'Give up', giveUpOne: 'Give {name} up', waits: 'waits for the other files of this review', waiting: 'waits to be read', sending: '{name} is on its way', reading: '{name} is being read', sent: '{sent} of {of}', read: '{n} record read | {n} records read' },
  size: { kb: '{n} kB', mb: '{n} MB' },
  notices: { title: 'What could not be read as it stands in {name}', sum: '{records} records brought in, {skipped} skipped', lines: 'Report, line by line', line: 'Line', what: 'What', save: 'Save as text' },
  notice: {
    'other-encoding': 'The file is not UTF-8; it was read as {detail}', 'before-first': 'Text before the first record was left out: “{detail}”', 'no-title': 'Record without title; kept', 'no-year': 'The year field holds no year (“{detail}”); record kept without year', 'no-end': 'The record has no end mark; kept', nothing: 'The record holds nothing but its type; skipped',
    'too-large': 'The record is larger than {detail}; skipped', twice: 'The same record stands earlier in the file ({detail}); counted once', double: 'Another record of the same work stands earlier in the file ({detail}); both kept', already: 'The record is a key study already ({detail}); left out',
    'no-statement': 'This line is no statement and was skipped: “{detail}”', 'no-label': 'A concept without a label was left out: {detail}', 'other-language': 'A concept has no label in the chosen language; it is shown as “{detail}”', 'two-labels': 'A second preferred label in one language ({detail}); the first is used', 'same-label': 'Two concepts have this label ({detail}); both are kept, the first is found by it', 'no-parent': 'A concept names a broader or narrower one that is not there ({detail}); passed over', cycle: 'A concept stands below itself ({detail}); the step that closes the circle is passed over',
  },
  facet: { words: 'Words', headings: 'Headings', qualifiers: 'Qualifiers', keywords: 'Keywords', journals: 'Journals', authors: 'Authors', years: 'Years', types: 'Types', languages: 'Languages', countries: 'Countries', substances: 'Substances' },
  figure: {
    item: 'item', records: 'Records', withNarrower: 'And below', lift: 'Lift', pull: 'Pull', keys: 'Keys', rescues: 'Rescues', price: 'Price', suit: 'Suit', worth: 'Worth',
    termRecords: 'Records', onlyHere: 'Only here', termKeys: 'Keys', grows: 'Block grows to', headingsAlone: 'headings alone', both: 'both', wordsAlone: 'words alone',
  },
  formula: {
    records: 'Records of the sample that hold it.', lift: 'How many times as common here as in what it is compared with: ((a + ½) / (N₁ + 1)) ÷ ((b + ½) / (N₂ + 1)).', pull: 'How surely typical of this sample: the signed log-likelihood ratio G² of records with and without it, here and there.', keys: 'Key studies that hold it.',
    withNarrower: 'Records of the sample with this heading or one that stands below it in the vocabulary; each once.', termRecords: 'Records of the sample that the term finds.', onlyHere: 'Records that no other term of the block finds.', termKeys: 'Key studies that the term catches; ringed are those that no other term of the block catches.',
    grows: 'Records that the terms up to this one find together; dark, what this one adds.', headingsAlone: 'Records that only heading terms of the block find.', both: 'Records that heading terms and free-text terms find.', wordsAlone: 'Records that only free-text terms of the block find.',
    worth: 'Rescues × suit ÷ √(5 + price), in thousandths: how much it brings back and how well it belongs, for what it adds to the reading.', suit: 'How well it belongs to the block: by the company its words keep, how often the block finds records with it, and whether another block suits it better; a common word needs more.',
    rescues: 'Missed key studies that the block would then catch.', price: 'Records that the whole strategy would then find beyond those it finds now, in the sample.', rescuePull: 'How typical it is of the blind spot: of records that all other searched blocks find and this one does not.',
  },
  state: { open: 'open', kept: 'kept', parked: 'parked', dropped: 'dropped', all: 'all', parkedShort: 'parked', droppedShort: 'dropped' },
  reason: { 'from-record': 'from a record', 'other-meaning': 'another meaning', 'too-broad': 'too broad', 'other-concept': 'another concept', 'says-nothing': 'says nothing' },
  list: { sortBy: 'Sort by {column}' },
  plot: { fold: 'Plot ▴', unfold: 'Plot ▾', foldTip: 'Show the plot, or fold it away', label: 'Plot of {n} items by records and pull; the list holds the same', hint: 'Click a dot, or draw a rectangle to keep what lies in it', up: 'more typical →', upKeys: 'more keys →', right: 'in more records of the sample →', clear: 'show all again', pull: 'pull {n}' },
  harvest: {
    emptyTitle: 'Nothing to harvest yet', emptyText: 'Harvest ranks the words, headings and keywords of a sample by how typical they are of it. Bring in a sample first.', typical: 'What is typical of', against: 'against', counts: '{open} open · {kept} kept · {parked} parked · {dropped} dropped', facets: 'What is counted', counting: 'Counting', foreign: '{n} of these records does not read like English: stopwords, spellings and plurals are known for English alone. | {n} of these records do not read like English: stopwords, spellings and plurals are known for English alone.', unindexed: '{share} of these records carry no heading.', showThem: 'Show them', unindexedLast: 'Of {year}: {n} of {of}.', show: 'Show', filter: 'Filter', shown: '{n} item | {n} items', title: { open: 'Open candidates', kept: 'Kept candidates', parked: 'Parked candidates', dropped: 'Dropped candidates', all: 'All candidates' }, nothingShown: 'Nothing fits the filter.', noItems: 'The sample holds none of these.', 
  },
  panel: {
    seenIn: 'in {sample}', by: 'by {who}', label: 'Selected: {item}', here: '{n} record here | {n} records here', elsewhere: '{n} elsewhere', central: 'a main point in {n}', kept: 'kept', parked: 'Parked', dropped: 'Dropped', asTerm: 'The term that is added', tried: '{records}, {keys}', why: 'Why it is dropped', noReason: 'no reason', context: 'In context', forms: 'Its forms; those that are ticked are added', stem: 'finds {reach}', drags: '1 through other words ({words}) | {n} through other words ({words})', dragsNothing: 'drags in nothing', absorbs: 'Folded under it:', noContext: 'It stands in no title or abstract of the sample.', openRecord: 'Open the record', records: 'Open its record | Open its {n} records',
  },
  keysHelp: {
    open: 'Keys', title: 'Keys in Harvest', note: 'Single letters act while the list has the focus.', move: 'previous, next', add: 'add to the first, second … block', park: 'park', drop: 'drop; a digit then says why', back: 'take back', suits: 'add to the block that it suits best', concept: 'begin a new concept with it', several: 'select several', anew: 'order anew', alike: 'words used alike', stems: 'truncated, or as it stands', filter: 'filter', records: 'open the records', ends: 'first, last', undo: 'undo', redo: 'redo', help: 'these keys',
  },
  concept: { new: 'New concept…', name: 'What the concept is called', begin: 'Begin the concept' },
  reader: { place: '{at} of {of}', previous: 'Previous', next: 'Next', close: 'Close', list: 'Records', record: 'The record', more: '{n} more', none: 'No record of the sample is found by this.' },
  blocks: {
    emptyTitle: 'No blocks yet', emptyText: 'Each concept of the question has a block of terms: alternatives, any of which will do. Add a concept first.', all: 'Blocks', records: 'records', keyStudies: 'key studies', on: 'On', term: 'Term', heading: 'heading', within: 'within {n} of', zero: 'finds nothing in this sample', addsNothing: 'adds nothing', inside: 'adds nothing: inside {term}', unknown: 'not in the vocabulary', narrower: 'with {n} narrower', alone: 'alone', setNarrower: '{term} with its narrower headings', growsTo: 'the block grows to {n}, by {step}', switch: '{term} is searched', openRecords: '{n} records of {term}', sole: '1 key study that no other term of the block catches | {n} key studies that no other term of the block catches', up: 'Move {term} up', down: 'Move {term} down', upTip: 'Move up (Alt ↑)', downTip: 'Move down (Alt ↓)', removeOne: 'Remove {term}', noTerms: 'No terms yet. Type one below, or take them from Harvest.',
  },
  field: { text: 'title, abstract, keywords', title: 'title', abstract: 'abstract', titleAbstract: 'title, abstract', keyword: 'keywords', any: 'anywhere' },
  addTerm: { parts: 'Its parts can be terms:', partsJoined: 'Its parts can be terms. Those joined by AND belong into different blocks:', addPart: 'Add {term} to {block}', addAll: 'Add all {n}', label: 'Add a term to {block}', hint: 'type a word, a phrase, a stem* or a heading', where: 'Where it is searched', keys: '{keys}', forms: 'stem* for any ending · labo?r for one letter · left ~3 right for words that stand near · [Heading] for a heading', headings: 'Headings of this sample', leads: 'Leads to', withNarrowerOf: '{heading} with its narrower headings', via: { entryTerm: 'by “{matched}”', note: 'by its note' } },
  refused: {
    'no-word': 'This holds no word to look for.', 'too-open': '“{token}” would match too much: a * needs at least two letters before it, or three in the whole word.', 'too-long': 'A term has at most 1,000 characters.', within: 'Two words stand near within 1 to 100 words.',
  },
  blind: { title: 'Blind spot of {block}', text: 'Every record that {others} finds {block} finds too. | 1 record that {others} finds and {block} does not. There suits {block}: | {n} records that {others} finds and {block} does not. There suits {block}:', tip: 'In {n} record of the blind spot, {of} in the sample; suit {suit}, pull {pull} | In {n} records of the blind spot, {of} in the sample; suit {suit}, pull {pull}', nothing: 'Nothing that stands there suits the block.' },
  coverage: {
    emptyTitle: 'No key studies to check against', emptyText: 'Coverage shows which key studies each block misses, and the words that would bring them back. Bring in key studies on Question.', caught: 'of {of} caught', recall: '{share}, interval {low} to {high}', missedFirst: 'Missed first', asBrought: 'As brought in', limits: 'Limits', all: 'All', studies: 'Key studies', by: '{block}: 1 term matches | {block}: {n} terms match', notBy: '{block}: no term matches', inside: 'inside the limits', outside: 'outside a limit', heldBack: 'What holds them back', alone: '{part} alone', together: '{parts} together', and: ' and ',
    limit: { years: 'the limit on years', languages: 'the limit on languages', types: 'the limit on types' }, study: 'The study', finds: 'finds it by 1 term: | finds it by {n} terms:', findsNothing: 'finds nothing here.', dropped: 'Dropped by {limit}.', bringBack: 'Would bring it back into {block}', candidate: 'Candidate', addOne: 'Add {item} to {block}', noneSuits: 'None of its words suits {block}.', elsewhere: '1 suits another block better | {n} suit another block better', rare: '1 too rare to tell | {n} too rare to tell', none: '1 does not suit {block} | {n} do not suit {block}', noCandidates: 'Every word of this study is matched by some block already.', more: '{n} more', isCaught: 'This study is caught.', noBlocks: 'No concept has a block yet, so nothing can catch a study. Write the concepts on Question, or begin one in Harvest.', noneSearched: 'No block is searched, so nothing can catch a study.',
  },
  halves: {
    build: 'build half', test: 'test half', split: 'Split in halves', join: 'Put together again', buildTip: 'Key studies that words may be mined from.', testTip: 'Key studies that only measure: no word is mined from them, so that recall is not flattered.', tip: 'At random: words are then mined from one half alone, and recall is measured on the other.', interval: '{low} to {high}', notMined: 'This study is of the test half: no words are mined from it.',
  },
  plan: {
    title: 'Rescue plan', noSample: 'Prices are counted over a sample: choose one on Samples.', nothing: 'No word or heading of the missed studies would bring one back and suits its block.', text: '{caught} of {of} caught now, with {hits} records to read; after all steps {then}, with {to}.', curve: 'Key studies caught against records to read, step by step; the table holds the same', up: '↑ key studies caught', right: 'records to read →', caught: 'Caught', steps: '{n} step | {n} steps', takeTo: 'Add {item} | Add the first {n} steps, to {item}', takeShort: 'Add {n}', left: '1 study that no step brings back | {n} studies that no step brings back',
  },
  drop: { one: 'Drop {item}…', why: 'Not proposed again, because' },
  conflict: {
    title: 'Changed by two people at once', text: 'Someone else changed the same while you did. Nothing is lost; choose what it is to be.', both: 'What', mine: 'Yours', theirs: 'The other', takeMine: 'Keep yours', takeTheirs: 'Take the other', changed: 'changed', empty: 'empty', gone: 'taken out', true: 'yes', false: 'no', of: '{part} of {what}',
    what: { question: 'question', frame: 'frame', limits: 'limit to {name}', vocabulary: 'vocabulary', halves: 'halves of the key studies', journal: 'hand search: {name}', block: 'block {block}, {name}', term: 'term “{name}” of {block}', order: 'order of {block} {name}', gone: '“{name}”, whose place was taken out', revision: 'the review', decision: 'decision on “{name}”', sample: 'sample “{name}”', shelf: 'note on the shelf' },
    part: { text: 'words', field: 'field', narrower: 'narrower headings', central: 'main point', qualifiers: 'qualifiers', on: 'switch', name: 'letter', concept: 'name', part: 'part of the question', searched: 'whether it is searched', reason: 'reason', negated: 'whether it is kept out' },
  },
  problem: {
    'built-on': 'Not taken back: since then someone changed {what}.', unreachable: 'Tamiz does not answer just now.', 'database-unreachable': 'The database does not answer just now.', internal: 'Something went wrong in Tamiz itself. What was saved before is untouched.', busy: 'This waited too long for its turn and was given up. Nothing was changed; try again in a moment.', unknown: 'The database went away before it said whether this was done. Look again before you repeat it.', 'disk-full': 'The disk of the database is full: nothing can be kept until there is room.', 'too-slow': 'The file stopped coming. Nothing was brought in.', 'too-long': 'This took too long and was given up.', 'brought-in': 'This file is brought in already. Its sample can be deleted.', 'no-years': 'This source cannot be asked for years: draw all of it, or at random.', 'broken-off': 'The file broke off on its way. Nothing was brought in.', 'same-file': 'The same file was brought in before, as “{sample}”. Nothing was brought in.',
    'look-gone': 'What this was asked of is not there any more.', 'not-asked': 'Nothing is to be answered of this file any more.', 'too-many-doubles': 'The file holds too many records of the same work to join them. Nothing was brought in.', 'empty-file': 'The file is empty. Nothing was brought in.', 'no-vocabulary': 'This is no SKOS vocabulary that can be read. Nothing was brought in.', 'vocabulary-gone': 'This vocabulary is not there any more.', 'no-records': '{why} Nothing was brought in.', 'nothing-new': 'All its records are key studies of this review already.', 'sample-gone': 'This sample was deleted meanwhile.', 'review-gone': 'This review is not there, or was deleted.', 'no-sample': 'There is no sample to look at yet.',
  },
}

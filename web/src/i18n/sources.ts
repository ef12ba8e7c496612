/** What Tamiz says of sources, draws and counts, in English. */
export default {
  screen: { sources: 'Sources' },
  strip: { away: 'not in this source', awayCount: '{n} not in this source' },
  change: { draw: 'sample “{name}” drawn', joinSamples: 'sample “{name}” put together' },
  chip: {
    label: 'Whose counts are shown', over: 'over {sample}', overSample: 'Over the sample', noSample: 'no sample', at: 'Counts at {source}', manage: 'Sources…', off: 'switched off',
  },
  counted: {
    today: 'counted today, {source}', on: 'counted {day}, {source}', counting: 'counting at {source}: 1 to go | counting at {source}: {n} to go', never: 'not counted yet',
    again: 'Count again', made: 'What {source} made of it', notHere: '1 more key study is not in {source}. | {n} more key studies are not in {source}.', inSample: '{n} in the sample', notCounted: '…', would: 'With it, at {source}',
    sent: 'The query as it was sent', echoed: 'As the source repeats it', echoedSame: 'The source repeats it as it was sent.', notEchoed: 'The source does not repeat the query.', said: 'What the source said', nothingSaid: 'The source said nothing about it.',
    notes: 'What the source cannot be asked', allAsked: 'The source was asked just what is meant.', bare: 'What bare words would have become', bareAsk: 'Ask with bare words', bareText: 'Typed into the source without a field, “{term}” finds {n}; here it finds {here}.', bareSame: 'the same number',
    request: 'The whole request', at: 'Counted {day}, {time}', diagnostic: 'diagnostic {n}', open: '{n} at {source}: {term}. What it made of it', refused: 'The source refuses this', recordsAt: 'records at {source}', recordsTip: 'Records that the source itself finds, with the date of the count. A mark: the source could not be asked just this.',
  },
  sourceNote: {
    'no-near': 'Words near each other cannot be asked for: {term} was counted as both words anywhere', 'no-inside': 'No sign inside a word: {term} was counted as {instead}, which finds more', 'no-ends': 'No sign at the end of a word: {term} was counted as {instead}, which finds less',
    'no-field': 'The field “{term}” cannot be asked by itself; asked was {instead}, which finds more', 'no-field-none': 'The field “{term}” cannot be asked; the words were asked without a field', 'no-part': '“{term}” cannot be asked here: {instead} alone was, which finds less', 'no-headings': 'There are no headings here: {term} was left out', 'no-headings-words': 'There are no headings here: {term} was counted as words',
    'no-narrower': 'Narrower headings cannot be asked with it: {term} was counted alone, which finds less', 'no-central': 'Main points cannot be asked: {term} was counted whether main point or not', 'no-qualify': 'Qualifiers cannot be asked: {term} was counted with any', 'no-limit': 'A limit on “{term}” cannot be asked and was left out, which finds more',
  },
  how: { all: 'all', newest: 'newest', years: 'over the years', random: 'at random' },
  draw: {
    title: 'Draw a sample', hint: 'rough words; all that stand in one row are alternatives, parted by commas', words: 'Rough words for {concept}', leftOut: 'left out', from: 'from', how: 'How it is drawn', atMost: 'at most', atMostLabel: 'At most so many records', seed: 'seed', name: 'Name of the sample',
    together: 'together', each: 'each by itself', what: 'What is drawn',
    beginBare: 'Draw', begin: 'Draw {n} record | Draw {n} records', beginEach: 'Draw each by itself', in: 'in {source}, all together', counting: 'counting…', countedNow: 'counted just now', countedAt: 'counted at {time}', firstTitles: 'The first titles', more: '{n} more', noTitles: 'The first ten titles show here as soon as there are words.',
    nothing: 'Nothing is found for {concept} by itself. Try fewer letters before a *, another spelling, or words an author would use.', nothingTogether: 'Each concept finds something, but nothing finds all. Leave one out, or try broader words for the smallest.', judge: 'If nothing here looks right, the words are wrong: try others before drawing.',
    anything: 'Anything in {source}, as a contrast', nameOf: '{words}', anythingFrom: 'anything', anythingName: 'anything in {source}', none: 'No source is switched on.', add: 'Add a source', refused: '{word}', sources: 'Sources to draw from', noConcepts: 'Add a concept to the question first, or draw anything as a contrast.',
    state: { waiting: 'waiting to begin', drawing: '{got} of {wanted}', stopping: 'stopping', stopped: 'stopped at {got} of {wanted}', failed: 'not drawn', done: '{got} of {wanted}' }, waits: { source: 'waits for other draws from {source}', review: 'waits for the other draws of this review' }, pause: '{got} of {wanted} · waiting {s} s, the source asked for it',
    stop: 'Stop', stopOne: 'Stop drawing {name}', goOn: 'Go on', goOnOne: 'Go on drawing {name}', raise: 'Draw more', raiseOne: 'Draw more of {name}', raiseTo: 'Records of {name} in all', rest: 'Fetch the rest', progress: 'Drawing {name}', troubles: '1 trouble | {n} troubles', report: 'Report of {name}', query: 'Query', by: '{how}, drawn with seed {seed}',
    reportSum: '{total} found by the source, {wanted} wanted, {got} got', noTroubles: 'Nothing went wrong.', of: 'of {n}', drawn: 'Drawn',
  },
  trouble: {
    at: 'position {from}', range: 'positions {from} to {to}', missing: 'the source gave nothing there', 'no-record': 'what stood there is no record', unreadable: 'it cannot be read', unanswered: 'no answer came', refused: 'the source refused', repeated: 'the same work as an earlier record; kept once', 'total-moved': 'the source’s count changed meanwhile', retry: 'can be fetched later',
  },
  compare: {
    open: 'Compare two', title: 'Two samples side by side', first: 'First sample', second: 'Second sample', works: '{n} work | {n} works', both: 'in both', only: 'only in {name}', union: 'Union', overlap: 'Overlap', difference: 'Only the first', make: 'Make a sample of {n} record | Make a sample of {n} records', name: 'Name of the new sample', names: { union: '{a} or {b}', overlap: '{a} and {b}', difference: '{a} without {b}' },
    text: 'By identity: the same DOI, or the same title, first author and year.', share: '{share} of the second is in the first.', joined: { union: 'union', overlap: 'overlap', difference: 'difference' },
  },
  sources: {
    title: 'Sources', add: 'Add a source', address: 'Address of an SRU server', addText: 'Any server that speaks SRU, the open protocol of library catalogues and literature databases. It is asked what it is; nothing else is needed.', addIt: 'Ask it and add it', asking: 'Asking…',
    offers: 'Offers', lacks: 'Lacks', vocabulary: 'Vocabulary', noVocabulary: 'none', inReview: 'brought in here', notInReview: 'not brought in here', off: 'Switched off', on: 'Switched on', switch: '{name} switched on', remove: 'Remove', removeOne: 'Remove {name}', removed: 'Source “{name}” removed. What was drawn from it stays.', describe: 'Read its description again',
    version: 'SRU {version}', page: '{n} records at once', map: 'How it is asked', mapText: 'Which of its indexes stands for which field. Proposed from its own description; change what is wrong.', none: 'none', field: 'Field', index: 'Its index', save: 'Save', saved: 'Saved', can: 'It can', schema: 'Records as', tryTitle: 'Try it out', tryLabel: 'A query, in CQL', own: 'in its own names, as typed', ask: 'Ask', found: '{n} record found | {n} records found', received: 'The answer as it came', emptyTitle: 'No source yet', emptyText: 'A source is a literature database that Tamiz asks over SRU. Add one by its address.', list: 'Sources', select: 'Show {name}', refused: 'It refuses the question',
    can_: { near: 'words near each other', ends: 'stem* at the end of a word', inside: 'wom?n and labo*r inside a word', narrower: 'a heading with all below it', central: 'main points only', qualify: 'qualifiers', sort: 'the newest first', scan: 'its own list of words' },
    cannot: { near: 'no words near each other', ends: 'no stem*', inside: 'no sign inside a word', narrower: 'no narrower headings', central: 'no main points', qualify: 'no qualifiers', sort: 'not the newest first', scan: 'no list of its words' },
    fieldName: { text: 'title, abstract, keywords', title: 'title', abstract: 'abstract', titleAbstract: 'title or abstract', keyword: 'keywords', heading: 'headings', any: 'anywhere', author: 'author', journal: 'journal', year: 'year', type: 'type', language: 'language', country: 'country', identifier: 'identifier' },
  },
  scan: { title: 'In the word index of {source}', take: 'Add {term} to {block}', rare: 'rare: perhaps a misspelling', joined: 'written as one word', here: 'what is typed', add: 'Add 1 ticked word | Add {n} ticked words', none: '{source} offers no list of its words.' },
  holding: {
    held: 'held', absent: 'not there', near: 'something like it', unknown: 'could not be looked up', lookUp: 'Look up again', lookingUp: 'Looking up…', notHere: 'not in {source}', is: 'It is the study', isNot: 'It is another', compare: '{source} has something like it', byIdentifier: 'found by its identifier', byTitle: 'found by its title', settled: 'settled by hand',
    paste: 'Paste references', pasteTitle: 'Look up key studies', pasteLabel: 'Titles, DOIs or whole references: one in each line, or parted by empty lines', find: 'Look up in every source', finding: 'Looking up…', nothing: 'No source holds anything like it.', take: 'Take in 1 key study | Take in {n} key studies', choose: 'Take {title}', how: { identifier: 'by its identifier', title: 'by its title', near: 'something like it: look before you take it' }, study: '{study} in {source}: {state}',
  },
  take: { selection: 'Take “{words}” from this record', park: 'Park', all: 'Park all headings and keywords', from: 'from a record', parked: '1 candidate parked, from this record | {n} candidates parked, from this record', hint: 'Mark words with the pointer to take them; a chip can be taken too.' },
}

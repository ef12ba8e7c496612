/** The texts of what is looked at from above. */
export default {
  looked: {
    at: 'What is looked at', records: 'Records of the sample and what it is set against', any: 'what the blocks find now', block: 'what {block} finds', spot: 'blind spot of {block}', only: 'only found by {term}', term: 'found by {term}', item: '{item} ({facet})', team: 'the team of {name}',
    ids: '{n} selected record | {n} selected records', strategy: 'the strategy', shelf: 'the shelf', joined: 'two samples together', rest: 'the rest of both', restHint: 'sample and contrast together, without it',
    groupSamples: 'A sample', groupBlocks: 'What terms find, in sample and contrast together', back: 'The sample again', anew: 'Order anew', anewTip: 'Counts what the blocks find now, and puts aside what their terms match by now', changes: '{n} change since | {n} changes since', aside: '{n} aside', asideTip: 'Items that a term of the block they suit matches by now. Show them too', fromAbove: 'Look at these from above', empty: 'No record of sample and contrast is in this set.',
  },
  suit: { proposed: 'suits {block}', inside: 'found by {block} already', none: 'No block suits it clearly; a digit says which', missed: 'in {n} missed key study | in {n} missed key studies' },
  marked: { title: '{n} items selected', text: 'What is decided holds for all of them, as one change.', clear: 'Select one alone' },
  filters: {
    title: 'More filters', records: 'Records', lift: 'Lift', pull: 'Pull', from: '{figure} from', to: '{figure} to', missed: 'in missed key studies', unmatched: 'not matched by any term', clear: 'Clear all', hint: 'Filter, or stem*', refused: 'A pattern needs two letters beside its * or ?', on: '1 filter | {n} filters',
  },
  alike: { title: 'Used alike', text: 'They keep the company that {item} keeps', of: 'Words used like the terms of {block}', tip: 'Likeness {alike}; together in {together} of {records} records', together: '{n} together', none: 'It stands in too few records to say which company it keeps.', open: 'Select it in the list', button: 'Used alike' },
  goes: { title: 'Headings that go with it', tip: 'In {n} of its records; pull {pull}' },
  stands: { title: 'Where else', titleOnly: 'in {n} title only | in {n} titles only', keywords: 'a keyword in {n} | a keyword in {n}', phrase: 'as a phrase', near: 'near each other', words: 'anywhere', take: 'Add as words that stand near' },
  outside: { title: 'What {term} finds besides', fine: 'fine', out: 'keep out', note: 'Words that are kept out are not searched: then the forms are listed one by one.', show: 'What it finds besides' },
  own: { reason: 'own words', label: 'The reason in own words' },
}

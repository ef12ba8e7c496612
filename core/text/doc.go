// Package text knows how writing becomes tokens, phrases and matches: normalising, tokenising,
// n-grams and the patterns that people type. It knows nothing of records, fields or counts.
//
// The rules are fixed in docs/rules/text-model.md; every count in Tamiz rests on them.
package text

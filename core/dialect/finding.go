package dialect

import "tamiz/core/query"

// What may be wrong in how a query is written. What is wrong with what it says is for others to find.
const (
	Bracket        = "bracket"               // open, or closed twice
	Mixed          = "mixed-operators"       // two readings
	StemTooShort   = "stem-too-short"        // a sign with too few letters beside it
	ExactTruncated = "exact-with-truncation" // a sign where it is none, or does not work
	PhraseSplit    = "phrase-split"          // words that belong together and are not held together
	LineUnknown    = "line-unknown"
	LineCircle     = "line-circle"
	FieldUnknown   = "field-unknown"
	TooLongFor     = "too-long-for-source"
	Operator       = "operator"   // missing, doubled, or with nothing beside it
	Unreadable     = "unreadable" // what is neither a term nor joins any
)

// A Finding is something wrong with a query, at a place in its text.
type Finding struct {
	Code     string
	From, To int          // code points
	Why      string       // a sentence
	Mend     *string      // what should stand there instead; nil where nothing can be proposed
	Readings []query.Expr // of mixed operators: as taken, and otherwise

	Trees [2]*Node // the two as parts of the text
}

func mended(s string) *string { return &s }

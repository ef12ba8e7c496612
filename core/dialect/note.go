package dialect

import "tamiz/core/query"

// What a dialect may be unable to say. What is asked in its place finds more, or less, or both: Meant and Said of a
// Note tell how much, over any records.
const (
	NoNear     = "no-near"      // both anywhere in the fields
	NoOrder    = "no-order"     // in either order
	NoExactly  = "no-exactly"   // nearer too
	NoSign     = "no-sign"      // exactly one character: the forms that the sample holds, or cut there
	NoInside   = "no-inside"    // a sign inside a word: the same
	NoEnds     = "no-ends"      // a sign at the end: the same
	NoLeft     = "no-left"      // a sign before a word: the same
	NoLetters  = "no-letters"   // too few letters before a sign: the same
	NoPhrase   = "no-phrase"    // words that stand together: each anywhere in the fields
	NoInPhrase = "no-in-phrase" // a sign in a phrase: the forms that the sample holds, or each word anywhere
	NoWhole    = "no-whole"     // a whole value: anywhere in it
	NoField    = "no-field"     // a field that holds more
	Wider      = "wider"        // a name under which the source keeps more than the field
	NoPart     = "no-part"      // what there is of the field
	NoName     = "no-name"      // left out: there is nothing like it
	NoHeadings = "no-headings"  // its label as words, or left out
	Once       = "once"         // nothing: what stands in for it is said beside it already
	NoNarrower = "no-narrower"  // the heading alone
	NoCentral  = "no-central"   // whether main point or not
	NoQualify  = "no-qualify"   // with any qualifier
	NoLimit    = "no-limit"     // left out
	NoNot      = "no-not"       // left out
	NoWriting  = "no-writing"   // left out: a character cannot be typed
	Parted     = "parted"       // several queries, whose records belong together
	TooLong    = "too-long"     // longer, deeper or of more terms than the source takes
)

// What a heading that is carried over to another vocabulary becomes there.
const (
	CarriedOver   = "carried"        // what was taken to stand for it
	NoCounterpart = "no-counterpart" // its words
	TakesAway     = "takes-away"     // its words, of one that takes away
)

// A Note says what a dialect cannot say, and what is asked in its place.
type Note struct {
	Code    string
	Term    string     // what was meant, as a person reads it
	Instead string     // what is asked in its place; "" is nothing
	Field   string     // of a field that cannot be asked by itself or in full: its name
	Meant   query.Expr // nil where nothing is asked differently
	Said    query.Expr // nil: nothing is asked
}

// SaidOnce notes that what stands in for an expression is said beside it already.
func SaidOnce(meant, said query.Expr) Note {
	return Note{Code: Once, Term: query.Write(meant), Instead: query.Write(said), Meant: meant, Said: said}
}

// OfLength reports whether a note is of how long what is typed is, not of what it says.
func (n Note) OfLength() bool { return n.Code == Parted || n.Code == TooLong }

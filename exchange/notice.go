package exchange

import "fmt"

// A Notice says what a reader could not take as it stood, where, and what became of it.
type Notice struct {
	Line    int    // the line of the file, from 1; 0 when it is about the whole file
	Record  int    // the record of the file, from 1; 0 when it is about none
	Kind    Kind   //
	Detail  string // the piece at fault, where there is one
	Skipped bool   // the record, or these lines, were left out
}

// Kind is what a Notice is about; each has a sentence of its own in every language.
type Kind string

// What readers report.
const (
	OtherEncoding Kind = "other-encoding" // the file is not UTF-8; Detail names what it was read as
	BeforeFirst   Kind = "before-first"   // text before the first record
	NoTitle       Kind = "no-title"       // kept without title
	NoYear        Kind = "no-year"        // a year field without a year; kept without year
	NoEnd         Kind = "no-end"         // the end mark is missing; kept
	Nothing       Kind = "nothing"        // the record holds nothing but its type
	TooLarge      Kind = "too-large"      // the record is larger than what is read
	Twice         Kind = "twice"          // the very same record stands earlier in the file; counted once
	Double        Kind = "double"         // an earlier record of the file is of the same work; both kept
	DoubleLeft    Kind = "double-left"    // an earlier record of the file is of the same work; this one was left out
	DoubleJoined  Kind = "double-joined"  // an earlier record of the file is of the same work; this one was joined to it
	Already       Kind = "already"        // the record is a key study already; left out
	OtherFormat   Kind = "other-format"   // text of another format begins in the file; not read
	NoTag         Kind = "no-tag"         // a line that has no tag and goes on with nothing
	CutOff        Kind = "cut-off"        // the file ends in the middle of the record
	Unclosed      Kind = "unclosed"       // a brace or quote is not closed before the next record
	BadEntry      Kind = "bad-entry"      // the record cannot be made out
	NoCrossref    Kind = "no-crossref"    // a record takes fields from another that is not there
	Broken        Kind = "broken"         // the file is not well-formed; what follows is lost to the reader
	Unread        Kind = "unread"         // nothing of what follows in the file could be read
	DTD           Kind = "dtd"            // the file has a document type declaration, which is not followed
	NoClose       Kind = "no-close"       // the file ends before its first element does
	OtherClaim    Kind = "other-claim"    // the file says it is in another encoding than it is
	RowLength     Kind = "row-length"     // a row has more or fewer cells than the table has columns
	Part          Kind = "part"           // what follows in the report is about this part of a packed file
	PartUnknown   Kind = "part-unknown"   // a part of a packed file is in no format that is known
	CutChar       Kind = "cut-char"       // the file ends in the middle of a character
	NoStatement   Kind = "no-statement"   // a line of a vocabulary that says nothing
	NoLabel       Kind = "no-label"       // a concept without any label; left out
	OtherLanguage Kind = "other-language" // concepts without a label in the chosen language
	TwoLabels     Kind = "two-labels"     // a second preferred label in one language
	SameLabel     Kind = "same-label"     // another concept has the label
	NoParent      Kind = "no-parent"      // a broader or narrower concept that is not there
	Cycle         Kind = "cycle"          // a concept that stands below itself
)

var sentences = map[Kind]string{
	OtherEncoding: "the file is not UTF-8; it was read as %s",
	BeforeFirst:   "text before the first record belongs to nothing; begins %q",
	NoTitle:       "record without title; kept",
	NoYear:        "the year field holds no year (%q); record kept without year",
	NoEnd:         "the record has no end mark; kept",
	Nothing:       "the record holds nothing but its type; skipped",
	TooLarge:      "the record is larger than %s; skipped",
	Twice:         "the same record stands earlier in the file (%s); counted once",
	Double:        "another record of the same work stands earlier in the file (%s); both kept",
	DoubleLeft:    "another record of the same work stands earlier in the file (%s); this one was left out",
	DoubleJoined:  "another record of the same work stands earlier in the file (%s); this one was joined to it",
	Already:       "the record is a key study already (%s); left out",
	OtherFormat:   "from here on the file holds another format (%q); not read: bring it in as a file of its own",
	NoTag:         "a line without a tag (%q); left out",
	CutOff:        "the file ends in the middle of this record (%s)",
	Unclosed:      "a brace or quote of this record (%s) is not closed before the next one begins",
	BadEntry:      "the record (%s) cannot be made out from here on",
	NoCrossref:    "the record takes fields from another (%s) that is not in the file; kept without them",
	Broken:        "the file breaks the rules of its format here (%s)",
	Unread:        "what follows in the file could not be read",
	DTD:           "the file has a document type declaration; it was not followed",
	NoClose:       "the file ends before its outermost element does; all records before are kept",
	OtherClaim:    "the file says that it is %s, which it is not; it was read as what it is",
	RowLength:     "the row has cells of another number than the table (%s); kept",
	Part:          "now comes %s of the packed file",
	PartUnknown:   "%s of the packed file is in no format that is known; left out",
	CutChar:       "the file ends in the middle of a character; that is left out, and the rest of the file may be missing",
	NoStatement:   "this line is no statement: %q; skipped",
	NoLabel:       "a concept without a label (%s); left out",
	OtherLanguage: "a concept without a label in the chosen language; shown as %q",
	TwoLabels:     "a second preferred label in one language (%s); the first is used",
	SameLabel:     "two concepts have this label (%s); both are kept, the first is found by it",
	NoParent:      "a concept names a broader or narrower one that is not there (%s); passed over",
	Cycle:         "a concept stands below itself (%s); the step that closes the circle is passed over",
}

func (n Notice) String() string {
	text := sentences[n.Kind]
	if n.Detail != "" {
		text = fmt.Sprintf(text, n.Detail)
	}
	if n.Kind.Partial() {
		if n.Skipped {
			text += "; skipped"
		} else {
			text += "; kept as far as it could be read"
		}
	}
	if n.Line == 0 {
		return text
	}
	return fmt.Sprintf("line %d: %s", n.Line, text)
}

// Partial reports whether a record of which this is said may have been kept in part.
func (k Kind) Partial() bool { return k == CutOff || k == Unclosed || k == BadEntry || k == Broken }

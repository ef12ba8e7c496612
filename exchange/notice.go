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
	Already       Kind = "already"        // the record is a key study already; left out
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
	Already:       "the record is a key study already (%s); left out",
}

func (n Notice) String() string {
	text := sentences[n.Kind]
	if n.Detail != "" {
		text = fmt.Sprintf(text, n.Detail)
	}
	if n.Line == 0 {
		return text
	}
	return fmt.Sprintf("line %d: %s", n.Line, text)
}

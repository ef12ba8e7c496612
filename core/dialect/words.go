package dialect

import "strings"

var noteWords = map[string]string{
	NoNear:    "words near each other cannot be asked for; both anywhere in the fields, more is found",
	NoOrder:   "the order of words cannot be asked for; in either, more is found",
	NoExactly: "an exact distance cannot be asked for; nearer too, more is found",
	NoSign:    "no sign for exactly one character", NoInside: "no sign inside a word",
	NoEnds: "no sign at the end of a word",
	NoLeft: "no sign before a word", NoLetters: "too few letters before a sign",
	NoPhrase:   "words cannot be held together; each anywhere in the fields, more is found",
	NoInPhrase: "no sign inside a phrase", NoWhole: "a whole value cannot be asked for; anywhere in it, more is found",
	NoField: "no such field; one that holds more is asked",
	Wider:   "this field holds headings too; more is found",
	NoPart:  "part of the field cannot be asked; less is found", NoName: "there is nothing like this field; left out",
	NoHeadings: "no headings here", Once: "what stands in for it is said already; once",
	NoNarrower: "no narrower headings; less is found",
	NoCentral:  "no main points; more is found", NoQualify: "no qualifiers; more is found",
	NoLimit: "no such limit; left out, more is found", NoNot: "NOT cannot be asked for; left out, more is found",
	NoWriting: "a character of it cannot be typed; left out", Parted: "queries, whose records belong together",
	TooLong: "characters: longer, deeper or of more terms than the source takes",
}

// String says a note as the command line does.
func (n Note) String() string {
	switch n.Code {
	case Parted, TooLong:
		return n.Term + " " + noteWords[n.Code]
	}
	s := n.Term + ": " + noteWords[n.Code]
	if n.Instead != "" && !strings.Contains(noteWords[n.Code], "left out") {
		s += " (" + n.Instead + ")"
	}
	return s
}

package dialect

import "tamiz/core/query"

// readToTell is how much of a text is read to tell its dialect.
const readToTell = 20_000

// Tell returns the dialect of several in which a text is written: the one that reads it with the fewest findings;
// of such, the one that understands most of its own; of such, the first. nil where there is none to choose from.
func Tell(typed string, among []*Dialect) *Dialect {
	if r := []rune(typed); len(r) > readToTell {
		typed = string(r[:readToTell])
	}
	var best *Dialect
	least, most := 0, 0
	for _, d := range among {
		r, err := d.Read(typed, nil)
		if err != nil {
			continue
		}
		wrong, own := r.wrong(), r.own()
		if best == nil || wrong < least || wrong == least && own > most {
			best, least, most = d, wrong, own
		}
	}
	return best
}

// wrong counts what is wrong with a text as one of a dialect. Brackets are wrong in every one.
func (r *Reading) wrong() (n int) {
	for _, f := range r.Findings {
		switch f.Code {
		case Unreadable, FieldUnknown, ExactTruncated:
			n += 2
		case PhraseSplit, Operator, TooLongFor:
			n++
		}
	}
	// Words side by side are nothing wrong where they may stand so, but say little for the dialect; a word that joins
	// elsewhere says something against it.
	for _, l := range r.Lines {
		l.Tree.Walk(func(part *Node) {
			if part.Implied || part.Loose {
				n += len(part.Parts) - 1
			}
			if q, ok := part.Expr.(query.Phrase); ok && !part.Marked && joinsElsewhere[q.Pattern.String()] {
				n += 2
			}
		})
	}
	return n
}

var joinsElsewhere = map[string]bool{"and": true, "or": true, "not": true, "near": true}

// own counts what only a dialect with fields and headings can say.
func (r *Reading) own() (n int) {
	for _, l := range r.Lines {
		l.Tree.Walk(func(part *Node) {
			switch q := part.Expr.(type) {
			case query.Heading, query.Years, query.Listed, query.Author:
				n += 2
			case query.Near:
				n += 2
			case query.Phrase:
				if r.Dialect.Bare == "" || q.Fields != textFields[r.Dialect.Bare] {
					n++
				}
			}
			if part.Op == opAnd && !part.Loose && !part.Implied || part.Op == opOr || part.Op == opNot {
				n++
			}
		})
	}
	return n
}

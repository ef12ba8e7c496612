package query

import (
	"fmt"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/index"
)

// Write returns an expression as CQL, with brackets around everything that is joined. Parse reads it
// back as the same expression.
func Write(q Expr) string {
	var w writer
	w.write(q, false)
	return w.String()
}

// A writer writes expressions one after the other. inside is whether one stands within another.
type writer struct{ strings.Builder }

func (w *writer) write(q Expr, inside bool) {
	switch q := q.(type) {
	case Or:
		w.join(q, "or", inside)
	case And:
		w.join(q, "and", inside)
	case Not:
		w.join(q, "not", inside)
	case Phrase:
		w.phrase(q)
	case Words:
		relation := "any"
		if q.All {
			relation = "all"
		}
		w.clause(fieldName(q.Fields), relation, q.Pattern.String())
	case Near:
		w.bracketed(inside, func() { w.near(q) })
	case Heading:
		if len(q.Parts) > 0 || q.Until != 0 {
			w.write(q.Plain(), inside)
			return
		}
		w.heading(q)
	case Author:
		relation := "="
		if q.Any {
			relation = "any"
		} else if q.All {
			relation = "all"
		}
		w.clause("author", relation, q.Pattern.String())
	case Years:
		w.years(q)
	case Listed:
		w.WriteString(listNames[q.List] + " = " + mustQuote(q.Value))
	}
}

// bracketed puts brackets around what is written, where that stands within something else.
func (w *writer) bracketed(inside bool, write func()) {
	if inside {
		w.WriteByte('(')
		defer w.WriteByte(')')
	}
	write()
}

func (w *writer) join(parts []Expr, operator string, inside bool) {
	w.bracketed(inside, func() {
		for i, part := range parts {
			if i > 0 {
				w.WriteString(" " + operator + " ")
			}
			w.write(part, true)
		}
	})
}

func (w *writer) clause(index, relation, term string) {
	if index != "" {
		w.WriteString(index + " " + relation + " ")
	}
	w.WriteString(quote(term))
}

func (w *writer) phrase(q Phrase) {
	switch {
	case q.Whole:
		w.clause(fieldName(q.Fields), "==", q.Pattern.String())
	case q.Fields == bib.Text:
		w.clause("", "", q.Pattern.String())
	default:
		w.clause(fieldName(q.Fields), "=", q.Pattern.String())
	}
}

func (w *writer) near(q Near) {
	w.write(Phrase{Pattern: q.Left, Fields: q.Fields}, true)
	sign := "<="
	if q.Exactly {
		sign = "="
	}
	fmt.Fprintf(w, " prox/unit=word/distance%s%d", sign, q.Within)
	if q.Ordered {
		w.WriteString("/ordered")
	}
	w.WriteByte(' ')
	w.write(Phrase{Pattern: q.Right, Fields: q.Fields}, true)
}

func (w *writer) heading(q Heading) {
	relation := "="
	if q.Narrower {
		relation += "/narrower"
	}
	if q.Central {
		relation += "/central"
	}
	for _, qualifier := range q.Qualifiers {
		relation += "/qualifier=" + mustQuote(qualifier)
	}
	w.WriteString("heading " + relation + " " + mustQuote(q.Label))
}

func (w *writer) years(q Years) {
	switch {
	case q.From == q.To:
		fmt.Fprintf(w, "year = %d", q.From)
	case q.To == LastYear:
		fmt.Fprintf(w, "year >= %d", q.From)
	case q.From == FirstYear:
		fmt.Fprintf(w, "year <= %d", q.To)
	default:
		fmt.Fprintf(w, `year within "%d %d"`, q.From, q.To)
	}
}

var listNames = map[index.List]string{
	index.Types:       "type",
	index.Languages:   "language",
	index.Countries:   "country",
	index.Identifiers: "identifier",
}

func fieldName(f bib.Field) string {
	for _, ix := range own {
		if ix.kind == textIndex && ix.fields == f {
			return ix.name
		}
	}
	return "dc.subject"
}

// quote puts a term into quotes where it needs them.
func quote(term string) string {
	if term == "" || wordEnd(term) < len(term) || strings.Contains(term, `\`) ||
		isOperator(token{kind: word, text: term}) {
		return mustQuote(term)
	}
	return term
}

func mustQuote(term string) string {
	return `"` + strings.NewReplacer(`\`, `\\`, `"`, `\"`).Replace(term) + `"`
}

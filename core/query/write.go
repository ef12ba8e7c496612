package query

import (
	"fmt"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/text"
)

// Write returns an expression as CQL, with brackets around everything that is joined. Parse reads it
// back as the same expression.
func Write(q Expr) string {
	var b strings.Builder
	write(&b, q, false)
	return b.String()
}

func write(b *strings.Builder, q Expr, inside bool) {
	join := func(parts []Expr, operator string) {
		if inside {
			b.WriteByte('(')
		}
		for i, part := range parts {
			if i > 0 {
				b.WriteString(" " + operator + " ")
			}
			write(b, part, true)
		}
		if inside {
			b.WriteByte(')')
		}
	}
	clause := func(index, relation, term string) {
		if index != "" {
			b.WriteString(index + " " + relation + " ")
		}
		b.WriteString(quote(term))
	}
	switch q := q.(type) {
	case Or:
		join(q, "or")
	case And:
		join(q, "and")
	case Not:
		join(q, "not")
	case Phrase:
		switch {
		case q.Whole:
			clause(fieldName(q.Fields), "==", q.Pattern.String())
		case q.Fields == bib.Text:
			clause("", "", q.Pattern.String())
		default:
			clause(fieldName(q.Fields), "=", q.Pattern.String())
		}
	case Words:
		relation := "any"
		if q.All {
			relation = "all"
		}
		clause(fieldName(q.Fields), relation, q.Pattern.String())
	case Near:
		if inside {
			b.WriteByte('(')
		}
		side := func(p text.Pattern) { write(b, Phrase{Pattern: p, Fields: q.Fields}, true) }
		side(q.Left)
		sign := "<="
		if q.Exactly {
			sign = "="
		}
		fmt.Fprintf(b, " prox/unit=word/distance%s%d", sign, q.Within)
		if q.Ordered {
			b.WriteString("/ordered")
		}
		b.WriteByte(' ')
		side(q.Right)
		if inside {
			b.WriteByte(')')
		}
	case Heading:
		if len(q.Parts) > 0 || q.Until != 0 {
			write(b, q.Plain(), inside)
			return
		}
		relation := "="
		if q.Narrower {
			relation += "/narrower"
		}
		if q.Central {
			relation += "/central"
		}
		for _, qualifier := range q.Qualifiers {
			relation += "/qualifier=" + string(mustQuote(qualifier))
		}
		b.WriteString("heading " + relation + " " + mustQuote(q.Label))
	case Author:
		relation := "="
		if q.Any {
			relation = "any"
		} else if q.All {
			relation = "all"
		}
		clause("author", relation, q.Pattern.String())
	case Years:
		switch {
		case q.From == q.To:
			fmt.Fprintf(b, "year = %d", q.From)
		case q.To == LastYear:
			fmt.Fprintf(b, "year >= %d", q.From)
		case q.From == FirstYear:
			fmt.Fprintf(b, "year <= %d", q.To)
		default:
			fmt.Fprintf(b, `year within "%d %d"`, q.From, q.To)
		}
	case Listed:
		b.WriteString(listNames[q.List] + " = " + mustQuote(q.Value))
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

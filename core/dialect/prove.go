package dialect

import (
	"fmt"
	"reflect"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// samples are expressions of every kind, by which a dialect is proved.
func samples() []query.Expr {
	pattern := func(s string) text.Pattern {
		p, err := text.ParsePattern(s)
		if err != nil {
			panic(err)
		}
		return p
	}
	ph := func(s string, f bib.Field) query.Expr { return query.Phrase{Pattern: pattern(s), Fields: f} }
	a, b, c := ph("kiln", bib.Text), ph("cane cutter", bib.Title), ph("rest*", bib.Any)
	h := func(narrower, central bool, qualifiers ...string) query.Expr {
		return query.Heading{
			Label:      "Kiln Workers, Rural",
			Narrower:   narrower,
			Central:    central,
			Qualifiers: qualifiers,
			Which:      thesaurus.Labelled("Kiln Workers, Rural"),
		}
	}
	out := []query.Expr{
		a, b, c, ph("and", bib.Text), ph("12", bib.Text), ph("labo?rer*", bib.Text), ph("*hydration", bib.Title),
		ph("co*worker", bib.Text),
		ph(
			"cane cut*",
			bib.Text,
		), ph("or not line", bib.Abstract), ph("heat", bib.Keyword), ph("heat", bib.Journal), ph("heat", bib.TitleAbstract),
		query.Phrase{Pattern: pattern("rest break"), Fields: bib.Title, Whole: true},
		query.Words{
			Pattern: pattern("rest shade"),
			Fields:  bib.Title,
			All:     true,
		}, query.Words{Pattern: pattern("rest shade"), Fields: bib.Abstract},
		query.Or{
			a,
			b,
			c,
		}, query.And{a, query.Or{b, c}}, query.Or{query.And{a, b}, c}, query.Not{query.And{a, b}, c},
		query.Not{query.Or{a, b}, c, ph("heat", bib.Text)},
		query.And{
			a,
			query.Not{b, c},
		}, query.Or{a, query.And{b, query.Or{c, a}}}, query.And{query.And{a, b}, c}, query.Or{query.Or{a, b}, c},
		query.And{a, query.And{b, c}},
		h(
			false,
			false,
		), h(true, false), h(false, true), h(true, true, "prevention"), h(false, false, "prevention", "history of"),
		query.Or{h(true, false), a}, query.And{query.Or{h(false, false), b}, query.Or{h(true, true), c}},
		query.Author{Pattern: pattern("velkana t")}, query.Author{Pattern: pattern("velkana"), Any: true},
		query.Listed{
			List:  index.Languages,
			Value: "eng",
		}, query.Listed{List: index.Types, Value: "Journal Article"}, query.Listed{List: index.Countries, Value: "and"},
		query.Listed{List: index.Identifiers, Value: "10.99999/x.1"},
		query.Years{
			From: 2000,
			To:   query.LastYear,
		}, query.Years{From: query.FirstYear, To: 2013}, query.Years{From: 2000, To: 2013}, query.Years{From: 2013, To: 2013},
		query.And{
			a,
			query.Years{From: 2000, To: query.LastYear},
			query.Or{query.Listed{List: index.Languages, Value: "eng"}, query.Listed{List: index.Languages, Value: "spa"}},
		},
	}
	for _, ordered := range []bool{false, true} {
		for _, exactly := range []bool{false, true} {
			n := query.Near{
				Left:    pattern("farm*"),
				Right:   pattern("crew*"),
				Within:  3,
				Ordered: ordered,
				Exactly: exactly,
				Fields:  bib.Text,
			}
			out = append(
				out,
				n,
				query.And{query.Or{n, a}, b},
				query.Near{Left: pattern("rest break"), Right: pattern("crew"), Within: 1, Ordered: ordered, Fields: bib.Title},
			)
		}
	}
	return out
}

// prove writes expressions and reads them back: what is written must be read as what it was said to say.
func (d *Dialect) prove() error {
	for _, q := range samples() {
		w := d.Write(q, Options{})
		if w.Said == nil || len(w.Queries) > 1 {
			continue
		}
		r, err := d.Read(w.Text(), nil)
		if err != nil {
			return err
		}
		if len(r.Findings) > 0 && r.Findings[0].Code != TooLongFor && r.Findings[0].Code != Mixed {
			return fmt.Errorf(
				"its reader is ambiguous: %q is written, and read with the finding that %s",
				w.Text(),
				r.Findings[0].Why,
			)
		}
		if !Same(w.Said, r.Expr()) {
			return fmt.Errorf(
				"its reader is ambiguous: %s is written as %q, and read as %s",
				query.Write(w.Said),
				w.Text(),
				shown(r.Expr()),
			)
		}
	}
	return nil
}

func shown(q query.Expr) string {
	if q == nil {
		return "nothing"
	}
	return query.Write(q)
}

// Same reports whether two expressions are the same but for how what is joined alike is grouped.
func Same(a, b query.Expr) bool {
	if a == nil || b == nil {
		return a == nil && b == nil
	}
	return reflect.DeepEqual(grouped(a), grouped(b))
}

// grouped returns an expression with parts that are joined like the whole drawn into it.
func grouped(q query.Expr) query.Expr {
	op, parts := operatorOf(q)
	var out []query.Expr
	for i, p := range parts {
		p = grouped(p)
		inner, more := operatorOf(p)
		if inner == op && (op != opNot || i == 0) {
			out = append(out, more...)
		} else {
			out = append(out, p)
		}
	}
	switch op {
	case opOr:
		return query.Or(out)
	case opAnd:
		return query.And(out)
	case opNot:
		return query.Not(out)
	}
	if h, ok := q.(query.Heading); ok && len(h.Qualifiers) == 0 {
		h.Qualifiers = nil
		return h
	}
	return q
}

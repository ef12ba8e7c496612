package source

import (
	"fmt"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/text"
)

// A Note says what a source cannot be asked, and what was asked in its place.
type Note struct {
	Kind    NoteKind `json:"kind"`
	Term    string   `json:"term"`
	Instead string   `json:"instead,omitempty"`
}

// NoteKind is what a Note is about.
type NoteKind string

// What a source may be unable to say.
const (
	NoNear     NoteKind = "no-near"     // both words anywhere in the record
	NoInside   NoteKind = "no-inside"   // the mark inside the word is taken to its end: more is counted
	NoEnds     NoteKind = "no-ends"     // the word without its mark: less is counted
	NoField    NoteKind = "no-field"    // another index, which holds more
	NoPart     NoteKind = "no-part"     // what there is of the field: less is counted
	NoHeadings NoteKind = "no-headings" // left out, or its label as words
	NoNarrower NoteKind = "no-narrower" // the heading alone: less is counted
	NoCentral  NoteKind = "no-central"  // whether main point or not: more is counted
	NoQualify  NoteKind = "no-qualify"  // with any qualifier: more is counted
	NoLimit    NoteKind = "no-limit"    // left out: more is counted

	// Of a source of another vocabulary than the strategy goes by.
	CarriedOver   NoteKind = "carried"        // what was taken to stand for a heading
	NoCounterpart NoteKind = "no-counterpart" // its words
)

var noteText = map[NoteKind]string{
	NoNear: "words near each other cannot be asked for; anywhere in the record", NoInside: "no sign inside a word; more is found",
	NoEnds: "no sign at the end of a word; less is found", NoField: "no such field; one that holds more is asked", NoPart: "part of the field cannot be asked; less is found", NoHeadings: "no headings here",
	NoNarrower: "no narrower headings; less is found", NoCentral: "no main points; more is found", NoQualify: "no qualifiers; more is found",
	NoLimit: "no such limit; more is found", CarriedOver: "another vocabulary; what stands for it there", NoCounterpart: "another vocabulary; its words",
}

func (n Note) String() string {
	s := n.Term + ": " + noteText[n.Kind]
	if n.Instead != "" {
		s += " (" + n.Instead + ")"
	}
	return s
}

// Render returns a query in a source's own names. What the source cannot be asked is put in the nearest
// way that it can, and noted; so a count that carries no note is a count of what was meant.
func Render(q query.Expr, m Map) (cql string, notes []Note) {
	r := renderer{m: m}
	return r.expr(q, false), r.notes
}

// NewestFirst has a query that is in a source's own names answered by year, the newest first.
func (m Map) NewestFirst(cql string) string {
	return cql + " sortBy " + m.Indexes["year"] + "/sort.descending"
}

// WithinYears narrows a query that is in a source's own names to some years.
func (m Map) WithinYears(cql string, from, to int) string {
	return "(" + cql + ") and " + m.years(from, to, true)
}

type renderer struct {
	m     Map
	notes []Note
}

func (r *renderer) note(kind NoteKind, term, instead string) {
	n := Note{kind, term, instead}
	if !slices.Contains(r.notes, n) {
		r.notes = append(r.notes, n)
	}
}

// expr returns an expression in brackets where it is inside another and needs them; "" where it cannot
// be asked at all.
func (r *renderer) expr(q query.Expr, inside bool) string {
	switch q := q.(type) {
	case query.Or:
		return r.joined(q, "or", inside)
	case query.And:
		return r.joined(q, "and", inside)
	case query.Not:
		return r.joined(q, "not", inside)
	case query.Phrase:
		p := r.pattern(q.Pattern)
		relation := "="
		if q.Whole {
			relation = "=="
		}
		return r.fields(q.Fields, relation, p, inside)
	case query.Words:
		return r.words(q, inside)
	case query.Near:
		return r.near(q, inside)
	case query.Heading:
		if len(q.Parts) > 0 || q.Until != 0 {
			return r.expr(q.Plain(), inside)
		}
		return r.heading(q, inside)
	case query.Author:
		if ix := r.m.Indexes["author"]; ix != "" {
			return ix + " = " + quote(r.pattern(q.Pattern))
		}
		r.note(NoField, "author", q.Pattern.String())
		return r.fields(bib.Any, "=", r.pattern(q.Pattern), inside)
	case query.Years:
		if r.m.Indexes["year"] == "" {
			r.note(NoLimit, "year", "")
			return ""
		}
		return r.m.years(q.From, q.To, inside)
	case query.Listed:
		field := map[index.List]string{index.Types: "type", index.Languages: "language", index.Countries: "country", index.Identifiers: "identifier"}[q.List]
		ix := r.m.Indexes[field]
		if ix == "" {
			r.note(NoLimit, field, q.Value)
			return ""
		}
		return ix + " = " + quote(q.Value)
	}
	panic(fmt.Sprintf("source: %T cannot be asked", q))
}

func (r *renderer) joined(parts []query.Expr, operator string, inside bool) string {
	var out []string
	for _, p := range parts {
		if h, ok := p.(query.Heading); ok && operator == "or" && r.m.Indexes["heading"] == "" {
			// Beside other terms a heading that does not exist here finds nothing here.
			r.note(NoHeadings, h.Label, "")
			continue
		}
		if s := r.expr(p, true); s != "" {
			out = append(out, s)
		}
	}
	if len(out) == 0 && operator == "or" && len(parts) > 0 {
		return r.expr(parts[0], inside)
	}
	s := strings.Join(out, " "+operator+" ")
	if inside && len(out) > 1 {
		s = "(" + s + ")"
	}
	return s
}

// pattern returns a term with the marks that the source knows.
func (r *renderer) pattern(p text.Pattern) string {
	words := make([]string, len(p))
	for i, t := range p {
		w := t.String()
		at := strings.IndexAny(w, "*?")
		switch {
		case at < 0:
		case at == len(w)-1 && w[at] == '*':
			if !r.m.Ends {
				w = w[:at]
				r.note(NoEnds, p.String(), w)
			}
		case !r.m.Inside:
			cut := w[:at]
			if r.m.Ends {
				cut += "*"
			}
			r.note(NoInside, p.String(), cut)
			w = cut
		}
		words[i] = w
	}
	return strings.Join(words, " ")
}

// words asks for all or any of some words, each wherever it stands in the fields: the words of one record may stand in
// different ones.
func (r *renderer) words(q query.Words, inside bool) string {
	operator := "or"
	if q.All {
		operator = "and"
	}
	out := make([]string, len(q.Pattern))
	for i := range q.Pattern {
		out[i] = r.fields(q.Fields, "=", r.pattern(q.Pattern[i:i+1]), len(q.Pattern) > 1 || inside)
	}
	s := strings.Join(out, " "+operator+" ")
	if inside && len(out) > 1 {
		s = "(" + s + ")"
	}
	return s
}

// indexes returns what is asked for a field, and notes what that leaves out or holds beside it.
func (r *renderer) indexes(name string) []string {
	indexes, wide, missing := r.m.asked(name)
	switch {
	case wide != "":
		r.note(NoField, name, strings.Join(indexes, ", "))
	case len(missing) > 0 && len(indexes) > 0:
		r.note(NoPart, strings.Join(missing, ", "), strings.Join(indexes, ", "))
	case len(indexes) == 0:
		r.note(NoField, name, "")
	}
	return indexes
}

// fields asks for a term in one index, or in the several that stand for it.
func (r *renderer) fields(f bib.Field, relation, term string, inside bool) string {
	indexes := r.indexes(fieldName(f))
	if len(indexes) == 0 {
		return quote(term)
	}
	if relation == "=" && r.m.Phrase != "" && strings.Contains(term, " ") {
		relation = r.m.Phrase
	}
	out := make([]string, len(indexes))
	for i, ix := range indexes {
		out[i] = ix + " " + relation + " " + quote(term)
	}
	s := strings.Join(out, " or ")
	if inside && len(out) > 1 {
		s = "(" + s + ")"
	}
	return s
}

func (r *renderer) near(q query.Near, inside bool) string {
	left, right := r.pattern(q.Left), r.pattern(q.Right)
	var indexes []string
	if r.m.Near {
		indexes = r.indexes(fieldName(q.Fields))
	}
	if len(indexes) == 0 {
		r.note(NoNear, fmt.Sprintf("%s ~%d %s", q.Left, q.Within, q.Right), q.Left.String()+" + "+q.Right.String())
		s := r.fields(q.Fields, "=", left, true) + " and " + r.fields(q.Fields, "=", right, true)
		if inside {
			s = "(" + s + ")"
		}
		return s
	}
	sign := "<="
	if q.Exactly {
		sign = "="
	}
	operator := fmt.Sprintf("prox/unit=word/distance%s%d", sign, q.Within)
	if q.Ordered {
		operator += "/ordered"
	}
	out := make([]string, len(indexes))
	for i, ix := range indexes {
		out[i] = ix + " = " + quote(left) + " " + operator + " " + ix + " = " + quote(right)
		if inside || len(indexes) > 1 {
			out[i] = "(" + out[i] + ")"
		}
	}
	s := strings.Join(out, " or ")
	if inside && len(out) > 1 {
		s = "(" + s + ")"
	}
	return s
}

func (r *renderer) heading(q query.Heading, inside bool) string {
	ix := r.m.Indexes["heading"]
	if ix == "" {
		r.note(NoHeadings, q.Label, q.Label)
		p, err := text.ParsePattern(strings.NewReplacer("*", " ", "?", " ").Replace(q.Label))
		if err != nil {
			return ""
		}
		return r.fields(bib.Text, "=", r.pattern(p), inside)
	}
	relation := "="
	add := func(wanted, can bool, modifier string, kind NoteKind) {
		switch {
		case wanted && can:
			relation += "/" + modifier
		case wanted:
			r.note(kind, q.Label, "")
		}
	}
	add(q.Narrower, r.m.Narrower, "narrower", NoNarrower)
	add(q.Central, r.m.Central, "central", NoCentral)
	for _, qualifier := range q.Qualifiers {
		add(true, r.m.Qualify, "qualifier="+mustQuote(qualifier), NoQualify)
	}
	return ix + " " + relation + " " + mustQuote(q.Label)
}

func (m Map) years(from, to int, inside bool) string {
	ix := m.Indexes["year"]
	switch {
	case from == to:
		return fmt.Sprintf("%s = %d", ix, from)
	case to >= query.LastYear:
		return fmt.Sprintf("%s >= %d", ix, from)
	case from <= query.FirstYear:
		return fmt.Sprintf("%s <= %d", ix, to)
	}
	s := fmt.Sprintf("%s >= %d and %s <= %d", ix, from, ix, to)
	if inside {
		s = "(" + s + ")"
	}
	return s
}

var fieldNames = map[bib.Field]string{bib.Text: "text", bib.Title: "title", bib.Abstract: "abstract", bib.TitleAbstract: "titleAbstract",
	bib.Keyword: "keyword", bib.Any: "any", bib.Journal: "journal"}

func fieldName(f bib.Field) string {
	if name, ok := fieldNames[f]; ok {
		return name
	}
	return "keyword" // what dc.subject stands for
}

// quote puts a term into quotes unless it is one plain word.
func quote(term string) string {
	for _, c := range term {
		if !(c >= 'a' && c <= 'z' || c >= '0' && c <= '9' || c == '*' || c == '?') {
			return mustQuote(term)
		}
	}
	switch term {
	case "", "and", "or", "not", "prox", "sortby":
		return mustQuote(term)
	}
	return term
}

func mustQuote(term string) string {
	return `"` + strings.NewReplacer(`\`, `\\`, `"`, `\"`).Replace(term) + `"`
}

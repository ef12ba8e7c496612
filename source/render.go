package source

import (
	"fmt"
	"slices"
	"strings"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/text"
)

// A Note says what a source cannot be asked, and what was asked in its place.
type Note struct {
	Kind    NoteKind `json:"kind"`
	Term    string   `json:"term"`
	Instead string   `json:"instead,omitempty"`
}

// NoteKind is what a Note is about: a code of package dialect, or one of these, of a source of another vocabulary than the
// strategy goes by.
type NoteKind string

// Of headings that are carried over.
const (
	CarriedOver   NoteKind = dialect.CarriedOver   // what was taken to stand for a heading
	NoCounterpart NoteKind = dialect.NoCounterpart // its words
	TakesAway     NoteKind = dialect.TakesAway     // its words, of one that takes away
)

var carriedWords = map[NoteKind]string{CarriedOver: "another vocabulary; what stands for it there", NoCounterpart: "another vocabulary; its words",
	TakesAway: "another vocabulary; its words, which may take away too much"}

func (n Note) String() string {
	if words := carriedWords[n.Kind]; words != "" {
		return fmt.Sprintf("%s: %s (%s)", n.Term, words, n.Instead)
	}
	return dialect.Note{Code: string(n.Kind), Term: n.Term, Instead: n.Instead}.String()
}

// Render returns a query in a source's own names, "" where nothing of it can be asked. What the source cannot be asked is
// put in the nearest way that it can, and noted; so a count that carries no note is a count of what was meant.
func Render(q query.Expr, m Map) (cql string, notes []Note) {
	d, err := m.Dialect()
	if err != nil { // names that no query could hold are turned away when the source is described
		return "", []Note{{Kind: dialect.NoName, Term: err.Error()}}
	}
	written := d.Write(q, dialect.Options{Anywhere: true})
	for _, n := range written.Notes {
		// A field is noted once, whatever is looked for in it.
		note := Note{Kind: NoteKind(n.Code), Term: n.Term, Instead: n.Instead}
		if n.Field != "" {
			note.Term, note.Instead = n.Field, m.named(n.Instead)
		}
		if !slices.Contains(notes, note) {
			notes = append(notes, note)
		}
	}
	return written.Text(), notes
}

// named returns the source's names of fields of ours.
func (m Map) named(fields string) string {
	out := strings.Split(fields, ", ")
	for i, f := range out {
		out[i] = m.Indexes[f]
	}
	return strings.Join(out, ", ")
}

// Dialect returns what a source can be asked as a dialect: CQL with the source's own names. It is only written in.
func (m Map) Dialect() (*dialect.Dialect, error) {
	d := &dialect.Dialect{
		Tamiz: dialect.Version, Name: "source", Title: "Asked through its index map", Typed: dialect.AsQuery, Fields: map[string][]string{},
		Clauses:   dialect.Clauses{Is: []string{"{name} = {term}"}, Whole: []string{"{name} == {term}"}},
		Terms:     dialect.Terms{Marks: [][2]string{{`"`, `"`}}, Words: dialect.Refused, Many: []string{"*"}, End: m.Ends, InPhrase: true},
		Operators: dialect.Operators{And: []string{"and"}, Or: []string{"or"}, Not: []string{"not"}, Ranks: [][]string{{"and", "or", "not", "near"}}},
		Brackets:  dialect.Brackets{Open: "(", Shut: ")", Always: true},
		After:     []string{"sortBy"},
		Escape:    `\`,
	}
	for _, f := range Fields {
		if ix := m.Indexes[f]; ix != "" {
			d.Fields[f] = []string{ix}
		}
	}
	if len(d.Fields["any"]) == 0 && !slices.ContainsFunc([]string{"text", "title", "abstract", "titleAbstract", "keyword"}, func(f string) bool { return m.Indexes[f] != "" }) {
		d.Bare = "any" // words without a name: the source chooses where they stand
	}
	if m.Phrase == "adj" {
		d.Clauses.Many = []string{"{name} adj {term}"}
	}
	if m.Inside {
		d.Terms.One, d.Terms.Left, d.Terms.Inside = []string{"?"}, true, true
	}
	if m.Indexes["year"] != "" {
		d.Years = &dialect.Years{Is: []string{"{name} = {year}"}, From: []string{"{name} >= {from}"}, To: []string{"{name} <= {to}"}}
	}
	if m.Indexes["heading"] != "" {
		d.Headings = &dialect.Headings{Is: []string{"{name} ={modifiers} {label}"}}
		for _, can := range []struct {
			it     bool
			asked  *[]string
			spoken string
		}{{m.Narrower, &d.Headings.Narrower, "/narrower"}, {m.Central, &d.Headings.Central, "/central"}, {m.Qualify, &d.Headings.Qualifier, "/qualifier={label}"}} {
			if can.it {
				*can.asked = []string{can.spoken}
			}
		}
	}
	if m.Near {
		d.Near = &dialect.Near{
			Unordered: []string{"prox/unit=word/distance<={n}"}, Ordered: []string{"prox/unit=word/distance<={n}/ordered"},
			Exactly: []string{"prox/unit=word/distance={n}"}, ExactlyOrdered: []string{"prox/unit=word/distance={n}/ordered"}, Most: text.MaxWithin,
		}
	}
	if err := d.ToWrite(); err != nil {
		return nil, fmt.Errorf("the index map: %w", err)
	}
	return d, nil
}

// NewestFirst has a query that is in a source's own names answered by year, the newest first.
func (m Map) NewestFirst(cql string) string {
	return cql + " sortBy " + m.Indexes["year"] + "/sort.descending"
}

// WithinYear narrows a query that is in a source's own names to a year.
func (m Map) WithinYear(cql string, year int) string {
	of, _ := Render(query.Years{From: year, To: year}, m)
	return "(" + cql + ") and " + of
}

func mustQuote(term string) string {
	return `"` + strings.NewReplacer(`\`, `\\`, `"`, `\"`).Replace(term) + `"`
}

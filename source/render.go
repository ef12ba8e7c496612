package source

import (
	"fmt"
	"slices"
	"strings"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
)

// A Note says what a source cannot be asked, and what was asked in its place.
type Note struct {
	Kind    NoteKind `json:"kind"`
	Term    string   `json:"term"`
	Instead string   `json:"instead,omitempty"`
}

// NoteKind is what a Note is about: a code of package dialect, or one of these, of a source of another vocabulary
// than the strategy goes by.
type NoteKind string

// Of headings that are carried over.
const (
	CarriedOver   NoteKind = dialect.CarriedOver   // what was taken to stand for a heading
	NoCounterpart NoteKind = dialect.NoCounterpart // its words
	TakesAway     NoteKind = dialect.TakesAway     // its words, of one that takes away
)

var carriedWords = map[NoteKind]string{
	CarriedOver:   "another vocabulary; what stands for it there",
	NoCounterpart: "another vocabulary; its words",
	TakesAway:     "another vocabulary; its words, which may take away too much",
}

func (n Note) String() string {
	if words := carriedWords[n.Kind]; words != "" {
		return fmt.Sprintf("%s: %s (%s)", n.Term, words, n.Instead)
	}
	return dialect.Note{Code: string(n.Kind), Term: n.Term, Instead: n.Instead}.String()
}

// Render returns a query in a source's own names, "" where nothing of it can be asked. What the source cannot be
// asked is put in the nearest way that it can, and noted; so a count that carries no note is a count of what was
// meant.
func Render(q query.Expr, m Map) (cql string, notes []Note) {
	d, err := m.Dialect()
	if err != nil {
		return "", unaskable(err)
	}
	return m.Asked(d.Write(q, m.options()))
}

// Manner returns how a strategy is said to the source; carry takes headings over to its vocabulary, nil where it is
// that of the strategy.
func (m Map) Manner(carry *strategy.Carrying) (strategy.Manner, error) {
	d, err := m.Dialect()
	if m.Indexes["heading"] == "" {
		carry = nil
	}
	return strategy.Manner{Dialect: d, Options: m.options(), Carry: carry}, err
}

// Asked returns what was written for the source as it is asked, "" where nothing can be, and what that differs by
// from what is meant.
func (m Map) Asked(w dialect.Written) (cql string, notes []Note) { return w.Text(), m.Notes(w.Notes) }

// Notes returns notes of what was written for the source in its own names. A field is noted once, whatever is
// looked for in it.
func (m Map) Notes(of []dialect.Note) (notes []Note) {
	for _, n := range of {
		note := Note{Kind: NoteKind(n.Code), Term: n.Term, Instead: n.Instead}
		if n.Field != "" {
			note.Term, note.Instead = n.Field, m.named(n.Instead)
		}
		if !slices.Contains(notes, note) {
			notes = append(notes, note)
		}
	}
	return notes
}

// unaskable notes that a source cannot be asked by its map: names that no query could hold are turned away when it
// is described.
func unaskable(err error) []Note { return []Note{{Kind: dialect.NoName, Term: err.Error()}} }

// options are those of writing for the source.
func (m Map) options() dialect.Options {
	o := dialect.Options{Anywhere: true}
	if m.subjects() {
		o.Wider = map[string]bool{"keyword": true}
	}
	return o
}

// subjects reports whether the index that stands for keywords holds headings too, as one of subjects does: what
// Dublin Core calls subject is the topic of a resource, in words of a vocabulary or of the author (ISO 15836-1,
// 5.14).
func (m Map) subjects() bool {
	name := strings.ToLower(m.Indexes["keyword"])
	if _, bare, ok := strings.Cut(name, "."); ok {
		name = bare
	}
	return name == "subject"
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
		Tamiz: dialect.Version, Name: "source", Title: "Asked through its index map", Typed: dialect.AsQuery,
		Fields:  map[string][]string{},
		Clauses: dialect.Clauses{Is: []string{"{name} = {term}"}, Whole: []string{"{name} == {term}"}},
		Terms: dialect.Terms{
			Marks:    [][2]string{{`"`, `"`}},
			Words:    dialect.Refused,
			Many:     []string{"*"},
			End:      m.Ends,
			InPhrase: true,
		},
		Operators: dialect.Operators{
			And:   []string{"and"},
			Or:    []string{"or"},
			Not:   []string{"not"},
			Ranks: [][]string{{"and", "or", "not", "near"}},
		},
		Brackets: dialect.Brackets{Open: "(", Shut: ")", Always: true},
		After:    []string{"sortBy"},
		Escape:   `\`,
	}
	for _, f := range Fields {
		if ix := m.Indexes[f]; ix != "" {
			d.Fields[f] = []string{ix}
		}
	}
	if len(d.Fields["any"]) == 0 &&
		!slices.ContainsFunc(
			[]string{"text", "title", "abstract", "titleAbstract", "keyword"},
			func(f string) bool { return m.Indexes[f] != "" },
		) {
		d.Bare = "any" // words without a name: the source chooses where they stand
	}
	if m.Phrase == "adj" {
		d.Clauses.Many = []string{"{name} adj {term}"}
	}
	if m.Inside {
		d.Terms.One, d.Terms.Left, d.Terms.Inside = []string{"?"}, true, true
	}
	if m.Indexes["year"] != "" {
		d.Years = &dialect.Years{
			Is:   []string{"{name} = {year}"},
			From: []string{"{name} >= {from}"},
			To:   []string{"{name} <= {to}"},
		}
	}
	if m.Indexes["heading"] != "" {
		d.Headings = &dialect.Headings{Is: []string{"{name} ={modifiers} {label}"}}
		for _, can := range []struct {
			it     bool
			asked  *[]string
			spoken string
		}{{m.Narrower, &d.Headings.Narrower, "/narrower"}, {m.Central, &d.Headings.Central, "/central"},
			{m.Qualify, &d.Headings.Qualifier, "/qualifier={label}"}} {
			if can.it {
				*can.asked = []string{can.spoken}
			}
		}
	}
	if m.Near {
		d.Near = &dialect.Near{
			Unordered: []string{"prox/unit=word/distance<={n}"}, Ordered: []string{"prox/unit=word/distance<={n}/ordered"},
			Exactly: []string{
				"prox/unit=word/distance={n}",
			}, ExactlyOrdered: []string{"prox/unit=word/distance={n}/ordered"}, Most: text.MaxWithin,
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

// Package dialect knows how sources want a query typed. A dialect is data: names of fields, words and signs, and
// templates with slots. What it says is enough to write an expression in it (Write), with a note for all that it
// cannot say, and to read back what somebody wrote (Read), with a finding for all that is wrong there. It knows
// nothing of blocks.
package dialect

import (
	"encoding/json"
	"fmt"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
)

// Version is what a dialect's file says of itself.
const Version = "dialect/1"

// How a dialect is typed.
const (
	AsQuery = "query" // one query
	AsLines = "lines" // line by line; lines name earlier lines by their numbers
)

// What words side by side without phrase marks mean.
const (
	AsPhrase = "phrase"
	AsAnd    = "and"
	Refused  = "none"
)

// A Dialect says how a source wants a query typed. Templates hold slots in braces; doubled braces are braces. Of
// several templates, names or signs the first is written, and all are read.
type Dialect struct {
	Tamiz      string              `json:"tamiz"`
	Name       string              `json:"name"`
	Title      string              `json:"title"`
	About      string              `json:"about,omitempty"`
	Vocabulary string              `json:"vocabulary,omitempty"` // whose headings it means, by name
	Typed      string              `json:"typed"`
	Fields     map[string][]string `json:"fields"`            // our field → its names
	Bare       string              `json:"bare,omitempty"`    // the field that a term without a name looks in
	Several    string              `json:"several,omitempty"` // what stands between the names of several fields
	Clauses    Clauses             `json:"clauses"`
	Years      *Years              `json:"years,omitempty"`
	Headings   *Headings           `json:"headings,omitempty"`
	Terms      Terms               `json:"terms"`
	Operators  Operators           `json:"operators"`
	Near       *Near               `json:"near,omitempty"`
	Brackets   Brackets            `json:"brackets"`
	Lines      *Lines              `json:"lines,omitempty"`
	Comments   [][2]string         `json:"comments,omitempty"` // where one begins and ends
	// words behind which stands what is not searched, as an order
	After     []string `json:"after,omitempty"`
	Escape    string   `json:"escape,omitempty"`  // makes the next character mean itself
	Longest   int      `json:"longest,omitempty"` // characters of one query
	MostTerms int      `json:"mostTerms,omitempty"`

	made   *templates
	unread bool // it is only written in: nothing has to be told apart
}

// Clauses are how a term and the field it is looked for in stand together: {name}, {term}.
type Clauses struct {
	Is    []string `json:"is,omitempty"`
	Many  []string `json:"many,omitempty"`  // as Is, of several words that stand together, where that is written otherwise
	Whole []string `json:"whole,omitempty"` // the whole of a value
	All   []string `json:"all,omitempty"`   // all words, wherever they stand
	Any   []string `json:"any,omitempty"`
}

// Years are how years are asked for: {name}, {year}, {from}, {to}. Before and After leave their year out.
type Years struct {
	Is      []string `json:"is,omitempty"`
	From    []string `json:"from,omitempty"`
	To      []string `json:"to,omitempty"`
	Between []string `json:"between,omitempty"`
	Before  []string `json:"before,omitempty"`
	After   []string `json:"after,omitempty"`
}

// Headings are how a heading is asked for: {name}, {label}, {modifiers}. What is not said of the modifiers cannot be.
type Headings struct {
	Is        []string `json:"is"`
	Narrower  []string `json:"narrower,omitempty"`
	Central   []string `json:"central,omitempty"`
	Qualifier []string `json:"qualifier,omitempty"` // {label}; repeated, any of them
}

// Terms are how words and phrases are written.
type Terms struct {
	Marks    [][2]string `json:"marks,omitempty"`  // before and after a phrase
	Always   bool        `json:"always,omitempty"` // the marks, also around one word
	Words    string      `json:"words"`            // what words side by side without marks mean
	Many     []string    `json:"many,omitempty"`   // any number of characters
	One      []string    `json:"one,omitempty"`    // exactly one
	Left     bool        `json:"left,omitempty"`   // a sign may begin a word
	Inside   bool        `json:"inside,omitempty"` // stand inside
	End      bool        `json:"end,omitempty"`    // end it
	InPhrase bool        `json:"inPhrase,omitempty"`
	Letters  int         `json:"letters,omitempty"` // at least, before the first sign
}

// Operators are the words that join.
type Operators struct {
	And   []string `json:"and"`
	Or    []string `json:"or"`
	Not   []string `json:"not,omitempty"`
	Exact bool     `json:"exact,omitempty"` // capitals matter
	// and, or, not, near: those that bind closest first; of one rank, from left to right
	Ranks [][]string `json:"ranks"`
}

// Near is how words near each other are asked for, as a template with {n} that stands between two terms.
type Near struct {
	Unordered      []string `json:"unordered,omitempty"`
	Ordered        []string `json:"ordered,omitempty"`
	Exactly        []string `json:"exactly,omitempty"`
	ExactlyOrdered []string `json:"exactlyOrdered,omitempty"`
	Most           int      `json:"most"`              // the greatest distance, as we count it
	Between        bool     `json:"between,omitempty"` // the words between are counted: one less than we count
}

// Brackets are what holds a part together.
type Brackets struct {
	Open    string `json:"open,omitempty"`
	Shut    string `json:"shut,omitempty"`
	Deepest int    `json:"deepest,omitempty"` // in each other; 0 is any
	Always  bool   `json:"always,omitempty"`  // around all that is joined inside something else, ranks or no ranks
}

// Lines are how earlier lines are named: {n}, {from}, {to}.
type Lines struct {
	One []string `json:"one"`
	Or  []string `json:"or,omitempty"` // any of a run of lines
	And []string `json:"and,omitempty"`
}

// textFields are the fields that words are looked for in.
var textFields = map[string]bib.Field{
	"title": bib.Title, "abstract": bib.Abstract, "titleAbstract": bib.TitleAbstract, "keyword": bib.Keyword,
	"text": bib.Text, "any": bib.Any,
	"journal": bib.Journal, "subject": bib.Keyword | bib.HeadingLabel,
}

// listFields are the fields whose values are listed.
var listFields = map[string]index.List{
	"type":       index.Types,
	"language":   index.Languages,
	"country":    index.Countries,
	"identifier": index.Identifiers,
}

const (
	author  = "author"
	heading = "heading"
	year    = "year"
)

// fieldOrder is in what order fields are looked through, so that the same is written every time.
var fieldOrder = []string{
	"text",
	"titleAbstract",
	"title",
	"abstract",
	"keyword",
	"subject",
	"any",
	"journal",
	author,
	heading,
	year,
	"type",
	"language",
	"country",
	"identifier",
}

// has reports whether a dialect can look in a field.
func (d *Dialect) has(field string) bool { return len(d.Fields[field]) > 0 || field == d.Bare }

// Parse reads a dialect's file. What is wrong in it is said.
func Parse(data []byte) (*Dialect, error) {
	d, wrong, err := Try(data)
	if err == nil {
		err = wrong
	}
	if err != nil {
		return nil, err
	}
	return d, nil
}

// Try reads a dialect's file that may not be right yet. wrong is why it is refused, where it can be tried all the
// same: it does not read what it writes.
func Try(data []byte) (d *Dialect, wrong, err error) {
	d = &Dialect{}
	decoder := json.NewDecoder(strings.NewReader(string(data)))
	decoder.DisallowUnknownFields()
	if err := decoder.Decode(d); err != nil {
		return nil, nil, fmt.Errorf("no dialect: %w", err)
	}
	if err := d.form(); err != nil {
		return nil, nil, err
	}
	if err := d.prove(); err != nil {
		wrong = fmt.Errorf("dialect %s: %w", d.Name, err)
	}
	return d, wrong, nil
}

// An operator joins.
const (
	opOr   = "or"
	opAnd  = "and"
	opNot  = "not"
	opNear = "near"
)

// rank is how closely an operator binds: the lower the closer.
func (d *Dialect) rank(op string) int {
	for i, same := range d.Operators.Ranks {
		for _, o := range same {
			if o == op {
				return i
			}
		}
	}
	return len(d.Operators.Ranks)
}

// joinWord is how an operator is written; "" where the dialect has none.
func (d *Dialect) joinWord(op string) string {
	of := map[string][]string{opOr: d.Operators.Or, opAnd: d.Operators.And, opNot: d.Operators.Not}[op]
	if len(of) == 0 {
		return ""
	}
	return of[0]
}

func operatorOf(q query.Expr) (op string, parts []query.Expr) {
	switch q := q.(type) {
	case query.Or:
		return opOr, q
	case query.And:
		return opAnd, q
	case query.Not:
		return opNot, q
	}
	return "", nil
}

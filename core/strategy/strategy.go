// Package strategy holds what a specialist builds: blocks of terms for the concepts of a question,
// and limits on the whole; how it is kept as a file, and what each part means as a query. It knows
// nothing of counts.
package strategy

import (
	_ "embed"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"tamiz/core/index"
)

// Version is what a strategy file says of itself.
const Version = "strategy/1"

// Limits of what a strategy may hold.
const (
	MaxBlocks = 26
	MaxTerms  = 2000 // of one block
	maxValues = 500  // of one limit, or qualifiers of one term
)

// How lines are numbered.
const (
	// the lines of each block as they stand, then what they are together; then limits and the whole
	ByConcept    = ""
	HeadingsLead = "headings" // of each block headings first, then words
	TermsFirst   = "flat"     // the lines of all blocks, then what each block is together
)

// A Strategy is blocks joined by AND, less those that are negated, within limits.
type Strategy struct {
	Tamiz  string  `json:"tamiz"`
	Title  string  `json:"title"`
	Blocks []Block `json:"blocks"`
	Limits []Limit `json:"limits"`

	Order string `json:"-"` // how its lines are numbered: it changes nothing that is found
}

// A Block is terms joined by OR.
type Block struct {
	Name     string `json:"name"`
	Concept  string `json:"concept"`
	Searched bool   `json:"searched"`
	Negated  bool   `json:"negated"`
	Terms    []Term `json:"terms"`

	Worded map[string]string `json:"-"` // by the name of a dialect: how the block is said there, where its lines are not
}

// The kinds of term.
const (
	TextTerm    = "text"
	NearTerm    = "near"
	HeadingTerm = "heading"
)

// A Term is one line of a block. Which of its parts count depends on its kind.
type Term struct {
	Kind       string   `json:"kind"`
	Text       string   `json:"text,omitempty"`
	Left       string   `json:"left,omitempty"`
	Right      string   `json:"right,omitempty"`
	Within     int      `json:"within,omitempty"`
	Field      string   `json:"field,omitempty"`
	Heading    string   `json:"heading,omitempty"`
	Narrower   bool     `json:"narrower,omitempty"`
	Central    bool     `json:"central,omitempty"`
	Qualifiers []string `json:"qualifiers,omitempty"`
	// with narrower: the headings below that are left out, with what is come to through them
	Without []string `json:"without,omitempty"`
	Until   int      `json:"until,omitempty"` // of a heading: records up to this year alone; 0 is any
	On      bool     `json:"on"`

	also []string // further headings that stand with the heading, where it was carried to another vocabulary
}

// String returns the term in text form: text, left ~within right, [heading] or [heading +]. What is left out below a
// heading, and a year it is looked for up to, stand behind it: [heading + without other, another until 2013].
func (t Term) String() string {
	switch t.Kind {
	case NearTerm:
		return fmt.Sprintf("%s ~%d %s", t.Left, t.Within, t.Right)
	case HeadingTerm:
		out := "[" + t.Heading
		if t.Narrower {
			out += " +"
		}
		if t.Narrower && len(t.Without) > 0 {
			out += " without " + strings.Join(t.Without, ", ")
		}
		if t.Until != 0 {
			out += fmt.Sprintf(" until %d", t.Until)
		}
		return out + "]"
	}
	return t.Text
}

// The kinds of limit.
const (
	YearsLimit     = "years"
	LanguagesLimit = "languages"
	TypesLimit     = "types"
	CountriesLimit = "countries"
	AgesLimit      = "ages"
	HumansLimit    = "humans"
)

// limitKinds are all there are, as they are listed to people.
const limitKinds = "years, languages, types, countries, ages and humans"

// lists are what the values of limits are looked for in.
var lists = map[string]index.List{
	LanguagesLimit: index.Languages,
	TypesLimit:     index.Types,
	CountriesLimit: index.Countries,
}

// A Limit narrows the whole strategy. From and To are years, either of which may be open; Values are
// languages, types or countries, or of ages and humans headings, each with all below it, of which a record needs one.
// Titles are words of titles that say the same: a record whose title has one is inside too, also where nobody has
// indexed it.
//
// Against are headings too. Where there are some, the limit keeps out instead of letting in: what carries one of
// them and none of the values, and does not say it in the title. What nobody has indexed stays inside then.
type Limit struct {
	Kind    string   `json:"kind"`
	From    *int     `json:"from,omitempty"`
	To      *int     `json:"to,omitempty"`
	Values  []string `json:"values,omitempty"`
	Titles  []string `json:"titles,omitempty"`
	Against []string `json:"against,omitempty"`

	carried map[string][]string // where it was carried to another vocabulary: what stands there for each of its headings
}

// Headed reports whether a kind of limit goes by headings.
func Headed(kind string) bool { return kind == AgesLimit || kind == HumansLimit }

// KeepsOut reports whether what the limit asks for is what it keeps out, not what it lets in.
func (l Limit) KeepsOut() bool { return len(l.Against) > 0 }

// Away reports whether the n-th of its headings takes away: those against which it keeps out.
func (l Limit) Away(n int) bool { return n >= len(l.Values) }

// Headings returns the headings that it goes by.
func (l Limit) Headings() []string {
	if !Headed(l.Kind) {
		return nil
	}
	return slices.Concat(l.Values, l.Against)
}

// UnmarshalJSON reads a block; what is not said takes its default.
func (b *Block) UnmarshalJSON(data []byte) error {
	type plain Block
	p := plain{Searched: true}
	if err := json.Unmarshal(data, &p); err != nil {
		return err
	}
	*b = Block(p)
	return nil
}

// UnmarshalJSON reads a term; what is not said takes its default.
func (t *Term) UnmarshalJSON(data []byte) error {
	type plain Term
	p := plain{Field: "text", On: true}
	if err := json.Unmarshal(data, &p); err != nil {
		return err
	}
	*t = Term(p)
	return nil
}

// Parse reads a strategy file. What is wrong in it is said with its place.
func Parse(data []byte) (Strategy, error) {
	var s Strategy
	if err := json.Unmarshal(data, &s); err != nil {
		return s, fmt.Errorf("no strategy file: %w", err)
	}
	if s.Tamiz != Version {
		if strings.HasPrefix(s.Tamiz, "strategy/") {
			return s, fmt.Errorf("this file says it is %q; this program reads %q", s.Tamiz, Version)
		}
		return s, fmt.Errorf("no strategy file: it does not say \"tamiz\": %q", Version)
	}
	return s, s.Check()
}

// TakesAway reports whether NOT takes something away: a NOT block that is searched, or a limit that keeps out.
func (s Strategy) TakesAway() bool {
	return slices.ContainsFunc(s.Blocks, func(b Block) bool { return b.Searched && b.Negated }) ||
		slices.ContainsFunc(s.Limits, Limit.KeepsOut)
}

// Check returns the first thing that keeps a strategy from being searched, with its place.
func (s Strategy) Check() error {
	if len(s.Blocks) > MaxBlocks {
		return fmt.Errorf("a strategy has at most %d blocks; this one has %d", MaxBlocks, len(s.Blocks))
	}
	seen := map[string]bool{}
	for i, b := range s.Blocks {
		if b.Name == "" {
			return fmt.Errorf("block %d has no name", i+1)
		}
		if seen[b.Name] {
			return fmt.Errorf("two blocks are named %q", b.Name)
		}
		seen[b.Name] = true
		if len(b.Terms) > MaxTerms {
			return fmt.Errorf("block %s: a block has at most %d terms; this one has %d", b.Name, MaxTerms, len(b.Terms))
		}
		for j, t := range b.Terms {
			if _, err := t.Query(); err != nil {
				return fmt.Errorf("block %s, term %d: %w", b.Name, j+1, err)
			}
		}
	}
	for i, l := range s.Limits {
		if err := l.check(); err != nil {
			return fmt.Errorf("limit %d: %w", i+1, err)
		}
	}
	return nil
}

func (l Limit) check() error {
	switch l.Kind {
	case YearsLimit:
		if l.From == nil && l.To == nil {
			return fmt.Errorf("a limit on years needs a first or a last year")
		}
		if l.From != nil && l.To != nil && *l.From > *l.To {
			return fmt.Errorf("its first year, %d, comes after its last, %d", *l.From, *l.To)
		}
		if len(l.Titles) > 0 {
			return fmt.Errorf("no word of a title says a year")
		}
		if l.KeepsOut() {
			return fmt.Errorf("a limit on years goes by no headings")
		}
		return nil
	case LanguagesLimit, TypesLimit, CountriesLimit, AgesLimit, HumansLimit:
		if len(l.Values)+len(l.Titles) == 0 || len(l.Values) > maxValues || len(l.Titles) > maxValues ||
			len(l.Against) > maxValues {
			return fmt.Errorf("a limit on %s needs 1 to %d values", l.Kind, maxValues)
		}
		if l.KeepsOut() && !Headed(l.Kind) {
			return fmt.Errorf("a limit on %s goes by no headings", l.Kind)
		}
		_, err := l.Query(nil)
		return err
	}
	return fmt.Errorf("there is no limit of kind %q; there are %s", l.Kind, limitKinds)
}

// Schema is the JSON Schema of a strategy file.
//
//go:embed schema.json
var Schema []byte

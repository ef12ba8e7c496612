// Package review holds what people make of a review together: the document (question, blocks, terms, limits,
// lists), the edits that are made of it, as data, and how what several people made at once comes together. It
// knows nothing of how either is kept.
package review

import (
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
)

// A Document is what a review says: the question, the blocks for its concepts, the limits. It is kept whole at each
// change, as a numbered revision; what travels is edits of it.
type Document struct {
	Question string           `json:"question"`
	Frame    string           `json:"frame"`
	Blocks   []Block          `json:"blocks"`
	Limits   []strategy.Limit `json:"limits"`
	// how lines are numbered: strategy.ByConcept, HeadingsLead or TermsFirst
	Order string `json:"order,omitempty"`
	Lines []Line `json:"lines,omitempty"` // put together of others by number; no part of what is searched

	Vocabulary *int64  `json:"vocabulary,omitempty"` // the vocabulary that headings go by
	Halves     *Halves `json:"halves,omitempty"`     // how the key studies are split; not at all, where absent

	HandSearch []HandSearch `json:"handSearch,omitempty"` // journals that are read by hand, to make up for weak indexing
	// writings of authors that are not those they would be folded with
	Parted []string `json:"parted,omitempty"`
}

// A HandSearch is a journal of the hand-search list: by what its writings share, and as it is written.
type HandSearch struct {
	Journal string `json:"journal"`
	Name    string `json:"name"`
	Note    string `json:"note"`
}

// Halves are the key studies split at random: from those of the test half no word is mined. Studies that
// came after the split belong to the build half.
type Halves struct {
	Seed uint32  `json:"seed"`
	Test []int64 `json:"test"` // key studies
}

// A Block is a concept of the question with its terms.
type Block struct {
	ID       string   `json:"id"`
	Name     string   `json:"name"` // its letter
	Concept  string   `json:"concept"`
	Part     string   `json:"part"` // in the frame
	Seeds    []string `json:"seeds"`
	Searched bool     `json:"searched"`
	Reason   string   `json:"reason"` // why it is kept out
	Negated  bool     `json:"negated"`
	Terms    []Term   `json:"terms"`

	Origin   *BlockOrigin `json:"origin,omitempty"`   // the block kept for reuse that it was taken from
	Wordings Wordings     `json:"wordings,omitempty"` // how it is said where a source needs its own
}

// Wordings are how a block is said in some dialects, instead of its lines.
type Wordings []Wording

// A Wording is how a block is said in a dialect.
type Wording struct {
	Dialect string `json:"dialect"` // by its name
	Query   string `json:"query"`
}

// A BlockOrigin is a block that was kept for reuse, as it stood when it was taken.
type BlockOrigin struct {
	Name    string `json:"name"`
	Version int    `json:"version"`
}

// A Term is a line of a block, with where it came from.
type Term struct {
	ID string `json:"id"`
	strategy.Term
	From  *Origin  `json:"from,omitempty"`
	Note  string   `json:"note,omitempty"`
	Group string   `json:"group,omitempty"` // the name of those that close up into one line
	Quiet []string `json:"quiet,omitempty"` // kinds of remarks that are not made of it any more
	Key   string   `json:"key,omitempty"`   // the item of a tally that it is; worked out, never kept
}

// An Origin is the item a term was made from, and the sample it was seen in.
type Origin struct {
	Facet  tally.Facet `json:"facet"`
	Item   string      `json:"item"`
	Sample *int64      `json:"sample,omitempty"`
	Record *int64      `json:"record,omitempty"` // where it was taken from one record
	Who    string      `json:"who,omitempty"`    // took it, as they call themselves
	At     string      `json:"at,omitempty"`     // when: RFC 3339
}

// UnmarshalJSON reads a term; the embedded reader of strategy.Term would leave out what is ours.
func (t *Term) UnmarshalJSON(data []byte) error {
	var own struct {
		ID    string   `json:"id"`
		From  *Origin  `json:"from"`
		Note  string   `json:"note"`
		Group string   `json:"group"`
		Quiet []string `json:"quiet"`
	}
	if err := json.Unmarshal(data, &own); err != nil {
		return err
	}
	t.ID, t.From, t.Note, t.Group, t.Quiet, t.Key = own.ID, own.From, own.Note, own.Group, own.Quiet, ""
	return json.Unmarshal(data, &t.Term)
}

// Strategy returns the document as what is searched.
func (d Document) Strategy(title string) strategy.Strategy {
	s := strategy.Strategy{Tamiz: strategy.Version, Title: title, Limits: d.Limits, Order: d.Order}
	for _, b := range d.Blocks {
		block := strategy.Block{Name: b.Name, Concept: b.Concept, Searched: b.Searched, Negated: b.Negated}
		for _, t := range b.Terms {
			block.Terms = append(block.Terms, t.Term)
		}
		if len(b.Wordings) > 0 {
			block.Worded = map[string]string{}
			for _, w := range b.Wordings {
				block.Worded[w.Dialect] = w.Query
			}
		}
		s.Blocks = append(s.Blocks, block)
	}
	return s
}

// Seeded returns a strategy of the document's blocks with the seed words of each concept as if they were its terms:
// by these too is told what suits it. Words that cannot be searched are left out.
func (d Document) Seeded(s strategy.Strategy) strategy.Strategy {
	s.Blocks = slices.Clone(s.Blocks)
	for i, b := range d.Blocks {
		if i >= len(s.Blocks) {
			break
		}
		terms := slices.Clone(s.Blocks[i].Terms)
		for _, seed := range b.Seeds {
			t := strategy.Term{Kind: strategy.TextTerm, Text: seed, Field: "text", On: true}
			there := slices.ContainsFunc(
				terms,
				func(o strategy.Term) bool { return o.On && o.Kind == t.Kind && text.Key(o.Text) == text.Key(seed) },
			)
			if _, err := t.Query(); err == nil && !there {
				terms = append(terms, t)
			}
		}
		s.Blocks[i].Terms = terms
	}
	return s
}

// Block returns the place of the block with an id, or -1.
func (d Document) Block(id string) int {
	return slices.IndexFunc(d.Blocks, func(b Block) bool { return b.ID == id })
}

// Term returns the place of the term with an id, or -1.
func (b Block) Term(id string) int {
	return slices.IndexFunc(b.Terms, func(t Term) bool { return t.ID == id })
}

// Parse reads a document that was kept; what an older one does not have is empty, not absent.
func Parse(body []byte) (Document, error) {
	var d Document
	if err := json.Unmarshal(body, &d); err != nil {
		return d, fmt.Errorf("a saved document: %w", err)
	}
	return d.Filled(), nil
}

// Filled returns a copy that shares nothing with the document: absent lists are empty, and it is worked out which
// item each term is.
func (d Document) Filled() Document {
	d.Blocks, d.Limits = append([]Block{}, d.Blocks...), append([]strategy.Limit{}, d.Limits...)
	d.HandSearch, d.Parted = append([]HandSearch(nil), d.HandSearch...), append([]string(nil), d.Parted...)
	for i := range d.Blocks {
		d.Blocks[i] = d.Blocks[i].filled()
	}
	d.Lines = append([]Line(nil), d.Lines...)
	for i := range d.Lines {
		d.Lines[i] = d.Lines[i].filled()
	}
	return d
}

func (b Block) filled() Block {
	b.Seeds = append([]string{}, b.Seeds...)
	if b.Origin != nil { // a copy: a patch is laid over it
		origin := *b.Origin
		b.Origin = &origin
	}
	b.Wordings = append(Wordings(nil), b.Wordings...)
	terms := make([]Term, len(b.Terms))
	for j, t := range b.Terms {
		terms[j] = t.filled()
	}
	b.Terms = terms
	return b
}

func (t Term) filled() Term {
	t.Key = ""
	if len(t.Qualifiers) == 0 {
		t.Qualifiers = nil
	}
	if len(t.Without) == 0 {
		t.Without = nil
	}
	switch t.Kind {
	case strategy.TextTerm:
		// A truncated term is no item of a tally: it stands for several.
		if p, err := text.ParsePattern(t.Text); err == nil {
			t.Key = p.String()
		}
	case strategy.HeadingTerm:
		t.Key = text.Label(t.Heading)
	}
	return t
}

// Saved returns a document as it is kept: NUL, which no database can hold, goes, and what is worked out is left out.
func (d Document) Saved() ([]byte, error) {
	d = d.Filled()
	for i := range d.Blocks {
		for j := range d.Blocks[i].Terms {
			d.Blocks[i].Terms[j].Key = ""
		}
	}
	body, err := json.Marshal(d)
	return []byte(strings.ReplaceAll(string(body), `\u0000`, "")), err
}

// freeLetter returns the wanted letter, or the first that no block has.
func freeLetter(wanted string, blocks []Block) string {
	taken := func(name string) bool {
		return slices.ContainsFunc(blocks, func(b Block) bool { return b.Name == name })
	}
	if wanted != "" && !taken(wanted) {
		return wanted
	}
	for c := 'A'; c <= 'Z'; c++ {
		if !taken(string(c)) {
			return string(c)
		}
	}
	return "?"
}

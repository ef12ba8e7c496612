package app

import (
	"encoding/json"
	"fmt"
	"reflect"
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
)

// A Document is what a review says: the question, the blocks for its concepts, the limits. It is saved
// whole at each change.
type Document struct {
	Question string           `json:"question"`
	Frame    string           `json:"frame"`
	Blocks   []Block          `json:"blocks"`
	Limits   []strategy.Limit `json:"limits"`

	Vocabulary *int64  `json:"vocabulary,omitempty"` // the vocabulary that headings go by
	Halves     *Halves `json:"halves,omitempty"`     // how the key studies are split; not at all, where absent

	HandSearch []HandSearch `json:"handSearch,omitempty"` // journals that are read by hand, to make up for weak indexing
	Parted     []string     `json:"parted,omitempty"`     // writings of authors that are not those they would be folded with
}

// A HandSearch is a journal of the hand-search list: by what its writings share, and as it is written.
type HandSearch struct {
	Journal string `json:"journal"`
	Name    string `json:"name"`
	Note    string `json:"note"`
}

const (
	maxHandSearch = 1000 // journals
	maxParted     = 2000 // writings
)

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
}

// A Term is a line of a block, with where it came from.
type Term struct {
	ID string `json:"id"`
	strategy.Term
	From *Origin `json:"from,omitempty"`
	Key  string  `json:"key,omitempty"` // the item of a tally that it is; worked out, never saved
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

// Limit is a limit on the whole strategy.
type Limit = strategy.Limit

// UnmarshalJSON reads a term; the embedded reader of strategy.Term would leave out what is ours.
func (t *Term) UnmarshalJSON(data []byte) error {
	var own struct {
		ID   string  `json:"id"`
		From *Origin `json:"from"`
	}
	if err := json.Unmarshal(data, &own); err != nil {
		return err
	}
	t.ID, t.From, t.Key = own.ID, own.From, ""
	return json.Unmarshal(data, &t.Term)
}

// strategy returns the document as the core knows it.
func (d Document) strategy(title string) strategy.Strategy {
	s := strategy.Strategy{Tamiz: strategy.Version, Title: title, Limits: d.Limits}
	for _, b := range d.Blocks {
		block := strategy.Block{Name: b.Name, Concept: b.Concept, Searched: b.Searched, Negated: b.Negated}
		for _, t := range b.Terms {
			block.Terms = append(block.Terms, t.Term)
		}
		s.Blocks = append(s.Blocks, block)
	}
	return s
}

// block returns the place of the block with an id, or -1.
func (d Document) block(id string) int {
	return slices.IndexFunc(d.Blocks, func(b Block) bool { return b.ID == id })
}

// check says what keeps a document from being saved.
func (d Document) check() error {
	if err := d.strategy("").Check(); err != nil {
		p := invalid("document", "%s", sentence(err.Error()))
		p.Type, p.Detail = "refused", refusal(err).Reason
		return p
	}
	sizes := []struct {
		field, value string
		most         int
	}{{"question", d.Question, 5000}, {"frame", d.Frame, 60}}
	if d.Halves != nil && len(d.Halves.Test) > maxKeys*10 {
		return invalid("halves", "The test half has at most %d key studies.", maxKeys*10)
	}
	if len(d.HandSearch) > maxHandSearch {
		return invalid("handSearch", "The hand-search list holds at most %d journals.", maxHandSearch)
	}
	journals := map[string]bool{}
	for _, h := range d.HandSearch {
		if h.Journal == "" || journals[h.Journal] {
			return invalid("handSearch", "A journal stands in the hand-search list once.")
		}
		journals[h.Journal] = true
		sizes = append(sizes, struct {
			field, value string
			most         int
		}{"note", h.Note, 2000}, struct {
			field, value string
			most         int
		}{"name", h.Name, 1000})
	}
	if len(d.Parted) > maxParted {
		return invalid("parted", "At most %d writings of authors are parted.", maxParted)
	}
	for _, writing := range d.Parted {
		sizes = append(sizes, struct {
			field, value string
			most         int
		}{"parted", writing, 300})
	}
	ids := map[string]bool{}
	for _, b := range d.Blocks {
		sizes = append(sizes, struct {
			field, value string
			most         int
		}{"concept", b.Concept, 300}, struct {
			field, value string
			most         int
		}{"reason", b.Reason, 500}, struct {
			field, value string
			most         int
		}{"part", b.Part, 60}, struct {
			field, value string
			most         int
		}{"name", b.Name, 3})
		if len(b.Seeds) > 200 {
			return invalid("seeds", "A concept has at most 200 seed words; %s has %d.", b.Name, len(b.Seeds))
		}
		if b.ID == "" || ids[b.ID] {
			return invalid("blocks", "Each block needs an id of its own.")
		}
		ids[b.ID] = true
		for _, t := range b.Terms {
			if t.From != nil && (utf8.RuneCountInString(t.From.Who) > mostOfName+1 || len(t.From.At) > 40) {
				return invalid("from", "Who took a term has at most %d characters, and when at most 40.", mostOfName)
			}
			if t.ID == "" || ids[t.ID] {
				return invalid("terms", "Each term needs an id of its own.")
			}
			ids[t.ID] = true
		}
	}
	for _, s := range sizes {
		if n := utf8.RuneCountInString(s.value); n > s.most {
			return invalid(s.field, "This text has %d characters; at most %d are kept.", n, s.most)
		}
	}
	return nil
}

func sentence(s string) string {
	r := []rune(s)
	if len(r) == 0 {
		return s
	}
	s = strings.ToUpper(string(r[:1])) + string(r[1:])
	if !strings.HasSuffix(s, ".") {
		s += "."
	}
	return s
}

// parse reads a saved document; what an older one does not have is empty, not absent.
func parse(body []byte) (Document, error) {
	var d Document
	if err := json.Unmarshal(body, &d); err != nil {
		return d, fmt.Errorf("a saved document: %w", err)
	}
	return d.filled(), nil
}

// filled makes absent lists empty and works out which item each term is.
func (d Document) filled() Document {
	d.Blocks, d.Limits = slices.Clone(d.Blocks), append([]strategy.Limit{}, d.Limits...)
	if d.Blocks == nil {
		d.Blocks = []Block{}
	}
	for i := range d.Blocks {
		b := &d.Blocks[i]
		b.Seeds = append([]string{}, b.Seeds...)
		terms := make([]Term, len(b.Terms))
		for j, t := range b.Terms {
			t.Key = ""
			switch t.Kind {
			case strategy.TextTerm:
				// A truncated term is no item of a tally: it stands for several.
				if p, err := text.ParsePattern(t.Text); err == nil {
					t.Key = p.String()
				}
			case strategy.HeadingTerm:
				t.Key = text.Label(t.Heading)
			}
			terms[j] = t
		}
		b.Terms = terms
	}
	return d
}

// saved returns a document as it is kept: NUL, which the database cannot hold, goes, and what is
// worked out is left out.
func (d Document) saved() ([]byte, error) {
	d = d.filled()
	for i := range d.Blocks {
		for j := range d.Blocks[i].Terms {
			d.Blocks[i].Terms[j].Key = ""
		}
	}
	body, err := json.Marshal(d)
	return []byte(strings.ReplaceAll(string(body), `\u0000`, "")), err
}

// merge brings together what two people made of one document. Blocks, question, frame and the like each go to
// whoever changed them; what both changed differently is named: the letters of blocks, and the other parts in words.
func merge(base, mine, theirs Document) (merged Document, conflicts []string) {
	merged = theirs
	merged.Question = either("question", base.Question, mine.Question, theirs.Question, &conflicts)
	merged.Frame = either("frame", base.Frame, mine.Frame, theirs.Frame, &conflicts)
	merged.Limits = either("limits", base.Limits, mine.Limits, theirs.Limits, &conflicts)
	merged.Vocabulary = either("vocabulary", base.Vocabulary, mine.Vocabulary, theirs.Vocabulary, &conflicts)
	merged.Halves = either("halves", base.Halves, mine.Halves, theirs.Halves, &conflicts)
	merged.Parted = mergeSets(base.Parted, mine.Parted, theirs.Parted)
	merged.HandSearch = mergeJournals(base.HandSearch, mine.HandSearch, theirs.HandSearch, &conflicts)
	find := func(d Document, id string) *Block {
		if i := d.block(id); i >= 0 {
			return &d.Blocks[i]
		}
		return nil
	}
	same := func(a, b *Block) bool { return reflect.DeepEqual(a, b) }
	var blocks []Block
	keep := func(b *Block) {
		if b != nil {
			blocks = append(blocks, *b)
		}
	}
	for i := range theirs.Blocks {
		t := &theirs.Blocks[i]
		b, m := find(base, t.ID), find(mine, t.ID)
		switch {
		case same(m, b): // I left it as it was
			keep(t)
		case same(t, b), same(t, m): // only I changed it, or both alike
			keep(m)
		default:
			conflicts = append(conflicts, t.Name)
			keep(m)
		}
	}
	for i := range mine.Blocks {
		m := &mine.Blocks[i]
		if find(theirs, m.ID) != nil {
			continue
		}
		if b := find(base, m.ID); b == nil {
			m := *m
			m.Name = freeLetter(m.Name, blocks)
			keep(&m)
		} else if !same(m, b) {
			conflicts = append(conflicts, m.Name) // I changed what they deleted
			keep(m)
		}
	}
	merged.Blocks = mergeOrder(base, mine, theirs, blocks, &conflicts)
	return merged, conflicts
}

// either returns what one of two people made of something; where both made something else of it, that is a conflict.
func either[T any](what string, base, mine, theirs T, conflicts *[]string) T {
	switch {
	case reflect.DeepEqual(mine, base):
		return theirs
	case !reflect.DeepEqual(theirs, base) && !reflect.DeepEqual(theirs, mine):
		*conflicts = append(*conflicts, what)
	}
	return mine
}

// mergeOrder puts blocks into the order that one of two people gave them; those that are new stay behind.
func mergeOrder(base, mine, theirs Document, blocks []Block, conflicts *[]string) []Block {
	order := func(d Document) (ids []string) {
		for _, b := range d.Blocks {
			if base.block(b.ID) >= 0 && mine.block(b.ID) >= 0 && theirs.block(b.ID) >= 0 {
				ids = append(ids, b.ID)
			}
		}
		return ids
	}
	wanted := either("order of blocks", order(base), order(mine), order(theirs), conflicts)
	place := func(b Block) int {
		if i := slices.Index(wanted, b.ID); i >= 0 {
			return i
		}
		return len(wanted)
	}
	out := slices.Clone(blocks)
	slices.SortStableFunc(out, func(a, b Block) int { return place(a) - place(b) })
	return out
}

// mergeSets brings two sets together: what either put in or took out is in or out.
func mergeSets(base, mine, theirs []string) []string {
	out := slices.DeleteFunc(slices.Clone(theirs), func(x string) bool { return slices.Contains(base, x) && !slices.Contains(mine, x) })
	for _, x := range mine {
		if !slices.Contains(base, x) && !slices.Contains(out, x) {
			out = append(out, x)
		}
	}
	return out
}

// mergeJournals brings two hand-search lists together, journal by journal; one that both changed differently is a
// conflict.
func mergeJournals(base, mine, theirs []HandSearch, conflicts *[]string) []HandSearch {
	find := func(list []HandSearch, journal string) (HandSearch, bool) {
		i := slices.IndexFunc(list, func(h HandSearch) bool { return h.Journal == journal })
		if i < 0 {
			return HandSearch{}, false
		}
		return list[i], true
	}
	var out []HandSearch
	for _, t := range theirs {
		b, before := find(base, t.Journal)
		m, kept := find(mine, t.Journal)
		switch {
		case before && !kept && t == b: // I took it out
		case !kept && before: // I took out what they changed
			*conflicts = append(*conflicts, t.Name)
			out = append(out, t)
		case !kept || m == b:
			out = append(out, t)
		default:
			if t != m && (!before || t != b) {
				*conflicts = append(*conflicts, t.Name)
			}
			out = append(out, m)
		}
	}
	for _, m := range mine {
		if _, there := find(theirs, m.Journal); there {
			continue
		}
		b, before := find(base, m.Journal)
		if before && m == b {
			continue
		}
		if before { // I changed what they took out
			*conflicts = append(*conflicts, m.Name)
		}
		out = append(out, m)
	}
	return out
}

// freeLetter returns the wanted letter, or the first that no block has.
func freeLetter(wanted string, blocks []Block) string {
	taken := func(name string) bool {
		return slices.ContainsFunc(blocks, func(b Block) bool { return b.Name == name })
	}
	if !taken(wanted) {
		return wanted
	}
	for c := 'A'; c <= 'Z'; c++ {
		if !taken(string(c)) {
			return string(c)
		}
	}
	return wanted
}

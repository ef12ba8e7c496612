// Package standin is the made-up sources that ship with Tamiz: SRU servers over invented literature. To
// the rest of the program they are sources like any other.
package standin

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"sync"

	lru "github.com/hashicorp/golang-lru/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
	"tamiz/source/sru"
)

// A Collection is the literature of one stand-in and what can be asked of it.
type Collection struct {
	Name, Title, About string
	Indexes            []string // as it offers them, with their prefixes
	Near               bool     // words near each other
	Inside             bool     // marks inside a word
	Qualifiers         bool
	MostRecords        int  // in one answer
	Loose              bool // two words without quotes are both words anywhere, a name with an initial an author
	Authority          string

	records []*bib.Record
	index   *index.Index
	terms   *thesaurus.Thesaurus
	links   links
	results *lru.Cache[string, *result]
	filling sync.RWMutex // an answer is of one filling, though records may change between two
}

// A result is what a query found, in the order asked for.
type result struct {
	order []uint32
	said  []string
}

// Fill gives the collection its records and its vocabulary, which may be nil.
func (c *Collection) Fill(records []*bib.Record, vocabulary *thesaurus.Thesaurus) {
	built, links := index.Build(records), linksOf(records)
	c.filling.Lock()
	defer c.filling.Unlock()
	c.records, c.terms, c.index, c.links = records, vocabulary, built, links
	c.results, _ = lru.New[string, *result](64) // fails for a size below one
}

// Index returns what is searched. It is not to be changed.
func (c *Collection) Index() *index.Index { return c.index }

// Vocabulary returns the vocabulary of its headings; nil where it has none.
func (c *Collection) Vocabulary() *thesaurus.Thesaurus { return c.terms }

// Len returns how many records there are.
func (c *Collection) Len() int { return len(c.records) }

// A refusal is a diagnostic of the standard.
type refusal struct {
	number int
	detail string
}

func (r *refusal) Error() string { return sru.DiagnosticText[r.number] + ": " + r.detail }

// search returns the places of the records that match, and what the collection has to say about it.
func (c *Collection) search(cql string) (*result, error) {
	if r, ok := c.results.Get(cql); ok {
		return r, nil
	}
	q, said, err := c.parse(cql)
	if err != nil {
		return nil, err
	}
	found := q.Expr.Match(c.index)
	r := &result{said: said, order: found.ToArray()}
	if err := c.sort(r.order, q.Sort); err != nil {
		return nil, err
	}
	c.results.Add(cql, r)
	return r, nil
}

// parse reads a query and refuses what this collection cannot do.
func (c *Collection) parse(cql string) (*query.Query, []string, error) {
	if loose, said := c.loose(cql); loose != nil {
		return &query.Query{Expr: loose}, said, nil
	}
	var said []string
	parser := query.Parser{Vocabulary: c.terms, Own: c.linked}
	if c.terms != nil && c.Near {
		parser.Bare = func(p text.Pattern) query.Expr { return c.bare(p, &said) }
	}
	q, err := parser.Parse(cql)
	if err != nil {
		if strings.Contains(err.Error(), "there is no index") {
			return nil, nil, &refusal{sru.UnsupportedIndex, err.Error()}
		}
		return nil, nil, &refusal{sru.QuerySyntax, err.Error()}
	}
	for _, name := range q.Indexes {
		if name != "" && !slices.ContainsFunc(c.Indexes, func(has string) bool { return strings.EqualFold(has, name) }) {
			return nil, nil, &refusal{sru.UnsupportedIndex, name}
		}
	}
	return q, said, c.can(q.Expr)
}

// bare is what a term without an index becomes: its words, or the heading that they lead to with all that
// is below it. What was added is said.
func (c *Collection) bare(p text.Pattern, said *[]string) query.Expr {
	words := query.Phrase{Pattern: p, Fields: bib.Text}
	if strings.ContainsAny(p.String(), "*?") {
		return words
	}
	for _, lead := range c.terms.LookUp(p.String()) {
		if lead.Via == thesaurus.Note || text.Key(lead.Matched) != text.Key(p.String()) {
			continue
		}
		label := c.terms.Label(lead.Heading)
		h := query.Heading{Label: label, Narrower: true, Which: c.terms.Branch(label)}
		*said = append(
			*said,
			fmt.Sprintf("%q was also searched as the heading %q with all narrower headings.", p.String(), label),
		)
		return query.Or{words, h}
	}
	return words
}

// loose takes a query that is nothing but words as this source does: as an author, where it is a name with
// an initial, else as words that stand anywhere.
func (c *Collection) loose(cql string) (query.Expr, []string) {
	words := strings.Fields(cql)
	if !c.Loose || len(words) < 2 || strings.ContainsAny(cql, `"=<>/()`) {
		return nil, nil
	}
	for _, w := range words {
		switch strings.ToLower(w) {
		case "and", "or", "not", "prox", "any", "all", "within", "sortby":
			return nil, nil
		}
	}
	p, err := text.ParsePattern(cql)
	if err != nil {
		return nil, nil
	}
	last := []rune(strings.TrimRight(words[len(words)-1], "."))
	if len(words) == 2 && len(last) == 1 {
		return query.Author{Pattern: p}, []string{fmt.Sprintf("%q was taken as an author.", cql)}
	}
	return query.Words{
			Pattern: p,
			Fields:  bib.Any,
			All:     true,
		}, []string{
			fmt.Sprintf("%q was taken as all of these words, anywhere in the record.", cql),
		}
}

// can refuses an expression that asks for more than the collection can do.
func (c *Collection) can(q query.Expr) error {
	each := func(parts []query.Expr) error {
		for _, p := range parts {
			if err := c.can(p); err != nil {
				return err
			}
		}
		return nil
	}
	switch q := q.(type) {
	case query.Or:
		return each(q)
	case query.And:
		return each(q)
	case query.Not:
		return each(q)
	case query.Near:
		if !c.Near {
			return &refusal{sru.ProximityUnsupported, "prox"}
		}
		if err := c.masks(q.Left); err != nil {
			return err
		}
		return c.masks(q.Right)
	case query.Phrase:
		return c.masks(q.Pattern)
	case query.Words:
		return c.masks(q.Pattern)
	case query.Author:
		return c.masks(q.Pattern)
	case query.Heading:
		if len(q.Qualifiers) > 0 && !c.Qualifiers {
			return &refusal{sru.UnsupportedModifier, "qualifier"}
		}
		if q.Central && !c.Qualifiers {
			return &refusal{sru.UnsupportedModifier, "central"}
		}
	}
	return nil
}

func (c *Collection) masks(p text.Pattern) error {
	for _, t := range p {
		w := t.String()
		if at := strings.IndexAny(w, "*?"); at >= 0 && !c.Inside && (at < len(w)-1 || w[at] == '?') {
			return &refusal{sru.MaskingUnsupported, w + ": only * at the end of a word"}
		}
	}
	return nil
}

// sort puts places into the order asked for: by year or by title, else as the records stand.
func (c *Collection) sort(order []uint32, keys []query.SortKey) error {
	for _, k := range slices.Backward(keys) {
		var less func(a, b *bib.Record) int
		switch k.Index {
		case "year":
			less = func(a, b *bib.Record) int { return cmp.Compare(a.Year, b.Year) }
		case timesCitedIndex:
			times := c.links.times
			slices.SortStableFunc(order, func(a, b uint32) int {
				if k.Descending {
					return cmp.Compare(times[b], times[a])
				}
				return cmp.Compare(times[a], times[b])
			})
			continue
		case "title":
			less = func(a, b *bib.Record) int { return strings.Compare(text.Key(a.Title), text.Key(b.Title)) }
		default:
			return &refusal{sru.SortUnsupported, k.Index}
		}
		slices.SortStableFunc(order, func(a, b uint32) int {
			n := less(c.records[a], c.records[b])
			if k.Descending {
				return -n
			}
			return n
		})
	}
	return nil
}

// An entry is a word of the index with the number of records that hold it.
type entry struct {
	term    string
	records int
}

// scan returns words around one in the order of the alphabet.
func (c *Collection) scan(clause string, before, most int) ([]entry, error) {
	name, term, ok := strings.Cut(clause, "=")
	if !ok {
		name, term = "", clause
	}
	name = strings.TrimSpace(name)
	if name != "" && !slices.Contains(c.Indexes, name) {
		return nil, &refusal{sru.UnsupportedIndex, name}
	}
	term = strings.Trim(strings.TrimSpace(term), `"`)
	tokens := text.Tokens(term)
	first := ""
	if len(tokens) > 0 {
		first = tokens[0]
	}
	fields := bib.Any
	if q, err := query.Parse(name+` = 2000`, nil); err == nil && name != "" {
		if p, ok := q.Expr.(query.Phrase); ok {
			fields = p.Fields
		} else {
			return nil, &refusal{sru.UnsupportedIndex, name + " has no list of words"}
		}
	}
	var out []entry
	// Not every word stands in these fields; so more are looked at than are wanted.
	for _, t := range c.index.Neighbours(first, before*4+1, most*4) {
		n := c.index.Phrase(text.Literal(t), fields).GetCardinality()
		if n > 0 {
			out = append(out, entry{t, int(n)})
		}
	}
	at, _ := slices.BinarySearchFunc(out, first, func(e entry, t string) int { return strings.Compare(e.term, t) })
	from := max(0, at-before)
	return out[from:min(len(out), from+most)], nil
}

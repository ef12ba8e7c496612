package figures

import (
	"context"
	"hash/fnv"
	"math/rand/v2"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/desk"
	"tamiz/core/bib"
	"tamiz/core/tally"
	"tamiz/core/text"
)

// An Item is one item of a tally: how often it is here and elsewhere, and in which words it stands.
type Item struct {
	Facet     tally.Facet   `json:"facet"`
	Item      string        `json:"item"`
	Records   int           `json:"records"`
	Elsewhere *int          `json:"elsewhere,omitempty"`
	Context   []ContextLine `json:"context"`
	Stems     []Stem        `json:"stems"` // of words: how its forms are best searched truncated

	// Of words and keywords, over what is looked at:
	TitleOnly  *int  `json:"titleOnly,omitempty"`  // records where it stands in the title and not in the abstract
	InKeywords *int  `json:"inKeywords,omitempty"` // records where it stands among the authors' keywords
	Ways       []Way `json:"ways,omitempty"`       // of a phrase: other ways to search its words
	// headings that its records carry more often than the others; of a heading, words
	With []GoesWith `json:"with"`
	// of a heading its qualifiers, of a qualifier the headings it stands behind
	Beside    []Beside `json:"beside,omitempty"`
	ScopeNote string   `json:"scopeNote,omitempty"` // of a heading that the vocabulary has
	Entry     []string `json:"entry,omitempty"`     // its entry terms
	EntryOf   string   `json:"entryOf,omitempty"`   // of a word or keyword: the heading that it is an entry term of
}

// A Beside is what records carry right beside an item.
type Beside struct {
	Item    string `json:"item"`
	Records int    `json:"records"`
}

// A Way is how the words of a phrase can be searched, and what that finds.
type Way struct {
	How     string `json:"how"` // phrase, near or words (anywhere in title and abstract)
	Records int    `json:"records"`
}

// A GoesWith is a heading that goes with an item: how many of its records carry it, and how surely that is more
// than chance.
type GoesWith struct {
	Item    string  `json:"item"`
	Records int     `json:"records"`
	Pull    float64 `json:"pull"`
}

// A Stem is a proposal to search some forms of a family with one truncated term.
type Stem struct {
	Term    string    `json:"term"`
	Forms   []string  `json:"forms"`
	Reach   int       `json:"reach"` // records that it finds
	Drag    int       `json:"drag"`  // records that it finds through other words alone
	Outside []Outside `json:"outside"`
	Warn    bool      `json:"warn"` // it drags in more than is good, and there is no better
}

// StemOf returns a truncation as it is shown: of the words that it also finds those of most records.
func StemOf(s tally.Truncation) Stem {
	out := Stem{s.Term, s.Forms, s.Reach, s.Drag, []Outside{}, s.Warn}
	for _, o := range s.Outside[:min(len(s.Outside), outsideWords)] {
		out.Outside = append(out.Outside, Outside(o))
	}
	return out
}

// An Outside is a word that a stem also matches.
type Outside struct {
	Word    string `json:"word"`
	Records int    `json:"records"`
}

// A ContextLine is an item among the words around it.
type ContextLine struct {
	Record int64  `json:"record"`
	Key    bool   `json:"key"` // the record is a key study
	Before string `json:"before"`
	Match  string `json:"match"`
	After  string `json:"after"`
}

const (
	contextLines  = 60
	contextOfEach = 2  // lines of one record
	contextWidth  = 90 // characters on each side
	outsideWords  = 40
	headingsWith  = 8
	besideItems   = 24
	nearWithin    = 3 // positions, where a phrase is searched as a pair
)

// Item looks at one item of a tally.
func (a *Service) Item(ctx context.Context, at desk.At, f tally.Facet, item string) (*Item, error) {
	if err := desk.CheckFacet(f); err != nil {
		return nil, err
	}
	d, err := a.sampled(ctx, at, a.desk.Quick)
	if err != nil {
		return nil, err
	}
	forms, err := d.Pool.Forms(ctx, d.Look, f, item, d.Keys)
	if err != nil {
		return nil, err
	}
	found := d.Pool.WithItem(f, item, forms)
	out := &Item{
		Facet:   f,
		Item:    item,
		Records: int(found.AndCardinality(d.Look.Sample)),
		Context: []ContextLine{},
		Stems:   []Stem{},
		With:    []GoesWith{},
	}
	if !d.Look.Contrast.IsEmpty() {
		n := int(found.AndCardinality(d.Look.Contrast))
		out.Elsewhere = &n
	}
	if f == tally.Headings {
		if err := describe(d, ctx, out, item, roaring.And(found, d.Look.Sample)); err != nil {
			return nil, err
		}
	}
	for _, b := range d.Pool.Besides(f, item, roaring.And(found, d.Look.Sample)) {
		if len(out.Beside) == besideItems {
			break
		}
		out.Beside = append(out.Beside, Beside(b))
	}
	if !desk.Textual(f) {
		return out, nil
	}
	lead(d, out, forms)
	if err := stands(d, ctx, out, forms, roaring.And(found, d.Look.Sample)); err != nil {
		return nil, err
	}
	if f == tally.Words {
		for _, s := range tally.Truncations(d.Pool.Index, d.Look.Sample, bib.Text, forms) {
			out.Stems = append(out.Stems, StemOf(s))
		}
	}
	var patterns []text.Pattern
	for _, form := range forms {
		if p, ok := literal(form); ok {
			patterns = append(patterns, p)
		}
	}
	for i, k := range d.Keys.Studies {
		if !d.Keys.InTest(i) {
			out.add(k.StoredRecord.ID, true, d.Keys.Set.Records[i], patterns)
		}
	}
	for _, n := range shuffled(roaring.And(found, d.Look.Sample), item) {
		if len(out.Context) >= contextLines {
			break
		}
		if id := d.Pool.IDs[n]; !d.Keys.Has(id) {
			out.add(id, false, d.Pool.Records[n], patterns)
		}
	}
	return out, nil
}

// shuffled returns the records of a set at random, always alike for one item.
func shuffled(set *roaring.Bitmap, item string) []uint32 {
	out := set.ToArray()
	seed := fnv.New64a()
	_, _ = seed.Write([]byte(item))
	rand.New(rand.NewPCG(seed.Sum64(), 0)).Shuffle(len(out), func(i, j int) { out[i], out[j] = out[j], out[i] })
	return out
}

// stands tells where else an item stands, how else its words can be searched, and which headings go with it.
func stands(d *desk.Desk, ctx context.Context, out *Item, forms []string, found *roaring.Bitmap) error {
	in := func(fields bib.Field) *roaring.Bitmap {
		all := roaring.New()
		for _, form := range forms {
			all.Or(d.Pool.Index.Gram(text.Tokens(form), fields))
		}
		all.And(d.Look.Sample)
		return all
	}
	out.TitleOnly = number(roaring.AndNot(in(bib.Title), in(bib.Abstract)))
	out.InKeywords = number(in(bib.Keyword))
	if tokens := text.Tokens(out.Item); len(tokens) > 1 {
		words := d.Look.Sample.Clone()
		for _, t := range tokens {
			words.And(d.Pool.Index.Gram([]string{t}, bib.TitleAbstract))
		}
		out.Ways = []Way{
			{
				"phrase",
				int(roaring.And(d.Pool.Index.Phrase(text.Literal(tokens...), bib.TitleAbstract), d.Look.Sample).GetCardinality()),
			},
		}
		if len(tokens) == 2 {
			near := d.Pool.Index.Near(
				text.Literal(tokens[0]),
				text.Literal(tokens[1]),
				text.Within(nearWithin),
				bib.TitleAbstract,
			)
			near.And(d.Look.Sample)
			out.Ways = append(out.Ways, Way{"near", int(near.GetCardinality())})
		}
		out.Ways = append(out.Ways, Way{"words", int(words.GetCardinality())})
	}
	headings, err := tally.CountList(ctx, d.Pool.Over(found, d.Look.Sample), tally.Headings, nil)
	if err != nil {
		return err
	}
	for _, r := range headings.Rows {
		if len(out.With) == headingsWith || tally.Round(r.Pull) <= 0 {
			break
		}
		out.With = append(out.With, GoesWith{r.Item, r.Records, tally.Round(r.Pull)})
	}
	return nil
}

// describe tells what a heading means, and which words stand in the records that carry it far more than by
// chance.
func describe(d *desk.Desk, ctx context.Context, out *Item, heading string, found *roaring.Bitmap) error {
	if v := d.Pool.Thesaurus; v != nil {
		if h, ok := v.Find(heading); ok {
			out.ScopeNote, out.Entry = v.ScopeNote(h), v.EntryTerms(h)
		}
	}
	if err := d.Pool.Words(ctx); err != nil {
		return err
	}
	over := d.Pool.Over(found, d.Look.Sample)
	words, err := tally.CountWords(ctx, over, nil, tally.DefaultWords)
	if err != nil {
		return err
	}
	for _, r := range words.Rows {
		if len(out.With) == headingsWith || tally.Round(r.Pull) <= 0 {
			break
		}
		// Of a phrase and its parts one is enough.
		if r.AbsorbedBy == "" && !slices.ContainsFunc(out.With, func(w GoesWith) bool {
			return strings.Contains(" "+w.Item+" ", " "+r.Item+" ") || strings.Contains(" "+r.Item+" ", " "+w.Item+" ")
		}) {
			out.With = append(out.With, GoesWith{r.Item, r.Records, tally.Round(r.Pull)})
		}
	}
	return nil
}

// lead tells which heading a word is an entry term of.
func lead(d *desk.Desk, out *Item, forms []string) {
	v := d.Pool.Thesaurus
	if v == nil {
		return
	}
	for _, form := range forms {
		if label, ok := v.Heading(form); ok {
			out.EntryOf = label
			return
		}
	}
	out.EntryOf, _ = v.Kin(forms[0])
}

// literal returns the pattern of an item of a tally, in which * and ? mean nothing.
func literal(item string) (text.Pattern, bool) {
	tokens := text.Tokens(item)
	return text.Literal(tokens...), len(tokens) > 0
}

func (i *Item) add(id int64, key bool, r *bib.Record, patterns []text.Pattern) {
	lines := 0
	r.Values(bib.TitleAbstract, func(_ bib.Field, value string) {
		if lines >= contextOfEach || len(i.Context) >= contextLines {
			return
		}
		spans := text.Spans(value)
		tokens := make([]string, len(spans))
		for k, s := range spans {
			tokens[k] = s.Token
		}
		for at := range tokens {
			// Of forms that begin here the longest is shown.
			length := 0
			for _, p := range patterns {
				if len(p) > length && p.At(tokens, at) {
					length = len(p)
				}
			}
			if length == 0 {
				continue
			}
			if lines++; lines > contextOfEach {
				return
			}
			start, end := spans[at].Start, spans[at+length-1].End
			i.Context = append(i.Context, ContextLine{Record: id, Key: key,
				Before: lastRunes(
					value[:start],
					contextWidth,
				), Match: value[start:end], After: firstRunes(value[end:], contextWidth)})
		}
	})
}

func firstRunes(s string, n int) string {
	for i := range s {
		if n == 0 {
			return s[:i]
		}
		n--
	}
	return s
}

func lastRunes(s string, n int) string {
	for i := len(s); i > 0; n-- {
		if n == 0 {
			return s[i:]
		}
		_, size := utf8.DecodeLastRuneInString(s[:i])
		i -= size
	}
	return s
}

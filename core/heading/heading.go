// Package heading tells what a heading of a vocabulary brings over a set of records and key studies: alone and with
// what stands below it, with qualifiers, as a main point, before it came in, and by which of its entry terms authors
// write of it.
package heading

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/coverage"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Look is what headings are looked at over: records, and key studies, which may be none.
type Look struct {
	Set  coverage.Set
	Keys coverage.Set
	// Pool is the records of the set as they are counted, where that is kept; else they are counted anew.
	Pool *tally.Pool
	// Aside are key studies that do not count.
	Aside *roaring.Bitmap
}

// A Count is how many records and key studies something finds.
type Count struct {
	Records int `json:"records"`
	Keys    int `json:"keys"`
}

// found is what a term finds on both sides.
type found struct{ records, keys *roaring.Bitmap }

func (f found) count() Count {
	return Count{int(f.records.GetCardinality()), int(f.keys.GetCardinality())}
}

// less returns how many of what one finds another does not.
func (f found) less(other found) Count {
	return Count{
		int(f.records.GetCardinality() - f.records.AndCardinality(other.records)),
		int(f.keys.GetCardinality() - f.keys.AndCardinality(other.keys)),
	}
}

func (l Look) find(t strategy.Term) (found, error) {
	records, keys := roaring.New(), roaring.New()
	var err error
	if l.Set.Index != nil {
		if records, err = coverage.Hits(l.Set, t); err != nil {
			return found{}, err
		}
	}
	if l.Keys.Index != nil {
		if keys, err = coverage.Hits(l.Keys, t); err != nil {
			return found{}, err
		}
	}
	if l.Aside != nil {
		keys = roaring.AndNot(keys, l.Aside)
	}
	return found{records, keys}, nil
}

// Count returns what a term finds.
func (l Look) Count(t strategy.Term) (Count, error) {
	f, err := l.find(t)
	if err != nil {
		return Count{}, err
	}
	return f.count(), nil
}

// Of returns the term of a heading, alone or with all that stands below it.
func Of(label string, narrower bool) strategy.Term {
	return strategy.Term{Kind: strategy.HeadingTerm, Heading: label, Narrower: narrower, On: true}
}

// A Node is a heading in the tree: what it finds alone, and with all below it.
type Node struct {
	Label        string `json:"label"`
	Alone        int    `json:"alone"`
	WithNarrower int    `json:"withNarrower"`
	Keys         int    `json:"keys"`     // that it catches with all below it
	Narrower     int    `json:"narrower"` // right below it
	Below        int    `json:"below"`    // in all
	Carried      int    `json:"carried"`  // of all below it, those that records carry
	Retired      bool   `json:"retired,omitempty"`
	Spread       bool   `json:"spread,omitempty"` // it holds much of the records in many small headings
}

// When a branch holds much of the records in many small headings.
const (
	spreadShare  = 0.05 // of all records, so that it holds much
	spreadOver   = 3    // headings below it that are carried, at the least
	largestShare = 0.5  // of its records, which none of them holds more than
)

// Spread reports whether a branch holds much of some records in many small headings: of all records those in the
// branch, over how many headings below it they are spread, and how many the largest of them and the heading itself
// holds.
func Spread(records, headings, largest, all int) bool {
	return float64(records) >= spreadShare*float64(all) && headings >= spreadOver &&
		float64(largest) <= largestShare*float64(records)
}

// Node returns what a heading of the vocabulary finds.
func (l Look) Node(heading int) (Node, error) {
	v := l.Set.Thesaurus
	label := v.Label(heading)
	alone, err := l.find(Of(label, false))
	if err != nil {
		return Node{}, err
	}
	with, err := l.find(Of(label, true))
	if err != nil {
		return Node{}, err
	}
	below := v.Below(heading)
	n := Node{
		Label:        label,
		Alone:        int(alone.records.GetCardinality()),
		WithNarrower: int(with.records.GetCardinality()),
		Keys:         int(with.keys.GetCardinality()),
		Narrower:     len(v.Narrower(heading)),
		Below:        len(below) - 1,
		Retired:      v.Retired(heading),
	}
	largest := n.Alone
	if n.WithNarrower > 0 && l.Set.Index != nil {
		all := l.Set.All()
		for b := range l.Set.Index.Carried(v.These(below[1:]...)) {
			if carried := int(l.Set.Index.Labelled(b).AndCardinality(all)); carried > 0 {
				n.Carried++
				largest = max(largest, carried)
			}
		}
		n.Spread = Spread(n.WithNarrower, n.Carried, largest, int(all.GetCardinality()))
	}
	return n, nil
}

// Nodes does the same for several.
func (l Look) Nodes(ctx context.Context, headings []int) ([]Node, error) {
	out := make([]Node, len(headings))
	for i, h := range headings {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		var err error
		if out[i], err = l.Node(h); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// A Price is what a heading term finds, and what each way to narrow it would lose.
type Price struct {
	Count
	Central    Count       `json:"central"` // that it would lose as main point only
	Qualifiers []Qualified `json:"qualifiers"`
}

// Qualified is what a heading term would find with one qualifier alone, and what it would lose.
type Qualified struct {
	Qualifier string `json:"qualifier"`
	Records   int    `json:"records"`
	Keys      int    `json:"keys"`
	Lost      Count  `json:"lost"`
}

// Price looks at a heading term as it stands, whatever of it is switched on: what main point only and each of some
// qualifiers by itself would lose. Qualifiers that find nothing are left out; the rest by records, most first.
func (l Look) Price(t strategy.Term, qualifiers []string) (Price, error) {
	t.Central, t.Qualifiers = false, nil
	whole, err := l.find(t)
	if err != nil {
		return Price{}, err
	}
	out := Price{Count: whole.count(), Qualifiers: []Qualified{}}
	central := t
	central.Central = true
	main, err := l.find(central)
	if err != nil {
		return Price{}, err
	}
	out.Central = whole.less(main)
	for _, q := range qualifiers {
		t.Qualifiers = []string{q}
		with, err := l.find(t)
		if err != nil {
			return Price{}, err
		}
		if c := with.count(); c.Records+c.Keys > 0 {
			out.Qualifiers = append(out.Qualifiers, Qualified{q, c.Records, c.Keys, whole.less(with)})
		}
	}
	slices.SortStableFunc(out.Qualifiers, func(a, b Qualified) int {
		return cmp.Or(cmp.Compare(b.Records, a.Records), strings.Compare(a.Qualifier, b.Qualifier))
	})
	return out, nil
}

// A Word is an entry term, or a label, as authors write it.
type Word struct {
	Text     string `json:"text"`
	Language string `json:"language,omitempty"` // where it is not that of the vocabulary
	// further ones of its family among the entry terms, which are taken with it
	Forms   []string `json:"forms"`
	Records int      `json:"records"`
	Keys    int      `json:"keys"`
	Adds    int      `json:"adds"`    // records that the block does not find yet
	Covered bool     `json:"covered"` // the block finds all of them already
	Ticked  bool     `json:"ticked"`  // it is in use, and not covered
}

// Words returns the label and the entry terms of a heading as free text: what each finds, and what it would add to a
// block. Those that are the same but for number, spelling and hyphen come once, under the one that most records have.
func (l Look) Words(heading int, block strategy.Block) ([]Word, error) {
	v := l.Set.Thesaurus
	has, covers, err := l.block(block)
	if err != nil {
		return nil, err
	}
	h := v.At(heading)
	written := []thesaurus.Text{{Value: h.Label}}
	for _, e := range h.EntryTerms {
		written = append(written, thesaurus.Text{Value: e})
	}
	written = append(append(written, h.OtherLabels...), h.OtherTerms...)
	var out []Word
	var sets []found
	family := map[string]int{}
	for _, w := range written {
		p := text.Tokens(w.Value)
		if len(p) == 0 {
			continue
		}
		t := strategy.Term{Kind: strategy.TextTerm, Text: typed(w.Value, p), Field: "text", On: true}
		f, err := l.find(t)
		if err != nil {
			continue // one that cannot be searched is none that can be ticked
		}
		key := text.FamilyKey(p)
		at, known := family[key]
		if !known {
			family[key] = len(out)
			out, sets = append(
				out,
				Word{Text: t.Text, Language: w.Language, Forms: []string{}, Records: f.count().Records},
			), append(
				sets,
				f,
			)
			continue
		}
		word := &out[at]
		same := func(other string) bool { return text.Key(other) == text.Key(t.Text) }
		if same(word.Text) || slices.ContainsFunc(word.Forms, same) {
			continue
		}
		if n := f.count().Records; n > word.Records {
			word.Text, t.Text, word.Records = t.Text, word.Text, n
		}
		word.Forms = append(word.Forms, t.Text)
		sets[at] = found{roaring.Or(sets[at].records, f.records), roaring.Or(sets[at].keys, f.keys)}
	}
	for i := range out {
		c := sets[i].count()
		out[i].Records, out[i].Keys = c.Records, c.Keys
		add := sets[i].less(has)
		out[i].Adds = add.Records
		out[i].Covered = c.Records+c.Keys > 0 && add.Records+add.Keys == 0 || covers(out[i].Text)
		out[i].Ticked = c.Records+c.Keys > 0 && !out[i].Covered
	}
	slices.SortStableFunc(out, func(a, b Word) int { return cmp.Compare(b.Records, a.Records) })
	return out, nil
}

// typed returns a term of the vocabulary as it is put into a block: in small letters as it is written, unless a sign
// of it would mean something there.
func typed(value string, tokens []string) string {
	if strings.ContainsAny(value, `*?"`) {
		return strings.Join(tokens, " ")
	}
	return strings.ToLower(strings.Join(strings.Fields(value), " "))
}

// block returns what a block finds, and whether a word is among its terms.
func (l Look) block(b strategy.Block) (found, func(string) bool, error) {
	all := found{roaring.New(), roaring.New()}
	taken, err := coverage.TakenBy(strategy.Strategy{Blocks: []strategy.Block{b}}, l.Set.Thesaurus)
	if err != nil {
		return all, nil, err
	}
	for _, t := range b.Terms {
		if !t.On {
			continue
		}
		f, err := l.find(t)
		if err != nil {
			return all, nil, err
		}
		all.records.Or(f.records)
		all.keys.Or(f.keys)
	}
	return all, func(word string) bool { return taken.Text(text.Tokens(word)) }, nil
}

// An Older is a heading that was used before another, for the years before it came in.
type Older struct {
	Label string `json:"label"`
	Until int    `json:"until"` // the last year it was used for what the other covers
	Said  bool   `json:"said"`  // the vocabulary says so itself, else its note does
	Count
	Taken bool `json:"taken"` // a term of the block finds it already
}

// Older returns what was used before a heading, with what that finds up to the year before it came in. Where the year
// is not known there is no last one: Until is 0, and what is counted is what it finds in all.
func (l Look) Older(heading int, block strategy.Block) ([]Older, error) {
	v := l.Set.Thesaurus
	h := v.History(heading)
	has, _, err := l.block(block)
	if err != nil {
		return nil, err
	}
	out := []Older{}
	for _, b := range h.Before {
		t := Of(v.Label(b), false)
		if h.Since > query.FirstYear {
			t.Until = h.Since - 1
		}
		f, err := l.find(t)
		if err != nil {
			return nil, err
		}
		left := f.less(has)
		out = append(
			out,
			Older{
				Label: t.Heading,
				Until: t.Until,
				Said:  h.Said,
				Count: f.count(),
				Taken: f.count().Records > 0 && left.Records+left.Keys == 0,
			},
		)
	}
	return out, nil
}

// A Sides is what a heading finds that the words of its block do not, and the other way round.
type Sides struct {
	Heading Count `json:"heading"` // found by the heading alone
	Words   Count `json:"words"`
	Both    Count `json:"both"`
}

// Sides sets a heading term against the free-text and near terms of a block.
func (l Look) Sides(t strategy.Term, block strategy.Block) (Sides, error) {
	words := block
	words.Terms = slices.DeleteFunc(
		slices.Clone(block.Terms),
		func(t strategy.Term) bool { return t.Kind == strategy.HeadingTerm },
	)
	of, err := l.find(t)
	if err != nil {
		return Sides{}, err
	}
	has, _, err := l.block(words)
	if err != nil {
		return Sides{}, err
	}
	return Sides{
		of.less(has),
		has.less(of),
		Count{int(of.records.AndCardinality(has.records)), int(of.keys.AndCardinality(has.keys))},
	}, nil
}

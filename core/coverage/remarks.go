package coverage

import (
	"cmp"
	"context"
	"slices"
	"strings"
	"unicode/utf8"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
)

// What can be remarked of a term beside what it finds.
const (
	Misspelt   = "misspelt" // it finds nothing or next to nothing, and a word one letter apart finds much
	OneWriting = "writing"  // other spellings, numbers or hyphens of it would add records
	SuitsOther = "suits"    // it suits another block better by far
	CouldBe    = "near"     // its words a little apart would add records
	Drags      = "drags"    // a stem matches words that do not belong to the block
	Meanings   = "meanings" // an abbreviation stands for several things
)

// A Remark is what is to be said of a term of a block, with what could be done about it.
type Remark struct {
	Kind    string
	Term    int           // by place
	Items   []RemarkItem  // other writings, or the words that are dragged in
	Belong  []string      // of a stem: the words that do belong
	Records int           // that the items add to the block, or that only what is dragged in brings
	Block   int           // that it suits better
	Near    strategy.Term // what could be
}

// A RemarkItem is a word or phrase with the records that it finds.
type RemarkItem struct {
	Text    string
	Records int
	Adds    int // beyond what the block finds
}

const (
	nextToNothing = 2    // records
	timesMore     = 10   // as many records as a word that may be misspelt
	leastAdded    = 3    // records that are worth a remark
	leastShare    = 0.05 // of the term's own
	dragShare     = 0.1  // of the term's own
	leadOfOther   = 2    // times the suit to its own block
	mostItems     = 8    // of a remark
	mostBelonging = 64   // words of a stem that are told
)

// Remarks looks at the terms of a block that are switched on, over the records of a set. offers tells what suits it.
func Remarks(ctx context.Context, reach *Reach, offers *Offers, block int) ([]Remark, error) {
	r := remarker{reach: reach, set: reach.set, offers: offers, block: block, words: index.NewWords(reach.set.Index)}
	out := []Remark{}
	for i, t := range reach.s.Blocks[block].Terms {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if reach.Terms[block][i] == nil || t.Kind != strategy.TextTerm {
			continue
		}
		q, err := t.Query()
		if err != nil {
			return nil, err
		}
		phrase, ok := q.(query.Phrase)
		if !ok {
			continue
		}
		for _, look := range []func(int, strategy.Term, text.Pattern) *Remark{r.misspelt, r.writing, r.suits, r.near,
			r.drags} {
			if found := look(i, t, phrase.Pattern); found != nil {
				found.Term = i
				out = append(out, *found)
			}
		}
		found, err := r.meanings(ctx, i, phrase.Pattern)
		if err != nil {
			return nil, err
		}
		if found != nil {
			found.Term = i
			out = append(out, *found)
		}
	}
	return out, nil
}

type remarker struct {
	reach  *Reach
	set    Set
	offers *Offers
	block  int
	words  *index.Words
}

func (r *remarker) hits(t strategy.Term) *roaring.Bitmap {
	found, err := Hits(r.set, t)
	if err != nil {
		return roaring.New()
	}
	return found
}

// as returns a term like another with other words.
func as(t strategy.Term, tokens []string) strategy.Term {
	return strategy.Term{Kind: strategy.TextTerm, Text: strings.Join(tokens, " "), Field: t.Field, On: true}
}

// item tells of other words what they find; ok is false where the block finds all of it.
func (r *remarker) item(t strategy.Term, tokens []string) (RemarkItem, *roaring.Bitmap) {
	found := r.hits(as(t, tokens))
	own := roaring.AndNot(found, r.reach.Blocks[r.block])
	return RemarkItem{strings.Join(tokens, " "), count(found), count(own)}, own
}

func (r *remarker) misspelt(i int, t strategy.Term, p text.Pattern) *Remark {
	tokens, ok := p.Literal()
	own := count(r.reach.Terms[r.block][i])
	if !ok || own > nextToNothing {
		return nil
	}
	var items []RemarkItem
	for k, token := range tokens {
		for _, other := range r.words.Edited(token) {
			words := slices.Clone(tokens)
			words[k] = other
			if item, _ := r.item(t, words); item.Records >= max(leastAdded, timesMore*own) {
				items = append(items, item)
			}
		}
	}
	return remark(Misspelt, items, 0)
}

// remark returns a remark with its items, those of most records first; nil without any.
func remark(kind string, items []RemarkItem, records int) *Remark {
	if len(items) == 0 {
		return nil
	}
	slices.SortFunc(items, func(a, b RemarkItem) int {
		return cmp.Or(cmp.Compare(b.Records, a.Records), cmp.Compare(a.Text, b.Text))
	})
	return &Remark{Kind: kind, Items: items[:min(len(items), mostItems)], Records: records, Block: none}
}

func (r *remarker) writing(i int, t strategy.Term, p text.Pattern) *Remark {
	if r.reach.Terms[r.block][i].IsEmpty() {
		return nil
	}
	var items []RemarkItem
	all := roaring.New()
	for _, words := range r.words.Writings(p) {
		if item, own := r.item(t, words); item.Adds > 0 {
			items = append(items, item)
			all.Or(own)
		}
	}
	return remark(OneWriting, items, count(all))
}

func (r *remarker) suits(_ int, t strategy.Term, p text.Pattern) *Remark {
	if _, ok := p.Literal(); !ok {
		return nil
	}
	other, suit := r.offers.Proposed(p.String())
	if other < 0 || other == r.block || suit < leadOfOther*r.offers.suit(p.String(), r.block) {
		return nil
	}
	return &Remark{Kind: SuitsOther, Block: other}
}

func (r *remarker) near(i int, t strategy.Term, p text.Pattern) *Remark {
	if len(p) != 2 {
		return nil
	}
	near := strategy.Term{
		Kind:   strategy.NearTerm,
		Left:   p[:1].String(),
		Right:  p[1:].String(),
		Within: widest,
		Field:  t.Field,
		On:     true,
	}
	more := count(roaring.AndNot(r.hits(near), r.reach.Blocks[r.block]))
	if more < leastAdded || float64(more) < leastShare*float64(count(r.reach.Terms[r.block][i])) {
		return nil
	}
	return &Remark{Kind: CouldBe, Near: near, Records: more, Block: none}
}

func (r *remarker) drags(i int, t strategy.Term, p text.Pattern) *Remark {
	if len(p) != 1 {
		return nil
	}
	if _, exact := p[0].Exact(); exact {
		return nil
	}
	var items []RemarkItem
	var belong []string
	in, out := roaring.New(), roaring.New()
	for _, word := range r.set.Index.TokensWith(p[0].Prefix()) {
		if !p[0].Match(word) {
			continue
		}
		found := r.hits(as(t, []string{word}))
		if found.IsEmpty() {
			continue
		}
		best, known := r.offers.best(word)
		switch {
		case known && best != r.block:
			items = append(items, RemarkItem{word, count(found), 0})
			out.Or(found)
		default: // what is too rare to tell is given the benefit of the doubt
			in.Or(found)
			if belong = append(belong, word); len(belong) > mostBelonging {
				return nil
			}
		}
	}
	through := count(roaring.AndNot(out, in))
	if len(belong) == 0 || through < leastAdded || float64(through) < dragShare*float64(count(r.reach.Terms[r.block][i])) {
		return nil
	}
	found := remark(Drags, items, through)
	found.Belong = belong
	return found
}

// meanings tells what a short word is written out as, where that is more than one thing.
func (r *remarker) meanings(ctx context.Context, i int, p text.Pattern) (*Remark, error) {
	token, ok := p.Literal()
	if !ok || len(token) != 1 || utf8.RuneCountInString(token[0]) < shortest ||
		utf8.RuneCountInString(token[0]) > longest {
		return nil, nil
	}
	said, err := meanings(ctx, r.set.Records, r.reach.Terms[r.block][i], token[0])
	if err != nil {
		return nil, err
	}
	all := 0
	for _, n := range said {
		all += n
	}
	var items []RemarkItem
	for long, n := range said {
		if n >= leastMeaning && float64(n) >= meaningShare*float64(all) {
			item, _ := r.item(strategy.Term{Field: "text"}, strings.Fields(long))
			item.Records = n
			items = append(items, item)
		}
	}
	if len(items) < 2 {
		return nil, nil
	}
	return remark(Meanings, items, all), nil
}

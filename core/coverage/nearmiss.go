package coverage

import (
	"cmp"
	"context"
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// How a study all but holds a term of a block that misses it.
const (
	NearSpelling = string(text.OtherSpelling) // in another spelling or number
	NearHyphen   = "hyphen"                   // written as one word, or as two
	NearEnding   = string(text.OtherEnding)   // with another ending
	NearEdit     = string(text.OneEdit)       // one letter apart
	NearGap      = "gap"                      // with other words between
	NearEntry    = "entry"                    // an entry term of a heading of the block
	NearBelow    = "below"                    // a heading below one of the block
	NearAbove    = "above"                    // a heading above one of the block
	NearWord     = "word"                     // a phrase with one other word, which suits the block
)

var nearOrder = []string{
	NearSpelling,
	NearHyphen,
	NearEnding,
	NearEdit,
	NearGap,
	NearEntry,
	NearBelow,
	NearAbove,
	NearWord,
}

// A NearMiss is what stands in a study that a block misses and is all but one of its terms.
type NearMiss struct {
	Kind  string
	Term  int           // of the block, by place
	Text  string        // as it stands in the study: tokens, or the label of a heading
	Mend  strategy.Term // what would match it
	Price int           // records that the whole strategy would then find beyond those it finds now
}

const mostNear = 12

// widest is how many words may stand between two of a phrase that is all but there.
const widest = 3

// NearMisses returns what in a study that a block misses is all but one of its terms, the likest first.
func (r *Rescuer) NearMisses(ctx context.Context, block, study int) ([]NearMiss, error) {
	if r.inKeys.Blocks[block].Contains(uint32(study)) {
		return nil, nil
	}
	record := r.keys.Records[study]
	f := finder{seen: map[string]bool{}, suits: func(phrase string) bool {
		if found := r.holding(itemKey{strategy.TextTerm, phrase}); found != nil {
			return found.suit.Of[block] > 0 && found.suit.Best() == block
		}
		return false
	}}
	for i, t := range r.s.Blocks[block].Terms {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if !t.On {
			continue
		}
		q, err := t.Query()
		if err != nil {
			return nil, err
		}
		switch q := q.(type) {
		case query.Phrase:
			record.Values(q.Fields, func(_ bib.Field, value string) { f.phrase(i, t, q.Pattern, text.Tokens(value)) })
		case query.Heading:
			f.heading(i, t, r.keys.Thesaurus, record)
		}
	}
	open := r.priced[block].Open(block)
	var out []NearMiss
	slices.SortStableFunc(f.found, func(a, b NearMiss) int {
		return cmp.Or(
			cmp.Compare(slices.Index(nearOrder, a.Kind), slices.Index(nearOrder, b.Kind)),
			strings.Compare(a.Text, b.Text),
		)
	})
	for _, n := range f.found {
		hits, err := Hits(r.priced[block].set, n.Mend)
		if err != nil {
			continue // what cannot be searched mends nothing
		}
		if here, err := Hits(Set{Records: r.keys.Records, Index: r.keys.Index, Thesaurus: r.keys.Thesaurus},
			n.Mend); err != nil ||
			!here.Contains(uint32(study)) {
			continue
		}
		n.Price = int(hits.AndCardinality(open))
		if out = append(out, n); len(out) == mostNear {
			break
		}
	}
	return out, nil
}

// A finder collects near misses, each mend once.
type finder struct {
	seen  map[string]bool
	suits func(phrase string) bool
	found []NearMiss
}

func (f *finder) add(kind string, term int, text string, mend strategy.Term) {
	mend.On = true
	if key := mend.String(); !f.seen[key] {
		f.seen[key] = true
		f.found = append(f.found, NearMiss{Kind: kind, Term: term, Text: text, Mend: mend})
	}
}

// phrase looks for what is all but a phrase in the tokens of one value.
func (f *finder) phrase(term int, t strategy.Term, p text.Pattern, tokens []string) {
	as := func(kind string, tokens []string) {
		f.add(
			kind,
			term,
			strings.Join(tokens, " "),
			strategy.Term{Kind: strategy.TextTerm, Text: strings.Join(tokens, " "), Field: t.Field},
		)
	}
	for i := range tokens {
		if len(p) == 2 && text.Joins(p[0], p[1], tokens[i]) {
			as(NearHyphen, tokens[i:i+1])
		}
		if len(p) == 1 && i+1 < len(tokens) && p[0].Match(tokens[i]+tokens[i+1]) && !p[0].Match(tokens[i]) &&
			utf8.RuneCountInString(tokens[i]) > 1 {
			as(NearHyphen, tokens[i:i+2])
		}
		if i+len(p) <= len(tokens) {
			if kind := f.butOne(p, tokens[i:i+len(p)]); kind != "" {
				as(kind, tokens[i:i+len(p)])
			}
		}
		for k := 1; k < len(p); k++ {
			if !p[:k].At(tokens, i) {
				continue
			}
			for gap := 1; gap <= widest; gap++ {
				if at := i + k + gap; p[k:].At(tokens, at) {
					f.add(
						NearGap,
						term,
						strings.Join(tokens[i:at+len(p)-k], " "),
						strategy.Term{
							Kind:   strategy.NearTerm,
							Left:   p[:k].String(),
							Right:  p[k:].String(),
							Within: gap + 1,
							Field:  t.Field,
						},
					)
				}
			}
		}
	}
}

// butOne returns in what tokens are all but a phrase: all but one match, and that is like what is looked for.
func (f *finder) butOne(p text.Pattern, tokens []string) string {
	other := -1
	for k, token := range tokens {
		if p[k].Match(token) {
			continue
		}
		if other >= 0 {
			return ""
		}
		other = k
	}
	if other < 0 {
		return ""
	}
	if like := p[other].Resembles(tokens[other]); like != "" {
		return string(like)
	}
	if len(p) > 1 && !text.IsStopword(tokens[other]) && utf8.RuneCountInString(tokens[other]) > 2 &&
		f.suits(strings.Join(tokens, " ")) {
		return NearWord
	}
	return ""
}

// heading looks for headings around one, and for its entry terms in the text.
func (f *finder) heading(term int, t strategy.Term, v *thesaurus.Thesaurus, record *bib.Record) {
	if v == nil {
		return
	}
	at, ok := v.Find(t.Heading)
	if !ok {
		return
	}
	var values [][]string
	record.Values(bib.Text, func(_ bib.Field, value string) { values = append(values, text.Tokens(value)) })
	for _, entry := range append([]string{v.Label(at)}, v.EntryTerms(at)...) {
		tokens := text.Tokens(entry)
		if p := text.Literal(tokens...); len(p) > 0 &&
			slices.ContainsFunc(values, func(v []string) bool { return len(p.Find(v)) > 0 }) {
			f.add(
				NearEntry,
				term,
				strings.Join(tokens, " "),
				strategy.Term{Kind: strategy.TextTerm, Text: strings.Join(tokens, " "), Field: "text"},
			)
		}
	}
	below := v.Below(at)
	for _, h := range record.Headings {
		other, ok := v.Find(h.Label)
		if !ok || other == at {
			continue
		}
		mend := strategy.Term{Kind: strategy.HeadingTerm, Heading: v.Label(other)}
		switch {
		case slices.Contains(below, other):
			f.add(NearBelow, term, v.Label(other), mend)
		case slices.Contains(v.Below(other), at):
			f.add(NearAbove, term, v.Label(other), mend)
		}
	}
}

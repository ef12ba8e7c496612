package tally

import (
	"context"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/text"
)

// WordOptions say what is counted by CountWords.
type WordOptions struct {
	Fields     bib.Field // where
	MaxWords   int       // up to how many tokens an item has
	MinRecords int       // items in fewer records of the sample are left out
}

// DefaultWords are the words and phrases of titles and abstracts.
var DefaultWords = WordOptions{Fields: bib.TitleAbstract, MaxWords: 4, MinRecords: 2}

// MaxWords is the most tokens an item of a tally may have.
const MaxWords = 8

// CountWords counts the kept n-grams of the pool's sample. keys may be nil.
func CountWords(ctx context.Context, p *Pool, keys []*bib.Record, o WordOptions) (*Tally, error) {
	t := &Tally{Facet: Words, Sample: int(p.Sample.GetCardinality()), Contrast: int(p.Contrast.GetCardinality()),
		HasKeys: keys != nil, KeyStudies: len(keys), LeftOutBelow: o.MinRecords}
	it, err := p.items(ctx, o)
	if err != nil {
		return nil, err
	}
	if it != nil {
		t.Rows = it.rows(p.sides(), t.Sample, t.Contrast)
		if inKeys := keyGrams(keys, o); len(inKeys) > 0 {
			for i := range t.Rows {
				t.Rows[i].Keys = inKeys[t.Rows[i].Item]
			}
		}
		return t, nil
	}
	sample := p.Index.Stream(p.Sample, o.Fields)
	found, err := newGrams(ctx, p.Index, sample, o.MaxWords, o.MinRecords)
	if err != nil {
		return nil, err
	}
	contrast := found.in(p.Index.Stream(p.Contrast, o.Fields))
	inKeys := keyGrams(keys, o)
	rows, place := found.items(p.Index, sample)
	for n := range found {
		for g, row := range place[n] {
			if row != none {
				rows[row].ContrastRecords = int(contrast[n][g])
				rows[row].Keys = inKeys[rows[row].Item]
			}
		}
	}
	t.Rows = rows
	t.figures()
	return t, ctx.Err()
}

// items returns the n-grams that are kept as items, with what they are absorbed by and their families,
// and for each level the item of each n-gram, or none.
func (found grams) items(ix *index.Index, s index.Stream) (rows []Row, place [][]int32) {
	place = make([][]int32, len(found))
	bases := newBases(ix)
	var item strings.Builder
	var tokens []string
	for n, l := range found {
		place[n] = make([]int32, len(l.records))
		for g, records := range l.records {
			place[n][g] = none
			terms := s.Terms[l.places[g]:][:n+1]
			if !text.Keeps(n+1, ix.Role(terms[0]), ix.Role(terms[n])) {
				continue
			}
			item.Reset()
			tokens = tokens[:0]
			for i, term := range terms {
				if i > 0 {
					item.WriteByte(' ')
				}
				item.WriteString(ix.Token(term))
				tokens = append(tokens, bases.of(term))
			}
			place[n][g] = int32(len(rows))
			rows = append(rows, Row{Item: item.String(), Records: int(records), Occurrences: int(l.occurrences[g]),
				Family: text.FamilyKeyOfBases(tokens), words: n + 1})
		}
	}
	absorb(rows, found, place)
	labelFamilies(rows)
	return rows, place
}

// keyGrams returns in how many of the key studies each n-gram is.
func keyGrams(keys []*bib.Record, o WordOptions) map[string]int {
	out := map[string]int{}
	for _, k := range keys {
		for gram := range grammed(k, o) {
			out[gram]++
		}
	}
	return out
}

func grammed(r *bib.Record, o WordOptions) map[string]int {
	var values []string
	r.Values(o.Fields, func(_ bib.Field, v string) { values = append(values, v) })
	return text.Grams(values, o.MaxWords)
}

// absorb names for each item the longer one under which it is folded: one that contains it and is in
// exactly as many records, so in the same ones. All n-grams between the two are then in these records
// too, kept as items or not; so it is enough to hand the best down from each n-gram to the two it is
// made of, the longest first.
func absorb(items []Row, found grams, rows [][]int32) {
	better := func(a, b int32) bool {
		switch {
		case a == none || b == none:
			return b == none
		case items[a].words != items[b].words:
			return items[a].words > items[b].words
		case items[a].Occurrences != items[b].Occurrences:
			return items[a].Occurrences > items[b].Occurrences
		}
		return items[a].Item < items[b].Item
	}
	best := make([][]int32, len(found))
	for n := range found {
		best[n] = make([]int32, len(found[n].records))
		for g := range best[n] {
			best[n][g] = none
		}
	}
	for n := len(found) - 1; n > 0; n-- {
		for g, records := range found[n].records {
			top := best[n][g]
			if top == none {
				top = rows[n][g]
			}
			prefix, suffix := apart(found[n].parents[g])
			for _, part := range []int32{prefix, suffix} {
				if top != none && found[n-1].records[part] == records && better(top, best[n-1][part]) {
					best[n-1][part] = top
				}
			}
		}
	}
	for n := range found {
		for g, row := range rows[n] {
			if row != none && best[n][g] != none {
				items[row].AbsorbedBy = items[best[n][g]].Item
			}
		}
	}
}

// bases keeps the base of each token, which is in many items.
type bases struct {
	ix    *index.Index
	known []string
}

func newBases(ix *index.Index) bases { return bases{ix, make([]string, ix.Tokens())} }

func (b bases) of(token uint32) string {
	if b.known[token] == "" {
		b.known[token] = text.Base(b.ix.Token(token))
	}
	return b.known[token]
}

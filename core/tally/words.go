package tally

import (
	"context"

	"tamiz/core/bib"
	"tamiz/core/gram"
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

// wordHead returns a tally of words without rows.
func (p *Pool) wordHead(keys []*bib.Record, o WordOptions) Tally {
	return Tally{Facet: Words, Sample: int(p.Sample.GetCardinality()), Contrast: int(p.Contrast.GetCardinality()),
		HasKeys: keys != nil, KeyStudies: len(keys), LeftOutBelow: o.MinRecords}
}

// CountWords counts the kept n-grams of the pool's sample. keys may be nil.
func CountWords(ctx context.Context, p *Pool, keys []*bib.Record, o WordOptions) (*Tally, error) {
	t := p.wordHead(keys, o)
	it, counts, stands, err := p.countedWords(ctx, o)
	if err != nil {
		return nil, err
	}
	t.Rows = rowsOf(it, counts, o.MinRecords, t.Sample, t.Contrast)
	if stands != nil {
		for i := range t.Rows {
			t.Rows[i].Piece = !stands[t.Rows[i].item-1]
		}
	}
	t.inKeys(keys, o)
	return &t, ctx.Err()
}

// countedWords returns the kept n-grams, how many records of the sample and of the contrast hold each, and, where
// the pool keeps what it counts, which stand by themselves.
func (p *Pool) countedWords(ctx context.Context, o WordOptions) (*gram.Items, []tallied, []bool, error) {
	kept, err := p.items(ctx, o)
	if err != nil {
		return nil, nil, nil, err
	}
	if kept != nil {
		return kept.Items, kept.count(p.sides()), kept.Standing(), nil
	}
	found, err := gram.Find(ctx, p.Index, p.Index.Stream(p.Sample, o.Fields), o.MaxWords, o.MinRecords, nil)
	if err != nil {
		return nil, nil, nil, err
	}
	counts := make([]tallied, found.Len())
	for i, c := range found.Counts() {
		counts[i].Count = c
	}
	for i, records := range found.In(p.Index.Stream(p.Contrast, o.Fields)) {
		counts[i].contrast = records
	}
	return found.Items, counts, nil, ctx.Err()
}

// inKeys tells of each word in how many of the key studies it is.
func (t *Tally) inKeys(keys []*bib.Record, o WordOptions) {
	found := keyGrams(keys, o)
	if len(found) == 0 {
		return
	}
	for i := range t.Rows {
		t.Rows[i].Keys = found[t.Rows[i].Item]
	}
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

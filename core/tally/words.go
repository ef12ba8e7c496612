package tally

import (
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
func CountWords(p *Pool, keys []*bib.Record, o WordOptions) *Tally {
	t := &Tally{Facet: Words, Sample: int(p.Sample.GetCardinality()), Contrast: int(p.Contrast.GetCardinality()),
		HasKeys: keys != nil, LeftOutBelow: o.MinRecords}
	sample, contrast := p.Index.Stream(p.Sample, o.Fields), p.Index.Stream(p.Contrast, o.Fields)
	here := newLevel(p.Index, sample, o.MinRecords)
	there := newCounter(contrast, here)
	inKeys := keyGrams(keys, o)
	for n := 1; ; n++ {
		t.Rows = append(t.Rows, here.rows(p.Index, sample, there.records, inKeys)...)
		if n == o.MaxWords || !here.next(sample) {
			break
		}
		there.next(contrast, here)
	}
	t.figures()
	return t
}

func keyGrams(keys []*bib.Record, o WordOptions) map[string]int {
	out := map[string]int{}
	for _, k := range keys {
		var values []string
		k.Values(o.Fields, func(_ bib.Field, v string) { values = append(values, v) })
		for gram := range text.Grams(values, o.MaxWords) {
			out[gram]++
		}
	}
	return out
}

// A level holds the n-grams of one length in the sample. An n-gram can be in enough records only when
// both (n-1)-grams it is made of are, so each level looks only where the one before left something:
// nearly all long n-grams, which are nearly all the different ones, are never stored.
type level struct {
	n           int
	min         int
	at          []int32 // the n-gram that begins at each place, or none
	pairs       pairs   // the n-gram made of two of the level before
	places      []int32 // where each n-gram first begins
	records     []int32
	occurrences []int32
}

const none = -1

func newLevel(ix *index.Index, s index.Stream, min int) *level {
	l := &level{n: 1, min: min, at: make([]int32, len(s.Terms))}
	size := ix.Tokens()
	l.places, l.records, l.occurrences = make([]int32, size), make([]int32, size), make([]int32, size)
	seen := newSeen(size)
	record, end := int32(0), 0
	for i, term := range s.Terms {
		for ; i >= int(s.Ends[end]); end++ {
			record++
		}
		l.at[i] = int32(term)
		l.count(int32(term), int32(i), record, seen)
	}
	l.prune()
	return l
}

// seen is the last record in which each n-gram was counted, from 1.
func newSeen(size int) []int32 { return make([]int32, size) }

func (l *level) count(gram, place, record int32, seen []int32) {
	l.occurrences[gram]++
	if seen[gram] != record+1 {
		seen[gram] = record + 1
		if l.records[gram]++; l.records[gram] == 1 {
			l.places[gram] = place
		}
	}
}

// prune forgets the n-grams that are in too few records.
func (l *level) prune() {
	for i, g := range l.at {
		if g != none && int(l.records[g]) < l.min {
			l.at[i] = none
		}
	}
}

// next goes on to the n-grams that are one token longer, and reports whether there are any.
func (l *level) next(s index.Stream) bool {
	l.n++
	l.pairs = newPairs(len(l.records) / 2)
	l.places, l.records, l.occurrences = l.places[:0], l.records[:0], l.occurrences[:0]
	var seen []int32
	record, end := int32(0), 0
	for i := range l.at {
		for ; i >= int(s.Ends[end]); end++ {
			record++
		}
		key, ok := joined(l.at, s, i, l.n)
		if !ok {
			l.at[i] = none
			continue
		}
		gram := l.pairs.put(key)
		if int(gram) == len(l.records) {
			l.places, l.records, l.occurrences = append(l.places, 0), append(l.records, 0), append(l.occurrences, 0)
			seen = append(seen, 0)
		}
		l.at[i] = gram
		l.count(gram, int32(i), record, seen)
	}
	l.prune()
	return len(l.records) > 0
}

// joined returns the key of the n-gram that begins at a place, from those of n-1 tokens that begin
// there and at the next.
func joined(at []int32, s index.Stream, i, n int) (uint64, bool) {
	if i+1 >= len(at) || at[i] == none || at[i+1] == none || n == 2 && s.Begins[i+1] {
		return 0, false
	}
	return uint64(at[i])<<32 | uint64(at[i+1]), true
}

// rows returns the n-grams of this level that are kept as items.
func (l *level) rows(ix *index.Index, s index.Stream, contrast []int32, keys map[string]int) []Row {
	var rows []Row
	var item strings.Builder
	for g, records := range l.records {
		if records == 0 || int(records) < l.min {
			continue
		}
		at := l.places[g]
		terms := s.Terms[at : int(at)+l.n]
		if !text.Keeps(l.n, ix.Role(terms[0]), ix.Role(terms[l.n-1])) {
			continue
		}
		item.Reset()
		for i, t := range terms {
			if i > 0 {
				item.WriteByte(' ')
			}
			item.WriteString(ix.Token(t))
		}
		row := Row{Item: item.String(), Records: int(records), Occurrences: int(l.occurrences[g])}
		row.Keys = keys[row.Item]
		if g < len(contrast) {
			row.ContrastRecords = int(contrast[g])
		}
		rows = append(rows, row)
	}
	return rows
}

// A counter counts the sample's n-grams in the contrast, level by level.
type counter struct {
	at      []int32
	records []int32
}

func newCounter(s index.Stream, here *level) *counter {
	c := &counter{at: make([]int32, len(s.Terms))}
	for i, t := range s.Terms {
		c.at[i] = int32(t)
	}
	c.count(s, here)
	return c
}

func (c *counter) next(s index.Stream, here *level) {
	for i := range c.at {
		key, ok := joined(c.at, s, i, here.n)
		if !ok {
			c.at[i] = none
			continue
		}
		c.at[i] = here.pairs.get(key)
	}
	c.count(s, here)
}

func (c *counter) count(s index.Stream, here *level) {
	c.records = make([]int32, len(here.records))
	seen := newSeen(len(here.records))
	record, end := int32(0), 0
	for i, g := range c.at {
		for ; i >= int(s.Ends[end]); end++ {
			record++
		}
		if g == none {
			continue
		}
		if int(here.records[g]) < here.min {
			c.at[i] = none
			continue
		}
		if seen[g] != record+1 {
			seen[g] = record + 1
			c.records[g]++
		}
	}
}

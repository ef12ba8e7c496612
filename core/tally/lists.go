package tally

import (
	"context"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/text"
)

// A mention is one item as a record carries it.
type mention struct {
	key     string // by which writings are one item
	written string
	central bool
}

// mentions returns the items of a facet that a record carries. Of authors, those that are parted stand by
// themselves.
func mentions(f Facet, r *bib.Record, parted Parted) []mention {
	var out []mention
	label := func(written string) {
		out = append(out, mention{key: text.Label(written), written: strings.TrimSpace(written)})
	}
	switch f {
	case Headings:
		for _, h := range r.Headings {
			out = append(out, mention{text.Label(h.Label), strings.TrimSpace(h.Label), h.Central})
		}
	case Qualifiers:
		for _, h := range r.Headings {
			for _, q := range h.Qualifiers {
				label(q)
			}
		}
	case Keywords:
		for _, k := range r.Keywords {
			out = append(out, mention{key: text.Key(k), written: strings.TrimSpace(k)})
		}
	case Journals:
		out = append(out, mention{key: JournalKey(r.Journal), written: strings.TrimSpace(r.Journal)})
	case Authors:
		for _, a := range r.Authors {
			out = append(out, mention{key: parted.AuthorKey(a), written: a.String()})
		}
	case Years:
		if r.Year != 0 {
			label(strconv.Itoa(r.Year))
		}
	case Types:
		each(r.Types, label)
	case Languages:
		each(r.Languages, label)
	case Countries:
		each(r.Countries, label)
	case Substances:
		each(r.Substances, label)
	}
	return out
}

// Held returns the items of a facet that a record holds by itself, by what writings of one share; of ages and
// humans, that a vocabulary tells, none.
func Held(f Facet, r *bib.Record) map[string]bool {
	out := map[string]bool{}
	if f == Words {
		for gram := range grammed(r, DefaultWords) {
			out[gram] = true
		}
		return out
	}
	for _, m := range mentions(f, r, nil) {
		if m.key != "" {
			out[m.key] = true
		}
	}
	return out
}

// Having returns the records of the pool that carry an item of a facet that is a list, by the key by
// which its writings are one. Where the index holds the list it is asked.
func (p *Pool) Having(f Facet, key string) *roaring.Bitmap {
	switch f {
	case Headings:
		return p.Index.Keyed(key)
	case Types:
		return p.Index.Listed(index.Types, key)
	case Languages:
		return p.Index.Listed(index.Languages, key)
	case Countries:
		return p.Index.Listed(index.Countries, key)
	case Years:
		if year, err := strconv.Atoi(key); err == nil {
			return p.Index.Years(year, year)
		}
		return roaring.New()
	}
	return p.listed(f).having(key)
}

func each(values []string, visit func(string)) {
	for _, v := range values {
		visit(v)
	}
}

// JournalKey returns what writings of one journal share: its words, less a leading article where
// something follows.
func JournalKey(journal string) string {
	key := text.Key(journal)
	for _, article := range []string{"the ", "an ", "a "} {
		if rest, ok := strings.CutPrefix(key, article); ok {
			return rest
		}
	}
	return key
}

// CountList counts a facet whose items records carry as lists. keys may be nil.
func CountList(ctx context.Context, p *Pool, f Facet, keys []*bib.Record) (*Tally, error) {
	t := &Tally{Facet: f, Sample: int(p.Sample.GetCardinality()), Contrast: int(p.Contrast.GetCardinality()),
		HasKeys: keys != nil, KeyStudies: len(keys), HasCentral: f == Headings, HasNarrower: f == Headings &&
			p.Thesaurus != nil}
	inKeys, mentions := map[string]int{}, p.mentioned(f)
	for _, k := range keys {
		seen := map[string]bool{"": true}
		for _, m := range mentions(k) {
			if !seen[m.key] {
				seen[m.key] = true
				inKeys[m.key]++
			}
		}
		if len(seen) == 1 {
			t.MissingKeys++
		}
	}
	l, sides := p.listed(f), p.sides()
	for n, r := range p.Records {
		if !r.Indexed() {
			sides[n] |= unindexed
		}
	}
	t.Missing = l.missing(p.Sample)
	for i := range l.items {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		r, ok := l.items[i].row(sides)
		if !ok {
			continue
		}
		key := l.items[i].key
		r.Keys = inKeys[key]
		if t.HasNarrower {
			r.WithNarrower = int(p.Narrower(key).AndCardinality(p.Sample))
		}
		t.Rows = append(t.Rows, r)
	}
	t.figures()
	return t, nil
}

// listed is the items of a facet that records carry as lists, with every mention of each.
type listed struct {
	items []listedItem
	byKey map[string]int
	any   *roaring.Bitmap // records with an item
}

type listedItem struct {
	key      string
	writings []string
	mentions []listedMention // in the order of the records
}

type listedMention struct {
	record  uint32
	writing int32
	central bool
}

func buildListed(records []*bib.Record, mentions func(*bib.Record) []mention) *listed {
	l := &listed{byKey: map[string]int{}, any: roaring.New()}
	for n, r := range records {
		for _, m := range mentions(r) {
			if m.key == "" {
				continue
			}
			at, ok := l.byKey[m.key]
			if !ok {
				at = len(l.items)
				l.byKey[m.key] = at
				l.items = append(l.items, listedItem{key: m.key})
			}
			i := &l.items[at]
			w := slices.Index(i.writings, m.written)
			if w < 0 {
				w = len(i.writings)
				i.writings = append(i.writings, m.written)
			}
			l.any.Add(uint32(n))
			i.mentions = append(i.mentions, listedMention{uint32(n), int32(w), m.central})
		}
	}
	return l
}

// row counts an item; ok is false where no record of the sample has it.
func (i *listedItem) row(s sides) (r Row, ok bool) {
	written := make([]int, len(i.writings)) // records that use each writing
	for from, to := 0, 0; from < len(i.mentions); from = to {
		record := i.mentions[from].record
		for to = from; to < len(i.mentions) && i.mentions[to].record == record; to++ {
		}
		switch side := s[record]; {
		case side&onSample != 0:
			r.Records++
			r.Occurrences += to - from
			if side&unindexed != 0 {
				r.Unindexed++
			}
			central := false
			for k, m := range i.mentions[from:to] {
				central = central || m.central
				if !slices.ContainsFunc(
					i.mentions[from:from+k],
					func(before listedMention) bool { return before.writing == m.writing },
				) {
					written[m.writing]++
				}
			}
			if central {
				r.Central++
			}
		case side&onContrast != 0:
			r.ContrastRecords++
		}
	}
	if r.Records == 0 {
		return r, false
	}
	forms := map[string]int{}
	for w, n := range written {
		if n > 0 {
			forms[i.writings[w]] = n
		}
	}
	r.Item = mostFrequent(forms)
	if len(forms) > 1 {
		r.Writings = forms
	}
	return r, true
}

// missing returns how many records of a set carry no item at all.
func (l *listed) missing(set *roaring.Bitmap) int {
	return int(set.GetCardinality() - l.any.AndCardinality(set))
}

// having returns the records that carry an item.
func (l *listed) having(key string) *roaring.Bitmap {
	found := roaring.New()
	if i, ok := l.byKey[key]; ok {
		for _, m := range l.items[i].mentions {
			found.Add(m.record)
		}
	}
	return found
}

// mostFrequent returns the writing in most records; of several the shortest, then the first.
func mostFrequent(writings map[string]int) string {
	best := ""
	for w, n := range writings {
		lw, lb := utf8.RuneCountInString(w), utf8.RuneCountInString(best)
		if best == "" || n > writings[best] || n == writings[best] && (lw < lb || lw == lb && w < best) {
			best = w
		}
	}
	return best
}

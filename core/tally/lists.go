package tally

import (
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

// mentions returns the items of a facet that a record carries.
func mentions(f Facet, r *bib.Record) []mention {
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
			out = append(out, mention{key: AuthorKey(a), written: a.String()})
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
	}
	return out
}

// Having returns the records of the pool that carry an item of a facet that is a list, by the key by
// which its writings are one. Where the index holds the list it is asked; the others are gone through.
func (p *Pool) Having(f Facet, key string) *roaring.Bitmap {
	switch f {
	case Headings:
		return p.Index.Heading([]string{key}, false, nil)
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
	found := roaring.New()
	for n, r := range p.Records {
		if slices.ContainsFunc(mentions(f, r), func(m mention) bool { return m.key == key }) {
			found.Add(uint32(n))
		}
	}
	return found
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

// AuthorKey returns what writings of one author share: the family name and the first initial. A name
// without an initial is one of its own.
func AuthorKey(p bib.Person) string {
	family := text.Key(p.Family)
	if family == "" {
		return ""
	}
	initial, _ := utf8.DecodeRuneInString(text.Key(p.Given))
	if initial == utf8.RuneError {
		return family + "|"
	}
	return family + "|" + string(initial)
}

// CountList counts a facet whose items records carry as lists. keys may be nil.
func CountList(p *Pool, f Facet, keys []*bib.Record) *Tally {
	t := &Tally{Facet: f, Sample: int(p.Sample.GetCardinality()), Contrast: int(p.Contrast.GetCardinality()),
		HasKeys: keys != nil, HasCentral: f == Headings}
	items := map[string]*item{}
	it := p.Sample.Iterator()
	for it.HasNext() {
		countSample(items, mentions(f, p.Records[it.Next()]))
	}
	it = p.Contrast.Iterator()
	for it.HasNext() {
		once(mentions(f, p.Records[it.Next()]), items, func(i *item) { i.ContrastRecords++ })
	}
	for _, k := range keys {
		once(mentions(f, k), items, func(i *item) { i.Keys++ })
	}
	if t.HasNarrower = f == Headings && p.Thesaurus != nil; t.HasNarrower {
		for key, i := range items {
			i.WithNarrower = int(p.Index.Heading(p.Thesaurus.BelowLabels(key), false, nil).AndCardinality(p.Sample))
		}
	}
	for _, i := range items {
		i.Item = mostFrequent(i.writings)
		t.Rows = append(t.Rows, i.Row)
	}
	t.figures()
	return t
}

type item struct {
	Row
	writings map[string]int // records that use each writing
}

func countSample(items map[string]*item, found []mention) {
	counted, central := map[string]bool{}, map[string]bool{}
	written := map[mention]bool{}
	for _, m := range found {
		if m.key == "" {
			continue
		}
		i := items[m.key]
		if i == nil {
			i = &item{writings: map[string]int{}}
			items[m.key] = i
		}
		i.Occurrences++
		if !counted[m.key] {
			counted[m.key] = true
			i.Records++
		}
		if m.central && !central[m.key] {
			central[m.key] = true
			i.Central++
		}
		if w := (mention{key: m.key, written: m.written}); !written[w] {
			written[w] = true
			i.writings[m.written]++
		}
	}
}

// once calls visit for each known item that is among the mentions, once for each.
func once(found []mention, items map[string]*item, visit func(*item)) {
	seen := map[string]bool{}
	for _, m := range found {
		if i := items[m.key]; i != nil && !seen[m.key] {
			seen[m.key] = true
			visit(i)
		}
	}
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

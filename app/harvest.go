package app

import (
	"context"
	"strings"
	"unicode/utf8"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/tally"
	"tamiz/core/text"
)

// A Tally is what the sample is made of, set against its contrast.
type Tally struct {
	Facet        tally.Facet `json:"facet"`
	Sample       SampleHead  `json:"sample"`
	Contrast     int         `json:"contrast"`     // its records; 0 is none
	ContrastName string      `json:"contrastName"` // empty where it is all other records of the review
	HasKeys      bool        `json:"hasKeys"`
	HasCentral   bool        `json:"hasCentral"`
	LeftOutBelow int         `json:"leftOutBelow"`
	Rows         []TallyRow  `json:"rows"`
}

// A TallyRow is one item; Key is by what it is decided on, where that is not the item as written.
type TallyRow struct {
	Item            string   `json:"item"`
	Key             string   `json:"key,omitempty"`
	Records         int      `json:"records"`
	Occurrences     int      `json:"occurrences"`
	Share           float64  `json:"share"`
	ContrastRecords *int     `json:"contrastRecords,omitempty"`
	ContrastShare   *float64 `json:"contrastShare,omitempty"`
	Lift            *float64 `json:"lift,omitempty"`
	Pull            *float64 `json:"pull,omitempty"`
	Keys            *int     `json:"keys,omitempty"`
	Central         *int     `json:"central,omitempty"`
}

var errNoSample = &Problem{Type: "no-sample", Status: 409, Title: "There is no sample to look at yet. Bring in a file of records first."}

// itemKey returns by what an item of a facet is decided on.
func itemKey(f tally.Facet, item string) string {
	switch f {
	case tally.Headings:
		return text.Label(item)
	case tally.Keywords:
		return text.Key(item)
	}
	return item
}

// Tally counts a facet of what is looked at.
func (a *App) Tally(ctx context.Context, review int64, f tally.Facet) (*Tally, error) {
	d, err := a.desk(ctx, review, nil)
	if err != nil {
		return nil, err
	}
	if d.pool == nil {
		return nil, errNoSample
	}
	t := d.pool.tally(f, d.keys)
	out := &Tally{Facet: f, Sample: *d.sample, Contrast: t.Contrast, ContrastName: d.contrast,
		HasKeys: t.HasKeys, HasCentral: t.HasCentral, LeftOutBelow: t.LeftOutBelow, Rows: make([]TallyRow, len(t.Rows))}
	for i := range t.Rows {
		r := &t.Rows[i]
		row := TallyRow{Item: r.Item, Records: r.Records, Occurrences: r.Occurrences, Share: tally.Round(r.Share)}
		if key := itemKey(f, r.Item); key != r.Item {
			row.Key = key
		}
		if t.Contrast > 0 {
			share, lift, pull := tally.Round(r.ContrastShare), tally.Round(r.Lift), tally.Round(r.Pull)
			row.ContrastRecords, row.ContrastShare, row.Lift, row.Pull = &r.ContrastRecords, &share, &lift, &pull
		}
		if t.HasKeys {
			row.Keys = &r.Keys
		}
		if t.HasCentral {
			row.Central = &r.Central
		}
		out.Rows[i] = row
	}
	return out, nil
}

// An Item is one item of a tally: how often it is here and elsewhere, and in which words it stands.
type Item struct {
	Facet     tally.Facet   `json:"facet"`
	Item      string        `json:"item"`
	Records   int           `json:"records"`
	Elsewhere *int          `json:"elsewhere,omitempty"`
	Context   []ContextLine `json:"context"`
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
)

// Item looks at one item of a tally.
func (a *App) Item(ctx context.Context, review int64, f tally.Facet, item string) (*Item, error) {
	d, err := a.desk(ctx, review, nil)
	if err != nil {
		return nil, err
	}
	if d.pool == nil {
		return nil, errNoSample
	}
	found := d.pool.having(f, item)
	out := &Item{Facet: f, Item: item, Records: int(found.AndCardinality(d.pool.Sample)), Context: []ContextLine{}}
	if d.pool.Contrast.GetCardinality() > 0 {
		n := int(found.AndCardinality(d.pool.Contrast))
		out.Elsewhere = &n
	}
	pattern, ok := literal(item)
	if !ok || f == tally.Headings {
		return out, nil
	}
	for i, k := range d.keys.studies {
		out.add(k.StoredRecord.ID, true, d.keys.set.Records[i], pattern)
	}
	it := roaring.And(found, d.pool.Sample).Iterator()
	for it.HasNext() && len(out.Context) < contextLines {
		n := it.Next()
		if id := d.pool.ids[n]; !d.keys.has(id) {
			out.add(id, false, d.pool.Records[n], pattern)
		}
	}
	return out, nil
}

// literal returns the pattern of an item of a tally, in which * and ? mean nothing.
func literal(item string) (text.Pattern, bool) {
	tokens := text.Tokens(item)
	return text.Literal(tokens...), len(tokens) > 0
}

// having returns the records of the pool that have an item.
func (p *pool) having(f tally.Facet, item string) *roaring.Bitmap {
	switch f {
	case tally.Headings:
		return p.Index.Heading([]string{text.Label(item)}, false, nil)
	case tally.Keywords:
		found, key := roaring.New(), text.Key(item)
		for i, r := range p.Records {
			for _, k := range r.Keywords {
				if text.Key(k) == key {
					found.Add(uint32(i))
				}
			}
		}
		return found
	}
	if pattern, ok := literal(item); ok {
		return p.Index.Phrase(pattern, tally.DefaultWords.Fields)
	}
	return roaring.New()
}

func (i *Item) add(id int64, key bool, r *bib.Record, p text.Pattern) {
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
		for _, at := range p.Find(tokens) {
			if lines++; lines > contextOfEach {
				return
			}
			start, end := spans[at].Start, spans[at+len(p)-1].End
			i.Context = append(i.Context, ContextLine{Record: id, Key: key,
				Before: lastRunes(value[:start], contextWidth), Match: value[start:end], After: firstRunes(value[end:], contextWidth)})
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

// words returns the tokens of a label for looking up by beginnings.
func beginsLike(label string, typed []string) bool {
	tokens := text.Tokens(label)
	for _, t := range typed {
		found := false
		for _, l := range tokens {
			found = found || strings.HasPrefix(l, t)
		}
		if !found {
			return false
		}
	}
	return len(typed) > 0
}

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
	HasNarrower  bool        `json:"hasNarrower"`
	Unindexed    []Unindexed `json:"unindexed,omitempty"` // of headings: by year, how many records have none
	// Of headings: the part of all records that has none.
	UnindexedShare *float64   `json:"unindexedShare,omitempty"`
	LeftOutBelow   int        `json:"leftOutBelow"`
	Rows           []TallyRow `json:"rows"`
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
	WithNarrower    *int     `json:"withNarrower,omitempty"`
	Forms           []Form   `json:"forms,omitempty"`   // of a family with several, the most frequent first
	Absorbs         []string `json:"absorbs,omitempty"` // items that never stand without it
}

// A Form is one of the variants of a word or phrase.
type Form struct {
	Item    string `json:"item"`
	Records int    `json:"records"`
}

// An Unindexed is how many records of a year carry no heading; year 0 is none.
type Unindexed struct {
	Year      int `json:"year"`
	Records   int `json:"records"`
	Unindexed int `json:"unindexed"`
}

var errNoSample = &Problem{Type: "no-sample", Status: 409, Title: "There is no sample to look at yet. Bring in a file of records first."}

// itemKey returns by what an item of a facet is decided on.
func itemKey(f tally.Facet, item string) string {
	switch f {
	case tally.Headings:
		return text.Label(item)
	case tally.Keywords:
		return text.Key(item)
	case tally.Authors:
		return tally.AuthorKey(bib.ParsePerson(item))
	case tally.Journals:
		return tally.JournalKey(item)
	case tally.Words:
		return item
	}
	return text.Label(item)
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
		HasKeys: t.HasKeys, HasCentral: t.HasCentral, HasNarrower: t.HasNarrower, LeftOutBelow: t.LeftOutBelow}
	rows := t.Rows
	if f == tally.Words {
		rows = make([]tally.Row, len(t.families))
		for i := range t.families {
			rows[i] = t.families[i].Row
		}
	}
	if f == tally.Headings {
		records, years := d.pool.Unindexed()
		share := tally.Round(float64(records) / float64(t.Sample))
		out.UnindexedShare = &share
		for _, y := range years {
			out.Unindexed = append(out.Unindexed, Unindexed(y))
		}
	}
	out.Rows = make([]TallyRow, len(rows))
	for i := range rows {
		r := &rows[i]
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
		if t.HasNarrower {
			row.WithNarrower = &r.WithNarrower
		}
		if f == tally.Words {
			family := t.families[i]
			if row.Absorbs = family.Absorbs; len(family.Forms) > 1 {
				for _, form := range family.Forms {
					row.Forms = append(row.Forms, Form{form.Item, form.Records})
				}
			}
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
	Stems     []Stem        `json:"stems"` // of words: how its forms are best searched truncated
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
	outsideWords  = 12
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
	forms := d.pool.forms(f, item, d.keys)
	found := d.pool.having(f, item, forms)
	out := &Item{Facet: f, Item: item, Records: int(found.AndCardinality(d.pool.Sample)), Context: []ContextLine{}, Stems: []Stem{}}
	if d.pool.Contrast.GetCardinality() > 0 {
		n := int(found.AndCardinality(d.pool.Contrast))
		out.Elsewhere = &n
	}
	if f != tally.Words && f != tally.Keywords {
		return out, nil
	}
	if f == tally.Words {
		for _, s := range tally.Truncations(d.pool.Index, d.pool.Sample, bib.Text, forms) {
			stem := Stem{s.Term, s.Forms, s.Reach, s.Drag, []Outside{}, s.Warn}
			for _, o := range s.Outside[:min(len(s.Outside), outsideWords)] {
				stem.Outside = append(stem.Outside, Outside(o))
			}
			out.Stems = append(out.Stems, stem)
		}
	}
	var patterns []text.Pattern
	for _, form := range forms {
		if p, ok := literal(form); ok {
			patterns = append(patterns, p)
		}
	}
	for i, k := range d.keys.studies {
		if !d.keys.inTest(i) {
			out.add(k.StoredRecord.ID, true, d.keys.set.Records[i], patterns)
		}
	}
	it := roaring.And(found, d.pool.Sample).Iterator()
	for it.HasNext() && len(out.Context) < contextLines {
		n := it.Next()
		if id := d.pool.ids[n]; !d.keys.has(id) {
			out.add(id, false, d.pool.Records[n], patterns)
		}
	}
	return out, nil
}

// literal returns the pattern of an item of a tally, in which * and ? mean nothing.
func literal(item string) (text.Pattern, bool) {
	tokens := text.Tokens(item)
	return text.Literal(tokens...), len(tokens) > 0
}

// forms returns the variants of a word or phrase that the pool's sample has; of anything else, itself.
func (p *pool) forms(f tally.Facet, item string, k *keys) []string {
	if f == tally.Words {
		words := p.tally(f, k)
		if i, ok := words.byForm[item]; ok {
			var out []string
			for _, form := range words.families[i].Forms {
				out = append(out, form.Item)
			}
			return out
		}
	}
	return []string{item}
}

// having returns the records of the pool that have an item, in any of its forms.
func (p *pool) having(f tally.Facet, item string, forms []string) *roaring.Bitmap {
	if f != tally.Words {
		return p.Having(f, itemKey(f, item))
	}
	found := roaring.New()
	for _, form := range forms {
		found.Or(p.Index.Gram(text.Tokens(form), tally.DefaultWords.Fields))
	}
	return found
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

package figures

import (
	"context"
	"slices"
	"time"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/desk"
	"tamiz/core/coverage"
	"tamiz/core/set"
	"tamiz/core/strategy"
)

// A Bench is what stays in view on every screen: key studies caught, records to read, block by block.
// Figures over records are absent without a sample. Lists of key studies are in the review's order.
type Bench struct {
	Sample    *desk.SampleHead `json:"sample,omitempty"`
	CountedAt time.Time        `json:"countedAt"`
	Records   *int             `json:"records,omitempty"`
	Caught    []bool           `json:"caught"`
	// key studies that the source whose counts are shown does not hold
	NotHere []bool       `json:"notHere,omitempty"`
	Blocks  []BenchBlock `json:"blocks"`
	Limits  []BenchLimit `json:"limits"`
	// what all find together before NOT takes away; absent where nothing does
	Before *BenchFound `json:"before,omitempty"`
	Lines  []BenchLine `json:"lines"` // that are put together of others
	Recall *Recall     `json:"recall,omitempty"`
	Narrow []Narrow    `json:"narrow,omitempty"` // where nothing or very little is found: what does it
}

// A Narrow is a part that leaves nothing or very little: a block, two blocks together, or a NOT block or limit without
// which there would be more.
type Narrow struct {
	Blocks  []string `json:"blocks,omitempty"` // their ids
	Limit   string   `json:"limit,omitempty"`
	Leaves  int      `json:"leaves"`  // records that the block finds, or both together
	Without int      `json:"without"` // records without the NOT block or the limit
}

const (
	veryLittle = 5 // records of the whole
	mostNarrow = 6 // parts that are told of
)

// A BenchBlock is what one block finds.
type BenchBlock struct {
	ID      string      `json:"id"`
	Records *int        `json:"records,omitempty"`
	Caught  []bool      `json:"caught"`
	Terms   []BenchTerm `json:"terms"`

	// Over is by which records is told what only one term finds, and what each adds; absent where the block's own
	// words chose all there are, so that nothing can be told.
	Over *Over `json:"over,omitempty"`

	Groups []BenchGroup `json:"groups,omitempty"`

	HeadingsAlone *int `json:"headingsAlone,omitempty"` // records that only its heading terms find
	WordsAlone    *int `json:"wordsAlone,omitempty"`
	Both          *int `json:"both,omitempty"`
	Unindexed     *int `json:"unindexed,omitempty"` // of the words alone, those that carry no heading

	// of what the rest of the strategy finds; absent where it is the only one searched
	TakenAway *int `json:"takenAway,omitempty"`
}

// A BenchGroup is what the terms of a block that stand under one name find together, of those that are switched on.
type BenchGroup struct {
	Name     string `json:"name"`
	Terms    int    `json:"terms"`
	Records  *int   `json:"records,omitempty"`
	OnlyHere *int   `json:"onlyHere,omitempty"` // records that no term outside the group finds
	Keys     int    `json:"keys"`
}

// groups tells what the groups of a block find, over the sample, and what only they find, among the records that
// the block's own words did not choose; each only where these are there.
func groups(b desk.Block, inKeys, inSample, inFree []*roaring.Bitmap) (out []BenchGroup) {
	for _, t := range b.Terms {
		if t.Group == "" || slices.ContainsFunc(out, func(g BenchGroup) bool { return g.Name == t.Group }) {
			continue
		}
		g := BenchGroup{Name: t.Group}
		together := func(of []*roaring.Bitmap) (in, outside *roaring.Bitmap) {
			in, outside = roaring.New(), roaring.New()
			for j, other := range b.Terms {
				switch {
				case of[j] == nil:
				case other.Group == t.Group:
					in.Or(of[j])
				default:
					outside.Or(of[j])
				}
			}
			return in, outside
		}
		for _, other := range b.Terms {
			if other.Group == t.Group {
				g.Terms++
			}
		}
		caught, _ := together(inKeys)
		g.Keys = int(caught.GetCardinality())
		if inSample != nil {
			in, _ := together(inSample)
			g.Records = number(in)
		}
		if inFree != nil {
			in, outside := together(inFree)
			g.OnlyHere = number(roaring.AndNot(in, outside))
		}
		out = append(out, g)
	}
	return out
}

// A BenchTerm is what one term finds, switched on or not.
type BenchTerm struct {
	ID      string `json:"id"`
	Text    string `json:"text"`
	Records *int   `json:"records,omitempty"`
	Keys    int    `json:"keys"`
	Sole    int    `json:"sole"` // key studies that no other term of the block catches

	Only *int `json:"only,omitempty"` // records that it finds among those by which is told what only it finds

	// Of terms that are switched on, among these:
	OnlyHere    *int     `json:"onlyHere,omitempty"`    // records that no other term of the block finds
	Total       *int     `json:"total,omitempty"`       // records that the terms up to this one find
	Step        *int     `json:"step,omitempty"`        // of them, those that this one adds
	AddsNothing bool     `json:"addsNothing,omitempty"` // the block is the same without it
	Inside      []string `json:"inside,omitempty"`      // terms of the block that find all this one finds, in text form

	Narrower *int `json:"narrower,omitempty"` // of a heading term with narrower: how many headings stand below
	Unknown  bool `json:"unknown,omitempty"`  // a heading that the vocabulary does not have
}

// A BenchFound is what a line finds.
type BenchFound struct {
	Records *int `json:"records,omitempty"`
	Keys    int  `json:"keys"`
}

// A BenchLimit is what a limit asks for, and what it takes away.
type BenchLimit struct {
	Kind      string `json:"kind"`
	Records   *int   `json:"records,omitempty"` // that it lets through or, where it keeps out, does not
	Keys      int    `json:"keys"`              // the same of key studies
	TakenAway *int   `json:"takenAway,omitempty"`
	Dropped   int    `json:"dropped"` // key studies outside it
}

// A BenchLine is what a line finds that is put together of others.
type BenchLine struct {
	ID      string `json:"id"`
	Records *int   `json:"records,omitempty"`
	Keys    *int   `json:"keys,omitempty"` // absent where a line of it is switched off or not there any more
}

// caught counts the key studies of a set that are where counts are shown.
func caught(d *desk.Desk, found *roaring.Bitmap) int {
	if d.Keys.Absent != nil {
		found = roaring.AndNot(found, d.Keys.Absent)
	}
	return int(found.GetCardinality())
}

func lines(d *desk.Desk, inKeys, inSample *coverage.Reach) []BenchLine {
	out := []BenchLine{}
	for _, l := range d.Document.Lines {
		row := BenchLine{ID: l.ID}
		if found := set.LineRecords(d.Document, inKeys, l.Of); found != nil {
			n := caught(d, found)
			row.Keys = &n
		}
		if inSample != nil {
			if found := set.LineRecords(d.Document, inSample, l.Of); found != nil {
				row.Records = number(found)
			}
		}
		out = append(out, row)
	}
	return out
}

// Marked returns how many key studies are marked.
func Marked(marks []bool) (n int) {
	for _, m := range marks {
		if m {
			n++
		}
	}
	return n
}

// A Recall is the share of key studies caught, with its 95 % interval.
type Recall struct {
	Caught int     `json:"caught"`
	Of     int     `json:"of"`
	Share  float64 `json:"share"`
	Low    float64 `json:"low"`
	High   float64 `json:"high"`
}

func recall(caught, of int) *Recall {
	if of == 0 {
		return nil
	}
	low, high := coverage.Wilson(caught, of)
	return &Recall{caught, of, float64(caught) / float64(of), low, high}
}

// Bench works out what the blocks find and which key studies they catch.
func (a *Service) Bench(ctx context.Context, at desk.At, p desk.Proposal) (*Bench, error) {
	if err := a.desk.Quick.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.DeskWith(ctx, at, p)
	if err != nil {
		return nil, err
	}
	w := &benching{Desk: d, studies: len(d.Keys.Studies)}
	if w.inKeys, err = coverage.Find(ctx, d.Keys.Set, d.Strategy); err != nil {
		return nil, err
	}
	if d.Pool != nil {
		if w.inSample, err = coverage.Find(ctx, d.Pool.Set(), d.Strategy); err != nil {
			return nil, err
		}
	}
	if d.Keys.Absent != nil {
		setAside(w.inKeys, d.Keys.Absent)
	}
	b := w.whole(a.now())
	for i := range d.Document.Blocks {
		row, err := w.block(ctx, i)
		if err != nil {
			return nil, err
		}
		b.Blocks = append(b.Blocks, row)
	}
	for i := range d.Document.Limits {
		b.Limits = append(b.Limits, w.limit(i))
	}
	b.Lines = lines(d, w.inKeys, w.inSample)
	return b, nil
}

// A benching is a bench that is being worked out: what the strategy finds among key studies and, where one is
// looked at, in the sample.
type benching struct {
	*desk.Desk
	studies          int
	inKeys, inSample *coverage.Reach
}

// whole tells of the strategy as a whole.
func (w *benching) whole(now time.Time) *Bench {
	b := &Bench{
		Sample:    w.Sample,
		CountedAt: now,
		Caught:    marks(w.inKeys.Whole, w.studies),
		Blocks:    []BenchBlock{},
		Limits:    []BenchLimit{},
		Recall:    recall(int(w.inKeys.Whole.GetCardinality()), w.Keys.Held()),
	}
	if w.Keys.Absent != nil {
		b.NotHere = marks(w.Keys.Absent, w.studies)
	}
	if w.inSample != nil {
		b.Records = number(w.inSample.Whole)
		b.Narrow = narrow(w.Desk, w.inSample)
	}
	if w.Strategy.TakesAway() {
		b.Before = &BenchFound{Keys: caught(w.Desk, w.inKeys.BeforeNot())}
		if w.inSample != nil {
			b.Before.Records = number(w.inSample.BeforeNot())
		}
	}
	return b
}

// measured is what a block does: among what is looked at, and among records that it did not choose, where there are
// some.
type measured struct {
	is, told coverage.BlockMeasure
	inFree   *coverage.Reach
}

func (w *benching) block(ctx context.Context, i int) (BenchBlock, error) {
	block := w.Document.Blocks[i]
	row := BenchBlock{ID: block.ID, Caught: marks(w.inKeys.Blocks[i], w.studies), Terms: []BenchTerm{}}
	m, err := w.measure(ctx, i, &row)
	if err != nil {
		return row, err
	}
	for j := range block.Terms {
		term, err := w.term(i, j, m)
		if err != nil {
			return row, err
		}
		row.Terms = append(row.Terms, term)
	}
	var hits, alone []*roaring.Bitmap
	if w.inSample != nil {
		hits = w.inSample.Terms[i]
	}
	if m.inFree != nil {
		alone = m.inFree.Terms[i]
	}
	row.Groups = groups(block, w.inKeys.Terms[i], hits, alone)
	return row, nil
}

// measure works out what a block does, and puts what is told of it as a whole into its row.
func (w *benching) measure(ctx context.Context, i int, row *BenchBlock) (m measured, err error) {
	if w.inSample == nil {
		m.is, err = coverage.Measure(ctx, w.inKeys, w.inKeys, i)
		return m, err
	}
	if m.is, err = coverage.Measure(ctx, w.inSample, w.inKeys, i); err != nil {
		return m, err
	}
	row.Records = &m.is.Hits
	row.HeadingsAlone, row.WordsAlone = &m.is.HeadingsAlone, &m.is.WordsAlone
	row.Both, row.Unindexed = &m.is.Both, &m.is.Unindexed
	block := w.Document.Blocks[i]
	if n := w.inSample.TakenAwayByBlock(i); block.Searched && n >= 0 {
		row.TakenAway = &n
	}
	free := w.Free(block.ID)
	if free == nil {
		return m, nil
	}
	row.Over = &free.Over
	if m.inFree, err = coverage.Find(ctx, free.Set, w.Strategy); err != nil {
		return m, err
	}
	m.told, err = coverage.Measure(ctx, m.inFree, w.inKeys, i)
	return m, err
}

// term tells of a term of a block: what it finds and, by records that the block did not choose, what only it brings.
func (w *benching) term(i, j int, m measured) (out BenchTerm, err error) {
	block := w.Document.Blocks[i]
	t := block.Terms[j]
	out = BenchTerm{ID: t.ID, Text: t.String()}
	placed(w.Desk, &out, t.Term)
	if is := m.is.Terms[j]; is != nil {
		out.Sole = is.SoleCatch
		if m.inFree != nil {
			told := m.told.Terms[j]
			out.Only, out.OnlyHere, out.Total, out.Step = &told.Hits, &told.OnlyHere, &told.Total, &told.Step
			out.AddsNothing = told.AddsNothing
			for _, k := range told.Inside {
				out.Inside = append(out.Inside, block.Terms[k].String())
			}
		}
	}
	found := w.inKeys.Terms[i][j]
	if found == nil {
		if found, err = hitKeys(w.Desk, t.Term); err != nil {
			return out, err
		}
	}
	out.Keys = int(found.GetCardinality())
	if w.inSample == nil {
		return out, nil
	}
	hits := w.inSample.Terms[i][j]
	if hits == nil {
		if hits, err = coverage.Hits(w.Pool.Set(), t.Term); err != nil {
			return out, err
		}
	}
	out.Records = number(hits)
	return out, nil
}

func (w *benching) limit(i int) BenchLimit {
	row := BenchLimit{
		Kind:    w.Document.Limits[i].Kind,
		Keys:    caught(w.Desk, w.inKeys.LimitFinds(i)),
		Dropped: w.Keys.Held() - int(w.inKeys.Limits[i].GetCardinality()),
	}
	if w.inSample != nil {
		row.Records = number(w.inSample.LimitFinds(i))
		n := w.inSample.TakenAwayByLimit(i)
		row.TakenAway = &n
	}
	return row
}

// narrow tells what leaves nothing or very little of what could be found.
func narrow(d *desk.Desk, reach *coverage.Reach) (out []Narrow) {
	found := reach.Narrowest(veryLittle)
	for _, n := range found[:min(len(found), mostNarrow)] {
		row := Narrow{Leaves: n.Leaves, Without: n.Without}
		for _, b := range []int{n.Block, n.With} {
			if b >= 0 {
				row.Blocks = append(row.Blocks, d.Document.Blocks[b].ID)
			}
		}
		if n.Limit >= 0 {
			row.Limit = d.Document.Limits[n.Limit].Kind
		}
		out = append(out, row)
	}
	return out
}

// hitKeys returns the key studies that a term catches, less those that are not where counts are shown.
func hitKeys(d *desk.Desk, t strategy.Term) (*roaring.Bitmap, error) {
	found, err := coverage.Hits(d.Keys.Set, t)
	if err == nil && d.Keys.Absent != nil {
		found = roaring.AndNot(found, d.Keys.Absent)
	}
	return found, err
}

// setAside takes some records out of all that was found.
func setAside(r *coverage.Reach, absent *roaring.Bitmap) {
	r.Whole.AndNot(absent)
	for _, sets := range [][]*roaring.Bitmap{r.Blocks, r.Limits} {
		for _, set := range sets {
			set.AndNot(absent)
		}
	}
	for _, block := range r.Terms {
		for _, set := range block {
			if set != nil {
				set.AndNot(absent)
			}
		}
	}
}

// placed tells of a heading term where it stands in the vocabulary.
func placed(d *desk.Desk, out *BenchTerm, t strategy.Term) {
	v := d.Keys.Set.Thesaurus
	if t.Kind != strategy.HeadingTerm || v == nil {
		return
	}
	i, ok := v.Find(t.Heading)
	if out.Unknown = !ok; ok && t.Narrower {
		n := len(v.Below(i)) - 1
		out.Narrower = &n
	}
}

func marks(set *roaring.Bitmap, n int) []bool {
	out := make([]bool, n)
	for i := range out {
		out[i] = set.Contains(uint32(i))
	}
	return out
}

func number(set *roaring.Bitmap) *int {
	n := int(set.GetCardinality())
	return &n
}

package heading

import (
	"context"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Whole is all that is known of one heading.
type Whole struct {
	Label       string           `json:"heading"`
	Labels      []thesaurus.Text `json:"labels"` // in other languages
	ScopeNote   string           `json:"scopeNote,omitempty"`
	Named       []string         `json:"named"` // headings that its notes name
	HistoryNote string           `json:"historyNote,omitempty"`
	Notation    string           `json:"notation,omitempty"`
	Since       int              `json:"since,omitempty"` // the year it came in
	Before      []Older          `json:"before"`          // what was used before
	Now         []string         `json:"now"`             // of one that is used no more: what is
	Retired     bool             `json:"retired,omitempty"`
	Places      [][]string       `json:"places"` // every path from a top heading down to it
	Nodes       []Node           `json:"nodes"`  // the headings on these paths, and those right below it
	Children    []string         `json:"children"`
	Related     []Node           `json:"related"`
	Beside      []Node           `json:"beside"`   // that stand below the same
	Together    []Together       `json:"together"` // that records carry with it far more than by chance
	Words       []Word           `json:"entryTerms"`
	Price       Price            `json:"price"` // as a term with all below it
	Alone       Count            `json:"alone"`
	// qualifiers that may be put behind it; nil where the vocabulary does not say
	Allows    *[]string `json:"allows,omitempty"`
	Exact     []string  `json:"exactMatch"`
	Close     []string  `json:"closeMatch"`
	Unindexed int       `json:"unindexed"` // records that carry no heading at all
	Records   int       `json:"records"`   // that it is looked at over
}

// A Together is a heading that stands together with another.
type Together struct {
	Label   string  `json:"heading"`
	Records int     `json:"records"`
	Pull    float64 `json:"pull"`
}

// How much of what stands around a heading is told.
const (
	mostPlaces   = 12
	mostBeside   = 24
	mostTogether = 8
	MostNodes    = 400 // headings right below one
)

// Whole looks at one heading of the vocabulary; block is the one it may be taken into, which may be without terms.
func (l Look) Whole(ctx context.Context, heading int, block strategy.Block) (*Whole, error) {
	v := l.Set.Thesaurus
	h, history := v.At(heading), v.History(heading)
	out := &Whole{
		Label:       h.Label,
		Labels:      append([]thesaurus.Text{}, h.OtherLabels...),
		ScopeNote:   h.ScopeNote,
		HistoryNote: h.HistoryNote,
		Notation:    h.Notation,
		Since:       history.Since,
		Retired:     h.Retired,
		Now:         []string{},
		Children:    []string{},
		Named:       append([]string{}, v.Named(h.ScopeNote+" · "+h.HistoryNote)...),
		Exact:       append([]string{}, h.Exact...),
		Close:       append([]string{}, h.Close...),
		Together:    []Together{},
	}
	out.Named = slices.DeleteFunc(out.Named, func(label string) bool { return label == h.Label })
	for _, n := range history.After {
		out.Now = append(out.Now, v.Label(n))
	}
	if allowed, said := v.Allows(heading); said {
		allowed = append([]string{}, allowed...)
		out.Allows = &allowed
	}
	out.Places = v.Places(heading)
	out.Places = out.Places[:min(len(out.Places), mostPlaces)]
	var shown []int
	for _, path := range out.Places {
		for _, label := range path {
			if at, ok := v.Find(label); ok && !slices.Contains(shown, at) {
				shown = append(shown, at)
			}
		}
	}
	if !slices.Contains(shown, heading) {
		shown = append(shown, heading)
	}
	children := v.Narrower(heading)
	for _, c := range children[:min(len(children), MostNodes)] {
		out.Children = append(out.Children, v.Label(c))
		if !slices.Contains(shown, c) {
			shown = append(shown, c)
		}
	}
	var beside []int
	for _, b := range h.Broader {
		for _, n := range v.Narrower(b) {
			if n != heading && !slices.Contains(beside, n) && len(beside) < mostBeside {
				beside = append(beside, n)
			}
		}
	}
	slices.Sort(beside)
	var err error
	for _, part := range []struct {
		to *[]Node
		of []int
	}{{&out.Nodes, shown}, {&out.Related, h.Related}, {&out.Beside, beside}} {
		if *part.to, err = l.Nodes(ctx, part.of); err != nil {
			return nil, err
		}
	}
	if out.Words, err = l.Words(heading, block); err != nil {
		return nil, err
	}
	if out.Before, err = l.Older(heading, block); err != nil {
		return nil, err
	}
	if out.Alone, err = l.Count(Of(h.Label, false)); err != nil {
		return nil, err
	}
	if out.Price, err = l.Price(Of(h.Label, true), v.Qualifiers); err != nil {
		return nil, err
	}
	if l.Set.Index == nil {
		return out, nil
	}
	return out, l.around(ctx, out, h.Label)
}

// around tells which headings stand together with one, and how many records carry none.
func (l Look) around(ctx context.Context, out *Whole, label string) error {
	all := l.Set.All()
	out.Records = int(all.GetCardinality())
	out.Unindexed = int(all.AndCardinality(l.Set.Index.Unindexed()))
	in := roaring.And(l.Set.Index.Labelled(label), all)
	if in.IsEmpty() {
		return nil
	}
	pool := l.Pool
	if pool == nil {
		pool = &tally.Pool{Records: l.Set.Records, Index: l.Set.Index, Thesaurus: l.Set.Thesaurus}
	}
	counted, err := tally.CountList(ctx, pool.Over(in, all), tally.Headings, nil)
	if err != nil {
		return err
	}
	for _, r := range counted.Rows {
		if len(out.Together) == mostTogether || tally.Round(r.Pull) <= 0 {
			break
		}
		if r.Records > 0 && text.Label(r.Item) != text.Label(label) {
			out.Together = append(out.Together, Together{r.Item, r.Records, tally.Round(r.Pull)})
		}
	}
	return nil
}

package figures

import (
	"context"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/desk"
	"tamiz/core/coverage"
	"tamiz/core/dialect"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// StandIns is what records of a source carry that say the words of a strategy's headings: headings of its
// vocabulary that may stand for them.
type StandIns struct {
	Sample   *desk.SampleHead  `json:"sample,omitempty"` // that was drawn from it; nothing is known without one
	Headings []HeadingStandIns `json:"headings"`
}

// HeadingStandIns is what may stand for one heading.
type HeadingStandIns struct {
	Heading string    `json:"heading"`
	Said    int       `json:"said"`    // records that say its words
	ByBlock bool      `json:"byBlock"` // its own are said by too few: those of its block were looked for as well
	Without int       `json:"without"` // of those that say them, that carry no heading
	Found   []StandIn `json:"found"`
}

// A StandIn is a heading that may stand for one, by the records that carry it.
type StandIn struct {
	Heading   string  `json:"heading"`
	Records   int     `json:"records"` // that say the words and carry it
	All       int     `json:"all"`     // that carry it
	Pull      float64 `json:"pull"`
	ScopeNote string  `json:"scopeNote,omitempty"`
}

const (
	fewSaying     = 5   // records that say the words of a heading: with fewer, its block's are looked for as well
	mostCarriedOf = 500 // headings of a strategy that are looked for at once
)

// StandInsOf tells for the headings of a strategy which headings of a dialect's vocabulary may stand for them, by
// records that were drawn from a source of it.
func (a *Service) StandInsOf(ctx context.Context, at desk.At, d *dialect.Dialect) (*StandIns, error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, err
	}
	lay, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	out := &StandIns{Headings: []HeadingStandIns{}}
	by, err := a.otherVocabulary(ctx, lay, d)
	if err != nil || by == nil || by.Terms == nil {
		return out, err
	}
	drawn, err := a.desk.DrawnBy(ctx, at.Review, d.Vocabulary, by.ID)
	if err != nil || drawn == nil {
		return out, err
	}
	out.Sample = &drawn.Sample
	says := func(written string, into *roaring.Bitmap) {
		t := strategy.Term{Kind: strategy.TextTerm, Text: strings.Join(text.Tokens(written), " "), Field: "text", On: true}
		if q, err := t.QueryIn(nil); err == nil { // what cannot be searched as words is said by no record
			into.Or(q.Match(drawn.Pool.Index))
		}
	}
	for _, of := range carriedOf(lay.Strategy) {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		row := HeadingStandIns{Heading: of.heading, Found: []StandIn{}}
		said := roaring.New()
		for _, w := range wordsOf(thesaurusOf(lay), of.heading) {
			says(w, said)
		}
		row.Said = int(said.GetCardinality())
		if row.ByBlock = row.Said < fewSaying && len(of.beside) > 0; row.ByBlock {
			for _, o := range of.beside {
				if o.Kind == strategy.HeadingTerm || !o.On {
					continue
				}
				if q, err := o.QueryIn(nil); err == nil {
					said.Or(q.Match(drawn.Pool.Index))
				}
			}
		}
		found, without, err := coverage.HeadingsOfRecords(ctx, drawn.Pool, said)
		if err != nil {
			return nil, err
		}
		row.Without = without
		for _, e := range coverage.StandIns(found) {
			h, there := by.Terms.Find(e.Heading)
			if !there || len(row.Found) == mostCandidates {
				continue
			}
			row.Found = append(row.Found, StandIn{by.Terms.Label(h), e.Records, e.All, e.Pull, by.Terms.ScopeNote(h)})
		}
		out.Headings = append(out.Headings, row)
	}
	return out, nil
}

// A carriedHeading is a heading of a strategy, and the terms of its block; none where a limit goes by it.
type carriedHeading struct {
	heading string
	beside  []strategy.Term
}

// carriedOf returns the headings of a strategy, each once, as many as are looked for.
func carriedOf(s strategy.Strategy) (out []carriedHeading) {
	seen := map[string]bool{}
	put := func(heading string, beside []strategy.Term) {
		if key := text.Label(heading); !seen[key] && len(out) < mostCarriedOf {
			seen[key] = true
			out = append(out, carriedHeading{heading, beside})
		}
	}
	for _, b := range s.Blocks {
		for _, t := range b.Terms {
			if t.Kind == strategy.HeadingTerm {
				put(t.Heading, b.Terms)
			}
		}
	}
	for _, l := range s.Limits {
		for _, h := range l.Headings() {
			put(h, nil)
		}
	}
	return out
}

// wordsOf returns the label and the entry terms of a heading; of one that is not there, its label.
func wordsOf(v *thesaurus.Thesaurus, heading string) []string {
	out := []string{heading}
	if v == nil {
		return out
	}
	if h, ok := v.Find(heading); ok {
		x := v.At(h)
		out = append(out, x.EntryTerms...)
		for _, t := range append(x.OtherLabels, x.OtherTerms...) {
			out = append(out, t.Value)
		}
	}
	return out
}

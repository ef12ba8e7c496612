package figures

import (
	"context"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/coverage"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/store"
)

// Typed is what someone types to add a term: a word, a phrase, a truncated word, "left ~3 right" or
// "[Heading]".
type Typed struct {
	Typed string `json:"typed"`
	Field string `json:"field,omitempty"`
}

// A TriedTerm is what a typed term would find, or why it is refused; and the headings it may mean.
type TriedTerm struct {
	Term     *desk.Term        `json:"term,omitempty"`
	Records  *int              `json:"records,omitempty"`
	Keys     *int              `json:"keys,omitempty"`
	Refused  *problems.Refusal `json:"refused,omitempty"`
	Headings []HeadingHit      `json:"headings"`
	Query    *TypedQuery       `json:"query,omitempty"` // where a query was typed in the place of a term
}

const maxParts = 200 // of a query that was typed in the place of a term

// A TypedQuery is a query that was typed where a term is expected: what of it can be a term by itself.
type TypedQuery struct {
	Parts  []string `json:"parts"`
	Joined bool     `json:"joined"` // some are joined by AND or NOT, and so belong to different blocks
}

// A HeadingHit is a heading that records of the sample carry.
type HeadingHit struct {
	Label   string `json:"label"`
	Records int    `json:"records"`
	Keys    int    `json:"keys"`

	// Where there is a vocabulary: what in it leads there, and how many headings stand below.
	Via       string `json:"via,omitempty"`
	Matched   string `json:"matched,omitempty"`
	Narrower  int    `json:"narrower,omitempty"`
	ScopeNote string `json:"scopeNote,omitempty"`
}

const headingHits = 6

var nearForm = regexp.MustCompile(`^(.*\S)\s*~\s*(\d{1,6})\s*(\S.*)$`)

// ReadTyped reads a term in its text form.
func ReadTyped(typed, field string) strategy.Term {
	typed = strings.TrimSpace(typed)
	if inner, ok := strings.CutPrefix(typed, "["); ok {
		inner = strings.TrimSpace(strings.TrimSuffix(inner, "]"))
		label, narrower := strings.CutSuffix(inner, "+")
		return strategy.Term{Kind: strategy.HeadingTerm, Heading: strings.TrimSpace(label), Narrower: narrower, On: true}
	}
	if m := nearForm.FindStringSubmatch(typed); m != nil {
		within, _ := strconv.Atoi(m[2])
		return strategy.Term{Kind: strategy.NearTerm, Left: m[1], Right: m[3], Within: within, Field: field, On: true}
	}
	return strategy.Term{Kind: strategy.TextTerm, Text: typed, Field: field, On: true}
}

// A BlindSpot is what all other searched blocks find and one block does not, and what may be missing there.
type BlindSpot struct {
	// by which it is told; absent where the block's own words chose all there are
	Over    *Over           `json:"over,omitempty"`
	Records int             `json:"records"`
	Words   []BlindSpotWord `json:"words"`
}

// A BlindSpotWord is a word, phrase or heading that stands in a blind spot, suits the block, and that no block
// matches yet.
type BlindSpotWord struct {
	Item    string  `json:"item"`
	Kind    string  `json:"kind"`
	Records int     `json:"records"` // in the blind spot
	Of      int     `json:"of"`      // in the sample
	Pull    float64 `json:"pull"`
	Suit    float64 `json:"suit"`
	Suits   string  `json:"suits,omitempty"` // the block that it suits best, where that is another: its id
	Under   string  `json:"under,omitempty"` // the shorter or longer form of it that stands before it
}

// How many words of a blind spot are shown: of so many, those that stand under none, with the shorter and longer
// forms of each.
const (
	blindSpotWords = 12
	blindSpotForms = 48
)

// BlindSpot works out what a block may lack. Where no other block is searched it has none.
func (a *Service) BlindSpot(ctx context.Context, at desk.At, block string) (*BlindSpot, error) {
	d, err := a.sampled(ctx, at, a.desk.Heavy)
	if err != nil {
		return nil, err
	}
	i := d.Document.Block(block)
	if i < 0 {
		return nil, problems.Gone(store.ErrNone, "block")
	}
	out := &BlindSpot{Words: []BlindSpotWord{}}
	if !slices.ContainsFunc(
		d.Document.Blocks,
		func(b desk.Block) bool { return b.ID != block && b.Searched && !b.Negated },
	) {
		return out, nil
	}
	free := d.Free(block)
	if free == nil {
		return out, nil
	}
	out.Over = &free.Over
	reach, err := coverage.Find(ctx, free.Set, d.Strategy)
	if err != nil {
		return nil, err
	}
	kept, suits, err := suitsOf(ctx, d)
	if err != nil {
		return nil, err
	}
	dropped, err := a.dropped(ctx, at)
	if err != nil {
		return nil, err
	}
	lacks, records, err := coverage.Lacks(
		ctx,
		reach,
		suits,
		kept,
		i,
		coverage.Wanted{First: blindSpotForms, Skip: dropped.has},
	)
	if err != nil {
		return nil, err
	}
	out.Records = records
	heads := map[string]bool{}
	for _, l := range lacks {
		switch {
		case l.Under != "" && !heads[l.Under], l.Under == "" && len(heads) == blindSpotWords:
			continue
		case l.Under == "":
			heads[l.Item] = true
		}
		w := BlindSpotWord{
			Item:    l.Item,
			Kind:    l.Kind,
			Records: l.Records,
			Of:      l.Of,
			Pull:    tally.Round(l.Pull),
			Suit:    tally.Round(l.Suit),
			Under:   l.Under,
		}
		if l.Best >= 0 && l.Best != i {
			w.Suits = d.Document.Blocks[l.Best].ID
		}
		out.Words = append(out.Words, w)
	}
	return out, nil
}

// lookUp adds the headings that a word leads to in the vocabulary, with what they find by themselves.
func lookUp(d *desk.Desk, out *TriedTerm, word string) error {
	v := d.Keys.Set.Thesaurus
	leads := v.LookUp(word)
	for _, l := range leads[:min(len(leads), headingHits)] {
		label := v.Label(l.Heading)
		hit := HeadingHit{
			Label:     label,
			Via:       string(l.Via),
			Matched:   l.Matched,
			Narrower:  len(v.Below(l.Heading)) - 1,
			ScopeNote: v.ScopeNote(l.Heading),
		}
		term := strategy.Term{Kind: strategy.HeadingTerm, Heading: label, On: true}
		found, err := hitKeys(d, term)
		if err != nil {
			return err
		}
		hit.Keys = int(found.GetCardinality())
		if d.Pool != nil {
			if found, err = coverage.Hits(d.Pool.Set(), term); err != nil {
				return err
			}
			hit.Records = int(found.GetCardinality())
		}
		out.Headings = append(out.Headings, hit)
	}
	return nil
}

// TryTerm tells what a typed term would find, before it is in a block.
func (a *Service) TryTerm(ctx context.Context, at desk.At, t Typed) (*TriedTerm, error) {
	if err := a.desk.Quick.Take(ctx); err != nil {
		return nil, err
	}
	if t.Field == "" {
		t.Field = "text"
	}
	out := &TriedTerm{Headings: []HeadingHit{}}
	if parts, joined, ok := query.Parts(t.Typed); ok {
		if parts == nil {
			parts = []string{}
		}
		out.Query = &TypedQuery{parts[:min(len(parts), maxParts)], joined}
		out.Refused = &problems.Refusal{
			Reason:  "query",
			Message: "This is a query, not one term: a block holds terms, which are alternatives.",
		}
		return out, nil
	}
	term := ReadTyped(t.Typed, t.Field)
	if _, err := term.Query(); err != nil {
		out.Refused = problems.RefusalOf(err)
	}
	if utf8.RuneCountInString(t.Typed) > text.MaxTerm {
		return out, nil
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	if out.Refused == nil {
		out.Term = &desk.Term{Term: term}
		found, err := hitKeys(d, term)
		if err != nil {
			return nil, err
		}
		out.Keys = number(found)
		if d.Pool != nil {
			if found, err = coverage.Hits(d.Pool.Set(), term); err != nil {
				return nil, err
			}
			out.Records = number(found)
		}
	}
	if v := d.Keys.Set.Thesaurus; v != nil && term.Kind != strategy.NearTerm {
		if err := lookUp(d, out, strings.Trim(t.Typed, "[]+* ")); err != nil {
			return nil, err
		}
	} else if d.Pool != nil && term.Kind != strategy.NearTerm {
		typed := text.Tokens(strings.Trim(t.Typed, "[]+ "))
		counted, err := d.Pool.Tally(ctx, d.Pool.Sampled(), tally.Headings, d.Keys)
		if err != nil {
			return nil, err
		}
		for _, r := range counted.Rows {
			if len(out.Headings) < headingHits && beginsLike(r.Item, typed) {
				out.Headings = append(out.Headings, HeadingHit{Label: r.Item, Records: r.Records, Keys: r.Keys})
			}
		}
	}
	return out, nil
}

package figures

import (
	"context"
	"slices"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/thesaurus"
	"tamiz/store"
)

// Remarks is what is to be said of the terms of a block, beside what they find (see Bench).
type Remarks struct {
	Remarks []Remark `json:"remarks"`
}

// A Remark is something to be said of a term, with what can be done about it. What was quieted is not said.
type Remark struct {
	Term  string       `json:"term"` // its id
	Kind  string       `json:"kind"`
	Items []RemarkItem `json:"items"`
	// that the items add to the block, or that only what is dragged in brings
	Records int        `json:"records"`
	Block   string     `json:"block,omitempty"`  // that it suits better: its id
	Near    *desk.Term `json:"near,omitempty"`   // what could be
	Belong  []string   `json:"belong,omitempty"` // of a stem: its words that do belong

	// Of a heading:
	Headings []string   `json:"headings,omitempty"` // those that the remark is about
	Keys     int        `json:"keys,omitempty"`     // key studies that are lost or would be added
	Mend     *desk.Term `json:"mend,omitempty"`
}

// A RemarkItem is another word or phrase with what it finds.
type RemarkItem struct {
	Text    string `json:"text"`
	Records int    `json:"records"`
	Adds    int    `json:"adds"` // beyond what the block finds
}

// Remarks looks at the terms of a block over the sample.
func (a *Service) Remarks(ctx context.Context, at desk.At, block string) (*Remarks, error) {
	d, err := a.sampled(ctx, at, a.desk.Heavy)
	if err != nil {
		return nil, err
	}
	i := d.Document.Block(block)
	if i < 0 {
		return nil, problems.Gone(store.ErrNone, "block")
	}
	offers, err := offersOf(ctx, d, nil)
	if err != nil {
		return nil, err
	}
	set, free := d.Pool.Set(), d.Free(block)
	if free != nil {
		set = free.Set
	}
	reach, err := coverage.Find(ctx, set, d.Strategy)
	if err != nil {
		return nil, err
	}
	found, err := coverage.Remarks(ctx, reach, offers, i)
	if err != nil {
		return nil, err
	}
	out := &Remarks{Remarks: []Remark{}}
	for _, f := range found {
		term := d.Document.Blocks[i].Terms[f.Term]
		if quieted(term, f.Kind) || free == nil && f.Kind == coverage.Drags {
			continue // among records that the block's own words chose a stem drags nothing in
		}
		r := Remark{Term: term.ID, Kind: f.Kind, Items: []RemarkItem{}, Records: f.Records, Belong: f.Belong}
		for _, item := range f.Items {
			r.Items = append(r.Items, RemarkItem(item))
		}
		if f.Block >= 0 {
			r.Block = d.Document.Blocks[f.Block].ID
		}
		if f.Near.Kind == strategy.NearTerm {
			r.Near = &desk.Term{Term: f.Near}
		}
		out.Remarks = append(out.Remarks, r)
	}
	return out, a.headingRemarks(ctx, d, out, i)
}

// headingRemarks adds what is to be said of the headings of a block.
func (a *Service) headingRemarks(ctx context.Context, d *desk.Desk, out *Remarks, block int) error {
	if d.Keys.Set.Thesaurus == nil {
		return nil
	}
	earlier, err := a.editions(ctx, d.Document.Vocabulary)
	if err != nil {
		return err
	}
	faults, err := headingLook(d).Check(ctx, d.Strategy.Blocks[block], earlier)
	if err != nil {
		return err
	}
	for _, f := range faults {
		term := d.Document.Blocks[block].Terms[f.Term]
		if !quieted(term, f.Kind) {
			out.Remarks = append(
				out.Remarks,
				Remark{
					Term:     term.ID,
					Kind:     f.Kind,
					Items:    []RemarkItem{},
					Records:  f.Records,
					Keys:     f.Keys,
					Headings: f.Headings,
					Mend:     &desk.Term{Term: f.Mend},
				},
			)
		}
	}
	return nil
}

// mostEditions is how far back the editions of a vocabulary are looked at.
const mostEditions = 4

// editions returns the editions before a vocabulary, the latest first.
func (a *Service) editions(ctx context.Context, id *int64) (out []*thesaurus.Thesaurus, err error) {
	for id != nil && len(out) < mostEditions {
		v, err := a.vocabularyRows.One(ctx, *id)
		if err != nil || v.Earlier == nil {
			return out, err
		}
		t, err := a.desk.Pools.Thesaurus(ctx, v.Earlier)
		if err != nil {
			return nil, err
		}
		out, id = append(out, t), v.Earlier
	}
	return out, nil
}

func quieted(t desk.Term, kind string) bool {
	return slices.Contains(t.Quiet, kind)
}

// A TermList is words that were pasted, to be looked at before they become terms of a block.
type TermList struct {
	Typed []string `json:"typed"`
	Field string   `json:"field,omitempty"`
	Block string   `json:"block"` // its id
}

// A ListedTerm is one of them with what it would find, or why it is refused.
type ListedTerm struct {
	Typed   string            `json:"typed"`
	Term    *desk.Term        `json:"term,omitempty"`
	Records *int              `json:"records,omitempty"`
	Adds    *int              `json:"adds,omitempty"` // records that the block does not find yet
	Keys    int               `json:"keys"`
	There   bool              `json:"there,omitempty"` // the block has it already
	Refused *problems.Refusal `json:"refused,omitempty"`
}

const mostListed = 500 // terms that are looked at at once

// TryTerms tells of several words at once what they would find.
func (a *Service) TryTerms(ctx context.Context, at desk.At, l TermList) ([]ListedTerm, error) {
	if len(l.Typed) == 0 || len(l.Typed) > mostListed {
		return nil, problems.Invalid("typed", "1 to %d terms are looked at at once; these are %d.", mostListed, len(l.Typed))
	}
	if l.Field == "" {
		l.Field = "text"
	}
	if err := a.desk.Quick.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	i := d.Document.Block(l.Block)
	if i < 0 {
		return nil, problems.Gone(store.ErrNone, "block")
	}
	var reach *coverage.Reach
	if d.Pool != nil {
		if reach, err = coverage.Find(ctx, d.Pool.Set(), d.Strategy); err != nil {
			return nil, err
		}
	}
	has := map[string]bool{}
	for _, t := range d.Document.Blocks[i].Terms {
		has[t.String()+" "+t.Field] = true
	}
	out := make([]ListedTerm, len(l.Typed))
	for k, typed := range l.Typed {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		row := ListedTerm{Typed: typed}
		term := ReadTyped(typed, l.Field)
		if _, err := term.Query(); err != nil {
			row.Refused = problems.RefusalOf(err)
			out[k] = row
			continue
		}
		row.Term, row.There = &desk.Term{Term: term}, has[term.String()+" "+term.Field]
		keys, err := hitKeys(d, term)
		if err != nil {
			return nil, err
		}
		row.Keys = int(keys.GetCardinality())
		if reach != nil {
			found, err := coverage.Hits(d.Pool.Set(), term)
			if err != nil {
				return nil, err
			}
			row.Records = number(found)
			adds := int(found.GetCardinality() - found.AndCardinality(reach.Blocks[i]))
			row.Adds = &adds
		}
		out[k] = row
	}
	return out, nil
}

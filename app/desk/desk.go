package desk

import (
	"context"
	"slices"

	"tamiz/app/problems"
	"tamiz/core/review"
	"tamiz/core/set"
	"tamiz/core/strategy"
	"tamiz/core/text"
)

// A Proposal is what a document would be with some edits of a revision of it: the newest, for 0.
type Proposal struct {
	Revision int   `json:"revision,omitempty"`
	Edits    Edits `json:"edits,omitempty"`
}

// Proposed returns the document that a proposal makes.
func (a *Service) Proposed(ctx context.Context, review int64, p Proposal) (Document, error) {
	saved, err := a.documents.Document(ctx, review, p.Revision)
	if err != nil {
		return Document{}, problems.Gone(err, "review")
	}
	doc, err := Parse(saved.Body)
	if err != nil || len(p.Edits) == 0 {
		return doc, err
	}
	if len(p.Edits) > MaxEdits {
		return doc, problems.Invalid("edits", "At most %d edits are made at once.", MaxEdits)
	}
	if err := a.Owns(ctx, p.Edits); err != nil {
		return doc, err
	}
	doc = applied(doc, p.Edits)
	return doc, Checked(doc)
}

// A SampleHead names a sample.
type SampleHead struct {
	ID      int64  `json:"id"`
	Name    string `json:"name"`
	Records int    `json:"records"`
}

// A Desk is all that figures of a review are worked out from.
type Desk struct {
	at       At
	Document Document
	Strategy strategy.Strategy
	Keys     *Keys
	Pool     *Pool // nil without a sample
	Look     Scope // what of it is looked at
	Sample   *SampleHead
	Set      set.Set  // what of sample and contrast; nil for the sample
	Drawn    bool     // through another vocabulary: the sample was drawn from a source of it
	Carried  *Carrier // through another vocabulary than the review's: what stands for its headings there
	chosen   []chosen // what chose the records of the review's samples
	Contrast string   // the name of what the sample is set against; "" is all other records
}

// Desk lays out a review as it is.
func (a *Service) Desk(ctx context.Context, at At) (*Desk, error) {
	return a.DeskWith(ctx, at, Proposal{Revision: at.Revision})
}

// DeskWith lays out a review as it would be.
func (a *Service) DeskWith(ctx context.Context, at At, p Proposal) (*Desk, error) {
	d := Desk{at: at}
	var err error
	if d.Document, err = a.Proposed(ctx, at.Review, p); err != nil {
		return nil, err
	}
	d.Strategy = d.Document.Strategy("")
	l, err := a.Look(ctx, at)
	if err != nil {
		return nil, err
	}
	if l.Through != nil {
		if err := a.carry(ctx, &d, l); err != nil {
			return nil, err
		}
	}
	by, err := a.keysBy(ctx, at.Review, l)
	if err != nil {
		return nil, err
	}
	if d.Keys, err = a.Pools.Keys(ctx, at.Review, l.Vocabulary, by); err != nil {
		return nil, err
	}
	d.Keys = d.Keys.halved(d.Document.Halves).without(by.Holdings, l.Source)
	if d.Pool, err = a.Pools.pool(ctx, at.Review, l); err != nil || d.Pool == nil {
		return &d, err
	}
	d.Pool = d.Pool.part(l.Parted)
	if l.Set != nil {
		d.Set = l.Set.Set
	}
	if d.Look, err = a.scope(ctx, &d, l); err != nil {
		return nil, err
	}
	origins, err := a.library.Origins(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	if d.chosen, err = chosenBy(origins); err != nil {
		return nil, err
	}
	samples, err := a.library.Samples(ctx, at.Review)
	for _, s := range samples {
		if s.ID == *l.Sample {
			d.Sample = &SampleHead{s.ID, s.Name, s.Records}
		}
		if l.Against != nil && s.ID == *l.Against {
			d.Contrast = s.Name
		}
	}
	return &d, err
}

// carry puts the strategy that figures are worked out from in the vocabulary of a look through another.
func (a *Service) carry(ctx context.Context, d *Desk, l Look) error {
	v, err := a.vocabularyRows.One(ctx, *l.Through)
	if err != nil {
		return problems.Gone(err, "vocabulary")
	}
	drawn, _, err := a.largest(ctx, d.at.Review, v.Name)
	if err != nil {
		return err
	}
	d.Drawn = l.Sample != nil && drawn.ID == *l.Sample
	if d.Carried, err = a.Carrier(ctx, d.Document.Vocabulary, v.Name); err != nil || d.Carried == nil {
		return err
	}
	d.Strategy, _ = d.Strategy.Carry(d.Carried.Stands)
	return nil
}

// Means reports whether a heading term of the document means a heading of the vocabulary that is looked through.
func (d *Desk) Means(heading, label string) bool {
	if d.Carried == nil {
		return text.Label(heading) == text.Label(label)
	}
	return slices.ContainsFunc(
		d.Carried.Stands[text.Label(heading)],
		func(to string) bool { return text.Label(to) == text.Label(label) },
	)
}

// Owns says when edits go by a vocabulary that is not there.
func (a *Service) Owns(ctx context.Context, edits Edits) error {
	for _, e := range edits {
		if v, ok := e.(*review.SetVocabulary); ok && v.Vocabulary != nil {
			if _, err := a.vocabularyRows.One(ctx, *v.Vocabulary); err != nil {
				return problems.Gone(err, "vocabulary")
			}
		}
	}
	return nil
}

// MaxEdits is how many are made at once.
const MaxEdits = 5000

// ErrNoSample is the answer to a figure over a sample where none is looked at.
var ErrNoSample = &problems.Problem{
	Type:   "no-sample",
	Status: 409,
	Title:  "There is no sample to look at yet. Bring in a file of records first.",
}

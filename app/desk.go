package app

import (
	"context"
	"tamiz/core/review"
	"tamiz/core/strategy"
)

// A Proposal is what a document would be with some edits of a revision of it: the newest, for 0.
type Proposal struct {
	Revision int   `json:"revision,omitempty"`
	Edits    Edits `json:"edits,omitempty"`
}

// proposed returns the document that a proposal makes.
func (a *App) proposed(ctx context.Context, review int64, p Proposal) (Document, error) {
	saved, err := a.store.Document(ctx, review, p.Revision)
	if err != nil {
		return Document{}, gone(err, "review")
	}
	doc, err := parse(saved.Body)
	if err != nil || len(p.Edits) == 0 {
		return doc, err
	}
	if len(p.Edits) > maxEdits {
		return doc, invalid("edits", "At most %d edits are made at once.", maxEdits)
	}
	if err := a.owns(ctx, review, p.Edits); err != nil {
		return doc, err
	}
	doc = applied(doc, p.Edits)
	return doc, checked(doc)
}

// A SampleHead names a sample.
type SampleHead struct {
	ID      int64  `json:"id"`
	Name    string `json:"name"`
	Records int    `json:"records"`
}

// A desk is all that figures of a review are worked out from.
type desk struct {
	at       At
	document Document
	strategy strategy.Strategy
	keys     *keys
	pool     *pool // nil without a sample
	look     seen  // what of it is looked at
	sample   *SampleHead
	contrast string // the name of what the sample is set against; "" is all other records
}

// desk lays out a review as it is.
func (a *App) desk(ctx context.Context, at At) (*desk, error) {
	return a.deskWith(ctx, at, Proposal{})
}

// deskWith lays out a review as it would be.
func (a *App) deskWith(ctx context.Context, at At, p Proposal) (*desk, error) {
	d := desk{at: at}
	var err error
	if d.document, err = a.proposed(ctx, at.Review, p); err != nil {
		return nil, err
	}
	d.strategy = d.document.Strategy("")
	l, err := a.Look(ctx, at)
	if err != nil {
		return nil, err
	}
	if d.keys, err = a.pools.keys(ctx, at.Review, l.Vocabulary); err != nil {
		return nil, err
	}
	d.keys = d.keys.halved(d.document.Halves)
	if l.Source != nil {
		holdings, err := a.store.Holdings(ctx, at.Review)
		if err != nil {
			return nil, err
		}
		d.keys = d.keys.without(holdings, l.Source)
	}
	if d.pool, err = a.pools.pool(ctx, l); err != nil || d.pool == nil {
		return &d, err
	}
	d.pool = d.pool.part(l.Parted)
	if d.look, err = a.seen(ctx, &d, l); err != nil {
		return nil, err
	}
	samples, err := a.store.Samples(ctx, at.Review)
	for _, s := range samples {
		if s.ID == *l.Sample {
			d.sample = &SampleHead{s.ID, s.Name, s.Records}
		}
		if l.Against != nil && s.ID == *l.Against {
			d.contrast = s.Name
		}
	}
	return &d, err
}

// owns says when edits go by a vocabulary that is not the review's.
func (a *App) owns(ctx context.Context, id int64, edits Edits) error {
	for _, e := range edits {
		if v, ok := e.(*review.SetVocabulary); ok && v.Vocabulary != nil {
			if _, err := a.store.Vocabulary(ctx, id, *v.Vocabulary); err != nil {
				return gone(err, "vocabulary")
			}
		}
	}
	return nil
}

const maxEdits = 5000 // at once

var errNoSample = &Problem{Type: "no-sample", Status: 409, Title: "There is no sample to look at yet. Bring in a file of records first."}

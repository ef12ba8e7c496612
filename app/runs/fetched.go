package runs

import (
	"context"
	"slices"

	"tamiz/app/library"
	"tamiz/core/bib"
)

// A Fetched is the last run at a source with the records that were fetched of its answer, where some were; or a
// search by hand with those of its file.
type Fetched struct {
	Run   Run
	Total int // records of the answer
	Got   int
	draw  *library.Draw
}

// Fetched returns the last runs of a review at its sources, and behind them what was searched by hand.
func (a *Service) Fetched(ctx context.Context, review int64) ([]Fetched, error) {
	last, err := a.logbook.LastRuns(ctx, review)
	if err != nil {
		return nil, err
	}
	out := []Fetched{}
	for _, r := range last {
		run, err := runOf(r)
		if err != nil {
			return nil, err
		}
		f := Fetched{Run: run}
		if r.Draw != nil {
			d, err := a.library.Draw(ctx, *r.Draw)
			if err != nil {
				return nil, err
			}
			f.draw, f.Total, f.Got = &d, d.Total, d.Got
		}
		out = append(out, f)
	}
	hand, err := a.logbook.HandRuns(ctx, review)
	if err != nil {
		return nil, err
	}
	samples, err := a.library.Samples(ctx, review)
	if err != nil {
		return nil, err
	}
	for _, r := range hand {
		i := slices.IndexFunc(samples, func(s library.Sample) bool { return r.Sample != nil && s.ID == *r.Sample })
		if i < 0 {
			continue
		}
		run, err := runOf(r)
		if err != nil {
			return nil, err
		}
		out = append(out, Fetched{Run: run, Total: int(*r.Records), Got: samples[i].Records})
	}
	return out, nil
}

// Each calls visit with each record that was fetched.
func (a *Service) Each(ctx context.Context, f Fetched, visit func(*bib.Record) error) error {
	var ids []int64
	var err error
	switch {
	case f.draw != nil:
		ids, err = a.library.DrawnIDs(ctx, f.draw.ID)
	case f.Run.Sample != nil:
		ids, err = a.library.SampleIDs(ctx, *f.Run.Sample)
	}
	if err != nil {
		return err
	}
	// A few at a time: whoever writes them out may be slow, and nobody is to wait for a connection meanwhile.
	for part := range slices.Chunk(ids, fetchedAtOnce) {
		stored, err := a.library.RecordsByID(ctx, part)
		if err != nil {
			return err
		}
		for _, r := range stored {
			if err := visit(r.Record); err != nil {
				return err
			}
		}
	}
	return nil
}

const fetchedAtOnce = 500

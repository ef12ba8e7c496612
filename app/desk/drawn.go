package desk

import (
	"context"
	"slices"

	"tamiz/app/library"
	"tamiz/core/tally"
)

// Drawn is the records of a sample that was drawn from a source of some vocabulary.
type Drawn struct {
	Sample SampleHead
	Pool   *tally.Pool
}

// DrawnBy lays out the largest sample of a review that was drawn from a source of a vocabulary, known by its name
// and its number; nil where there is none.
func (a *Service) DrawnBy(ctx context.Context, review int64, vocabulary string, id *int64) (*Drawn, error) {
	out := Drawn{}
	var err error
	if out.Sample, _, err = a.largest(ctx, review, vocabulary); err != nil || out.Sample.ID == 0 {
		return nil, err
	}
	p, err := a.Pools.pool(
		ctx,
		review,
		Look{NewLook: NewLook{Sample: &out.Sample.ID}, Samples: []Sized{{out.Sample.ID, out.Sample.Records}}, Vocabulary: id},
	)
	if err != nil {
		return nil, err
	}
	out.Pool = p.Pool
	return &out, nil
}

// largest returns the largest sample of a review that was drawn from a source of a vocabulary, known by its name,
// and that source; the source alone, the first of them, where nothing was drawn.
func (a *Service) largest(
	ctx context.Context,
	review int64,
	vocabulary string,
) (out SampleHead, source int64, err error) {
	sources, err := a.library.Sources(ctx)
	if err != nil {
		return out, 0, err
	}
	of := map[int64]bool{}
	for _, s := range sources {
		if of[s.ID] = s.Tied(vocabulary); of[s.ID] && source == 0 {
			source = s.ID
		}
	}
	draws, err := a.library.Draws(ctx, review)
	if err != nil {
		return out, 0, err
	}
	for _, d := range draws {
		if of[d.Source] && d.Sample != nil && d.Got > out.Records {
			out, source = SampleHead{*d.Sample, d.Name, d.Got}, d.Source
		}
	}
	if out.ID == 0 {
		return out, source, nil
	}
	samples, err := a.library.Samples(ctx, review)
	if i := slices.IndexFunc(samples, func(s library.Sample) bool { return s.ID == out.ID }); i >= 0 {
		out.Name, out.Records = samples[i].Name, samples[i].Records
	}
	return out, source, err
}

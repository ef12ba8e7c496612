package desk

import (
	"context"
	"slices"

	"tamiz/core/tally"
	"tamiz/core/text"
)

// Drawn is the records of a sample that was drawn from a source of some vocabulary.
type Drawn struct {
	Sample SampleHead
	Pool   *tally.Pool
}

// DrawnBy lays out the largest sample of a review that was drawn from a source of a vocabulary, known by its name and its
// number; nil where there is none.
func (a *Service) DrawnBy(ctx context.Context, review int64, vocabulary string, id *int64) (*Drawn, error) {
	sources, err := a.store.Sources(ctx)
	if err != nil {
		return nil, err
	}
	of := map[int64]bool{}
	for _, s := range sources {
		of[s.ID] = text.Label(s.Vocabulary) == text.Label(vocabulary)
	}
	draws, err := a.store.Draws(ctx, review)
	if err != nil {
		return nil, err
	}
	out := Drawn{}
	for _, d := range draws {
		if of[d.Source] && d.Sample != nil && d.Got > out.Sample.Records {
			out.Sample = SampleHead{*d.Sample, d.Name, d.Got}
		}
	}
	if out.Sample.ID == 0 {
		return nil, nil
	}
	samples, err := a.store.Samples(ctx, review)
	if err != nil {
		return nil, err
	}
	if i := slices.IndexFunc(samples, func(s Sample) bool { return s.ID == out.Sample.ID }); i >= 0 {
		out.Sample.Name, out.Sample.Records = samples[i].Name, samples[i].Records
	}
	p, err := a.Pools.pool(ctx, Look{NewLook: NewLook{Sample: &out.Sample.ID}, Samples: []Sized{{out.Sample.ID, out.Sample.Records}}, Vocabulary: id})
	if err != nil {
		return nil, err
	}
	out.Pool = p.Pool
	return &out, nil
}

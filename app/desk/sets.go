package desk

import (
	"context"
	"slices"

	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/core/set"
	"tamiz/store"
)

// RecordSet is the records behind a figure, as it travels.
type RecordSet = set.Of

// Stored returns the records of a set that need not be in the sample that is looked at, by their numbers in the store.
func (a *Service) Stored(ctx context.Context, review int64, s set.Stored) ([]int64, error) {
	switch s := s.(type) {
	case *set.Picked:
		return s.IDs, nil
	case *set.Shelf:
		return a.library.ShelvedIDs(ctx, review)
	case *set.Sample:
		samples, err := a.library.Samples(ctx, review)
		if err != nil {
			return nil, err
		}
		i := slices.IndexFunc(samples, func(x library.Sample) bool { return x.ID == s.Sample })
		if i < 0 {
			return nil, problems.Gone(store.ErrNone, "sample")
		}
		if s.Part != nil {
			if samples[i].Draw == nil {
				return nil, problems.Invalid("part", "This sample was not drawn in parts.")
			}
			parts, err := a.library.PartIDs(ctx, *samples[i].Draw)
			return parts[*s.Part], err
		}
		return a.library.SampleIDs(ctx, s.Sample)
	case *set.Joined:
		_, both, onlyA, onlyB, _, err := a.Compared(ctx, review, Pair{s.A, s.B})
		if err != nil {
			return nil, err
		}
		return JoinedBy(s.How, both, onlyA, onlyB)
	}
	return nil, nil
}

// SetIDs returns the records of any set, by their numbers in the store.
func (a *Service) SetIDs(ctx context.Context, at At, s set.Set) ([]int64, error) {
	if s == nil {
		return nil, problems.Invalid("of", "It is not said which records are meant.")
	}
	if err := s.Check(); err != nil {
		return nil, SetProblem(err)
	}
	if kept, ok := s.(set.Stored); ok {
		return a.Stored(ctx, at.Review, kept)
	}
	d, err := a.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	if d.Pool == nil {
		return nil, ErrNoSample
	}
	found, err := s.Records(ctx, d.SetPool(a))
	if err != nil {
		return nil, SetProblem(err)
	}
	ids := make([]int64, 0, found.GetCardinality())
	for it := found.Iterator(); it.HasNext(); {
		ids = append(ids, d.Pool.IDs[it.Next()])
	}
	return ids, nil
}

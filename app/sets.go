package app

import (
	"context"
	"slices"

	"tamiz/core/set"
	"tamiz/store"
)

// RecordSet is the records behind a figure, as it travels.
type RecordSet = set.Of

// stored returns the records of a set that need not be in the sample that is looked at, by their numbers in the store.
func (a *App) stored(ctx context.Context, review int64, s set.Stored) ([]int64, error) {
	switch s := s.(type) {
	case *set.Picked:
		return s.IDs, nil
	case *set.Shelf:
		return a.store.ShelvedIDs(ctx, review)
	case *set.Sample:
		samples, err := a.store.Samples(ctx, review)
		if err != nil {
			return nil, err
		}
		if !slices.ContainsFunc(samples, func(x Sample) bool { return x.ID == s.Sample }) {
			return nil, gone(store.ErrNone, "sample")
		}
		return a.store.SampleIDs(ctx, s.Sample)
	case *set.Joined:
		_, both, onlyA, onlyB, _, err := a.compared(ctx, review, Pair{s.A, s.B})
		if err != nil {
			return nil, err
		}
		return joinedBy(s.How, both, onlyA, onlyB)
	}
	return nil, nil
}

// setIDs returns the records of any set, by their numbers in the store.
func (a *App) setIDs(ctx context.Context, at At, s set.Set) ([]int64, error) {
	if s == nil {
		return nil, invalid("of", "It is not said which records are meant.")
	}
	if err := s.Check(); err != nil {
		return nil, setProblem(err)
	}
	if kept, ok := s.(set.Stored); ok {
		return a.stored(ctx, at.Review, kept)
	}
	d, err := a.desk(ctx, at)
	if err != nil {
		return nil, err
	}
	if d.pool == nil {
		return nil, errNoSample
	}
	found, err := s.Records(ctx, d.looking(a))
	if err != nil {
		return nil, setProblem(err)
	}
	ids := make([]int64, 0, found.GetCardinality())
	for it := found.Iterator(); it.HasNext(); {
		ids = append(ids, d.pool.ids[it.Next()])
	}
	return ids, nil
}

// Records returns some of the records of a set, in its order: that of the sample, where they are of it.
func (a *App) Records(ctx context.Context, at At, q RecordsQuestion) (*RecordList, error) {
	if q.At < 0 || q.Limit < 1 || q.Limit > recordPage {
		return nil, invalid("limit", "1 to %d records are told at once.", recordPage)
	}
	if q.Of.Set == nil {
		return nil, invalid("of", "It is not said which records are meant.")
	}
	if err := q.Of.Check(); err != nil {
		return nil, setProblem(err)
	}
	d, err := a.desk(ctx, at)
	if err != nil {
		return nil, err
	}
	out := &RecordList{Records: []RecordHead{}}
	if kept, ok := q.Of.Set.(set.Stored); ok {
		ids, err := a.stored(ctx, at.Review, kept)
		if err != nil {
			return nil, err
		}
		out.Total = len(ids)
		from := min(q.At, len(ids))
		stored, err := a.store.RecordsByID(ctx, ids[from:min(from+q.Limit, len(ids))])
		for _, s := range stored {
			out.Records = append(out.Records, d.head(s))
		}
		return out, err
	}
	if d.pool == nil {
		return nil, errNoSample
	}
	found, err := q.Of.Records(ctx, d.looking(a))
	if err != nil {
		return nil, setProblem(err)
	}
	out.Total = int(found.GetCardinality())
	it := found.Iterator()
	for n := 0; it.HasNext() && len(out.Records) < q.Limit; n++ {
		if i := it.Next(); n >= q.At {
			out.Records = append(out.Records, d.head(store.StoredRecord{ID: d.pool.ids[i], Record: d.pool.Records[i]}))
		}
	}
	return out, nil
}

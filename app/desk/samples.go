package desk

import (
	"context"
	"slices"

	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/store"
)

// The ways to put two samples together.
const (
	Union      = "union"
	Overlap    = "overlap"
	Difference = "difference"
)

// A Pair is two samples that are compared.
type Pair struct {
	A int64 `json:"a"`
	B int64 `json:"b"`
}

// A Compared is how two samples stand to each other, by the identity of their records.
type Compared struct {
	A     int `json:"a"` // works
	B     int `json:"b"`
	Both  int `json:"both"`
	OnlyA int `json:"onlyA"`
	OnlyB int `json:"onlyB"`
	Any   int `json:"any"`
}

// Compared puts two samples side by side; a work that a sample holds twice counts once.
func (a *Service) Compared(
	ctx context.Context,
	review int64,
	p Pair,
) (c Compared, both, onlyA, onlyB []int64, names [2]string, err error) {
	samples, err := a.library.Samples(ctx, review)
	if err != nil {
		return c, nil, nil, nil, names, err
	}
	works := func(id int64) (out []library.StoredRecord, name string, err error) {
		i := slices.IndexFunc(samples, func(s library.Sample) bool { return s.ID == id })
		if i < 0 {
			return nil, "", problems.Gone(store.ErrNone, "sample")
		}
		all, err := a.library.SampleRecords(ctx, func() {}, id)
		var seen bib.Known
		for _, r := range all {
			if _, twice := seen.Find(r.Record); !twice {
				seen.Add(r.Record, len(out))
				out = append(out, r)
			}
		}
		return out, samples[i].Name, err
	}
	first, nameA, err := works(p.A)
	if err != nil {
		return c, nil, nil, nil, names, err
	}
	second, nameB, err := works(p.B)
	if err != nil {
		return c, nil, nil, nil, names, err
	}
	var inB, inA bib.Known
	for i, r := range second {
		inB.Add(r.Record, i)
	}
	for i, r := range first {
		inA.Add(r.Record, i)
		if _, ok := inB.Find(r.Record); ok {
			both = append(both, r.ID)
		} else {
			onlyA = append(onlyA, r.ID)
		}
	}
	for _, r := range second {
		if _, ok := inA.Find(r.Record); !ok {
			onlyB = append(onlyB, r.ID)
		}
	}
	c = Compared{
		A:     len(first),
		B:     len(second),
		Both:  len(both),
		OnlyA: len(onlyA),
		OnlyB: len(onlyB),
		Any:   len(first) + len(onlyB),
	}
	return c, both, onlyA, onlyB, [2]string{nameA, nameB}, nil
}

// JoinedBy puts together what two samples share and do not.
func JoinedBy(how string, both, onlyA, onlyB []int64) ([]int64, error) {
	switch how {
	case Union:
		return slices.Concat(both, onlyA, onlyB), nil
	case Overlap:
		return both, nil
	case Difference:
		return onlyA, nil
	}
	return nil, problems.Invalid("how", "Two samples make a union, an overlap or a difference.")
}

package app

import (
	"context"
	"encoding/json"
	"slices"

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

// compared puts two samples side by side; a work that a sample holds twice counts once.
func (a *App) compared(ctx context.Context, review int64, p Pair) (c Compared, both, onlyA, onlyB []int64, names [2]string, err error) {
	samples, err := a.store.Samples(ctx, review)
	if err != nil {
		return c, nil, nil, nil, names, err
	}
	works := func(id int64) (out []store.StoredRecord, name string, err error) {
		i := slices.IndexFunc(samples, func(s Sample) bool { return s.ID == id })
		if i < 0 {
			return nil, "", gone(store.ErrNone, "sample")
		}
		all, err := a.store.SampleRecords(ctx, func() {}, id)
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
	c = Compared{A: len(first), B: len(second), Both: len(both), OnlyA: len(onlyA), OnlyB: len(onlyB), Any: len(first) + len(onlyB)}
	return c, both, onlyA, onlyB, [2]string{nameA, nameB}, nil
}

// Compare says how two samples stand to each other.
func (a *App) Compare(ctx context.Context, review int64, p Pair) (Compared, error) {
	c, _, _, _, _, err := a.compared(ctx, review, p)
	return c, err
}

// Joining makes a sample of two: their union, their overlap, or what only the first holds.
type Joining struct {
	Pair
	How  string `json:"how"`
	Name string `json:"name"`
}

// Join puts two samples together as a new one.
func (a *App) Join(ctx context.Context, review int64, j Joining) (Step, error) {
	name, err := goodName(j.Name)
	if err != nil {
		return Step{}, err
	}
	_, both, onlyA, onlyB, names, err := a.compared(ctx, review, j.Pair)
	if err != nil {
		return Step{}, err
	}
	records, err := joinedBy(j.How, both, onlyA, onlyB)
	if err != nil {
		return Step{}, err
	}
	if len(records) == 0 {
		return Step{}, invalid("how", "No record is left. Nothing was made.")
	}
	saying, err := json.Marshal(store.Joined{How: j.How, A: names[0], B: names[1]})
	if err != nil {
		return Step{}, err
	}
	id, err := a.store.FillJoined(ctx, review, name, saying, records)
	if err != nil {
		return Step{}, err
	}
	var step Step
	err = a.store.Work(ctx, review, func(ctx context.Context, w *store.Work) error {
		if err := w.ShowSample(ctx, id); err != nil {
			return err
		}
		step, err = logSample(ctx, w, review, id, What{Key: "joinSamples", Params: map[string]string{"name": name}})
		return err
	})
	return a.told(ctx, review, step, err)
}

// joinedBy puts together what two samples share and do not.
func joinedBy(how string, both, onlyA, onlyB []int64) ([]int64, error) {
	switch how {
	case Union:
		return slices.Concat(both, onlyA, onlyB), nil
	case Overlap:
		return both, nil
	case Difference:
		return onlyA, nil
	}
	return nil, invalid("how", "Two samples make a union, an overlap or a difference.")
}

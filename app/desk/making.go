package desk

import (
	"context"
	"sync/atomic"
)

// A making is how far the reading of the records of a pool is.
type making struct {
	of   int // records
	read atomic.Int64
}

func (m *making) seen() { m.read.Add(1) }

// Making is how far it is with what is looked at: its records are read, then indexed, then their words are
// counted. What is ready is kept, and the next who asks does not wait.
type Making struct {
	Stage   string  `json:"stage"` // reading, indexing, counting or ready
	Records int     `json:"records"`
	Part    float64 `json:"part"` // of 1, as far as it is known
}

// Making returns how far it is with what is looked at in a review.
func (a *Service) Making(ctx context.Context, at At) (*Making, error) {
	l, err := a.Look(ctx, at)
	if err != nil || l.Sample == nil {
		return &Making{Stage: "ready"}, err
	}
	key, records, _ := l.pool()
	if how, ok := a.Pools.makings.Load(key); ok {
		m := how.(*making)
		if read := int(m.read.Load()); read < m.of {
			return &Making{"reading", records, float64(read) / float64(m.of)}, nil
		}
		return &Making{"indexing", records, 0}, nil
	}
	if made, ok := a.Pools.samples.Has(key); ok {
		if part := made.(*Pool).Counted(); part > 0 && part < 1 {
			return &Making{"counting", records, part}, nil
		}
	}
	return &Making{"ready", records, 1}, nil
}

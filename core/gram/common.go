package gram

import (
	"context"

	"tamiz/core/index"
)

// common tells which n-grams may be in two records or more: nearly all the different ones of a text are in one, and
// need not be numbered to be left out. Where two share a slot they may be taken for one, so what it lets pass is
// counted.
type common []int32 // by slot: the record of all its n-grams, from 1; 0 is none, several is several

const several = -1

// commonIn looks at the n-grams of so many tokens that are made of two at hand; what is wanted in fewer than two
// records, all may be.
func commonIn(ctx context.Context, s index.Stream, at []int32, n, min int) common {
	if min < 2 || len(at) == 0 {
		return nil
	}
	size := 1 << 10
	for size < len(at) && size < mostSlots {
		size *= 2
	}
	c := make(common, size)
	record, end := int32(1), 0
	for i := range at {
		for ; i >= int(s.Ends[end]); end++ {
			record++
		}
		if i&(1<<16-1) == 0 && ctx.Err() != nil {
			return c
		}
		if key, ok := joined(at, s, i, n); ok {
			switch slot := &c[c.slot(key)]; *slot {
			case 0:
				*slot = record
			case record:
			default:
				*slot = several
			}
		}
	}
	return c
}

// mostSlots bounds what is taken for it: 128 MB.
const mostSlots = 1 << 25

func (c common) slot(key uint64) uint64 { return spread(key) & uint64(len(c)-1) }

// may reports whether an n-gram may be in two records.
func (c common) may(key uint64) bool { return c == nil || c[c.slot(key)] == several }

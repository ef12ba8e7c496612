package postings_test

import (
	"math"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/postings"
)

func TestWhatIsPackedIsReadBack(t *testing.T) {
	type member struct {
		step  uint32
		times int32
	}
	rapid.Check(t, func(t *rapid.T) {
		all := rapid.SliceOf(rapid.Custom(func(t *rapid.T) member {
			return member{
				rapid.OneOf(rapid.Uint32Range(0, 200), rapid.Uint32()).Draw(t, "step"),
				rapid.OneOf(rapid.Just(int32(1)), rapid.Int32Range(1, math.MaxInt32)).Draw(t, "times"),
			}
		})).Draw(t, "members")
		var list []byte
		for _, m := range all {
			list = postings.Append(list, m.step, m.times)
		}
		for _, want := range all {
			var got member
			got.step, got.times, list = postings.Next(list)
			assert.Equal(t, want, got)
		}
		assert.Empty(t, list)
	})
}

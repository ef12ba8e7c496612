package source

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

// A number is shared out among the parts of a sample as far as they hold so many; the first has half where it holds
// that; and of a higher number no part has less, so that a draw can be gone on with.
func TestANumberIsSharedAmongParts(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		hold := rapid.SliceOfN(rapid.IntRange(0, 60), 1, 5).Draw(t, "hold")
		n := rapid.IntRange(0, 200).Draw(t, "n")
		got := Share(hold, n)
		require.Len(t, got, len(hold))
		sum, all := 0, 0
		for i, k := range got {
			assert.LessOrEqual(t, k, hold[i])
			sum, all = sum+k, all+hold[i]
		}
		assert.Equal(t, min(n, all), sum)
		assert.GreaterOrEqual(t, got[0], min(hold[0], n/2))
		for i, k := range Share(hold, n+1) {
			assert.GreaterOrEqual(t, k, got[i], "part %d of %v at %d", i, hold, n+1)
		}
	})
	assert.Empty(t, Share(nil, 5))
}

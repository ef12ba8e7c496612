package index

import (
	"slices"
	"strings"
	"sync"
)

// endings are the tokens of an index by their ends, made when a pattern first asks for them: one that begins with a
// sign is looked for by what stands behind it.
type endings struct {
	once sync.Once
	by   []uint32 // tokens, ascending when read backwards
}

// with returns the tokens that end with some letters, ascending.
func (e *endings) with(end string, dict []string) []uint32 {
	e.once.Do(func() {
		e.by = make([]uint32, len(dict))
		for i := range e.by {
			e.by[i] = uint32(i)
		}
		slices.SortFunc(e.by, func(a, b uint32) int { return backwards(dict[a], dict[b]) })
	})
	from, _ := slices.BinarySearchFunc(e.by, end, func(t uint32, end string) int { return backwards(dict[t], end) })
	to := from
	for to < len(e.by) && strings.HasSuffix(dict[e.by[to]], end) {
		to++
	}
	out := slices.Clone(e.by[from:to])
	slices.Sort(out)
	return out
}

// backwards compares two tokens byte by byte from their ends.
func backwards(a, b string) int {
	for i := 1; i <= min(len(a), len(b)); i++ {
		if x, y := a[len(a)-i], b[len(b)-i]; x != y {
			return int(x) - int(y)
		}
	}
	return len(a) - len(b)
}

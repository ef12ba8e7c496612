package bench

import (
	"context"
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/require"

	"tamiz/core/coverage"
	"tamiz/core/strategy"
)

// limits times what the largest strategies cost that are taken: 2,000 terms in one block, 26 blocks of 200, of each
// kind of term, when nothing of them is known yet and when one term of them is new.
func limits(t *testing.T, _ sizes) []row {
	const records = 35_000
	set := coverage.NewSet(world(records))
	keys := coverage.NewSet(set.Records[:28])
	tokens := slices.DeleteFunc(set.Index.Neighbours("", 0, 1<<20), func(w string) bool { return len(w) < 5 })
	var rows []row
	for _, kind := range []string{"words", "phrases", "truncated", "truncated inside", "near, truncated"} {
		for _, shape := range [][2]int{{1, 2000}, {26, 200}} {
			s := strategy.Strategy{Tamiz: strategy.Version}
			r := rand.New(rand.NewPCG(1, 2))
			for b := range shape[0] {
				block := strategy.Block{Name: fmt.Sprint(b), Searched: true}
				for range shape[1] {
					block.Terms = append(block.Terms, termOf(kind, tokens[r.IntN(len(tokens))], tokens[r.IntN(len(tokens))]))
				}
				s.Blocks = append(s.Blocks, block)
			}
			fresh, known := set, set
			known.Kept = coverage.NewKept(1 << 30)
			preview := func(set coverage.Set) {
				reach, err := coverage.Find(context.Background(), set, s)
				require.NoError(t, err)
				inKeys, err := coverage.Find(context.Background(), keys, s)
				require.NoError(t, err)
				for b := range s.Blocks {
					_, err := coverage.Measure(context.Background(), reach, inKeys, b)
					require.NoError(t, err)
				}
			}
			counts := taken(1, func() {
				_, err := coverage.Find(context.Background(), fresh, s)
				require.NoError(t, err)
			})
			first := taken(1, func() { preview(fresh) })
			preview(known)
			again := taken(3, func() {
				s.Blocks[0].Terms[0].Text += "x"
				preview(known)
			})
			rows = append(
				rows,
				row{
					fmt.Sprintf(
						"preview of %d × %d terms, %s, %d records: %s; with one term new: %s",
						shape[0],
						shape[1],
						kind,
						records,
						short(first),
						short(again),
					),
					"the plain counts",
					ratio(first, counts),
					"≤ 1 s",
				},
			)
		}
	}
	return rows
}

func termOf(kind, a, b string) strategy.Term {
	t := strategy.Term{Kind: strategy.TextTerm, Field: "text", On: true}
	switch kind {
	case "words":
		t.Text = a
	case "phrases":
		t.Text = a + " " + b
	case "truncated":
		t.Text = a[:4] + "*"
	case "truncated inside":
		t.Text = a[:2] + "*" + a[len(a)-2:]
	default:
		t.Kind, t.Left, t.Right, t.Within = strategy.NearTerm, a[:3]+"*", b, 3
	}
	return t
}

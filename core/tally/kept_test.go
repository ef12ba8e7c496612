package tally

import (
	"context"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/demo"
)

// Whatever sets are set against each other, what is kept of a pool gives what reading the text gives.
func TestAnySetIsCountedAsFromItsText(t *testing.T) {
	world := demo.NewWorld(2, 120)
	kept := must(NewPool(context.Background(), world.Records[:80], world.Records[80:]))
	kept.Keep()
	keys := world.Records[5:9]
	rapid.Check(t, func(t *rapid.T) {
		draw := func(name string) *roaring.Bitmap {
			set := roaring.New()
			for _, n := range rapid.SliceOfN(rapid.Uint32Range(0, 119), 1, 60).Draw(t, name) {
				set.Add(n)
			}
			return set
		}
		over := kept.Over(draw("sample"), draw("contrast"))
		read := &Pool{Records: over.Records, Index: over.Index, Sample: over.Sample, Contrast: over.Contrast}
		fast, slow := must(
			CountWords(context.Background(), over, keys, DefaultWords),
		), must(
			CountWords(context.Background(), read, keys, DefaultWords),
		)
		gathered := func(p *Pool) []Family {
			families := must(Fold(context.Background(), p, keys, DefaultWords)).All()
			for i := range families {
				unnumbered(&families[i].Row)
				for k := range families[i].Forms {
					unnumbered(&families[i].Forms[k])
				}
			}
			return families
		}
		require.Equal(t, gathered(read), gathered(over))
		for _, words := range []*Tally{fast, slow} {
			for i := range words.Rows {
				unnumbered(&words.Rows[i])
			}
		}
		require.Equal(t, slow.Rows, fast.Rows)
		for _, f := range Facets[1:] {
			require.Equal(
				t,
				must(CountList(context.Background(), read, f, keys)),
				must(CountList(context.Background(), over, f, keys)),
				f,
			)
		}
	})
}

func TestARecordOnBothSidesCountsInTheSample(t *testing.T) {
	p := must(
		NewPool(context.Background(), demo.NewWorld(2, 10).Records, nil),
	).Over(roaring.BitmapOf(1, 2, 3), roaring.BitmapOf(3, 4))
	require.Equal(t, []uint32{4}, p.Contrast.ToArray())
}

// unnumbered makes a row say nothing of the numbers under which it was found, nor of what is told over the whole pool.
func unnumbered(r *Row) { r.item, r.rank, r.Piece = 0, 0, false }

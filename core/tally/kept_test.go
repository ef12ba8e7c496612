package tally

import (
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/demo"
)

// Whatever sets are set against each other, what is kept of a pool gives what reading the text gives.
func TestAnySetIsCountedAsFromItsText(t *testing.T) {
	world := demo.NewWorld(2, 120)
	kept := NewPool(world.Records[:80], world.Records[80:])
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
		fast, slow := CountWords(over, keys, DefaultWords), CountWords(read, keys, DefaultWords)
		families := Families(over, fast, keys, DefaultWords)
		for i := range families {
			unkept(&families[i].Row)
			for k := range families[i].Forms {
				unkept(&families[i].Forms[k])
			}
		}
		require.Equal(t, Families(read, slow, keys, DefaultWords), families)
		for i := range fast.Rows {
			unkept(&fast.Rows[i])
		}
		require.Equal(t, slow.Rows, fast.Rows)
		for _, f := range Facets[1:] {
			require.Equal(t, CountList(read, f, keys), CountList(over, f, keys), f)
		}
	})
}

func TestARecordOnBothSidesCountsInTheSample(t *testing.T) {
	p := NewPool(demo.NewWorld(2, 10).Records, nil).Over(roaring.BitmapOf(1, 2, 3), roaring.BitmapOf(3, 4))
	require.Equal(t, []uint32{4}, p.Contrast.ToArray())
}

// unkept makes a row say nothing of where it is kept.
func unkept(r *Row) { r.item, r.rank, r.family = 0, 0, 0 }

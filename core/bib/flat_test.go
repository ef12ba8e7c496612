package bib

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestFlatIsFieldsJoined(t *testing.T) {
	piece := rapid.SampledFrom(
		[]string{
			" ",
			"  ",
			"\t",
			"\n",
			"\r",
			"\v",
			"\u0085",
			"\u00a0",
			"\u1680",
			"\u2003",
			"\u2028",
			"\u3000",
			"\x00",
			"!",
			"~",
			"a",
			"shift work",
			"é",
			"–",
			"日本",
			"\xc2",
			"\xa0",
			"\xe2\x80",
			"eight by",
		},
	)
	rapid.Check(t, func(t *rapid.T) {
		s := strings.Join(rapid.SliceOfN(piece, 0, 30).Draw(t, "pieces"), "")
		require.Equal(t, strings.Join(strings.Fields(s), " "), Flat(s))
	})
}

func BenchmarkFlat(b *testing.B) {
	text := strings.TrimSpace(strings.Repeat("rest breaks of thirty minutes in the shade – and water, ", 20))
	words := strings.Fields(text)
	b.Run("abstract", func(b *testing.B) {
		b.SetBytes(int64(len(text)))
		for b.Loop() {
			Flat(text)
		}
	})
	b.Run("words", func(b *testing.B) {
		b.SetBytes(int64(len(text)))
		for b.Loop() {
			for _, w := range words {
				Flat(w)
			}
		}
	})
}

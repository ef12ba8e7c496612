package bib_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/bib"
)

func TestTitlesAreAsAlikeAsTheirWords(t *testing.T) {
	for _, x := range []struct {
		a, b string
		like float64
	}{
		{"Shade at noon", "Shade at noon", 1},
		{"Shade at noon", "NOON, at shade!", 1},
		{"Shade at noon", "Shade at dusk", 0.5},
		{"Shade shade shade", "Shade", 1},
		{"Shade", "Water", 0},
		{"", "Water", 0},
		{"", "…", 0},
	} {
		assert.InDelta(t, x.like, bib.Likeness(x.a, x.b), 1e-9, "%q and %q", x.a, x.b)
		assert.InDelta(t, x.like, bib.Likeness(x.b, x.a), 1e-9, "the other way round")
	}
}

package figures

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/strategy"
)

func TestTypedTermsAreReadInTheirTextForm(t *testing.T) {
	for typed, want := range map[string]strategy.Term{
		"cane cutter*":       {Kind: "text", Text: "cane cutter*", Field: "title", On: true},
		" farm* ~3 crew* ":   {Kind: "near", Left: "farm*", Right: "crew*", Within: 3, Field: "title", On: true},
		"farm worker~2 rest": {Kind: "near", Left: "farm worker", Right: "rest", Within: 2, Field: "title", On: true},
		"[Fluid Intake]":     {Kind: "heading", Heading: "Fluid Intake", On: true},
		"[Fluid Intake +]":   {Kind: "heading", Heading: "Fluid Intake", Narrower: true, On: true},
		"about ~ 3":          {Kind: "text", Text: "about ~ 3", Field: "title", On: true},
	} {
		assert.Equal(t, want, ReadTyped(typed, "title"), typed)
	}
}

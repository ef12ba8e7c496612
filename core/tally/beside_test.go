package tally_test

import (
	"context"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/tally"
)

// Qualifiers are counted by heading, and headings by qualifier, each record once whatever the writing.
func TestQualifiersAreToldByHeading(t *testing.T) {
	of := func(label string, qualifiers ...string) bib.Assignment {
		return bib.Assignment{Label: label, Qualifiers: qualifiers}
	}
	p, err := tally.NewPool(context.Background(), []*bib.Record{
		{Title: "a", Headings: []bib.Assignment{of("Agues", "causes", "therapy"), of("Crews", "therapy")}},
		{Title: "b", Headings: []bib.Assignment{of("AGUES", "Therapy"), of("Agues", "therapy")}},
		{Title: "c", Headings: []bib.Assignment{of("Agues"), of("Crews", "methods")}},
		{Title: "d", Headings: []bib.Assignment{of("Agues", "methods")}},
	}, nil)
	require.NoError(t, err)
	three := roaring.BitmapOf(0, 1, 2)
	assert.Equal(
		t,
		[]tally.Beside{{Item: "therapy", Records: 2}, {Item: "causes", Records: 1}},
		p.Besides(tally.Headings, "agues", three),
	)
	assert.Equal(
		t,
		[]tally.Beside{{Item: "Agues", Records: 2}, {Item: "Crews", Records: 1}},
		p.Besides(tally.Qualifiers, "THERAPY", three),
	)
	assert.Empty(t, p.Besides(tally.Qualifiers, "unheard of", three))
	assert.Nil(t, p.Besides(tally.Words, "agues", three))
}

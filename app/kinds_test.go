package app_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/figures"
	"tamiz/app/intake"
	"tamiz/core/tally"
	"tamiz/demo"
	"tamiz/exchange/skos"
)

// A file of records that is given for a vocabulary is told what it is, and brought in as one; and the other way round.
func TestAFileOfTheOtherKindIsToldWhatItIs(t *testing.T) {
	a, review := start(t)
	asked, err := bring(t, a, review, "vocabulary", "rough.ris", strings.NewReader(file("Heat in crews", "Rest")))
	require.NoError(t, err)
	require.Equal(t, []string{"asking", "kind", "ris"}, []string{asked.State, asked.Asks, asked.Format})
	heard := a.Jobs.Listen(t.Context(), review)
	_, err = a.Intake.AnswerImport(
		t.Context(),
		asked.ID,
		intake.FileAnswer{FileSettings: intake.FileSettings{Kind: "recipe"}},
	)
	require.Error(t, err)
	_, err = a.Intake.AnswerImport(
		t.Context(),
		asked.ID,
		intake.FileAnswer{FileSettings: intake.FileSettings{Kind: "sample"}},
	)
	require.NoError(t, err)
	done, err := read(t, a, heard, asked.ID)
	require.NoError(t, err)
	assert.Equal(t, "done", done.State)
	r, err := a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	require.Len(t, r.Samples, 1)

	var headings bytes.Buffer
	require.NoError(t, skos.Write(&headings, demo.Headings()))
	for _, kind := range []string{"sample", "keys"} {
		asked, err = bring(t, a, review, kind, "headings.nt", bytes.NewReader(headings.Bytes()))
		require.NoError(t, err)
		assert.Equal(t, []string{"asking", "kind", "skos"}, []string{asked.State, asked.Asks, asked.Format})
	}
	_, err = a.Intake.AnswerImport(
		t.Context(),
		asked.ID,
		intake.FileAnswer{FileSettings: intake.FileSettings{Kind: "vocabulary"}},
	)
	require.NoError(t, err)
	_, err = read(t, a, heard, asked.ID)
	require.NoError(t, err)
	r, err = a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	assert.NotNil(t, r.Vocabulary)
}

// A query in the place of a term is told to be one, with its parts.
func TestAQueryInThePlaceOfATermIsToldToBeOne(t *testing.T) {
	a, review := start(t)
	tried, err := a.TryTerm(t.Context(), review, figures.Typed{Typed: "farm worker* AND (heat OR \"rest break\")"})
	require.NoError(t, err)
	require.NotNil(t, tried.Query)
	assert.Equal(t, []string{"farm worker*", "heat", "rest break"}, tried.Query.Parts)
	assert.True(t, tried.Query.Joined)
	assert.Equal(t, "query", tried.Refused.Reason)
	tried, err = a.TryTerm(t.Context(), review, figures.Typed{Typed: "loss of grip and strength"})
	require.NoError(t, err)
	assert.Nil(t, tried.Query)
}

// The code of a file format is no type of publication.
func TestTypesAreThoseOfTheTrade(t *testing.T) {
	a, review := start(t)
	_, err := bring(
		t,
		a,
		review,
		"sample",
		"a.ris",
		strings.NewReader("TY  - JOUR\nTI  - a\nM3  - Trial Report\nER  - \nTY  - JOUR\nTI  - b\nER  - \n"),
	)
	require.NoError(t, err)
	types, err := a.Tally(t.Context(), review, tally.Types)
	require.NoError(t, err)
	require.Len(t, types.Rows, 1)
	assert.Equal(t, "Trial Report", types.Rows[0].Item)
	assert.Equal(t, 1, types.Missing, "a record with the code alone says nothing of its type")
	first, err := a.ReadRecord(t.Context(), review, 1, nil, nil)
	require.NoError(t, err)
	assert.Equal(t, []string{"Trial Report"}, first.Types)
}

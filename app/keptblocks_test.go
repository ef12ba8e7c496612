package app_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/core/review"
)

func TestABlockIsKeptAndTakenIntoAnotherReview(t *testing.T) {
	a, id := start(t)
	at := desk.At{Review: id}
	crewsStrategy(t, a, id)
	words := review.Wordings{{Dialect: "surco", Query: "words{crew…}"}}
	_, err := a.Reviews.Change(
		t.Context(),
		id,
		state(t, a, id).Revision,
		reviews.Change{
			What: what,
			Edits: desk.Edits{
				&review.PatchBlock{ID: "a", Patch: review.Patch(`{"wordings":[{"dialect":"surco","query":"words{crew…}"}]}`)},
			},
		},
	)
	require.NoError(t, err)
	kept, err := a.Figures.KeepBlock(
		t.Context(),
		at,
		figures.BlockToKeep{Block: "a", Name: " Farm people ", Note: "without owners"},
	)
	require.NoError(t, err)
	assert.Equal(t, "Farm people", kept.Name)
	assert.Equal(t, 1, kept.Version)
	assert.Equal(t, words, kept.Block.Wordings, "what a source needs goes along")
	assert.Contains(t, kept.Tested, "Not tested")
	_, err = bring(t, a, id, "sample", "all.ris", strings.NewReader(file("Heat in crews", "Shade")))
	require.NoError(t, err)
	_, err = bring(t, a, id, "keys", "keys.ris", strings.NewReader(file("Heat in crews", "Heat among pickers")))
	require.NoError(t, err)
	again, err := a.Figures.KeepBlock(t.Context(), at, figures.BlockToKeep{Block: "a", Name: "Farm people"})
	require.NoError(t, err)
	assert.Equal(t, 2, again.Version)
	assert.Equal(t, "Finds 1 of the 2 records of “all”, catches 1 of 2 key studies.", again.Tested)
	all, err := a.Figures.KeptBlocks(t.Context())
	require.NoError(t, err)
	require.Len(t, all, 2)
	assert.Equal(t, 2, all[0].Version, "the newest first")

	// Taken into another review it says where it comes from, in the record too.
	other, err := a.Reviews.CreateReview(t.Context(), reviews.NewReview{Name: "Another"})
	require.NoError(t, err)
	copied := all[1].Block
	copied.ID, copied.Origin = "copy", &review.BlockOrigin{Name: all[1].Name, Version: all[1].Version}
	_, err = a.Reviews.Change(
		t.Context(),
		other.ID,
		1,
		reviews.Change{What: what, Edits: desk.Edits{&review.AddBlock{Block: copied}}},
	)
	require.NoError(t, err)
	now, err := a.Reviews.Review(t.Context(), other.ID)
	require.NoError(t, err)
	assert.Equal(t, &review.BlockOrigin{Name: "Farm people", Version: 1}, now.Document.Blocks[0].Origin)
	assert.Len(t, now.Document.Blocks[0].Terms, 2)
	assert.Equal(t, words, now.Document.Blocks[0].Wordings)
	r, err := a.Written.Record(t.Context(), desk.At{Review: other.ID})
	require.NoError(t, err)
	assert.True(t, filled(r)["filters"])
	assert.Contains(t, section(t, r, "filters").Parts[0].Table.Rows[0], "Farm people")

	for field, k := range map[string]figures.BlockToKeep{"name": {Block: "a"}, "note": {Block: "a", Name: "x",
		Note: strings.Repeat("x", 5000)}} {
		_, err := a.Figures.KeepBlock(t.Context(), at, k)
		assert.Equal(t, field, problem(t, err).Field)
	}
	_, err = a.Figures.KeepBlock(t.Context(), at, figures.BlockToKeep{Block: "none", Name: "x"})
	assert.Equal(t, 404, problem(t, err).Status)
	require.NoError(t, a.Figures.ForgetBlock(t.Context(), "Farm people", true))
	assert.Equal(t, 404, problem(t, a.Figures.ForgetBlock(t.Context(), "Farm people", true)).Status)
	left, err := a.Figures.KeptBlocks(t.Context())
	require.NoError(t, err)
	assert.Empty(t, left)
	r, err = a.Written.Record(t.Context(), desk.At{Review: other.ID})
	require.NoError(t, err)
	assert.NotEmpty(t, section(t, r, "filters").Parts[0].Table.Rows[0][4], "copies still say where they come from")
	require.NoError(t, a.Figures.ForgetBlock(t.Context(), "Farm people", false))
	left, err = a.Figures.KeptBlocks(t.Context())
	require.NoError(t, err)
	assert.Len(t, left, 2, "that can be taken back")
}

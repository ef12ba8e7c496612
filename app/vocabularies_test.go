package app_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/core/review"
	"tamiz/core/thesaurus"
	"tamiz/exchange/skos"
)

func vocabulary(t *testing.T, concepts ...thesaurus.Concept) *bytes.Reader {
	var file bytes.Buffer
	require.NoError(t, skos.Write(&file, concepts))
	return bytes.NewReader(file.Bytes())
}

func concept(id, label string, terms ...string) thesaurus.Concept {
	c := thesaurus.Concept{ID: "https://v.example/" + id, Labels: []thesaurus.Text{{Value: label, Language: "en"}}}
	for _, w := range terms {
		c.EntryTerms = append(c.EntryTerms, thesaurus.Text{Value: w, Language: "en"})
	}
	return c
}

func state(t *testing.T, a *trial, id int64) *reviews.Review {
	r, err := a.App.Reviews.Review(t.Context(), id)
	require.NoError(t, err)
	return r
}

// A vocabulary is there for every review; one of the same name is its next edition; it goes only when nobody goes
// by it.
func TestVocabulariesBelongToTheProgram(t *testing.T) {
	a, id := start(t)
	ctx := t.Context()
	_, err := bring(
		t,
		a,
		id,
		"vocabulary",
		"Fields.nt",
		vocabulary(t, concept("1", "Field Hands", "pickers"), concept("2", "Shade")),
	)
	require.NoError(t, err)
	first := *state(t, a, id).Vocabulary
	_, err = bring(
		t,
		a,
		id,
		"vocabulary",
		"Fields.nt.gz",
		vocabulary(t, concept("1", "Harvest Hands", "pickers"), concept("3", "Awnings", "shade")),
	)
	require.NoError(t, err)
	second := *state(t, a, id).Vocabulary
	require.NotNil(t, second.Earlier)
	assert.Equal(t, first.ID, *second.Earlier)
	changes, err := a.Vocabularies.Changes(ctx, second.ID, nil)
	require.NoError(t, err)
	assert.Equal(t, []thesaurus.Renamed{{From: "Field Hands", To: "Harvest Hands"}}, changes.Renamed)
	assert.Equal(t, []thesaurus.Retired{{Label: "Shade", Now: []string{"Awnings"}}}, changes.Retired)

	other, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "another"})
	require.NoError(t, err)
	now := state(t, a, other.ID)
	_, err = a.App.Reviews.Change(
		ctx,
		other.ID,
		now.Revision,
		reviews.Change{
			What:  reviews.What{Key: "vocabulary", Params: map[string]string{}},
			Edits: review.Edits{&review.SetVocabulary{Vocabulary: &first.ID}},
		},
	)
	require.NoError(t, err)
	assert.Equal(t, first.ID, state(t, a, other.ID).Vocabulary.ID, "of another review")
	assert.Error(t, a.Vocabularies.Delete(ctx, first.ID), "a review goes by it")
	deleted := true
	_, err = a.Reviews.PatchReview(ctx, other.ID, reviews.ReviewPatch{Deleted: &deleted})
	require.NoError(t, err)
	require.NoError(t, a.Vocabularies.Delete(ctx, first.ID))
	assert.Error(t, a.Vocabularies.Delete(ctx, first.ID), "it is gone")
	all, err := a.Vocabularies.All(ctx)
	require.NoError(t, err)
	require.Len(t, all, 1)
	_, err = a.Vocabularies.Changes(ctx, second.ID, nil)
	assert.NoError(t, err, "what was can still be compared with")
}

// Without a sample headings are looked up all the same, without figures; without a vocabulary it is said that there
// is none.
func TestHeadingsAreLookedUpWithWhatThereIs(t *testing.T) {
	a, id := start(t)
	ctx := t.Context()
	found, err := a.Figures.Headings(ctx, desk.At{Review: id}, figures.HeadingSearch{Words: []string{"heat"}})
	require.NoError(t, err)
	assert.Empty(t, found.Leads)
	_, err = a.Figures.Heading(ctx, desk.At{Review: id}, "Heat", "", "")
	assert.Error(t, err)
	_, err = bring(
		t,
		a,
		id,
		"vocabulary",
		"Fields.nt",
		vocabulary(t, concept("1", "Field Hands", "pickers", strings.Repeat("long ", 100))),
	)
	require.NoError(t, err)
	found, err = a.Figures.Headings(
		ctx,
		desk.At{Review: id},
		figures.HeadingSearch{Words: []string{"picker", " ", strings.Repeat("x", 300)}},
	)
	require.NoError(t, err)
	require.Len(t, found.Leads, 1)
	assert.Nil(t, found.Leads[0].Records)
	whole, err := a.Figures.Heading(ctx, desk.At{Review: id}, "pickers", "", "")
	require.NoError(t, err)
	assert.Equal(t, "Field Hands", whole.Label)
	assert.False(t, whole.Counted)

	_, err = bring(
		t,
		a,
		id,
		"sample",
		"a.ris",
		strings.NewReader("TY  - JOUR\nTI  - Pickers rest\nKW  - Field Hands\nER  - \nTY  - JOUR\nTI  - A picker\nER  - \n"),
	)
	require.NoError(t, err)
	found, err = a.Figures.Headings(ctx, desk.At{Review: id}, figures.HeadingSearch{Words: []string{"picker"}})
	require.NoError(t, err)
	assert.Equal(t, 1, *found.Leads[0].Records)
	assert.Equal(t, []string{"picker"}, found.Said)
	assert.Equal(t, []int{0, 1}, []int{found.Saying, found.Without}, "the one that says it just so carries no heading")
}

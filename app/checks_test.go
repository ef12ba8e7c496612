package app_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/peerreview"
	"tamiz/app/reviews"
	"tamiz/core/review"
	"tamiz/store"
)

func TestAColleagueChecksAVersion(t *testing.T) {
	a, id := start(t)
	at := desk.At{Review: id}
	_, err := bring(
		t,
		a,
		id,
		"sample",
		"all.ris",
		strings.NewReader(file("Heat in crews", "Heat in farmworkers", "Rest of farmworkers", "Shade")),
	)
	require.NoError(t, err)
	_, err = bring(t, a, id, "keys", "keys.ris", strings.NewReader(file("Heat in farmworkers", "Heat among pickers")))
	require.NoError(t, err)
	crewsStrategy(t, a, id)
	require.NoError(t, a.Reviews.Keep(t.Context(), id, reviews.VersionEdit{Name: "Draft"}))
	versions, err := a.Figures.Versions(t.Context(), at)
	require.NoError(t, err)

	assert.Equal(
		t,
		"checker",
		problem(t, a.PeerReview.HandOver(t.Context(), id, peerreview.NewCheck{Version: versions[0].ID})).Field,
	)
	assert.Equal(
		t,
		"version-gone",
		problem(t, a.PeerReview.HandOver(t.Context(), id, peerreview.NewCheck{Version: 999, Checker: "Sol"})).Type,
	)
	require.NoError(
		t,
		a.PeerReview.HandOver(
			t.Context(),
			id,
			peerreview.NewCheck{Version: versions[0].ID, Checker: "Sol Ferren", Note: "before it is run"},
		),
	)
	list, err := a.PeerReview.Checks(t.Context(), id)
	require.NoError(t, err)
	require.Len(t, list, 1)
	check := list[0].ID

	sheet, err := a.PeerReview.Sheet(t.Context(), at, check)
	require.NoError(t, err)
	require.NotEmpty(t, sheet.Lines)
	assert.NotEmpty(t, sheet.Lines[0].Term)
	why := ""
	for _, f := range sheet.Findings {
		assert.Contains(t, figures.Questions, f.Question)
		why += f.Question + ": " + f.Why + "\n"
	}
	assert.Contains(t, why, "translation: 1 of 2 key studies are missed.")

	// What is suggested has to be of that version, and make a document that can be kept.
	gone := &review.RemoveTerm{Block: "a", ID: "1"}
	assert.Equal(
		t,
		"words",
		problem(t, a.PeerReview.Suggest(t.Context(), id, check, peerreview.Suggestion{Line: "crews"})).Field,
	)
	assert.Equal(
		t,
		"edits",
		problem(
			t,
			a.PeerReview.Suggest(
				t.Context(),
				id,
				check,
				peerreview.Suggestion{Edits: review.Edits{&review.PatchTerm{Block: "a", ID: "none", Patch: []byte(`{}`)}}},
			),
		).Field,
	)
	assert.Equal(
		t,
		"edits",
		problem(
			t,
			a.PeerReview.Suggest(
				t.Context(),
				id,
				check,
				peerreview.Suggestion{Edits: review.Edits{&review.PatchTerm{Block: "a", ID: "1", Patch: []byte(`{"text":"*"}`)}}},
			),
		).Field,
	)
	require.NoError(
		t,
		a.PeerReview.Suggest(
			t.Context(),
			id,
			check,
			peerreview.Suggestion{Line: "crews", Says: "taken out", Edits: review.Edits{gone}},
		),
	)
	for i, q := range figures.Questions {
		assert.Contains(t, problem(t, a.PeerReview.Finish(t.Context(), id, check, true)).Title, "not answered yet", i)
		verdict, said := "fine", ""
		if i == 0 {
			verdict, said = "suggest", "pickers are missing"
			assert.Equal(
				t,
				"words",
				problem(t, a.PeerReview.Say(t.Context(), id, check, q, peerreview.Answer{Verdict: verdict})).Field,
			)
		}
		require.NoError(t, a.PeerReview.Say(t.Context(), id, check, q, peerreview.Answer{Verdict: verdict, Words: said}))
	}
	assert.Equal(
		t,
		"question",
		problem(t, a.PeerReview.Say(t.Context(), id, check, "colour", peerreview.Answer{Verdict: "fine"})).Field,
	)
	record, err := a.Written.Record(t.Context(), at)
	require.NoError(t, err)
	for _, s := range record.Document.Sections {
		if s.ID == "check" {
			assert.Contains(t, s.Empty, "A check by Sol Ferren was begun")
		}
	}
	require.NoError(t, a.PeerReview.Finish(store.By(t.Context(), store.Author{Name: "Ada Runa"}), id, check, true))

	// What is finished is not changed any more, until it goes on; what was suggested is decided all the same.
	assert.Equal(
		t,
		"check-closed",
		problem(t, a.PeerReview.Say(t.Context(), id, check, figures.AskWords, peerreview.Answer{Verdict: "fine"})).Type,
	)
	list, err = a.PeerReview.Checks(t.Context(), id)
	require.NoError(t, err)
	require.Len(t, list[0].Suggestions, 1)
	assert.Equal(t, review.Edits{gone}, list[0].Suggestions[0].Edits)
	ctx := store.By(t.Context(), store.Author{Name: "Inés Olivar"})
	require.NoError(t, a.PeerReview.Decide(ctx, id, check, list[0].Suggestions[0].ID, "declined"))
	assert.Equal(t, "suggestion-gone", problem(t, a.PeerReview.Decide(ctx, id, check, 999, "taken")).Type)
	record, err = a.Written.Record(t.Context(), at)
	require.NoError(t, err)
	for _, item := range record.Items {
		if item.ID == "checked" {
			assert.True(t, item.Filled)
		}
	}
	for _, s := range record.Document.Sections {
		if s.ID == "check" {
			require.Len(t, s.Parts, 3)
			assert.Len(t, s.Parts[1].Table.Rows, 6)
			assert.Equal(t, []string{"crews", "taken out", "", "declined by Inés Olivar"}, s.Parts[2].Table.Rows[0])
		}
	}

	// Who checked is who answered and finished, beside whom it was handed to.
	said := func() string {
		record, err := a.Written.Record(t.Context(), at)
		require.NoError(t, err)
		for _, s := range record.Document.Sections {
			if s.ID == "check" {
				if len(s.Parts) == 0 {
					return s.Empty
				}
				return s.Parts[0].Text
			}
		}
		return ""
	}
	assert.Contains(t, said(), "Ada Runa checked the version")
	assert.Contains(t, said(), "which was handed to Sol Ferren")

	// A finished check is withdrawn, stays to be read, and counts again when that is taken back.
	require.NoError(t, a.PeerReview.Drop(ctx, id, check, true))
	list, err = a.PeerReview.Checks(t.Context(), id)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Len(t, list[0].Answers, 6)
	assert.Equal(t, "Inés Olivar", list[0].WithdrawnBy)
	assert.Contains(t, said(), "was withdrawn on")
	require.NoError(t, a.PeerReview.Drop(t.Context(), id, check, false))
	list, err = a.PeerReview.Checks(t.Context(), id)
	require.NoError(t, err)
	assert.Nil(t, list[0].Withdrawn)

	// One that goes on is told of no more once it is taken away, and is put back whole.
	require.NoError(t, a.PeerReview.Finish(t.Context(), id, check, false))
	require.NoError(t, a.PeerReview.Drop(t.Context(), id, check, true))
	list, err = a.PeerReview.Checks(t.Context(), id)
	require.NoError(t, err)
	assert.Empty(t, list)
	require.NoError(t, a.PeerReview.Drop(t.Context(), id, check, false))
	list, err = a.PeerReview.Checks(t.Context(), id)
	require.NoError(t, err)
	assert.Len(t, list[0].Answers, 6)
}

func TestNotesAreOpenUntilTheyAreSettled(t *testing.T) {
	a, id := start(t)
	assert.Equal(
		t,
		"kind",
		problem(t, a.PeerReview.Note(t.Context(), id, peerreview.Note{Kind: "colour", Words: "x"})).Field,
	)
	assert.Equal(
		t,
		"words",
		problem(t, a.PeerReview.Note(t.Context(), id, peerreview.Note{Kind: "term", Words: " \x00 "})).Field,
	)
	assert.Equal(
		t,
		"words",
		problem(t, a.PeerReview.Note(t.Context(), id, peerreview.Note{Kind: "term", Words: strings.Repeat("é", 4001)})).Field,
	)
	assert.Equal(
		t,
		"review-gone",
		problem(t, a.PeerReview.Note(t.Context(), 999, peerreview.Note{Kind: "term", Words: "why?"})).Type,
	)
	ctx := store.By(t.Context(), store.Author{Name: "Sol Ferren"})
	require.NoError(
		t,
		a.PeerReview.Note(
			ctx,
			id,
			peerreview.Note{Kind: "study", About: "12", Name: "Heat in crews", Words: "Does it count?"},
		),
	)
	list, err := a.PeerReview.Notes(t.Context(), id)
	require.NoError(t, err)
	require.Len(t, list, 1)
	assert.Equal(
		t,
		[]string{"study", "12", "Heat in crews", "Does it count?", "Sol Ferren"},
		[]string{list[0].Kind, list[0].About, list[0].Name, list[0].Words, list[0].Who},
	)
	for _, settled := range []bool{true, true, false, true} {
		require.NoError(t, a.PeerReview.Settle(ctx, id, list[0].ID, settled))
		list, err = a.PeerReview.Notes(t.Context(), id)
		require.NoError(t, err)
		assert.Equal(t, settled, list[0].Settled != nil)
		assert.Equal(t, settled, list[0].SettledBy == "Sol Ferren")
	}
	require.NoError(t, a.PeerReview.DropNote(ctx, id, list[0].ID, true))
	assert.Equal(t, "note-gone", problem(t, a.PeerReview.Settle(ctx, id, list[0].ID, false)).Type)
	list, err = a.PeerReview.Notes(t.Context(), id)
	require.NoError(t, err)
	assert.Empty(t, list)
}

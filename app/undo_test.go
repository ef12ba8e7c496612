package app_test

import (
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/reviews"
	"tamiz/core/review"
	"tamiz/core/tally"
)

// Each of two people takes back their own last change, whoever worked last.
func TestEverybodyTakesBackTheirOwn(t *testing.T) {
	a, id := start(t)
	ines, bo := reviews.AsSelf(reviews.As(t.Context(), "In%C3%A9s"), uuid.New()), reviews.AsSelf(t.Context(), uuid.New())
	doc := desk.Document{Blocks: []desk.Block{block("a", "A", term("t1", "crew"))}}
	s, err := a.Change(ines, id, 1, change{What: what, Document: &doc})
	require.NoError(t, err)
	add := func(x desk.Term) reviews.Change {
		return reviews.Change{What: what, Edits: desk.Edits{&review.AddTerm{Block: "a", Term: x}}}
	}
	mine, err := a.App.Reviews.Change(ines, id, s.Revision, add(term("t2", "cane")))
	require.NoError(t, err)
	assert.Equal(t, int64(3), mine.Number)
	_, err = a.App.Reviews.Change(bo, id, s.Revision, add(term("t3", "shade")))
	require.NoError(t, err)
	_, err = a.App.Reviews.Change(
		bo,
		id,
		s.Revision,
		reviews.Change{What: what, Decisions: []reviews.NewDecision{{Facet: tally.Words, Item: "heat", State: "parked"}}},
	)
	require.NoError(t, err)

	texts := func() (out []string) {
		r, err := a.Reviews.Review(t.Context(), id)
		require.NoError(t, err)
		for _, b := range r.Document.Blocks {
			for _, x := range b.Terms {
				out = append(out, x.Text)
			}
		}
		return out
	}
	back, err := a.App.Reviews.Undo(ines, id)
	require.NoError(t, err)
	assert.Equal(t, desk.Edits{&review.RemoveTerm{Block: "a", ID: "t2"}}, back.Edits)
	assert.Equal(t, []string{"crew", "shade"}, texts(), "what Bo put in stays")
	assert.NotNil(t, back.Redo)
	again, err := a.App.Reviews.Redo(ines, id)
	require.NoError(t, err)
	assert.Nil(t, again.Redo)
	assert.Equal(t, []string{"crew", "shade", "cane"}, texts(), "what was last of all is last again")

	// What Bo built on a block of Inés stands in the way of taking the block back.
	_, err = a.App.Reviews.Undo(ines, id)
	require.NoError(t, err)
	_, err = a.App.Reviews.Undo(ines, id)
	p := problem(t, err)
	assert.Equal(t, "built-on", p.Type)
	require.Len(t, p.Clashes, 1)
	assert.Equal(t, "block", p.Clashes[0].What)
	assert.Contains(t, p.Clashes[0].Theirs, "shade")
	assert.Equal(t, []string{"crew", "shade"}, texts(), "nothing was changed")

	// Without a name of one's own only what is nobody's can be taken back: here nothing.
	none, err := a.App.Reviews.Undo(t.Context(), id)
	require.NoError(t, err)
	assert.Nil(t, none.What)
	_, err = a.App.Reviews.Undo(bo, id)
	require.NoError(t, err)
	r, err := a.Reviews.Review(t.Context(), id)
	require.NoError(t, err)
	assert.Empty(t, r.Decisions)
}

// What somebody else decided since is not thrown away by who takes back what they had decided before.
func TestADecisionThatAnotherChangedIsNotTakenBack(t *testing.T) {
	a, id := start(t)
	ines, bo := reviews.AsSelf(t.Context(), uuid.New()), reviews.AsSelf(t.Context(), uuid.New())
	decide := func(state string) reviews.Change {
		return reviews.Change{What: what, Decisions: []reviews.NewDecision{{Facet: tally.Words, Item: "heat", State: state}}}
	}
	_, err := a.App.Reviews.Change(ines, id, 1, decide("parked"))
	require.NoError(t, err)
	_, err = a.App.Reviews.Change(bo, id, 1, decide("dropped"))
	require.NoError(t, err)
	_, err = a.App.Reviews.Undo(ines, id)
	assert.Equal(
		t,
		[]desk.Clash{{What: "decision", Name: "heat", Mine: "open", Theirs: "dropped"}},
		problem(t, err).Clashes,
	)
	_, err = a.App.Reviews.Undo(bo, id)
	require.NoError(t, err)
	_, err = a.App.Reviews.Undo(ines, id)
	require.NoError(t, err)
}

// Who knows the number before needs nothing but the step; one that is too long to be passed on says that all is to be
// asked for anew.
func TestStepsTellAllThatWasDone(t *testing.T) {
	a, id := start(t)
	heard := a.Jobs.Listen(t.Context(), id)
	now, err := a.Reviews.Review(t.Context(), id)
	require.NoError(t, err)
	doc := now.Document
	var long desk.Edits
	for range 300 {
		long = append(long, &review.AddTerm{Block: "a", Term: term(uuid.NewString(), "crew of many hands")})
	}
	for i, edits := range []desk.Edits{{&review.SetQuestion{Text: "Heat?"}}, {&review.AddBlock{Block: block("a", "A")}},
		long} {
		step, err := a.App.Reviews.Change(t.Context(), id, now.Revision+i, reviews.Change{What: what, Edits: edits})
		require.NoError(t, err)
		assert.Equal(t, now.Number+1+int64(i), step.Number)
		doc, _ = review.Apply(doc, step.Edits)
		news := <-heard
		told, ok := news.Step.(map[string]any)
		require.True(t, ok)
		assert.EqualValues(t, step.Number, told["number"])
		assert.Equal(t, i == 2, told["whole"])
	}
	r, err := a.Reviews.Review(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, r.Document, doc)
}

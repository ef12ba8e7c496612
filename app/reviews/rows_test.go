package reviews

import (
	"context"
	"testing"

	"tamiz/store"
	"tamiz/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

func TestEachTakesBackTheirOwn(t *testing.T) {
	s := storetest.Open(t)
	rows, review := NewRows(s), storetest.Review(t, s)
	sol := store.By(t.Context(), store.Author{Name: "Sol", Self: "1"})
	bo := store.By(t.Context(), store.Author{Name: "Bo", Self: "2"})
	in := func(ctx context.Context, do func(ctx context.Context, tx *store.Tx) error) {
		require.NoError(t, s.InReview(ctx, review, do))
	}
	log := func(ctx context.Context, what string) {
		in(ctx, func(ctx context.Context, tx *store.Tx) error {
			return logChange(ctx, tx, []byte(`"`+what+`"`), Facts{Revision: 1}, Facts{Revision: 2})
		})
	}
	steps := func(ctx context.Context) string {
		undo, redo, err := rows.Steps(ctx, review)
		require.NoError(t, err)
		return string(undo) + "/" + string(redo)
	}
	log(sol, "a")
	log(bo, "b")
	log(sol, "c")
	assert.Equal(t, `"c"/`, steps(sol))
	assert.Equal(t, `"b"/`, steps(bo))
	assert.Equal(t, "/", steps(t.Context()), "who names nobody has done nothing")
	for _, want := range []string{`"c"`, `"a"`} {
		in(sol, func(ctx context.Context, tx *store.Tx) error {
			last, err := lastChange(ctx, tx, false)
			require.NoError(t, err)
			assert.Equal(t, want, string(last.What))
			return markUndone(ctx, tx, last.Number, true)
		})
	}
	assert.Equal(t, `/"a"`, steps(sol), "what was taken back last is made again first")
	assert.Equal(t, `"b"/`, steps(bo))
	log(sol, "d")
	assert.Equal(t, `"d"/`, steps(sol), "what was taken back before a new change is gone")
}

func TestFactsAreAsTheySay(t *testing.T) {
	s := storetest.Open(t)
	rows, review := NewRows(s), storetest.Review(t, s)
	at := func(state string) FactDecision { return FactDecision{Facet: "words", Item: "heat", State: state} }
	for _, state := range []string{"parked", "dropped", "open"} {
		require.NoError(t, s.InReview(t.Context(), review, func(ctx context.Context, tx *store.Tx) error {
			require.NoError(t, apply(ctx, tx, Facts{Decisions: []FactDecision{at(state)}}))
			now, err := decisionIn(ctx, tx, "words", "heat")
			require.NoError(t, err)
			assert.Equal(t, state, now.State)
			return nil
		}))
	}
	left, err := rows.Decisions(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, left, "what is open has no row")
}

func TestAReviewThatIsDeletedIsNotListedAndCanComeBack(t *testing.T) {
	rows := NewRows(storetest.Open(t))
	id, err := rows.New(t.Context(), "Heat", []byte(`{}`))
	require.NoError(t, err)
	yes, no, name := true, false, "Heat at work"
	require.NoError(t, rows.Patch(t.Context(), id, nil, &yes))
	all, err := rows.Heads(t.Context())
	require.NoError(t, err)
	assert.Empty(t, all)
	require.NoError(t, rows.Patch(t.Context(), id, &name, &no))
	all, err = rows.Heads(t.Context())
	require.NoError(t, err)
	require.Len(t, all, 1)
	assert.Equal(t, name, all[0].Name)
	require.ErrorIs(t, rows.Patch(t.Context(), id+1, &name, nil), store.ErrNone)
}

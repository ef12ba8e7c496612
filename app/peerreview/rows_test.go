package peerreview

import (
	"context"
	"strings"
	"testing"

	"tamiz/store"
	"tamiz/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

func TestACheckThatIsFinishedIsWithdrawnNotDropped(t *testing.T) {
	s := storetest.Open(t)
	rows, review := NewRows(s), storetest.Review(t, s)
	in := func(do func(ctx context.Context, tx *store.Tx) error) error {
		return s.InReview(t.Context(), review, do)
	}
	var id int64
	require.NoError(t, in(func(ctx context.Context, tx *store.Tx) (err error) {
		id, err = putCheck(ctx, tx, CheckRow{Revision: 1, Name: "Draft", Checker: "Bo"})
		return err
	}))
	for _, verdict := range []string{"revise", "fine"} {
		require.NoError(t, in(func(ctx context.Context, tx *store.Tx) error {
			return putAnswer(ctx, tx, AnswerRow{Checked: id, Question: "spelling", Verdict: verdict})
		}))
	}
	answers, err := rows.Answers(t.Context(), review)
	require.NoError(t, err)
	require.Len(t, answers, 1, "the last answer counts")
	assert.Equal(t, "fine", answers[0].Verdict)
	require.NoError(t, in(func(ctx context.Context, tx *store.Tx) error { return finishCheck(ctx, tx, id, true) }))
	require.ErrorIs(t, in(func(ctx context.Context, tx *store.Tx) error {
		_, err := openCheck(ctx, tx, id)
		return err
	}), store.ErrNone, "it does not go on any more")
	require.NoError(t, in(func(ctx context.Context, tx *store.Tx) error { return dropCheck(ctx, tx, id, true) }))
	c, err := rows.Check(t.Context(), review, id)
	require.NoError(t, err)
	assert.NotNil(t, c.Withdrawn)
	require.NoError(t, in(func(ctx context.Context, tx *store.Tx) error { return dropCheck(ctx, tx, id, false) }))
	c, err = rows.Check(t.Context(), review, id)
	require.NoError(t, err)
	assert.Nil(t, c.Withdrawn)
}

func TestWordsAreKeptWithinTheirBounds(t *testing.T) {
	for _, c := range []struct {
		said   string
		needed bool
		want   string
		ok     bool
	}{
		{" so it is \x00", true, "so it is", true}, {"  ", false, "", true}, {"  ", true, "", false},
		{strings.Repeat("é", 10), true, strings.Repeat("é", 10), true}, {strings.Repeat("é", 11), true, "", false},
	} {
		got, err := words("note", c.said, 10, c.needed)
		assert.Equal(t, c.want, got)
		assert.Equal(t, c.ok, err == nil, "%q: %v", c.said, err)
	}
}

func TestWhoCheckedIsNamedOnce(t *testing.T) {
	assert.Empty(t, Check{Answers: []Answer{{}, {}}}.By())
	assert.Equal(t, "Bo and Sol", Check{Answers: []Answer{{Who: "Bo"}, {Who: ""}, {Who: "Bo"}}, DoneBy: "Sol"}.By())
}

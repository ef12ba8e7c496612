package app_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/core/tally"
)

// Rows come in windows: filtered, sorted and cut by the program, with what somebody decided on wherever it stands.
func TestRowsComeInWindows(t *testing.T) {
	a, review, state := harvesting(t)
	ctx := context.Background()
	whole, err := a.Tally(ctx, review, tally.Words)
	require.NoError(t, err)
	require.Greater(t, len(whole.Rows), 5)
	items := func(rows []figures.TallyRow) (out []string) {
		for _, r := range rows {
			out = append(out, r.Item)
		}
		return out
	}
	in := func(w figures.Window) *figures.Tally {
		t.Helper()
		got, err := a.App.Figures.TallyIn(ctx, a.at(ctx, review), tally.Words, w)
		require.NoError(t, err)
		assert.Equal(t, len(whole.Rows), got.All)
		return got
	}
	all := in(figures.Window{})
	assert.Equal(t, items(whole.Rows), items(all.Rows), "few rows come as they are")

	// The first two, and what is a term already, wherever it stands.
	first := in(figures.Window{Most: 2})
	assert.Equal(t, items(whole.Rows)[:2], items(first.Rows)[:2])
	for _, term := range []string{"cane cutters", "shade tents"} {
		if slices.ContainsFunc(whole.Rows, func(r figures.TallyRow) bool { return holds(r, term) }) {
			assert.True(t, slices.ContainsFunc(first.Rows, func(r figures.TallyRow) bool { return holds(r, term) }), term)
		}
	}
	assert.Equal(t, len(whole.Rows), first.Passing)
	assert.Equal(t, len(first.Rows), first.Sent)
	assert.Less(t, first.Sent, first.Passing)
	for _, r := range first.Rows[2:] {
		assert.NotEmpty(t, r.Inside, "what a term finds already steps aside, and comes too: %s", r.Item)
	}
	last := whole.Rows[len(whole.Rows)-1].Item
	if assert.NotContains(t, items(first.Rows), last) {
		_, err = a.Change(
			ctx,
			review,
			state.Revision,
			change{
				What:      what,
				Decisions: []reviews.NewDecision{{Facet: tally.Words, Item: last, State: "dropped", Sample: &state.Samples[0].ID}},
			},
		)
		require.NoError(t, err)
		assert.Contains(t, items(in(figures.Window{Most: 2}).Rows), last, "what is dropped stays to be seen")
	}

	// Filtered: letters anywhere, or whole words with signs.
	for typed, passes := range map[string]func(string) bool{
		"HADE T":       func(s string) bool { return strings.Contains(s, "hade t") },
		"sha?e":        func(s string) bool { return slices.Contains(strings.Fields(s), "shade") },
		"**ade te*":    func(s string) bool { return strings.Contains(s, "shade tent") },
		"nothing such": func(string) bool { return false },
	} {
		var want []string
		for _, r := range whole.Rows {
			if passes(r.Item) || slices.ContainsFunc(r.Forms, func(f figures.Form) bool { return passes(f.Item) }) {
				want = append(want, r.Item)
			}
		}
		got := in(figures.Window{Words: typed})
		require.Equal(t, len(want), got.Passing, typed)
		require.Equal(t, len(want), got.Sent, typed)
		assert.ElementsMatch(t, want, items(got.Rows)[:len(want)], typed)
		for _, r := range got.Rows[len(want):] {
			assert.True(
				t,
				len(r.Inside) > 0 || r.Item == last || holds(r, "cane cutters") || holds(r, "shade tents"),
				"behind them only what is decided on, or found already: %s",
				r.Item,
			)
		}
	}
	for _, typed := range []string{"*", "ab *", "a*"} {
		_, err := a.App.Figures.TallyIn(ctx, a.at(ctx, review), tally.Words, figures.Window{Words: typed})
		assert.Equal(t, "words", problem(t, err).Field, typed)
	}

	// Sorted before they are cut; bounds hold.
	two := 2.0
	got := in(figures.Window{Sort: "item", Down: true, Records: figures.Bounds{From: &two}, Most: 3})
	var want []string
	for _, r := range whole.Rows {
		if r.Records >= 2 {
			want = append(want, r.Item)
		}
	}
	slices.Sort(want)
	slices.Reverse(want)
	require.Greater(t, len(want), 3)
	assert.Equal(t, want[:3], items(got.Rows)[:3])
	assert.Equal(t, len(want), got.Passing)
	by := in(figures.Window{Sort: "records"})
	assert.True(
		t,
		slices.IsSortedFunc(by.Rows[:by.Passing], func(a, b figures.TallyRow) int { return a.Records - b.Records }),
	)
}

func holds(r figures.TallyRow, form string) bool {
	return r.Item == form || slices.ContainsFunc(r.Forms, func(f figures.Form) bool { return f.Item == form })
}

package app_test

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/core/strategy"
)

// What a block or a limit takes away, what a limit asks for, and all before NOT can be opened and judged: they are
// as many records as is said.
func TestWhatPartsTakeAwayIsOpenedAndJudged(t *testing.T) {
	a, review, state := harvesting(t)
	ctx := context.Background()
	from := 2005
	d := state.Document
	d.Blocks = []desk.Block{
		block("a", "A", text("t1", "cane cutters"), text("t3", "nurses"), text("t6", "field hands")),
		block("b", "B", text("t2", "shade tents"), text("t4", "night lights")),
		block("n", "N", text("t5", "slept")),
	}
	d.Blocks[2].Negated = true
	d.Limits = []strategy.Limit{
		{Kind: strategy.YearsLimit, From: &from},
		{Kind: strategy.HumansLimit, Against: []string{"Warm Work"}, Values: []string{"Cold Work"}},
	}
	_, err := a.Change(ctx, review, state.Revision, change{What: what, Document: &d})
	require.NoError(t, err)
	at := looking(t, a, review, state)
	bench, err := a.Figures.Bench(ctx, at, desk.Proposal{})
	require.NoError(t, err)
	total := func(set string) int {
		drawn, err := a.Figures.Judging(ctx, at, figures.JudgingQuestion{Of: of(set), N: 20})
		require.NoError(t, err, set)
		return drawn.Total
	}
	some := 0
	for _, b := range bench.Blocks {
		assert.Equal(t, *b.TakenAway, total(fmt.Sprintf(`{"kind":"block","block":%q,"away":true}`, b.ID)), b.ID)
		some += *b.TakenAway
	}
	for _, l := range bench.Limits {
		assert.Equal(t, *l.TakenAway, total(fmt.Sprintf(`{"kind":"limit","limit":%q,"away":true}`, l.Kind)), l.Kind)
		assert.Equal(t, *l.Records, total(fmt.Sprintf(`{"kind":"limit","limit":%q}`, l.Kind)), l.Kind)
		assert.Positive(t, *l.TakenAway, l.Kind)
		some += *l.TakenAway
	}
	assert.Greater(t, some, 5)
	require.NotNil(t, bench.Before)
	assert.Equal(t, *bench.Before.Records, total(`{"kind":"strategy","beforeNot":true}`))
	assert.Less(t, total(`{"kind":"strategy"}`), *bench.Before.Records)

	_, err = a.Figures.Judging(ctx, at, figures.JudgingQuestion{Of: of(`{"kind":"limit","limit":"types"}`), N: 20})
	assert.Contains(t, problem(t, err).Title, "no such limit")
	// What names a part that is not there is not looked at either: it would be the sample under another name.
	for _, gone := range []string{`{"kind":"limit","limit":"types"}`, `{"kind":"block","block":"zz","away":true}`,
		`{"kind":"spot","block":"zz"}`, `{"kind":"line","line":"zz"}`,
		`{"kind":"less","of":{"kind":"all"},"less":{"kind":"limit","limit":"ages","away":true}}`,
		`{"kind":"within","of":{"kind":"all"},"in":{"kind":"lost","block":"zz","terms":[]}}`} {
		s := of(gone)
		_, err := a.SetView(ctx, review, desk.NewLook{Sample: &state.Samples[0].ID, Rest: true, Set: &s})
		assert.Error(t, err, gone)
		problem(t, err)
	}
	there := of(`{"kind":"limit","limit":"years","away":true}`)
	_, err = a.SetView(ctx, review, desk.NewLook{Sample: &state.Samples[0].ID, Rest: true, Set: &there})
	assert.NoError(t, err)
}

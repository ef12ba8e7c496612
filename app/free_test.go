package app_test

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/draws"
	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/core/bib"
	"tamiz/core/set"
	"tamiz/source"
)

// nurses begins a review of two blocks with seed words, some of which every record says that says another.
func nurses(t *testing.T, a *trial, review int64) []draws.RoughConcept {
	t.Helper()
	d := desk.Document{Blocks: []desk.Block{
		{
			ID:       "n",
			Name:     "A",
			Concept:  "nurses",
			Searched: true,
			Terms:    []desk.Term{text("n1", "nurse*"), text("n2", "shift worker*"), text("n3", "night shift")},
		},
		{
			ID:       "s",
			Name:     "B",
			Concept:  "sleep",
			Searched: true,
			Terms:    []desk.Term{text("s1", "sleep loss"), text("s2", "insomnia"), text("s3", "poor sleep")},
		},
	}}
	r, err := a.Reviews.Review(context.Background(), review)
	require.NoError(t, err)
	_, err = a.Change(
		context.Background(),
		review,
		r.Revision,
		change{What: reviews.What{Key: "other", Params: map[string]string{}}, Document: &d},
	)
	require.NoError(t, err)
	return []draws.RoughConcept{
		{Name: "A", Block: "n", Words: []string{"nurse*", "shift worker*", "night shift"}},
		{Name: "B", Block: "s", Words: []string{"sleep loss", "insomnia", "poor sleep"}},
	}
}

// says reports whether the text of a record holds any of some phrases.
func says(r *bib.Record, phrases ...string) bool {
	value := " " + strings.ToLower(r.Title+" . "+r.Abstract+" . "+strings.Join(r.Keywords, " . ")) + " "
	value = strings.NewReplacer("-", " ", ",", " ", ".", " ", ";", " ", "(", " ", ")", " ", "'", " ").Replace(value)
	value = strings.Join(strings.Fields(value), " ")
	return slices.ContainsFunc(phrases, func(p string) bool { return strings.Contains(" "+value, " "+p) })
}

func TestASampleThatABlockChoseTellsNothingOfWhatTheBlockLacks(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	w := standInSources(t, a)
	concepts := nurses(t, a, review)
	together := draw(t, a, review, draws.NewDraw{Name: "both", Sources: []int64{w.ids["almagre"]}, Concepts: concepts,
		How: source.All, AtMost: 2000})[0]
	at := func() desk.At {
		l, err := a.Desk.MakeLook(ctx, review, desk.NewLook{Sample: together.Sample, Rest: true})
		require.NoError(t, err)
		return desk.At{Review: review, Look: l.Name}
	}
	b, err := a.Figures.Bench(ctx, at(), desk.Proposal{})
	require.NoError(t, err)
	require.Positive(t, *b.Records)
	for _, block := range b.Blocks {
		assert.Nil(t, block.Over, "the words of both blocks chose the sample")
		for _, term := range block.Terms {
			assert.NotNil(t, term.Records, "how many records it finds is told")
			assert.Nil(t, term.OnlyHere)
			assert.False(t, term.AddsNothing)
		}
	}
	pruned, err := a.Figures.Prune(ctx, at(), "n", 0.95)
	require.NoError(t, err)
	assert.Empty(t, pruned.Steps, "no advice to switch off what chose the sample")
	assert.Nil(t, pruned.Over)
	spot, err := a.Figures.BlindSpot(ctx, at(), "n")
	require.NoError(t, err)
	assert.Nil(t, spot.Over)
	assert.Empty(t, spot.Words)

	// Records that the other concept alone chose tell it, and tell the truth of the source.
	draw(
		t,
		a,
		review,
		draws.NewDraw{
			Name:     "sleep alone",
			Sources:  []int64{w.ids["almagre"]},
			Concepts: concepts[1:],
			How:      source.All,
			AtMost:   2000,
		},
	)
	b, err = a.Figures.Bench(ctx, at(), desk.Proposal{})
	require.NoError(t, err)
	require.NotNil(t, b.Blocks[0].Over)
	assert.Equal(
		t,
		desk.Over{Records: b.Blocks[0].Over.Records, How: desk.ByOthers, From: []string{"sleep alone"}},
		*b.Blocks[0].Over,
	)
	assert.Nil(t, b.Blocks[1].Over, "nothing there is free of B")
	only := 0
	for _, r := range w.Almagre {
		if says(r, "sleep loss", "insomnia", "poor sleep") && says(r, "night shift") && !says(r, "nurse", "shift worker") {
			only++
		}
	}
	assert.Equal(
		t,
		only,
		*b.Blocks[0].Terms[2].OnlyHere,
		"at the source as many records of the whole strategy come by this term alone",
	)
	list, err := a.Figures.Records(
		ctx,
		at(),
		figures.RecordsQuestion{
			Of: of(
				`{"kind":"term","block":"n","only":true,"term":{"id":"n3","kind":"text","text":"night shift","field":"text","on":true}}`,
			),
			Limit: 100,
		},
	)
	require.NoError(t, err)
	assert.Equal(t, only, list.Total, "and these can be opened")

	spot, err = a.Figures.BlindSpot(ctx, at(), "n")
	require.NoError(t, err)
	missed := 0
	for _, r := range w.Almagre {
		if says(r, "sleep loss", "insomnia", "poor sleep") && !says(r, "nurse", "shift worker", "night shift") {
			missed++
		}
	}
	assert.Equal(t, missed, spot.Records)
	require.NotEmpty(t, spot.Words)
	for _, w := range spot.Words {
		if w.Under != "" {
			assert.True(
				t,
				slices.ContainsFunc(spot.Words, func(o figures.BlindSpotWord) bool { return o.Item == w.Under && o.Under == "" }),
				w.Item,
			)
		}
	}
}

func TestASampleIsDrawnInPartsWithinTheNumber(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	w := standInSources(t, a)
	concepts := nurses(t, a, review)
	d := draw(t, a, review, draws.NewDraw{Name: "in parts", Sources: []int64{w.ids["almagre"]}, Concepts: concepts,
		Parts: true, How: source.All, AtMost: 300, Seed: 2})[0]
	require.Len(t, d.Parts, 4, "together, each by itself, and anything")
	wanted := 0
	for i, n := range []int{2, 1, 1, 0} {
		assert.Len(t, d.Parts[i].Concepts, n)
		assert.LessOrEqual(t, d.Parts[i].Wanted, d.Parts[i].Total)
		wanted += d.Parts[i].Wanted
	}
	assert.Equal(t, []int{300, 300, d.Parts[0].Total}, []int{wanted, d.Wanted, d.Total})
	s, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	assert.LessOrEqual(t, s.Samples[0].Records, 300, "a record of two parts stands in the sample once")

	l, err := a.Desk.MakeLook(ctx, review, desk.NewLook{Sample: d.Sample, Rest: true})
	require.NoError(t, err)
	at := desk.At{Review: review, Look: l.Name}
	b, err := a.Figures.Bench(ctx, at, desk.Proposal{})
	require.NoError(t, err)
	for i, other := range []int{2, 1} {
		require.NotNil(t, b.Blocks[i].Over, "each block is told of by the part that the other drew")
		assert.Equal(t, d.Parts[other].Wanted, b.Blocks[i].Over.Records, "with those that are in other parts too")
		assert.Equal(t, desk.ByOthers, b.Blocks[i].Over.How)
	}
	tallied, err := a.Figures.Tally(ctx, at, "words")
	require.NoError(t, err)
	assert.Positive(t, tallied.Contrast, "what was drawn of anything is set against the rest")
	assert.Equal(t, s.Samples[0].Records, tallied.Looked+tallied.Contrast)

	// A part can be looked at by itself.
	for i, p := range d.Parts {
		ids, err := a.Desk.SetIDs(ctx, at, &set.Sample{Sample: *d.Sample, Part: &i})
		require.NoError(t, err)
		assert.Len(t, ids, p.Wanted)
		alone, err := a.Desk.MakeLook(
			ctx,
			review,
			desk.NewLook{Sample: d.Sample, Rest: true, Set: &set.Of{Set: &set.Sample{Sample: *d.Sample, Part: &i}}},
		)
		require.NoError(t, err)
		of, err := a.Figures.Tally(ctx, desk.At{Review: review, Look: alone.Name}, "words")
		require.NoError(t, err)
		assert.Equal(t, p.Wanted, of.Looked, i)
	}
	none := 9
	ids, err := a.Desk.SetIDs(ctx, at, &set.Sample{Sample: *d.Sample, Part: &none})
	require.NoError(t, err)
	assert.Empty(t, ids)

	require.NoError(t, a.Draws.GoOn(ctx, review, d.ID, 500))
	more := rested(t, a, review, []draws.Draw{d})[0]
	for i, p := range more.Parts {
		assert.GreaterOrEqual(t, p.Wanted, d.Parts[i].Wanted, fmt.Sprint("part ", i, " holds what it held"))
	}
	assert.Equal(t, 500, more.Got)
}

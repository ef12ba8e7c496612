package app_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/draws"
	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/app/vocabularies"
	"tamiz/core/dialect"
	"tamiz/core/strategy"
	"tamiz/core/thesaurus"
	"tamiz/demo"
	"tamiz/source"
)

// A heading stands as its words in the dialect of a source with another vocabulary, until somebody takes a
// counterpart; that is remembered for the next review. A dialect of one's own is kept, refused and taken away with
// a reason each.
func TestAStrategyIsTypedForASourceWithAnotherVocabulary(t *testing.T) {
	a, id := start(t)
	ctx := t.Context()
	other, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "another"})
	require.NoError(t, err)
	cutters := concept("9", "Cutting gangs", "field hands")
	cutters.Exact = []string{"https://v.example/1"}
	_, err = bring(t, a, other.ID, "vocabulary", "Surco Thesaurus.nt", vocabulary(t, cutters, concept("8", "Shade")))
	require.NoError(t, err)
	_, err = bring(
		t,
		a,
		id,
		"vocabulary",
		"Fields.nt",
		vocabulary(t, concept("1", "Field Hands", "pickers"), concept("2", "Awnings", "shade"), concept("3", "Water")),
	)
	require.NoError(t, err)
	_, err = bring(
		t,
		a,
		id,
		"sample",
		"s.ris",
		strings.NewReader(
			"TY  - JOUR\nTI  - Field hands and water\nKW  - *Field Hands\nER  - \nTY  - JOUR\nTI  - Pickers\nKW  - *Field "+
				"Hands\nER  - \n",
		),
	)
	require.NoError(t, err)
	mine := state(t, a, id)
	d := mine.Document
	heading := func(label string) desk.Term {
		return desk.Term{ID: label, Term: strategy.Term{Kind: strategy.HeadingTerm, Heading: label, On: true}}
	}
	d.Blocks = []desk.Block{
		block(
			"a",
			"A",
			heading("Field Hands"),
			heading("Water"),
			desk.Term{ID: "t", Term: strategy.Term{Kind: strategy.TextTerm, Text: "picker*", Field: "text", On: true}},
		),
	}
	_, err = a.Change(ctx, id, mine.Revision, change{What: reviews.What{Key: "addTerm"}, Document: &d})
	require.NoError(t, err)
	surco, _ := dialect.Named("surco")
	typed := func() *figures.TypedStrategy {
		v, err := a.Figures.TypedIn(ctx, a.at(ctx, id), surco)
		require.NoError(t, err)
		return v
	}

	v := typed()
	assert.Equal(t, "1\twords{field hands}\n2\twords{water}\n3\twords{picker…}\n4\teither of lines 1 to 3", v.Text)
	require.NotNil(t, v.Carry)
	require.Len(t, v.Carry.Headings, 2)
	assert.Equal(
		t,
		[]figures.CarryCandidate{{Heading: "Cutting gangs", Via: string(thesaurus.ByExact)}},
		v.Carry.Headings[0].Proposals,
	)
	assert.Empty(t, v.Carry.Headings[1].Proposals)
	note := v.Lines[0].Notes[0]
	assert.Equal(t, "no-counterpart", note.Kind)
	assert.Equal(t, 1, *note.Fewer, "of two records with the heading one says its words")

	take := func(c figures.Counterpart) {
		c.Heading, c.Vocabulary = "Field Hands", "Surco Thesaurus"
		require.NoError(t, a.Figures.TakeCounterpart(ctx, id, c))
	}
	take(figures.Counterpart{Stands: "Cutting gangs"})
	v = typed()
	assert.Contains(t, v.Text, "1\ttopic{Cutting gangs}\n")
	assert.Equal(t, "carried", v.Lines[0].Notes[0].Kind)
	assert.Nil(t, v.More, "the sample says nothing of what it finds")
	// Several stand for it together; one that is taken twice is one.
	take(figures.Counterpart{Stands: "Shade"})
	take(figures.Counterpart{Stands: "shade"})
	v = typed()
	assert.Equal(t, []string{"Cutting gangs", "Shade"}, v.Carry.Headings[0].Stands)
	assert.Equal(t, "topic{Cutting gangs} or topic{Shade}", strings.Join(v.Lines[0].Texts, " / "))
	assert.Equal(t, "Cutting gangs or Shade", v.Lines[0].Notes[0].Instead)
	take(figures.Counterpart{Stands: "CUTTING GANGS", Forget: true})
	assert.Equal(t, []string{"Shade"}, typed().Carry.Headings[0].Stands)
	take(figures.Counterpart{Stands: "Shade", Forget: true})
	v = typed()
	assert.Contains(t, v.Text, "words{field hands}")
	assert.False(t, v.Carry.Headings[0].Declined, "nobody said that nothing stands for it")
	take(figures.Counterpart{})
	assert.True(t, typed().Carry.Headings[0].Declined)

	// The same query comes back as it was.
	among, err := a.Dialects.Choice(ctx, "")
	require.NoError(t, err)
	e, err := a.Figures.Explain(ctx, a.at(ctx, id), "words{picker…} or topic{Shade} or topic{Field Hands}", among)
	require.NoError(t, err)
	require.Len(t, e.Findings, 1, "Shade is a heading of the source, though not of the review")
	assert.Equal(t, "heading-renamed", e.Findings[0].Code, "Field Hands is an entry term there")
	assert.Equal(t, "surco", e.Dialect)
	assert.Len(t, e.Blocks, 1)
	assert.Equal(t, 2, *e.Lines[0].Records)
	_, err = a.Figures.Explain(ctx, a.at(ctx, id), "  ", among)
	assert.Equal(t, "invalid", problem(t, err).Type)

	body, err := dialect.Source("vilano")
	require.NoError(t, err)
	own := strings.Replace(string(body), `"name": "vilano"`, `"name": "ours"`, 1)
	_, err = a.Dialects.Save(ctx, own)
	require.NoError(t, err)
	all, err := a.Dialects.All(ctx)
	require.NoError(t, err)
	assert.Equal(t, "ours", all[len(all)-1].Name)
	for _, bad := range []string{string(body), "{", strings.Replace(own, `"with"`, `"else"`, 1)} {
		_, err = a.Dialects.Save(ctx, bad)
		assert.Equal(t, "invalid", problem(t, err).Type)
	}
	require.NoError(t, a.Dialects.Delete(ctx, "ours"))
	assert.Equal(t, "dialect-gone", problem(t, a.Dialects.Delete(ctx, "ours")).Type)
	_, err = a.Dialects.Find(ctx, "ours", "")
	assert.Equal(t, "dialect-gone", problem(t, err).Type)
}

// A source that goes by another vocabulary is asked what stands there for the headings, or their words, which is
// said; records that were drawn from it say what may stand for them.
func TestASourceIsAskedByItsOwnVocabulary(t *testing.T) {
	a, id := start(t)
	ctx := t.Context()
	w := standInSources(t, a)
	name := "Surco Thesaurus"
	_, err := a.Sources.ChangeSource(ctx, w.ids["surco"], sources.SourceEdit{Vocabulary: &name})
	require.NoError(t, err)
	other, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "another"})
	require.NoError(t, err)
	_, err = bring(t, a, other.ID, "vocabulary", "Surco Thesaurus.nt", vocabulary(t, demo.SurcoTerms()...))
	require.NoError(t, err)
	_, err = bring(t, a, id, "vocabulary", "Almagre Headings.nt", vocabulary(t, demo.Headings()...))
	require.NoError(t, err)
	mine := state(t, a, id)
	d := mine.Document
	heading := func(label string) desk.Term {
		return desk.Term{ID: label, Term: strategy.Term{Kind: strategy.HeadingTerm, Heading: label, On: true}}
	}
	d.Blocks = []desk.Block{block("a", "A", heading("Crop Harvesters"), heading("Laboratory Measures"))}
	_, err = a.Change(ctx, id, mine.Revision, change{What: reviews.What{Key: "addTerm"}, Document: &d})
	require.NoError(t, err)

	lines := func(source string) *sources.Written {
		of := w.ids[source]
		l, err := a.Sources.Lines(ctx, desk.At{Review: id}, &of)
		require.NoError(t, err)
		return l
	}
	l := lines("surco")
	wider := source.Note{Kind: dialect.Wider, Term: "keyword", Instead: "dc.subject"}
	assert.Equal(
		t,
		[]source.Note{{Kind: source.NoCounterpart, Term: "[Crop Harvesters]", Instead: "crop harvesters"}, wider},
		l.Lines[0].Notes,
	)
	assert.Contains(t, l.Lines[0].Text, "crop harvesters", "its words are asked in text")
	assert.NotContains(t, l.Whole, "heading")
	assert.NotEqual(t, l.Whole, lines("almagre").Whole)
	assert.Empty(t, lines("almagre").Notes, "Almagre has no other vocabulary")

	surco, _ := dialect.Named("surco")
	none, err := a.Figures.StandInsOf(ctx, a.at(ctx, id), surco)
	require.NoError(t, err)
	assert.Nil(t, none.Sample, "nothing was drawn from Surco")
	assert.Empty(t, none.Headings)
	draw(t, a, id, draws.NewDraw{Name: "anything", Sources: []int64{w.ids["surco"]}, How: "all", AtMost: 2000})
	found, err := a.Figures.StandInsOf(ctx, a.at(ctx, id), surco)
	require.NoError(t, err)
	require.Equal(t, "anything", found.Sample.Name)
	require.Len(t, found.Headings, 2)
	first := found.Headings[0].Found[0]
	assert.Equal(t, "Cutting gangs", first.Heading)
	assert.Positive(t, first.Records)
	assert.GreaterOrEqual(t, first.All, first.Records)
	assert.NotEmpty(t, first.ScopeNote)
	of := w.ids["surco"]
	counted, err := a.Sources.CountTerms(
		ctx,
		a.at(ctx, id),
		&of,
		[]desk.Term{heading(first.Heading), heading("Crop Harvesters")},
	)
	require.NoError(t, err)
	assert.Equal(t, first.All, counted[0].Count.Records, "all of Surco was drawn")
	assert.Zero(t, counted[1].Count.Records, "it is no heading there")
	assert.Empty(t, counted[1].Count.Notes, "and is not carried over: it was meant as it stands")
	assert.True(t, found.Headings[1].ByBlock, "nobody says its words, and the block has no others")
	assert.Empty(t, found.Headings[1].Found)

	// What takes away is told of by itself: the words of a heading may take away more.
	mine = state(t, a, id)
	out := mine.Document
	out.Limits = []strategy.Limit{{Kind: strategy.HumansLimit, Values: []string{"Humans"}, Against: []string{"Animals"}}}
	_, err = a.Change(ctx, id, mine.Revision, change{What: reviews.What{Key: "limit"}, Document: &out})
	require.NoError(t, err)
	l = lines("surco")
	said := func(heading string, kind source.NoteKind) source.Note {
		return source.Note{Kind: kind, Term: "[" + heading + " +]", Instead: strings.ToLower(heading)}
	}
	at := slices.IndexFunc(l.Lines, func(l sources.WrittenLine) bool { return l.Limit == strategy.HumansLimit })
	assert.Equal(
		t,
		[]source.Note{said("Humans", source.NoCounterpart), said("Animals", source.TakesAway), wider},
		l.Lines[at].Notes,
	)
	assert.Subset(t, l.Notes, l.Lines[at].Notes, "the whole says the same")
	typed, err := a.Figures.TypedIn(ctx, a.at(ctx, id), surco)
	require.NoError(t, err)
	var kinds []string
	for _, n := range typed.Lines[at].Notes {
		kinds = append(kinds, n.Kind+" "+n.Term)
	}
	assert.Equal(t, []string{"no-counterpart [Humans +]", "takes-away [Animals +]"}, kinds)
	_, err = a.Change(ctx, id, mine.Revision+1, change{What: reviews.What{Key: "limit"}, Document: &mine.Document})
	require.NoError(t, err)

	require.NoError(
		t,
		a.Figures.TakeCounterpart(
			ctx,
			id,
			figures.Counterpart{Heading: "Crop Harvesters", Vocabulary: name, Stands: first.Heading},
		),
	)
	require.NoError(
		t,
		a.Figures.TakeCounterpart(
			ctx,
			id,
			figures.Counterpart{Heading: "Crop Harvesters", Vocabulary: "SURCO  thesaurus", Stands: "Hired pickers"},
		),
	)
	l = lines("surco")
	assert.Equal(
		t,
		source.Note{Kind: source.CarriedOver, Term: "[Crop Harvesters]", Instead: "Cutting gangs or Hired pickers"},
		l.Lines[0].Notes[0],
	)
	assert.Contains(t, l.Lines[0].Text, "Cutting gangs")
	all, err := a.Runs.Everywhere(ctx, a.at(ctx, id))
	require.NoError(t, err)
	for _, s := range all.Sources {
		assert.Equal(t, s.Source == w.ids["surco"], strings.Contains(s.Query, "Cutting gangs"), s.Name)
	}

	// Surco's vocabulary is looked through without leaving one's own: over what was drawn there, with what stands for
	// what.
	editions, err := a.Vocabularies.All(ctx)
	require.NoError(t, err)
	i := slices.IndexFunc(editions, func(v vocabularies.Vocabulary) bool { return v.Name == name })
	require.GreaterOrEqual(t, i, 0)
	before, err := a.Desk.Look(ctx, desk.At{Review: id})
	require.NoError(t, err)
	look, err := a.Desk.MakeLook(ctx, id, desk.NewLook{Rest: true, Through: &editions[i].ID})
	require.NoError(t, err)
	assert.Equal(t, found.Sample.ID, *look.Sample)
	assert.Equal(t, w.ids["surco"], *look.Source)
	after, err := a.Desk.Look(ctx, desk.At{Review: id})
	require.NoError(t, err)
	assert.Equal(t, before.Name, after.Name, "nobody begins with it")
	through := desk.At{Review: id, Look: look.Name}
	whole, err := a.Figures.Heading(ctx, through, first.Heading, "a", "")
	require.NoError(t, err)
	assert.Equal(t, first.All, whole.Alone.Records)
	assert.Equal(t, []string{"Crop Harvesters"}, whole.StandsFor)
	assert.Equal(t, []figures.HeadingTaken{{Block: "a", Term: "Crop Harvesters"}}, whole.Taken)
	assert.Equal(t, "anything", whole.Over.Name)
	leads, err := a.Figures.Headings(ctx, through, figures.HeadingSearch{Words: []string{"cutting gangs"}})
	require.NoError(t, err)
	assert.Equal(t, first.Heading, leads.Leads[0].Label)
	assert.Equal(t, "a", leads.Leads[0].Taken)
	counted, err = a.Sources.CountTerms(ctx, through, nil, []desk.Term{heading(first.Heading)})
	require.NoError(t, err)
	assert.Equal(t, first.All, counted[0].Count.Records)
	assert.Empty(t, counted[0].Count.Notes, "it is asked as it stands there")
	own, err := a.Figures.Heading(ctx, a.at(ctx, id), "Crop Harvesters", "a", "")
	require.NoError(t, err)
	require.NotEmpty(t, own.Matches, "what may mean the same in Surco's")
	assert.Equal(
		t,
		figures.HeadingMatch{Vocabulary: editions[i].ID, Name: name, Heading: first.Heading, Via: "exactMatch"},
		own.Matches[0],
	)
	require.NotEmpty(t, whole.Matches, "and the other way round")
	assert.Equal(t, "Crop Harvesters", whole.Matches[0].Heading)
	assert.Empty(t, own.StandsFor)
	assert.Nil(t, own.Over)
	nowhere := int64(1 << 40)
	_, err = a.Desk.MakeLook(ctx, id, desk.NewLook{Through: &nowhere})
	assert.Equal(t, "vocabulary-gone", problem(t, err).Type)
	same, err := a.Desk.MakeLook(ctx, id, desk.NewLook{Rest: true, Through: before.Vocabulary})
	require.NoError(t, err)
	assert.Nil(t, same.Through, "one's own is no other")
}

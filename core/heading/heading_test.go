package heading_test

import (
	"context"
	"fmt"
	"slices"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/heading"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

func words(of ...string) (out []thesaurus.Text) {
	for _, w := range of {
		out = append(out, thesaurus.Text{Value: w, Language: "en"})
	}
	return out
}

var tree = func() *thesaurus.Thesaurus {
	t, _ := thesaurus.Build([]thesaurus.Concept{
		{ID: "1", Labels: words("Crews")},
		{
			ID:         "2",
			Labels:     words("Field Crews"),
			Broader:    []string{"1"},
			EntryTerms: words("field hands", "field-hands", "fieldhand", "hoers"),
			Since:      "2010",
			Replaces:   []string{"5"},
		},
		{ID: "3", Labels: words("Picking Crews"), Broader: []string{"2"}},
		{ID: "4", Labels: words("Weeding Crews"), Broader: []string{"2"}},
		{ID: "5", Labels: words("Rural Trades")},
		{ID: "6", Labels: words("Old Trades"), Retired: true, ReplacedBy: []string{"5"}},
		{ID: "q", Labels: words("causes"), Qualifier: true},
	}, "")
	return t
}()

func record(year int, title string, headings ...bib.Assignment) *bib.Record {
	return &bib.Record{Title: title, Year: year, Headings: headings}
}

func given(label string) bib.Assignment { return bib.Assignment{Label: label} }

func look(records ...*bib.Record) heading.Look {
	set := coverage.NewSet(records)
	set.Thesaurus = tree
	return heading.Look{Set: set, Keys: set}
}

func at(t require.TestingT, label string) int {
	h, ok := tree.Find(label)
	require.True(t, ok, label)
	return h
}

func TestAHeadingIsLookedAtWhole(t *testing.T) {
	l := look(
		record(2012, "field hands", bib.Assignment{Label: "Field Crews", Central: true, Qualifiers: []string{"causes"}}),
		record(2013, "fieldhand and hoers", given("Picking Crews"), given("Field Crews")),
		record(2014, "pickers", given("Picking Crews")),
		record(2005, "hands of the field", given("Rural Trades")),
		record(2015, "traders", given("Rural Trades")),
		record(2016, "field-hands"),
	)
	whole, err := l.Whole(
		context.Background(),
		at(t, "Field Crews"),
		strategy.Block{Terms: []strategy.Term{{Kind: strategy.TextTerm, Text: "hoers", Field: "text", On: true}}},
	)
	require.NoError(t, err)
	assert.Equal(t, heading.Count{Records: 2, Keys: 2}, whole.Alone)
	assert.Equal(t, heading.Price{Count: heading.Count{Records: 3, Keys: 3}, Central: heading.Count{Records: 2, Keys: 2},
		Qualifiers: []heading.Qualified{
			{Qualifier: "causes", Records: 1, Keys: 1, Lost: heading.Count{Records: 2, Keys: 2}},
		}}, whole.Price)
	assert.Equal(t, [][]string{{"Crews", "Field Crews"}}, whole.Places)
	assert.Equal(t, []string{"Picking Crews", "Weeding Crews"}, whole.Children)
	assert.Equal(t, []heading.Node{
		{Label: "Crews", WithNarrower: 3, Keys: 3, Narrower: 1, Below: 3, Carried: 2},
		{Label: "Field Crews", Alone: 2, WithNarrower: 3, Keys: 3, Narrower: 2, Below: 2, Carried: 1},
		{Label: "Picking Crews", Alone: 2, WithNarrower: 2, Keys: 2},
		{Label: "Weeding Crews"},
	}, whole.Nodes)
	assert.Equal(
		t,
		[]heading.Older{{Label: "Rural Trades", Until: 2009, Said: true, Count: heading.Count{Records: 1, Keys: 1}}},
		whole.Before,
	)
	assert.Equal(t, 1, whole.Unindexed)
	assert.Equal(t, []heading.Word{
		{Text: "field hands", Forms: []string{"fieldhand"}, Records: 3, Keys: 3, Adds: 2, Ticked: true},
		{Text: "hoers", Forms: []string{}, Records: 1, Keys: 1, Covered: true},
		{Text: "field crews", Forms: []string{}},
	}, whole.Words)
}

func TestHeadingTermsAreHeldAgainstTheVocabulary(t *testing.T) {
	l := look(
		record(2005, "old", given("Rural Trades")),
		record(2012, "new", given("Field Crews"), bib.Assignment{Label: "Picking Crews", Central: true}),
	)
	before, _ := thesaurus.Build(
		[]thesaurus.Concept{{ID: "2", Labels: words("Farm Gangs")}, {ID: "9", Labels: words("Gleaners")}},
		"",
	)
	of := func(label string, change func(*strategy.Term)) strategy.Term {
		h := heading.Of(label, false)
		if change != nil {
			change(&h)
		}
		return h
	}
	faults, err := l.Check(context.Background(), strategy.Block{Terms: []strategy.Term{
		of("hoers", nil),
		of("Farm Gangs", nil),
		of("Gleaners", nil),
		of("Weedin Crews", nil),
		of("Old Trades", nil),
		of("Picking Crews", func(t *strategy.Term) { t.Narrower = true }),
		of("Crews", func(t *strategy.Term) { t.Narrower = true }),
		of("Field Crews", func(t *strategy.Term) { t.Central = true }),
		of("nothing like it", func(t *strategy.Term) { t.On = false }),
	}}, []*thesaurus.Thesaurus{before})
	require.NoError(t, err)
	type said struct {
		kind     string
		term     int
		headings string
		mend     string
	}
	var got []said
	for _, f := range faults {
		got = append(got, said{f.Kind, f.Term, fmt.Sprint(f.Headings), f.Mend.String()})
	}
	assert.Equal(t, []said{
		{heading.EntryTerm, 0, "[Field Crews]", "[Field Crews]"},
		{heading.Renamed, 1, "[Field Crews]", "[Field Crews]"},
		{heading.Retired, 2, "[]", "[Gleaners]"},
		{heading.Unknown, 3, "[Weeding Crews]", "[Weeding Crews]"},
		{heading.Retired, 4, "[Rural Trades]", "[Rural Trades]"},
		{heading.Flat, 5, "[]", "[Picking Crews]"},
		{heading.Within, 5, "[Crews]", "[Picking Crews +]"},
		{heading.Within, 7, "[Crews]", "[Field Crews]"},
		{heading.Main, 7, "[]", "[Field Crews]"},
		{heading.Before, 7, "[Rural Trades]", "[Rural Trades until 2009]"},
	}, got)
	for _, f := range faults {
		if f.Kind != heading.Unknown && f.Kind != heading.Retired { // what is mended is not said again
			again, err := l.Check(context.Background(), strategy.Block{Terms: []strategy.Term{f.Mend}}, nil)
			require.NoError(t, err)
			assert.False(t, slices.ContainsFunc(again, func(a heading.Fault) bool { return a.Kind == f.Kind }), f.Kind)
		}
	}
}

// A qualifier that may stand behind none of the headings of a term is told, with the term without it.
func TestAQualifierThatIsNotAllowedIsTold(t *testing.T) {
	of := func(related ...string) *thesaurus.Thesaurus {
		v, _ := thesaurus.Build([]thesaurus.Concept{
			{
				ID:      "1",
				Labels:  words("Crews"),
				Related: related,
			}, {ID: "2", Labels: words("Field Crews"), Broader: []string{"1"}, Related: []string{"q2"}},
			{
				ID:        "q1",
				Labels:    words("causes"),
				Qualifier: true,
			}, {ID: "q2", Labels: words("methods"), Qualifier: true}, {ID: "q3", Labels: words("therapy"), Qualifier: true},
		}, "")
		return v
	}
	refused := func(v *thesaurus.Thesaurus, narrower bool, qualifiers ...string) []string {
		set := coverage.NewSet([]*bib.Record{record(2012, "crews")})
		set.Thesaurus = v
		l := heading.Look{Set: set, Keys: set}
		faults, err := l.Check(
			context.Background(),
			strategy.Block{
				Terms: []strategy.Term{
					{Kind: strategy.HeadingTerm, Heading: "Crews", Narrower: narrower, Qualifiers: qualifiers, On: true},
				},
			},
			nil,
		)
		require.NoError(t, err)
		for _, f := range faults {
			if f.Kind == heading.Refused {
				assert.Len(t, f.Mend.Qualifiers, len(qualifiers)-len(f.Headings))
				return f.Headings
			}
		}
		return nil
	}
	v := of("q1")
	assert.Equal(t, []string{"methods", "therapy"}, refused(v, false, "causes", "methods", "therapy"))
	assert.Equal(t, []string{"therapy"}, refused(v, true, "Causes", "methods", "therapy"), "one below allows methods")
	assert.Nil(t, refused(v, true, "causes"))
	silent, _ := thesaurus.Build(
		[]thesaurus.Concept{{ID: "1", Labels: words("Crews")}, {ID: "q3", Labels: words("therapy"), Qualifier: true}},
		"",
	)
	assert.Nil(t, refused(silent, false, "therapy"), "it is not known")
}

func TestWhatALaterEditionAddsBelowIsAskedAbout(t *testing.T) {
	before, _ := thesaurus.Build(
		[]thesaurus.Concept{
			{ID: "2", Labels: words("Field Crews")},
			{ID: "3", Labels: words("Picking Crews"), Broader: []string{"2"}},
		},
		"",
	)
	some := heading.Of("Field Crews", true)
	some.Without = []string{"Picking Crews"}
	faults, err := look(
		record(2012, "a"),
	).Check(context.Background(), strategy.Block{Terms: []strategy.Term{some, heading.Of("Field Crews", true)}},
		[]*thesaurus.Thesaurus{before})
	require.NoError(t, err)
	i := slices.IndexFunc(faults, func(f heading.Fault) bool { return f.Kind == heading.Added })
	require.GreaterOrEqual(t, i, 0)
	assert.Equal(t, []string{"Weeding Crews"}, faults[i].Headings)
	assert.Equal(t, []string{"Picking Crews", "Weeding Crews"}, faults[i].Mend.Without)
	assert.Equal(t, 0, faults[i].Term, "a term that takes all below takes what comes in, and asks nothing")
}

func TestHeadingsAreProposedByWhatTheyCover(t *testing.T) {
	var records []*bib.Record
	add := func(n int, of ...string) {
		for range n {
			r := record(2015, "a")
			for _, h := range of {
				r.Headings = append(r.Headings, given(h))
			}
			records = append(records, r)
		}
	}
	add(6, "Picking Crews") // the sample
	add(4, "Weeding Crews")
	add(30, "Rural Trades") // the contrast
	add(3, "Picking Crews", "Rural Trades")
	set := coverage.NewSet(records)
	set.Thesaurus = tree
	keys := coverage.NewSet(
		[]*bib.Record{
			record(2015, "k", given("Picking Crews"), given("Rural Trades")),
			record(2015, "l", given("Weeding Crews")),
			record(2016, "m"),
			record(2016, "n", given("Picking Crews")),
		},
	)
	keys.Thesaurus = tree
	sample, contrast := roaring.New(), roaring.New()
	sample.AddRange(0, 10)
	contrast.AddRange(10, uint64(len(records)))
	got, err := heading.Look{Set: set, Keys: keys}.Propose(context.Background(), sample, contrast, nil)
	require.NoError(t, err)
	labels := func(of []heading.Covering) (out []string) {
		for _, c := range of {
			out = append(out, fmt.Sprintf("%s %d %d", c.Label, c.Records, c.Keys))
		}
		return out
	}
	assert.Equal(
		t,
		[]string{"Field Crews 10 3", "Crews 10 3", "Weeding Crews 4 1", "Picking Crews 6 2"},
		labels(got.Sample),
		"what covers all of it first; of those that cover as much, the lowest",
	)
	assert.Equal(
		t,
		[]string{"Picking Crews 6 2", "Field Crews 10 3"},
		labels(got.Keys),
		"the lowest that catches all three that carry headings, and the cheapest that catches two",
	)
	assert.Equal(t, []string{"Picking Crews 6 2"}, labels(got.Shared))
	assert.Equal(t, 3, got.Indexed)
}

// What ticking takes is what the term finds, and what its written form finds; counts with what is below are counts of
// the union.
func TestABranchButSomeFindsWhatIsTicked(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		n := rapid.IntRange(2, 8).Draw(t, "headings")
		label := rapid.Custom(func(t *rapid.T) string { return fmt.Sprintf("H%d", rapid.IntRange(0, n-1).Draw(t, "n")) })
		var concepts []thesaurus.Concept
		for i := range n {
			concepts = append(
				concepts,
				thesaurus.Concept{
					ID:      fmt.Sprintf("H%d", i),
					Labels:  words(fmt.Sprintf("H%d", i)),
					Broader: rapid.SliceOfN(label, 0, 2).Draw(t, "broader"),
				},
			)
		}
		v, _ := thesaurus.Build(concepts, "")
		var records []*bib.Record
		for i := range rapid.IntRange(1, 12).Draw(t, "records") {
			r := record(rapid.IntRange(2000, 2010).Draw(t, "year"), fmt.Sprintf("title %d", i))
			for _, h := range rapid.SliceOfN(label, 0, 3).Draw(t, "carried") {
				r.Headings = append(r.Headings, bib.Assignment{Label: h, Central: rapid.Bool().Draw(t, "central")})
			}
			records = append(records, r)
		}
		set := coverage.NewSet(records)
		set.Thesaurus = v
		term := heading.Of(label.Draw(t, "term"), true)
		term.Without, term.Central = rapid.SliceOfN(label, 0, 3).Draw(t, "without"), rapid.Bool().Draw(t, "main")
		if rapid.Bool().Draw(t, "until?") {
			term.Until = rapid.IntRange(2000, 2010).Draw(t, "until")
		}
		top, _ := v.Find(term.Heading)
		var without []int
		for _, w := range term.Without {
			if h, _ := v.Find(w); h != top {
				without = append(without, h)
			}
		}
		ticked := map[string]bool{}
		for _, h := range v.BelowBut(top, without) {
			ticked[text.Label(v.Label(h))] = true
		}
		var want []uint32
		for i, r := range records {
			if slices.ContainsFunc(
				r.Headings,
				func(a bib.Assignment) bool { return ticked[text.Label(a.Label)] && (a.Central || !term.Central) },
			) &&
				(term.Until == 0 || r.Year <= term.Until) {
				want = append(want, uint32(i))
			}
		}
		found, err := coverage.Hits(set, term)
		require.NoError(t, err)
		assert.ElementsMatch(t, want, found.ToArray())

		s := strategy.Strategy{Blocks: []strategy.Block{{Name: "A", Searched: true, Terms: []strategy.Term{term}}}}
		cql, err := s.CQL(v)
		require.NoError(t, err)
		q, err := query.Parse(cql, v)
		require.NoError(t, err, cql)
		assert.ElementsMatch(t, want, q.Expr.Match(set.Index).ToArray(), cql)

		node, err := heading.Look{Set: set}.Node(top)
		require.NoError(t, err)
		union := map[int]bool{}
		for i, r := range records {
			for _, a := range r.Headings {
				if h, _ := v.Find(a.Label); slices.Contains(v.Below(top), h) {
					union[i] = true
				}
			}
		}
		assert.Equal(t, len(union), node.WithNarrower)
	})
}

func TestSomeBelowCannotBeWrittenWithoutTheVocabulary(t *testing.T) {
	term := heading.Of("Field Crews", true)
	term.Without = []string{"Picking Crews"}
	s := strategy.Strategy{Blocks: []strategy.Block{{Name: "A", Searched: true, Terms: []strategy.Term{term}}}}
	_, err := s.CQL(nil)
	assert.ErrorIs(t, err, strategy.ErrNeedsVocabulary)
	_, err = s.Lines(nil)
	assert.ErrorIs(t, err, strategy.ErrNeedsVocabulary)
	cql, err := s.CQL(tree)
	require.NoError(t, err)
	assert.Equal(t, `heading = "Field Crews" or heading = "Weeding Crews"`, cql)
}

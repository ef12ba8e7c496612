package tally_test

import (
	"context"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/demo"
)

// within reports whether the tokens of one item stand in a row in those of a longer one.
func within(short, long string) bool {
	return len(short) < len(long) && strings.Contains(" "+long+" ", " "+short+" ")
}

func TestItemsAreAbsorbedAsDefined(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		rows := must(
			tally.CountWords(
				context.Background(),
				must(tally.NewPool(context.Background(), records(t, "s", 1, 8), nil)),
				nil,
				tally.WordOptions{Fields: bib.TitleAbstract, MaxWords: 4, MinRecords: 1},
			),
		).Rows
		for _, p := range rows {
			best := tally.Row{}
			for _, q := range rows {
				if !within(p.Item, q.Item) || q.Records != p.Records {
					continue
				}
				words, bestWords := len(strings.Fields(q.Item)), len(strings.Fields(best.Item))
				if best.Item == "" || words > bestWords ||
					words == bestWords &&
						(q.Occurrences > best.Occurrences || q.Occurrences == best.Occurrences && q.Item < best.Item) {
					best = q
				}
			}
			assert.Equal(t, best.Item, p.AbsorbedBy, "%q", p.Item)
		}
	})
}

func TestAFamilyHasTheRecordsOfAllItsForms(t *testing.T) {
	sample := []*bib.Record{
		{
			Title: "Farm workers, farmworkers and heat",
		}, {Title: "A farm-worker"}, {Title: "Farmworkers' rest"}, {Title: "Farm; worker"}, {Title: "Labourers"},
		{Title: "Farm. Workers of the world"},
	}
	contrast := []*bib.Record{{Title: "Two farmworkers"}, {Title: "Farm worker and farmworker"}, {Title: "Mice"}}
	keys := []*bib.Record{{Title: "Farm workers and farmworkers"}, {Title: "Farmworker"}, {Title: "Heat"}}
	p := must(tally.NewPool(context.Background(), sample, contrast))
	o := tally.WordOptions{Fields: bib.TitleAbstract, MaxWords: 3, MinRecords: 1}
	families := must(tally.Fold(context.Background(), p, keys, o)).All()
	i := slices.IndexFunc(families, func(f tally.Family) bool { return f.Item == "farmworkers" })
	if !assert.GreaterOrEqual(t, i, 0, "%+v", families) {
		return
	}
	f := families[i]
	var forms []string
	for _, r := range f.Forms {
		forms = append(forms, r.Item)
	}
	assert.Equal(
		t,
		[]string{"farmworkers", "farm worker", "farm workers"},
		forms,
		"the label first, then by records and length",
	)
	assert.Equal(
		t,
		[4]int{3, 4, 2, 1},
		[4]int{f.Records, f.Occurrences, f.ContrastRecords, f.Keys},
		"a break parts farm; worker. The contrast has farmworkers, and farm worker; farmworker is no form of the sample",
	)
	assert.InDelta(t, tally.Pull(3, 6, 2, 3), f.Pull, 1e-9)
}

func TestFamiliesAreTheItemsFolded(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		p := must(tally.NewPool(context.Background(), records(t, "s", 1, 8), records(t, "c", 0, 6)))
		o := tally.WordOptions{Fields: bib.TitleAbstract, MaxWords: 3, MinRecords: 1}
		items := must(tally.CountWords(context.Background(), p, nil, o))
		folded := map[string]bool{}
		families := must(tally.Fold(context.Background(), p, nil, o)).All()
		for i, f := range families {
			keys := map[string]bool{}
			most, sum := 0, 0
			for _, r := range f.Forms {
				folded[r.Item] = true
				keys[text.FamilyKey(strings.Fields(r.Item))] = true
				most, sum = max(most, r.Records), sum+r.Records
			}
			assert.Len(t, keys, 1, "%+v", f.Forms)
			assert.True(t, most <= f.Records && f.Records <= sum, "%+v", f)
			if i > 0 {
				assert.GreaterOrEqual(t, tally.Round(families[i-1].Pull), tally.Round(f.Pull))
			}
			for _, a := range f.Absorbs {
				folded[a] = true
			}
		}
		for _, r := range items.Rows {
			if r.AbsorbedBy == "" {
				assert.True(t, folded[r.Item], "%q stands nowhere", r.Item)
			}
		}
	})
}

func TestAuthorsAndJournalsFold(t *testing.T) {
	for names, same := range map[[2]string]bool{
		{"Velkana, Temi J.", "VELKANA T"}: true, {"Velkana, Temi", "Velkana, Tor"}: true,
		{"Velkana, Temi", "Velkana, Ana"}: false,
		{"Velkana", "Velkana, T."}:        false, {"O’Brendo, R", "O'Brendo, Ruth"}: true, {"Talvenia Heat Group",
			"Talvenia Heat Group"}: true,
	} {
		assert.Equal(
			t,
			same,
			tally.AuthorKey(bib.ParsePerson(names[0])) == tally.AuthorKey(bib.ParsePerson(names[1])),
			"%q",
			names,
		)
	}
	for names, same := range map[[2]string]bool{
		{"The Shore Annals", "Shore annals"}: true, {"An Orchard", "Orchard"}: true, {"A", "The"}: false,
		{"Theory of Work", "ory of Work"}: false,
	} {
		assert.Equal(t, same, tally.JournalKey(names[0]) == tally.JournalKey(names[1]), "%q", names)
	}
}

func TestTheRecordsBehindAnItemAreThoseThatAreCounted(t *testing.T) {
	records := demo.NewWorld(3, 150).Records
	p := must(tally.NewPool(context.Background(), records[:100], records[100:]))
	key := map[tally.Facet]func(string) string{tally.Keywords: text.Key, tally.Journals: tally.JournalKey,
		tally.Authors: func(s string) string { return tally.AuthorKey(bib.ParsePerson(s)) }}
	for _, f := range tally.Facets[1:] {
		of := key[f]
		if of == nil {
			of = text.Label
		}
		for _, r := range must(tally.CountList(context.Background(), p, f, nil)).Rows {
			found := p.Having(f, of(r.Item))
			assert.EqualValues(t, r.Records, found.AndCardinality(p.Sample), "%s %q", f, r.Item)
			assert.EqualValues(t, r.ContrastRecords, found.AndCardinality(p.Contrast), "%s %q", f, r.Item)
		}
	}
}

func TestUnindexedRecordsAreCountedByYear(t *testing.T) {
	indexed := []bib.Assignment{{Label: "Noise"}}
	p := must(
		tally.NewPool(
			context.Background(),
			[]*bib.Record{
				{Title: "a", Year: 2020, Headings: indexed},
				{Title: "b", Year: 2024},
				{Title: "c", Year: 2024, Headings: indexed},
				{Title: "d"},
			},
			nil,
		),
	)
	n, years := p.Unindexed()
	assert.Equal(t, 2, n)
	assert.Equal(
		t,
		[]tally.YearShare{
			{Year: 0, Records: 1, Unindexed: 1},
			{Year: 2020, Records: 1},
			{Year: 2024, Records: 2, Unindexed: 1},
		},
		years,
	)
	assert.Equal(t, 0.5, years[2].Share())
}

// must returns what was worked out; in a test nothing ends before its time.
func must[T any](v T, err error) T {
	if err != nil {
		panic(err)
	}
	return v
}

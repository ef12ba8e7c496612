package cite_test

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/cite"
)

func TestALineIsReadAsAReference(t *testing.T) {
	for line, want := range map[string]bib.Reference{
		"Osolana, Ife (2011). Rest at noon and the kidneys of crews. Work and Water.": {Author: "Osolana, Ife", Year: 2011,
			Title: "Rest at noon and the kidneys of crews"},
		"Velkana T. Water in the crop row. Rural Practice 2009;4:11-19.": {Author: "Velkana T", Year: 2009,
			Title: "Water in the crop row"},
		"10.99999/alm.000123":      {DOI: "10.99999/alm.000123"},
		"doi:10.99999/ALM.000123.": {DOI: "10.99999/ALM.000123", Title: "doi:"},
		"Shade tents for crews":    {Title: "Shade tents for crews"},
		"":                         {},
	} {
		want.Text = line
		assert.Equal(t, want, cite.Read(line), line)
	}
}

func TestAReferenceIsFoundByIdentifierThenByWork(t *testing.T) {
	noon := &bib.Record{
		Title:     "Rest at noon and the kidneys of field crews",
		Year:      2011,
		DOI:       "10.99999/a",
		Accession: "VIL1",
		Authors:   []bib.Person{{Family: "Osolana", Given: "Ife"}},
	}
	other := &bib.Record{
		Title:     "Water in the crop row",
		Year:      2009,
		Accession: "VIL2",
		Authors:   []bib.Person{{Family: "Velkana", Given: "T"}},
	}
	f := cite.NewFinder([]*bib.Record{noon, other})
	for _, c := range []struct {
		ref  bib.Reference
		at   int
		how  cite.How
		says string
	}{
		{bib.Reference{DOI: "https://doi.org/10.99999/A"}, 0, cite.ByIdentifier, "a DOI in another form"},
		{bib.Reference{Local: "vil2"}, 1, cite.ByIdentifier, "the source's number"},
		{bib.Reference{Text: "Velkana, T (2010). Water in the crop row. Rural Practice."}, 1, cite.ByTitle, "a year apart"},
		{bib.Reference{DOI: "10.99999/wrong", Title: "Water in the crop row", Author: "Velkana, T", Year: 2009}, 1,
			cite.ByTitle, "a wrong identifier"},
		{bib.Reference{Title: "Water in the crop row", Author: "Velkana, T", Year: 2015}, 0, cite.None, "six years apart"},
		{bib.Reference{Title: "Rest at noon and the kidneys of crews", Author: "Osolana, Ife", Year: 2011}, 0, cite.None,
			"a word too few"},
		{bib.Reference{Title: "Sleep of bakers", Author: "Osolana, Ife", Year: 2011}, 0, cite.None, "another work"},
		{bib.Reference{DOI: "10.99999/none"}, 0, cite.None, "an identifier that nobody has"},
		{bib.Reference{}, 0, cite.None, "nothing"},
	} {
		at, how := f.Find(c.ref)
		assert.Equal(t, c.how, how, c.says)
		if how != cite.None {
			assert.Equal(t, c.at, at, c.says)
		}
	}
}

// world makes records that cite each other, and others, in any way: in circles, themselves, what does not exist.
func world(t *rapid.T) ([]*bib.Record, []int) {
	n := rapid.IntRange(1, 14).Draw(t, "n")
	records := make([]*bib.Record, n)
	for i := range records {
		records[i] = &bib.Record{
			Title: fmt.Sprintf("Work number %d", i),
			DOI:   fmt.Sprintf("10.99999/%d", i),
			Year:  rapid.IntRange(1990, 2026).Draw(t, "year"),
		}
		for _, to := range rapid.SliceOfN(rapid.IntRange(0, n+5), 0, 8).Draw(t, "cites") {
			records[i].References = append(records[i].References, bib.Reference{DOI: fmt.Sprintf("10.99999/%d", to)})
		}
	}
	return records, rapid.SliceOfN(rapid.IntRange(0, n-1), 0, 6).Draw(t, "start")
}

func TestWhatSeveralCiteElsewhereIsThatOfItsDefinition(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		records, _ := world(t)
		want := map[string][]int{}
		for i, r := range records {
			for _, f := range r.References {
				var n int
				_, err := fmt.Sscanf(f.DOI, "10.99999/%d", &n)
				require.NoError(t, err)
				if n >= len(records) && !slices.Contains(want[f.DOI], i) {
					want[f.DOI] = append(want[f.DOI], i)
				}
			}
		}
		var all [][]int
		for _, by := range want {
			if len(by) > 1 {
				all = append(all, by)
			}
		}
		got := cite.Of(records, nil).Elsewhere()
		assert.ElementsMatch(t, all, got)
		assert.True(t, slices.IsSortedFunc(got, func(a, b []int) int { return len(b) - len(a) }))
	})
}

// Ties are what counting them pair by pair gives.
func TestTiesAreThoseOfTheirDefinition(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		records, start := world(t)
		g := cite.Of(records, nil)
		cites := func(a int, to string) bool {
			return records[a].DOI != to &&
				slices.ContainsFunc(records[a].References, func(f bib.Reference) bool { return f.DOI == to })
		}
		of := slices.Compact(slices.Sorted(slices.Values(start)))
		ties := g.Ties(start)
		for i, r := range records {
			var want cite.Tie
			for _, s := range of {
				if s != i && (cites(s, r.DOI) || cites(i, records[s].DOI)) {
					want.Leads++
				}
			}
			shared := map[string]bool{}
			for _, f := range r.References {
				for _, s := range of {
					if s != i && f.DOI != r.DOI && cites(s, f.DOI) {
						shared[f.DOI] = true
					}
				}
			}
			want.Shared = len(shared)
			for c := range records {
				if cites(c, r.DOI) && slices.ContainsFunc(of, func(s int) bool { return s != i && cites(c, records[s].DOI) }) {
					want.Together++
				}
			}
			assert.Equal(t, want, ties[i], "%d of start %v", i, of)
		}
	})
}

// What a work cites has it among what cites it, and the other way round; nobody cites themselves.
func TestForwardOfBackwardHoldsTheStart(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		records, _ := world(t)
		g := cite.Of(records, nil)
		for i := range records {
			assert.NotContains(t, g.Cites(i), i)
			for _, to := range g.Cites(i) {
				assert.Contains(t, g.CitedBy(to), i)
			}
			for _, from := range g.CitedBy(i) {
				assert.Contains(t, g.Cites(from), i)
			}
		}
	})
}

// What a source said of citations counts as if the record said it.
func TestLinksThatASourceToldCount(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		records, start := world(t)
		var besides []cite.Link
		bare := make([]*bib.Record, len(records))
		g := cite.Of(records, nil)
		for i, r := range records {
			c := *r
			c.References = slices.DeleteFunc(slices.Clone(r.References), func(f bib.Reference) bool {
				return slices.ContainsFunc(records, func(o *bib.Record) bool { return o.DOI == f.DOI })
			})
			bare[i] = &c
			for _, to := range g.Cites(i) {
				besides = append(besides, cite.Link{From: i, To: to})
			}
		}
		assert.Equal(t, g.Ties(start), cite.Of(bare, besides).Ties(start))
	})
}

func TestWhoCitesTheFutureIsNamed(t *testing.T) {
	records := []*bib.Record{
		{DOI: "10.99999/a", Title: "A", Year: 2001, References: []bib.Reference{{DOI: "10.99999/b"}, {DOI: "10.99999/c"}}},
		{DOI: "10.99999/b", Title: "B", Year: 2009},
		{DOI: "10.99999/c", Title: "C", Year: 2002},
	}
	assert.Equal(t, [][2]int{{0, 1}}, cite.Of(records, nil).Later(), "a year ahead is what online first does")
}

func TestWhatRoundsStillBring(t *testing.T) {
	s, ok := cite.Round{New: 40, Judged: 20, Belongs: 5}.Yield()
	require.True(t, ok)
	assert.InDelta(t, 0.25, s.Value, 1e-9)
	assert.True(t, s.Low > 0.1 && s.Low < 0.25 && s.High > 0.25 && s.High < 0.5)
	_, ok = cite.Round{New: 3}.Yield()
	assert.False(t, ok)

	next, all, ok := cite.Next([]cite.Round{{New: 40, Judged: 40, Belongs: 8}, {New: 90, Judged: 90, Belongs: 2}})
	require.True(t, ok)
	assert.InDelta(t, 0.5, next, 1e-9)
	assert.InDelta(t, 0.5/0.75, all, 1e-9)
	for name, rounds := range map[string][]cite.Round{
		"one":            {{New: 4, Judged: 4, Belongs: 2}},
		"not all judged": {{New: 4, Judged: 4, Belongs: 2}, {New: 4, Judged: 3, Belongs: 1}},
		"growing":        {{New: 4, Judged: 4, Belongs: 1}, {New: 4, Judged: 4, Belongs: 1}},
		"none before":    {{New: 4, Judged: 4}, {New: 4, Judged: 4}},
	} {
		_, _, ok := cite.Next(rounds)
		assert.False(t, ok, name)
	}
}

// The estimate is Chapman's, and never less than what is known; it takes works in both ways.
func TestHowManyThereMayBeInAll(t *testing.T) {
	works := slices.Concat(
		slices.Repeat([]cite.Found{{Words: true}}, 12),
		slices.Repeat([]cite.Found{{Citations: true}}, 6),
		slices.Repeat([]cite.Found{{Words: true, Citations: true}}, 8),
		[]cite.Found{{}, {}},
	)
	c, ok := cite.Capture(works)
	require.True(t, ok)
	assert.Equal(t, [4]int{20, 14, 8, 2}, [4]int{c.Words, c.Citations, c.Both, c.Neither})
	assert.InDelta(t, 21.0*15/9-1, c.Total, 1e-9)
	assert.False(t, c.Few)
	_, ok = cite.Capture([]cite.Found{{Words: true}, {}})
	assert.False(t, ok)
	rapid.Check(t, func(t *rapid.T) {
		all := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) cite.Found {
			return cite.Found{Words: rapid.Bool().Draw(t, "words"), Citations: rapid.Bool().Draw(t, "citations")}
		}), 0, 60).Draw(t, "works")
		if c, ok := cite.Capture(all); ok {
			assert.True(t, float64(len(all)) <= c.Low && c.Low <= c.Total && c.Total <= c.High, "%+v", c)
		}
	})
}

func FuzzRead(f *testing.F) {
	f.Add("Osolana, Ife (2011). Rest at noon. Work and Water. doi:10.99999/a")
	f.Add("((((10.99999/")
	f.Fuzz(func(t *testing.T, line string) {
		ref := cite.Read(line)
		cite.NewFinder([]*bib.Record{cite.Record(ref)}).Find(ref)
		cite.NewFinder(nil).Find(ref)
	})
}

func TestWhatIsLeftIsToldByWhatWasReadAtRandom(t *testing.T) {
	_, ok := cite.Remaining(300, 9, 3, 3)
	assert.False(t, ok, "too few were read")
	l, ok := cite.Remaining(300, 30, 10, 40)
	require.True(t, ok)
	assert.InDelta(t, 60, l.Total, 1e-9, "a third of 300, less the 40 that are known")
	assert.True(t, l.Low < l.Total && l.Total < l.High)
	l, ok = cite.Remaining(8, 8, 3, 3)
	require.True(t, ok)
	assert.Zero(t, l.Total+l.High, "all were read")
	_, ok = cite.Remaining(0, 0, 0, 0)
	assert.False(t, ok)

	// Over many times the interval holds the truth, also where others were read in order before, the likeliest first.
	chance := rand.New(rand.NewPCG(7, 7))
	held, mean, times := 0, 0.0, 2000
	for range times {
		const works, belong, likeliest = 400, 60, 50
		order := chance.Perm(works) // works below belong do
		read, found, known := 40, 0, 0
		for at, w := range order {
			if w < belong && (at < read || w < likeliest) {
				known++
			}
			if w < belong && at < read {
				found++
			}
		}
		l, ok := cite.Remaining(works, read, found, known)
		require.True(t, ok)
		left := float64(belong - known)
		if l.Low <= left && left <= l.High {
			held++
		}
		mean += (l.Total - left) / float64(times)
	}
	assert.Greater(t, float64(held)/float64(times), 0.92)
	assert.InDelta(t, 0, mean, 12, "what is cut off below nothing raises it where few are left")
}

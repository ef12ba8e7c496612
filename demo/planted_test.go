package demo_test

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/thesaurus"
	"tamiz/demo"
)

// What is planted in the invented world, so that the work has something to find.

type planted struct {
	*demo.Literature
	almagre, surco *thesaurus.Thesaurus
	index          *index.Index // of Almagre
}

var world = sync.OnceValue(func() planted {
	p := planted{Literature: demo.NewLiterature(demo.Seed, demo.AlmagreSize)}
	p.almagre, _ = thesaurus.Build(demo.Headings(), "")
	p.surco, _ = thesaurus.Build(demo.SurcoTerms(), "")
	p.index = index.Build(p.Almagre)
	return p
})

// count returns how many records of Almagre a query finds.
func (p planted) count(t *testing.T, cql string) int {
	q, err := query.Parse(cql, p.almagre)
	require.NoError(t, err)
	return int(q.Expr.Match(p.index).GetCardinality())
}

func TestTheSourcesHaveTheirSizesAndVocabularies(t *testing.T) {
	p := world()
	assert.Len(t, p.Almagre, 24_000)
	assert.Len(t, p.Surco, 9_000)
	assert.Len(t, p.Vilano, 16_000)
	assert.InDelta(t, 900, p.almagre.Len(), 60)
	assert.InDelta(t, 600, p.surco.Len(), 90)
	deepest, several := 0, 0
	for i := range p.almagre.Len() {
		places := p.almagre.Places(i)
		if len(places) > 1 {
			several++
		}
		for _, place := range places {
			deepest = max(deepest, len(place))
		}
	}
	assert.Equal(t, 6, deepest, "levels of Almagre Headings")
	assert.Greater(t, several, 3, "headings in more than one place")
	for _, r := range p.Vilano {
		require.Empty(t, r.Headings, "Vilano has no headings")
	}
	for _, r := range p.Surco {
		for _, h := range r.Headings {
			_, known := p.surco.Find(h.Label)
			require.True(t, known, h.Label)
			require.False(t, h.Central || len(h.Qualifiers) > 0, "Surco has neither qualifiers nor main points")
		}
	}
	for _, r := range p.Almagre {
		for _, h := range r.Headings {
			_, known := p.almagre.Find(h.Label)
			require.True(t, known, h.Label)
		}
	}
}

func TestSomeOfSurcoIsInOtherLanguagesUnderAnEnglishTitle(t *testing.T) {
	n := 0
	for _, r := range world().Surco {
		if strings.Contains(r.Abstract, " ção ") || strings.Contains(r.Abstract, "El objetivo") ||
			strings.Contains(r.Abstract, "O objetivo") {
			n++
			assert.Contains(t, []string{"spa", "por"}, r.Languages[0])
			assert.NotRegexp(t, `[ñçã¿]`, r.Title)
		}
	}
	assert.Greater(t, n, 20)
}

func TestAThirdOfTheTopicElsewhereIsAlmagresToo(t *testing.T) {
	p := world()
	var known bib.Known
	for i, r := range p.Almagre {
		known.Add(r, i)
	}
	about := []string{"farm*", "cane", "sugarcane", "plantation*", "agricultural"}
	for name, records := range map[string][]*bib.Record{"Surco": p.Surco, "Vilano": p.Vilano} {
		topic, shared, byTitle := 0, 0, 0
		for _, r := range records {
			if !demo.Says(r, about...) || !demo.Says(r, "heat", "shade", "hydration", "cooling") {
				continue
			}
			topic++
			if _, ok := known.Find(r); ok {
				shared++
				if r.DOI == "" {
					byTitle++
				}
			}
		}
		t.Logf("%s: %d of %d records on the topic are Almagre's too, %d by title alone", name, shared, topic, byTitle)
		assert.InDelta(t, 1.0/3, float64(shared)/float64(topic), 0.1, name)
		assert.InDelta(t, 0.5, float64(byTitle)/float64(shared), 0.15, name)
	}
}

func TestThreeKeyStudiesAreOnlyElsewhere(t *testing.T) {
	p := world()
	require.Len(t, p.Keys, 28)
	held := func(in []*bib.Record) (n int) {
		var known bib.Known
		for i, r := range in {
			known.Add(r, i)
		}
		for _, k := range p.Keys {
			if _, ok := known.Find(k); ok {
				n++
			}
		}
		return n
	}
	assert.Equal(t, 25, held(p.Almagre))
	assert.GreaterOrEqual(t, held(p.Surco), 2)
	assert.GreaterOrEqual(t, held(p.Vilano), 2)
	assert.Equal(t, 28, held(slices.Concat(p.Almagre, p.Surco, p.Vilano)))
}

func TestALayWordHasAHeadingOfAnotherName(t *testing.T) {
	p := world()
	for word, heading := range map[string]string{"hydration": "Fluid Intake", "farmworker": "Agricultural Labor Force"} {
		leads := p.almagre.LookUp(word)
		require.NotEmpty(t, leads, word)
		assert.Equal(t, heading, p.almagre.Label(leads[0].Heading))
		assert.Greater(t, p.count(t, `heading =/narrower "`+heading+`"`), 100)
	}
}

func TestLookAlikeHeadingsAreToldApartByTheirScopeNote(t *testing.T) {
	p := world()
	for heading, note := range map[string]string{"Field Workers": "survey", "Shade": "colour", "Rest": "music",
		"Crew Scheduling": "aircraft"} {
		i, ok := p.almagre.Find(heading)
		require.True(t, ok, heading)
		assert.Contains(t, p.almagre.ScopeNote(i), note)
		assert.Positive(t, p.count(t, `heading = "`+heading+`"`), heading)
	}
}

func TestAHeadingCameInIn2014(t *testing.T) {
	p := world()
	i, _ := p.almagre.Find("Agricultural Labor Force")
	assert.Contains(t, p.almagre.At(i).HistoryNote, "2014")
	assert.Positive(t, p.count(t, `heading = "Rural Occupations" and year < 2014`), "what was used before")
	assert.Zero(t, p.count(t, `heading = "Rural Occupations" and year >= 2014`))
	assert.Positive(t, p.count(t, `heading = "Agricultural Labor Force" and year >= 2014`))
	assert.Len(t, p.almagre.Places(i), 2, "in two places of the tree")
	alone, below := p.count(t, `heading = "Land Workforce"`), p.count(t, `heading =/narrower "Land Workforce"`)
	assert.Greater(t, below, 10*(alone+1), "its narrower headings hold most of the records")
}

func TestFreeTextDragsInHomonyms(t *testing.T) {
	p := world()
	for _, cql := range []string{
		`"walking cane*" or "cane users"`, `"flight crew*" or "cabin crew"`, `"tooth shade*" or "shade matching"`,
		`"organ harvest" or "data harvest"`, `"pickers in the dispensary robot"`,
		`farming or farmington`, `"WRS" and ("wound drains" or sepsis or infection)`, `"WRS" and (heat or dehydration)`,
	} {
		assert.Greater(t, p.count(t, cql), 3, cql)
	}
	assert.Greater(t, p.count(t, "farm*"), p.count(t, "farm or farms or farmworker* or farmer*"))
	assert.Greater(t, p.count(t, "labo*r"), p.count(t, "labor"))
}

func TestSpellingsComeInRealisticShares(t *testing.T) {
	p := world()
	for _, pair := range [][2]string{{"labourers", "laborers"}, {"acclimatisation", "acclimatization"},
		{"haemoglobin", "hemoglobin"}, {`"cane cutters"`, "canecutters"}, {"farmworkers", `"farm workers"`}} {
		a, b := p.count(t, pair[0]), p.count(t, pair[1])
		assert.Greater(t, a, 0, pair[0])
		assert.Greater(t, b, 0, pair[1])
		t.Logf("%s %d, %s %d", pair[0], a, pair[1], b)
	}
}

func TestAFewJournalsAndThreeTeamsHoldMuchOfTheTopic(t *testing.T) {
	p := world()
	var topic []*bib.Record
	journals, pairs, late := map[string]int{}, map[string]int{}, 0
	for _, r := range p.Almagre {
		if !demo.Says(r, "farmworker*", "farm worker*", "cane cutter*", "agricultural worker*", "field hands") ||
			!demo.Says(r, "heat") {
			continue
		}
		topic = append(topic, r)
		journals[r.Journal]++
		if r.Year > 2013 {
			late++
		}
		var names []string
		for _, a := range r.Authors {
			names = append(names, a.Family)
		}
		slices.Sort(names)
		for i := range names {
			for j := i + 1; j < len(names); j++ {
				pairs[names[i]+" & "+names[j]]++
			}
		}
	}
	n := len(topic)
	require.Greater(t, n, 300)
	var most []int
	for _, k := range journals {
		most = append(most, k)
	}
	slices.SortFunc(most, func(a, b int) int { return b - a })
	first := 0
	for _, k := range most[:8] {
		first += k
	}
	t.Logf("%d on the topic, eight of %d journals hold %d, %d after 2013", n, len(most), first, late)
	assert.Greater(t, 3*first, n, "eight journals hold a third of the topic")
	assert.Greater(t, 3*late, 2*n, "most was written after 2013")
	often := 0
	for _, k := range pairs {
		if k >= 8 {
			often++
		}
	}
	assert.GreaterOrEqual(t, often, 15, "pairs of authors of the three teams")
}

// Parts of a study add up, shares are those of the counts, an estimate lies in its interval.
func TestFiguresOfAStudyAgree(t *testing.T) {
	share := regexp.MustCompile(`(\d+) of (\d+) [^.(]*\((\d+\.\d) %\)`)
	left := regexp.MustCompile(`(\d+) of (\d+) participants were lost to follow-up, which left (\d+)`)
	interval := regexp.MustCompile(`ratio (\d+\.\d+)[;,] 95 % CI (\d+\.\d+) to (\d+\.\d+)`)
	number := func(s string) float64 { f, _ := strconv.ParseFloat(s, 64); return f }
	shares, rests, intervals := 0, 0, 0
	for _, r := range world().Almagre {
		for _, m := range share.FindAllStringSubmatch(r.Abstract, -1) {
			require.InDelta(t, 100*number(m[1])/number(m[2]), number(m[3]), 0.06, r.Abstract)
			shares++
		}
		for _, m := range left.FindAllStringSubmatch(r.Abstract, -1) {
			require.Equal(t, number(m[2])-number(m[1]), number(m[3]), r.Abstract)
			rests++
		}
		for _, m := range interval.FindAllStringSubmatch(r.Abstract, -1) {
			require.LessOrEqual(t, number(m[2]), number(m[1]), r.Abstract)
			require.GreaterOrEqual(t, number(m[3]), number(m[1]), r.Abstract)
			intervals++
		}
	}
	assert.Greater(t, min(shares, rests, intervals), 500)
}

package bib_test

import (
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/text"
)

func people(names ...string) (out []bib.Person) {
	for _, n := range names {
		out = append(out, bib.ParsePerson(n))
	}
	return out
}

// What people write of one work differs; what is of another work may look alike.
func TestTheSameWorkAsPeopleWriteIt(t *testing.T) {
	work := func(change func(*bib.Record)) *bib.Record {
		r := &bib.Record{
			Title:     "Scheduled rest and kidney function in harvest crews: a cohort of three seasons",
			Year:      2014,
			Authors:   people("Müller-Okafor, Tamsin", "Velkana, R.", "Osei, Abena"),
			Journal:   "Annals of Field Work",
			Volume:    "12",
			FirstPage: "31",
		}
		if change != nil {
			change(r)
		}
		return r
	}
	doi := func(d string) func(*bib.Record) { return func(r *bib.Record) { r.DOI = d } }
	for name, c := range map[string]struct {
		a, b func(*bib.Record)
		want bib.Sameness
	}{
		"capitals, marks and tags": {nil, func(r *bib.Record) {
			r.Title = "SCHEDULED REST and <i>kidney</i> function in harvest crews – a cohort of three seasons."
		}, bib.Same},
		"a leading article": {nil, func(r *bib.Record) { r.Title = "The " + r.Title }, bib.Same},
		"another spelling and number": {func(r *bib.Record) {
			r.Title = "Labour of crews at harvest under " +
				"programmes of rest"
		}, func(r *bib.Record) { r.Title = "Labor of crew at harvests under programs of rest" },
			bib.Same},
		"without its subtitle": {nil,
			func(r *bib.Record) { r.Title = "Scheduled rest and kidney function in harvest crews" }, bib.Same},
		"one letter left out": {nil, func(r *bib.Record) {
			r.Title = strings.Replace(r.Title, "kidney",
				"kidny", 1)
		}, bib.Same},
		"two letters changed over": {nil, func(r *bib.Record) {
			r.Title = strings.Replace(r.Title, "function",
				"funtcion", 1)
		}, bib.Same},
		"one letter of a short title": {func(r *bib.Record) { r.Title = "Heat and rest" },
			func(r *bib.Record) { r.Title = "Heat and test" }, bib.Other},
		"one year later":          {nil, func(r *bib.Record) { r.Year = 2015 }, bib.Same},
		"two years later":         {nil, func(r *bib.Record) { r.Year = 2016 }, bib.Other},
		"no year":                 {nil, func(r *bib.Record) { r.Year = 0 }, bib.Same},
		"no author":               {nil, func(r *bib.Record) { r.Authors = nil }, bib.Same},
		"neither year nor author": {nil, func(r *bib.Record) { r.Authors, r.Year = nil, 0 }, bib.Perhaps},
		"ue for ü, initials": {nil, func(r *bib.Record) { r.Authors = people("Mueller-Okafor T") },
			bib.Same},
		"u for ü, the name as it is spoken": {nil, func(r *bib.Record) { r.Authors = people("Tamsin Muller-Okafor") },
			bib.Same},
		"a particle": {func(r *bib.Record) { r.Authors = people("van der Brink, K") },
			func(r *bib.Record) { r.Authors = people("Brink, K") }, bib.Same},
		"authors in another order": {nil, func(r *bib.Record) { slices.Reverse(r.Authors) }, bib.Same},
		"another first author":     {nil, func(r *bib.Record) { r.Authors = people("Moster, A") }, bib.Other},
		"the same DOI": {doi("10.99999/a"), func(r *bib.Record) {
			*r = bib.Record{Title: "Calor",
				DOI: "https://doi.org/10.99999/A."}
		}, bib.Same},
		"a word, and nothing beside it": {func(r *bib.Record) { *r = bib.Record{Title: "cutters"} },
			func(r *bib.Record) { *r = bib.Record{Title: "cutters"} }, bib.Other},
		"another DOI at another place": {doi("10.99999/a"), func(r *bib.Record) {
			r.DOI,
				r.FirstPage = "10.99999/b", "77"
		}, bib.Perhaps},
		"another DOI at the same place": {doi("10.99999/a"), doi("10.99999/b"), bib.Same},
		"a DOI on one side":             {doi("10.99999/a"), nil, bib.Same},
		"its correction":                {nil, func(r *bib.Record) { r.Title = "Correction: " + r.Title }, bib.Other},
		"its erratum behind it": {nil,
			func(r *bib.Record) { r.Title = "Scheduled rest and kidney function in harvest crews: erratum" }, bib.Other},
		"its protocol": {func(r *bib.Record) {
			r.Title = "Scheduled rest and kidney function " +
				"in harvest crews"
		}, func(r *bib.Record) {
			r.Title = "Scheduled rest and kidney function in harvest crews: " +
				"study protocol"
		}, bib.Other},
		"a reply to it": {func(r *bib.Record) {
			r.Title = "Scheduled rest and kidney function " +
				"in harvest crews"
		}, func(r *bib.Record) {
			r.Title = "Scheduled rest and kidney function in harvest crews – " +
				"reply"
		}, bib.Other},
		"its second part": {func(r *bib.Record) {
			r.Title = "Scheduled rest and kidney function " +
				"in harvest crews. Part I"
		}, func(r *bib.Record) {
			r.Title = "Scheduled rest and kidney function in harvest " +
				"crews. Part II"
		}, bib.Other},
		"a report of another year": {func(r *bib.Record) {
			r.Title = "Annual report of the field stations " +
				"of the valley"
		}, func(r *bib.Record) {
			r.Title, r.Year = "Annual report of the field stations of the valley",
				2015
		}, bib.Other},
		"a report with another year in it": {func(r *bib.Record) {
			r.Title = "Report of the field stations of the " +
				"upper valley 2014"
		}, func(r *bib.Record) { r.Title = "Report of the field stations of the upper valley 2015" },
			bib.Other},
		"what many call a text, somewhere else": {func(r *bib.Record) { r.Title = "Editorial" },
			func(r *bib.Record) { r.Title, r.FirstPage = "Editorial", "99" }, bib.Perhaps},
	} {
		a, b := work(c.a), work(c.b)
		var known bib.Known
		known.Add(work(func(r *bib.Record) { r.Title, r.DOI = "Something else that was known before", "" }), 3)
		known.Add(a, 7)
		n, same := known.Find(b)
		assert.Equal(t, c.want == bib.Same, same, name)
		if same {
			assert.Equal(t, 7, n, name)
			continue
		}
		n, perhaps := known.Perhaps(b)
		assert.Equal(t, c.want == bib.Perhaps, perhaps, name)
		if perhaps {
			assert.Equal(t, 7, n, name)
		}
	}
}

// Whichever of two records comes first, they are one or not; a record is one with itself; and what is found is what
// comparing with all finds.
func TestSamenessGoesBothWays(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		words := []string{
			"rest",
			"Rests",
			"heat",
			"labour",
			"labor",
			"and",
			"the",
			"kidney",
			"crews",
			"of",
			"season",
			"2014",
			"part",
			"II",
			":",
			"protocol",
			"programmes",
			"programs",
			"harvesting",
		}
		some := func(label string) *bib.Record {
			r := &bib.Record{
				Title: strings.Join(rapid.SliceOfN(rapid.SampledFrom(words), 1, 14).Draw(t, label), " "),
				Year:  rapid.SampledFrom([]int{0, 2013, 2014, 2015}).Draw(t, label+" year"),
				Authors: people(
					rapid.SliceOfN(rapid.SampledFrom([]string{"Osei, A", "Osei A", "Abena Osei", "Velkana, R"}), 0, 2).
						Draw(t, label+" people")...),
				DOI: rapid.SampledFrom([]string{"", "", "10.99999/a", "10.99999/b"}).Draw(t, label+" DOI"),
			}
			return r
		}
		a := some("a")
		b := some("b")
		if rapid.Bool().Draw(t, "alike") { // most that is drawn is alike in nothing
			b.Title = a.Title
			if i := rapid.IntRange(0, len(a.Title)).Draw(t, "at"); rapid.Bool().Draw(t, "edited") {
				b.Title = a.Title[:i] + "x" + a.Title[i:]
			}
		}
		x, y := bib.IdentityOf(a), bib.IdentityOf(b)
		assert.Equal(t, x.Compare(y), y.Compare(x))
		var known bib.Known
		known.Put(x, 0)
		_, found := known.Get(y)
		assert.Equal(t, x.Compare(y) == bib.Same, found, "%q and %q", a.Title, b.Title)
		if _, itself := known.Get(x); a.DOI != "" || text.Key(a.Title) != "" && len(a.Authors) > 0 && a.Year > 0 {
			assert.True(t, itself)
		}
	})
}

func BenchmarkJoiningTheSameWorks(b *testing.B) {
	var ids []bib.Identity
	for i := range 20_000 {
		ids = append(
			ids,
			bib.IdentityOf(
				&bib.Record{
					Title: fmt.Sprint(
						"A cohort of three seasons among crews of the valley, station ",
						i%15_000,
						" of many that were looked at",
					),
					Year:    2010 + i%3,
					Authors: people(fmt.Sprint("Osei", i%7, ", A")),
				},
			),
		)
	}
	for b.Loop() {
		var works bib.Works
		last := 0
		for _, id := range ids {
			last = works.Number(id)
		}
		require.Positive(b, last)
	}
}

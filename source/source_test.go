package source_test

import (
	"context"
	"errors"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/source"
)

// full is a source that can do everything, by our names.
func full() source.Map {
	m := source.Map{
		Indexes:  map[string]string{},
		Phrase:   "=",
		Near:     true,
		Ends:     true,
		Inside:   true,
		Narrower: true,
		Central:  true,
		Qualify:  true,
		Sort:     true,
		Scan:     true,
		AtMost:   10,
	}
	for _, f := range source.Fields {
		m.Indexes[f] = "tamiz." + f
	}
	return m
}

// catalogue is a source as a library has it: titles and subjects, words at their ends alone.
func catalogue() source.Map {
	return source.Map{
		Indexes: map[string]string{
			"title":   "dc.title",
			"keyword": "dc.subject",
			"author":  "dc.creator",
			"any":     "cql.anywhere",
			"year":    "dc.date",
		},
		Phrase: "adj",
		Ends:   true,
		AtMost: 10,
	}
}

// vilano is as the shipped source of that name: without an index of abstracts, of keywords or of headings.
func vilano() source.Map {
	return source.Map{
		Indexes: map[string]string{"any": "tamiz.any", "text": "tamiz.text", "title": "tamiz.title"},
		Phrase:  "=",
		Ends:    true,
		AtMost:  10,
	}
}

// surco is as the shipped source of that name: everything, but nothing of ours in one index.
func surco() source.Map {
	return source.Map{
		Indexes: map[string]string{
			"title":    "dc.title",
			"abstract": "dc.description",
			"keyword":  "dc.subject",
			"heading":  "tamiz.heading",
		},
		Phrase: "=",
		Ends:   true,
		Inside: true,
		AtMost: 10,
	}
}

// titles is a source that can be asked for titles and subjects alone.
func titles() source.Map {
	return source.Map{
		Indexes: map[string]string{"title": "dc.title", "keyword": "dc.subject"},
		Phrase:  "=",
		Ends:    true,
		AtMost:  10,
	}
}

func TestAQueryIsPutInTheSourcesNames(t *testing.T) {
	for _, x := range []struct {
		cql, want string
		m         source.Map
		notes     []source.NoteKind
	}{
		{`hydration`, `tamiz.text = hydration`, full(), nil},
		{`"farm worker*"`, `tamiz.text = "farm worker*"`, full(), nil},
		{`hydration`, `cql.anywhere = hydration`, catalogue(), []source.NoteKind{dialect.NoField}},
		{`hydration and title = "rest break*"`, `cql.anywhere = hydration and dc.title adj "rest break*"`, catalogue(),
			[]source.NoteKind{dialect.NoField}},
		{`abstract = shade`, `cql.anywhere = shade`, catalogue(), []source.NoteKind{dialect.NoField}},
		{`labo*r`, `cql.anywhere = labo*`, catalogue(), []source.NoteKind{dialect.NoField, dialect.NoInside}},
		{`wom?n`, `cql.anywhere = wom*`, catalogue(), []source.NoteKind{dialect.NoField, dialect.NoSign}},
		{`title = farm prox/unit=word/distance<=3 title = crew*`,
			`tamiz.title = farm prox/unit=word/distance<=3 tamiz.title = crew*`, full(), nil},
		{`title = farm prox/unit=word/distance<=3 title = crew*`, `dc.title = farm and dc.title = crew*`, catalogue(),
			[]source.NoteKind{dialect.NoNear}},
		{`heading =/narrower/central "Fluid Intake"`, `tamiz.heading =/narrower/central "Fluid Intake"`, full(), nil},
		{`heading =/narrower "Fluid Intake" or hydration`, `cql.anywhere = hydration`, catalogue(),
			[]source.NoteKind{dialect.NoField, dialect.NoHeadings}},
		{`heading = "Fluid Intake"`, `cql.anywhere adj "fluid intake"`, catalogue(), []source.NoteKind{dialect.NoField,
			dialect.NoHeadings}},
		{`hydration and language = eng`, `cql.anywhere = hydration`, catalogue(), []source.NoteKind{dialect.NoField,
			dialect.NoLimit}},
		{`year within "2010 2019"`, `dc.date >= 2010 and dc.date <= 2019`, catalogue(), nil},
		{`year >= 1`, `dc.date >= 1`, catalogue(), nil},
		{`year >= 2010 and hydration`, `dc.date >= 2010 and cql.anywhere = hydration`, catalogue(),
			[]source.NoteKind{dialect.NoField}},
		{`author = "Osolana I"`, `dc.creator = "osolana i"`, catalogue(), nil},
		{`author any "osolana velk"`, `dc.creator = osolana or dc.creator = velk`, catalogue(), nil},
		{`author = "os*lana i"`, `dc.creator = "os* i"`, catalogue(), []source.NoteKind{dialect.NoInside}},
		{`author all "osolana i"`, `tamiz.any = osolana and tamiz.any = i`, vilano(), []source.NoteKind{dialect.NoField}},
		{`type = "Trial Report"`, `tamiz.type = "Trial Report"`, full(), nil},
		{`"or"`, `tamiz.text = "or"`, full(), nil},
		// What is meant is never asked in part without a word.
		{`titleAbstract = shade`, `tamiz.text = shade`, vilano(), []source.NoteKind{dialect.NoField}},
		{`abstract = shade`, `tamiz.text = shade`, vilano(), []source.NoteKind{dialect.NoField}},
		{`any = shade`, `tamiz.any = shade`, vilano(), nil},
		{`text = shade`, `dc.title = shade or dc.subject = shade`, titles(), []source.NoteKind{dialect.NoPart,
			dialect.Wider}},
		{`text = shade`, `dc.title = shade or dc.description = shade or dc.subject = shade`, surco(),
			[]source.NoteKind{dialect.Wider}},
		{`heading = Shade or heading =/narrower Shade`, `dc.title = shade or dc.subject = shade`, titles(),
			[]source.NoteKind{dialect.NoPart, dialect.Wider, dialect.NoHeadings, dialect.Once}},
		{`any = shade`, `dc.title = shade or dc.subject = shade`, titles(), []source.NoteKind{dialect.NoPart}},
		// Words of one record may stand in different fields.
		{`titleAbstract all "shade rest"`, `(dc.title = shade or dc.description = shade) and (dc.title = rest or dc.description = rest)`, surco(), nil},
		{`any all "shade rest"`, `(dc.title = shade or dc.description = shade or dc.subject = shade) and (dc.title = rest or dc.description = rest or dc.subject = rest)`, surco(), []source.NoteKind{dialect.NoPart}},
		// A heading is asked by its label, so that its index does not stand for words of labels.
		{`any = shade`, `dc.title = shade or dc.description = shade or dc.subject = shade`, surco(),
			[]source.NoteKind{dialect.NoPart}},
		// What nothing is like is asked wherever the source looks, or without a name.
		{`journal = "field notes"`, `cql.anywhere adj "field notes"`, catalogue(), []source.NoteKind{dialect.NoField}},
		{`journal == "field notes" and year >= 2019`, `"field notes" and dc.date >= 2019`,
			source.Map{Indexes: map[string]string{"title": "dc.title", "year": "dc.date"}, AtMost: 10},
			[]source.NoteKind{dialect.NoField}},
		{`author = "Osolana I"`, `"osolana i"`, titles(), []source.NoteKind{dialect.NoField}},
		{`author = "Osolana I"`, `tamiz.any = "osolana i"`, vilano(), []source.NoteKind{dialect.NoField}},
		{`shade and type = Review`, `shade`, source.Map{AtMost: 10, Ends: true}, []source.NoteKind{dialect.NoField,
			dialect.NoLimit}},
		{`*stress`, `tamiz.text = *stress`, full(), nil},
		{`*stress`, ``, catalogue(), []source.NoteKind{dialect.NoLeft}},
		{`type = Review not shade`, ``, catalogue(), []source.NoteKind{dialect.NoLimit}},
		{`title any "shade rest"`, `dc.title = shade or dc.title = rest`, surco(), nil},
		{`title any "shade rest" and hydration`, `(tamiz.title = shade or tamiz.title = rest) and tamiz.text = hydration`,
			full(), nil},
	} {
		q, err := query.Parse(x.cql, nil)
		require.NoError(t, err, x.cql)
		got, notes := source.Render(q.Expr, x.m)
		assert.Equal(t, x.want, got, x.cql)
		var kinds []source.NoteKind
		for _, n := range notes {
			kinds = append(kinds, n.Kind)
			assert.NotEmpty(t, n.String())
		}
		assert.Equal(t, x.notes, kinds, x.cql)
	}
}

// A source that can do everything is asked just what is meant: what it is sent reads back as the same.
func TestWhatIsSentMeansTheSame(t *testing.T) {
	parts := []string{
		"hydration",
		`"farm worker*"`,
		"title = shade",
		`heading =/narrower "Fluid Intake"`,
		`(rest prox/unit=word/distance<=5 break*)`,
		`author = "Osolana I"`,
		"year >= 2010",
		`type = "Review"`,
		"labo?r",
	}
	operators := []string{" and ", " or ", " not "}
	rapid.Check(t, func(t *rapid.T) {
		var make func(depth int) string
		make = func(depth int) string {
			if depth == 0 || rapid.IntRange(0, 2).Draw(t, "leaf") == 0 {
				return rapid.SampledFrom(parts).Draw(t, "part")
			}
			op := rapid.SampledFrom(operators).Draw(t, "operator")
			var of []string
			for range rapid.IntRange(2, 4).Draw(t, "parts") {
				of = append(of, make(depth-1))
			}
			return "(" + strings.Join(of, op) + ")"
		}
		q, err := query.Parse(make(3), nil)
		require.NoError(t, err)
		sent, notes := source.Render(q.Expr, full())
		assert.Empty(t, notes)
		back, err := query.Parse(strings.ReplaceAll(sent, "tamiz.", ""), nil)
		require.NoError(t, err, sent)
		assert.True(t, dialect.Same(q.Expr, back.Expr), "%s\n%s", query.Write(q.Expr), sent)
		assert.Empty(t, back.Warnings, "brackets stand wherever operators are mixed")
	})
}

func TestAMapIsProposedFromADescription(t *testing.T) {
	m := source.Propose(&source.Description{
		Indexes: []source.Index{
			{Name: "dc.title", Scan: true},
			{Name: "dc.creator"},
			{Name: "dc.subject"},
			{Name: "rec.identifier"},
			{Name: "cql.serverChoice"},
			{Name: "xy.dateIssued", Sort: true},
		},
		Schemas: []source.Schema{
			{Name: "dc"},
			{Name: "marcxml"},
		}, MaxRecords: 30, Supports: map[string][]string{"relation": {"=", "adj"}, "proximity": {""}},
	})
	assert.Equal(
		t,
		map[string]string{
			"title":      "dc.title",
			"author":     "dc.creator",
			"keyword":    "dc.subject",
			"any":        "cql.serverChoice",
			"year":       "xy.dateIssued",
			"identifier": "rec.identifier",
		},
		m.Indexes,
	)
	assert.Equal(t, "marcxml", m.Schema, "the fuller of those it gives")
	assert.Equal(t, 30, m.AtMost)
	assert.True(t, m.Near && m.Scan && m.Sort && m.Ends)
	assert.False(t, m.Inside || m.Narrower)
	assert.Equal(t, "adj", m.Phrase)
	assert.Equal(
		t,
		[]string{"text", "abstract", "titleAbstract", "heading", "journal", "type", "language", "country"},
		m.Lacks(),
		"what its parts stand for is not lacking",
	)
	clean := source.Map{
		Indexes: map[string]string{"title": "dc.title", "nothing": "x", "year": " "},
		AtMost:  1 << 30,
		Phrase:  "near",
	}.Clean()
	assert.Equal(t, map[string]string{"title": "dc.title"}, clean.Indexes)
	assert.Equal(t, 100, clean.AtMost)
	assert.Equal(t, "=", clean.Phrase)
}

// shelf is a source of so many records in each year.
type shelf struct{ years map[int]int }

func (s shelf) Explain(context.Context) (*source.Description, error) { return nil, errors.New("no") }
func (s shelf) Scan(context.Context, source.Scan) ([]source.Entry, error) {
	return nil, errors.New("no")
}
func (s shelf) Search(_ context.Context, q source.Search) (*source.Page, error) {
	total := 0
	for year, n := range s.years {
		if !strings.Contains(q.Query, "tamiz.year") || strings.Contains(q.Query, "tamiz.year = "+strconv.Itoa(year)) {
			total += n
		}
	}
	return &source.Page{Total: total}, nil
}

func planned(t require.TestingT, s shelf, how source.How, n int) source.Plan {
	p, err := source.PlanOf(
		context.Background(),
		s,
		full(),
		"tamiz.text = x",
		source.Order{How: how, AtMost: n, Seed: 7, Now: 2026},
	)
	require.NoError(t, err)
	return p
}

// positions returns all positions of a plan, each with the part it belongs to.
func positions(p source.Plan) (out [][2]int) {
	for _, part := range p.Parts {
		for _, r := range part.Ranges {
			for at := r[0]; at <= r[1]; at++ {
				out = append(out, [2]int{part.Key, at})
			}
		}
	}
	return out
}

// A plan for more records holds all those of a plan for fewer, so that only what is missing is fetched.
func TestARaisedPlanHoldsTheOneBefore(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := shelf{map[int]int{}}
		total := 0
		for range rapid.IntRange(1, 12).Draw(t, "years") {
			y, n := rapid.IntRange(1990, 2026).Draw(t, "year"), rapid.IntRange(0, 40).Draw(t, "records")
			s.years[y] = n
		}
		for _, n := range s.years {
			total += n
		}
		few := rapid.IntRange(1, 100).Draw(t, "few")
		many := few + rapid.IntRange(0, 200).Draw(t, "more")
		for _, how := range []source.How{source.All, source.Newest, source.Years, source.Random} {
			a, b := positions(planned(t, s, how, few)), positions(planned(t, s, how, many))
			assert.Len(t, a, min(few, total), how)
			assert.Len(t, b, min(many, total), how)
			seen := map[[2]int]bool{}
			for _, p := range b {
				assert.False(t, seen[p], "no position twice")
				seen[p] = true
			}
			for _, p := range a {
				assert.True(t, seen[p], "%s: %v is in the plan for %d and not in that for %d", how, p, few, many)
			}
		}
	})
}

func TestASpreadTakesOfEachYearAsEvenlyAsItCan(t *testing.T) {
	p := planned(t, shelf{map[int]int{2026: 2, 2020: 50, 2001: 50}}, source.Years, 30)
	got := map[int]int{}
	for _, at := range positions(p) {
		got[at[0]]++
	}
	assert.Equal(t, map[int]int{2026: 2, 2020: 14, 2001: 14}, got)
	m := full()
	delete(m.Indexes, "year")
	_, err := source.PlanOf(
		context.Background(),
		shelf{map[int]int{2020: 5}},
		m,
		"x",
		source.Order{How: source.Years, AtMost: 3, Now: 2026},
	)
	require.ErrorContains(t, err, "cannot be asked for years")
}

func TestARandomSampleIsSpreadOverTheWhole(t *testing.T) {
	p := planned(t, shelf{map[int]int{2020: 10_000}}, source.Random, 1000)
	var tenths [10]int
	for _, at := range positions(p) {
		tenths[(at[1]-1)/1000]++
	}
	assert.Greater(t, slices.Min(tenths[:]), 60)
	assert.Less(t, slices.Max(tenths[:]), 140)
}

// flaky answers some requests and breaks off at others, as often as a draw is begun anew.
type flaky struct {
	shelf
	broken map[int]bool // requests that fail
	n      int
}

func (f *flaky) Search(_ context.Context, q source.Search) (*source.Page, error) {
	f.n++
	if f.broken[f.n] {
		return nil, source.ErrUnreachable
	}
	p := &source.Page{Total: 500}
	for at := q.Start; at < q.Start+q.Max; at++ {
		p.Records = append(p.Records, source.Got{Position: at, Record: &bib.Record{Title: strconv.Itoa(at)}})
	}
	return p, nil
}

// Whatever fails and however often it is gone on with, in the end each position is there exactly once.
func TestADrawThatIsGoneOnWithEndsWithEachPositionOnce(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		f := &flaky{broken: map[int]bool{}}
		for range rapid.IntRange(0, 40).Draw(t, "failures") {
			f.broken[rapid.IntRange(1, 90).Draw(t, "request")] = true
		}
		plan := source.Plan{
			Total: 500,
			Parts: []source.Part{{Query: "x", Ranges: [][2]int{{3, 100}, {120, 130}, {400, 450}}}},
		}
		got := map[int]int{}
		there := roaring.New() // positions that were kept, as a store has them
		for round := 0; ; round++ {
			require.Less(t, round, 60)
			lost := 0
			d := source.Draw{
				Source: f,
				Plan:   plan,
				Page:   17,
				Done:   []*roaring.Bitmap{there.Clone()},
				Keep: func(b source.Batch) error {
					for _, g := range b.Got {
						got[g.Position]++
						there.Add(uint32(g.Position))
					}
					lost += len(b.Troubles)
					return nil
				},
			}
			err := d.Run(context.Background())
			if err == nil && lost == 0 {
				break
			}
			if err != nil {
				assert.True(t, source.GivenUp(err))
			}
		}
		assert.Len(t, got, plan.Wanted())
		for at, n := range got {
			assert.Equal(t, 1, n, "position %d", at)
		}
	})
}

// garbage answers with what cannot be read, but for the positions that are good.
type garbage struct {
	source.Source
	good  func(position int) bool
	asked int
}

func (g *garbage) Search(_ context.Context, s source.Search) (*source.Page, error) {
	g.asked++
	p := &source.Page{Total: 10_000}
	for at := s.Start; at < s.Start+s.Max; at++ {
		if !g.good(at) {
			return p, source.ErrMalformed
		}
		p.Records = append(
			p.Records,
			source.Got{Position: at, Record: &bib.Record{ID: strconv.Itoa(at), Title: "Heat " + strconv.Itoa(at)}},
		)
	}
	return p, nil
}

func drawGarbage(t *testing.T, good func(int) bool) (got, asked int, err error) {
	t.Helper()
	g := &garbage{good: good}
	d := source.Draw{
		Source: g,
		Plan:   source.Plan{Total: 10_000, Parts: []source.Part{{Query: "x", Ranges: [][2]int{{1, 10_000}}}}},
		Page:   100,
		Keep:   func(b source.Batch) error { got += len(b.Got); return nil },
	}
	err = d.Run(t.Context())
	return got, g.asked, err
}

func TestASourceOfGarbageIsNotAskedForHours(t *testing.T) {
	got, asked, err := drawGarbage(t, func(int) bool { return false })
	assert.True(t, source.GivenUp(err), "%v", err)
	assert.Zero(t, got)
	assert.LessOrEqual(t, asked, 40)
	// What came before it turned to garbage is kept.
	got, _, err = drawGarbage(t, func(at int) bool { return at <= 3000 })
	assert.True(t, source.GivenUp(err))
	assert.Equal(t, 3000, got)
	// A record here and there that cannot be read ends nothing.
	got, _, err = drawGarbage(t, func(at int) bool { return at%37 != 0 })
	require.NoError(t, err)
	assert.Equal(t, 10_000-270, got)
}

package source_test

import (
	"testing"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/source"
)

// anyMap is a source that can be asked some of what we know, by our names, so that what it is asked can be read back.
func anyMap(t *rapid.T) source.Map {
	m := source.Map{Indexes: map[string]string{}, Phrase: "=", AtMost: 10}
	for _, f := range source.Fields {
		if rapid.Bool().Draw(t, f) {
			m.Indexes[f] = f
		}
	}
	for _, can := range []*bool{&m.Near, &m.Ends, &m.Inside, &m.Narrower, &m.Central, &m.Qualify} {
		*can = rapid.Bool().Draw(t, "can")
	}
	return m
}

func anyStrategy(t *rapid.T) strategy.Strategy {
	words := []string{"heat", "stress", "cane", "cutters", "rest", "shade", "lab*r", "c?ne"}
	phrase := func() string {
		s := rapid.SampledFrom(words).Draw(t, "word")
		if rapid.Bool().Draw(t, "two") {
			s += " " + rapid.SampledFrom(words).Draw(t, "second")
		}
		return s + rapid.SampledFrom([]string{"", "", "*"}).Draw(t, "sign")
	}
	var s strategy.Strategy
	for i := range rapid.IntRange(1, 3).Draw(t, "blocks") {
		b := strategy.Block{
			Name:     string(rune('A' + i)),
			Searched: i == 0 || rapid.IntRange(0, 4).Draw(t, "searched") > 0,
			Negated:  i > 0 && rapid.IntRange(0, 3).Draw(t, "negated") == 0,
		}
		for range rapid.IntRange(1, 4).Draw(t, "terms") {
			term := strategy.Term{
				Kind:  strategy.TextTerm,
				Text:  phrase(),
				Field: rapid.SampledFrom([]string{"text", "title", "abstract", "keyword"}).Draw(t, "field"),
			}
			switch rapid.IntRange(0, 4).Draw(t, "kind") {
			case 0, 1:
				term = strategy.Term{
					Kind:     strategy.HeadingTerm,
					Heading:  rapid.SampledFrom([]string{"Shade", "Heat", "Rest"}).Draw(t, "heading"),
					Narrower: rapid.Bool().Draw(t, "narrower"),
					Central:  rapid.Bool().Draw(t, "central"),
				}
			case 2:
				term = strategy.Term{Kind: strategy.NearTerm, Left: "cane", Right: "rest", Within: 3, Field: "text"}
			}
			term.On = rapid.IntRange(0, 4).Draw(t, "on") > 0
			b.Terms = append(b.Terms, term)
		}
		s.Blocks = append(s.Blocks, b)
	}
	if rapid.Bool().Draw(t, "limit") {
		from := 2000
		s.Limits = append(s.Limits, strategy.Limit{Kind: strategy.YearsLimit, From: &from})
	}
	if rapid.Bool().Draw(t, "humans") {
		s.Limits = append(
			s.Limits,
			strategy.Limit{Kind: strategy.HumansLimit, Values: []string{"Humans"}, Against: []string{"Animals"}},
		)
	}
	return s
}

func anyRecords(t *rapid.T) *index.Index {
	words := []string{"heat", "stress", "cane", "cutters", "rest", "shade", "labour", "cone"}
	text := func() (s string) {
		for _, w := range rapid.SliceOfN(rapid.SampledFrom(words), 0, 4).Draw(t, "said") {
			s += " " + w
		}
		return s
	}
	var records []*bib.Record
	for range rapid.IntRange(3, 12).Draw(t, "records") {
		r := &bib.Record{
			Title:    "of" + text(),
			Abstract: text(),
			Keywords: []string{"kept" + text()},
			Year:     rapid.IntRange(1999, 2001).Draw(t, "year"),
		}
		for _, h := range rapid.SliceOfN(rapid.SampledFrom([]string{"Shade", "Heat", "Humans", "Animals"}), 0, 2).Draw(t,
			"headings") {
			r.Headings = append(r.Headings, bib.Assignment{Label: h, Central: rapid.Bool().Draw(t, "main")})
		}
		records = append(records, r)
	}
	return index.Build(records)
}

// manners are all in which a strategy is said here: those of the shipped dialects, of a source with a map of its
// own, and of one of another vocabulary.
func manners(t *rapid.T) (out []strategy.Manner, asked strategy.Manner) {
	for _, d := range dialect.Known() {
		out = append(out, strategy.Manner{Dialect: d})
	}
	surco, _ := dialect.Named("surco")
	notLess := *surco
	notLess.Operators.Not = nil
	out = append(out, strategy.Manner{Dialect: &notLess})
	m := anyMap(t)
	asked, err := m.Manner(nil)
	require.NoError(t, err)
	m.Indexes["heading"] = "heading"
	carried, err := m.Manner(
		&strategy.Carrying{Stands: map[string][]string{"shade": {"Heat"}, "rest": {"Heat", "Pauses"}, "humans": {"Heat"}}},
	)
	require.NoError(t, err)
	return append(out, asked, carried), asked
}

// TestLinesWholeAndWhatIsCountedAreOne: whatever a source lacks, the whole query finds what its lines find put
// together by their numbers, each term and block is counted as its line is asked, and both views tell the same of
// what is lost.
func TestLinesWholeAndWhatIsCountedAreOne(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s, ix := anyStrategy(t), anyRecords(t)
		all, asked := manners(t)
		for _, m := range all {
			typed, err := s.Adapted(m, nil)
			require.NoError(t, err)
			for i, b := range s.Blocks {
				alone := s.Blocks[i]
				alone.Searched = true
				one, err := strategy.Strategy{Blocks: []strategy.Block{alone}}.Adapted(m, nil)
				require.NoError(t, err)
				for _, l := range typed.Lines {
					if l.Of.Block == i && l.Of.Kind == strategy.TermLine && (len(m.Dialect.Operators.Not) > 0 || !b.Negated) {
						assert.Equal(t, l.Texts, one.Term(0, l.Of.Term).Queries, "a term is counted as its line is asked")
						assert.Equal(t, l.Texts, typed.Term(i, l.Of.Term).Queries)
					}
				}
			}
			if len(typed.Whole.Queries) == 0 {
				continue
			}
			last := typed.Lines[len(typed.Lines)-1]
			assert.True(t, dialect.Same(last.Said, typed.Whole.Said))
			told := map[dialect.Note]bool{}
			for _, l := range typed.Lines {
				for _, n := range l.Notes {
					n.Meant, n.Said = nil, nil
					told[n] = true
				}
			}
			for _, n := range typed.Whole.Notes {
				if n.Meant, n.Said = nil, nil; !n.OfLength() {
					assert.True(t, told[n], "%s: a line tells of %v", m.Dialect.Name, n)
				}
			}
			if m.Dialect.Name != asked.Dialect.Name || len(typed.Whole.Queries) > 1 {
				continue // that what is typed is read back is a test of the dialects
			}
			read := func(text string) *roaring.Bitmap {
				q, err := query.Parse(text, nil)
				require.NoError(t, err, text)
				return q.Expr.Match(ix)
			}
			found := map[int]*roaring.Bitmap{}
			for _, l := range typed.Lines {
				switch {
				case len(l.Texts) == 0:
				case len(l.Of.Parts) == 0:
					found[l.Of.Number] = read(l.Texts[0])
				default:
					found[l.Of.Number] = put(l.Of, found)
				}
			}
			assert.Equal(t, read(typed.Whole.Text()).ToArray(), found[last.Of.Number].ToArray(), "%s", typed.Whole.Text())
			if len(typed.Whole.Notes) == 0 {
				meant, err := s.Query(nil)
				require.NoError(t, err)
				assert.Equal(
					t,
					meant.Match(ix).ToArray(),
					read(typed.Whole.Text()).ToArray(),
					"without a note it is what was meant",
				)
			}
		}
	})
}

// put joins what lines find by their numbers; those that are not asked are left out.
func put(n strategy.Numbered, found map[int]*roaring.Bitmap) *roaring.Bitmap {
	var out *roaring.Bitmap
	for _, p := range n.Parts {
		switch x := found[p]; {
		case x == nil:
		case out == nil:
			out = x.Clone()
		case n.Join == "or":
			out.Or(x)
		case n.Join == "and":
			out.And(x)
		default:
			out.AndNot(x)
		}
	}
	return out
}

// Several headings for which the same words stand are written once, as a line and in the whole.
func TestWhatStandsInForSeveralIsWrittenOnce(t *testing.T) {
	heading := func(label string) strategy.Term {
		return strategy.Term{Kind: strategy.HeadingTerm, Heading: label, On: true}
	}
	s := strategy.Strategy{
		Blocks: []strategy.Block{
			{Name: "A", Searched: true, Terms: []strategy.Term{heading("Shade"), heading("shade"), heading("Rest")}},
		},
	}
	m, err := titles().Manner(nil)
	require.NoError(t, err)
	typed, err := s.Adapted(m, nil)
	require.NoError(t, err)
	assert.Equal(t, `dc.title = shade or dc.subject = shade or dc.title = rest or dc.subject = rest`, typed.Whole.Text())
	assert.Empty(t, typed.Lines[1].Texts)
	assert.Equal(t, dialect.Once, typed.Lines[1].Notes[0].Code)
	assert.Equal(t, "1 or 3", typed.Lines[3].Texts[0])

	// Beside words they are left out: as lines too.
	s.Blocks[0].Terms = append(
		s.Blocks[0].Terms,
		strategy.Term{Kind: strategy.TextTerm, Text: "parasol", Field: "title", On: true},
	)
	typed, err = s.Adapted(m, nil)
	require.NoError(t, err)
	assert.Equal(t, `dc.title = parasol`, typed.Whole.Text())
	assert.Empty(t, typed.Lines[0].Texts)
	assert.Equal(t, dialect.NoHeadings, typed.Lines[0].Notes[0].Code)
	assert.Contains(t, typed.Whole.Notes, typed.Lines[0].Notes[0])

	// What is taken to stand for several in another vocabulary is written once too.
	m, err = surco().Manner(&strategy.Carrying{Stands: map[string][]string{"shade": {"Parasols"}, "rest": {"Parasols"}}})
	require.NoError(t, err)
	s.Blocks[0].Terms = []strategy.Term{heading("Shade"), heading("Rest")}
	typed, err = s.Adapted(m, nil)
	require.NoError(t, err)
	assert.Equal(t, `tamiz.heading = "Parasols"`, typed.Whole.Text())
	assert.Equal(t, "[Rest]", typed.Lines[1].Notes[0].Term)
}

package dialect_test

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
	"tamiz/core/thesaurus/thesaurustest"
)

var vocabulary = []string{
	"heat",
	"stress",
	"cane",
	"cutter",
	"cutters",
	"labourer",
	"laborer",
	"rest",
	"shade",
	"farm",
	"crew",
	"and",
	"or",
	"line",
	"12",
}

// records are made of few words, so that queries find some of them.
func records(t *rapid.T) []*bib.Record {
	value := func(name string) string {
		s := ""
		for _, w := range rapid.SliceOfN(rapid.SampledFrom(vocabulary), 0, 6).Draw(t, name) {
			s += w + " "
		}
		return s
	}
	out := make([]*bib.Record, rapid.IntRange(4, 12).Draw(t, "records"))
	for i := range out {
		out[i] = &bib.Record{
			Title:    value("title"),
			Abstract: value("abstract"),
			Journal:  value("journal"),
			Keywords: []string{value("keyword")},
			Year: rapid.IntRange(1998, 2003).
				Draw(t, "year"),
			Languages: []string{rapid.SampledFrom([]string{"eng", "spa"}).Draw(t, "language")},
		}
		if rapid.Bool().Draw(t, "indexed") {
			out[i].Headings = []bib.Assignment{
				{
					Label:      rapid.SampledFrom([]string{"Heat, Dry", "Rest; Shade"}).Draw(t, "heading"),
					Central:    rapid.Bool().Draw(t, "central"),
					Qualifiers: []string{"prevention"},
				},
			}
		}
	}
	return out
}

func pattern(t *rapid.T, most int) text.Pattern {
	words := rapid.SliceOfN(rapid.Custom(func(t *rapid.T) string {
		w := rapid.SampledFrom(vocabulary).Draw(t, "word")
		if len(w) < 4 {
			return w
		}
		switch rapid.IntRange(0, 6).Draw(t, "sign") {
		case 0:
			return w[:4] + "*"
		case 1:
			return w[:2] + "?" + w[3:]
		case 2:
			return "*" + w[1:]
		case 3:
			return w[:3] + "*" + w[len(w)-1:]
		}
		return w
	}), 1, most).Draw(t, "words")
	s := ""
	for _, w := range words {
		s += w + " "
	}
	p, err := text.ParsePattern(s)
	if err != nil {
		t.Fatal(err)
	}
	return p
}

func field(t *rapid.T) bib.Field {
	return rapid.SampledFrom([]bib.Field{bib.Text, bib.Title, bib.Abstract, bib.TitleAbstract, bib.Keyword, bib.Any,
		bib.Journal}).
		Draw(t, "field")
}

func expression(t *rapid.T, depth int) query.Expr {
	if depth > 0 && rapid.IntRange(0, 2).Draw(t, "joined") > 0 {
		parts := make([]query.Expr, rapid.IntRange(2, 4).Draw(t, "parts"))
		for i := range parts {
			parts[i] = expression(t, depth-1)
		}
		switch rapid.IntRange(0, 2).Draw(t, "operator") {
		case 0:
			return query.Or(parts)
		case 1:
			return query.And(parts)
		}
		return query.Not(parts)
	}
	switch rapid.IntRange(0, 9).Draw(t, "kind") {
	case 0:
		return query.Near{
			Left:    pattern(t, 2),
			Right:   pattern(t, 1),
			Within:  rapid.IntRange(1, 4).Draw(t, "within"),
			Ordered: rapid.Bool().Draw(t, "ordered"),
			Exactly: rapid.Bool().Draw(t, "exactly"),
			Fields:  field(t),
		}
	case 1:
		label := rapid.SampledFrom([]string{"Heat, Dry", "Rest; Shade", `Odd "one"`}).Draw(t, "heading")
		h := query.Heading{
			Label:    label,
			Which:    thesaurus.Labelled(label),
			Narrower: rapid.Bool().Draw(t, "narrower"),
			Central:  rapid.Bool().Draw(t, "central"),
		}
		if rapid.Bool().Draw(t, "qualified") {
			h.Qualifiers = []string{"prevention"}
		}
		return h
	case 2:
		return query.Listed{List: index.Languages, Value: "eng"}
	case 3:
		from := rapid.SampledFrom([]int{query.FirstYear, 1999, 2001}).Draw(t, "from")
		return query.Years{From: from, To: rapid.SampledFrom([]int{2001, 2002, query.LastYear}).Draw(t, "to")}
	case 4:
		return query.Words{Pattern: pattern(t, 3), Fields: field(t), All: rapid.Bool().Draw(t, "all")}
	}
	return query.Phrase{Pattern: pattern(t, 3), Fields: field(t), Whole: rapid.IntRange(0, 5).Draw(t, "whole") == 0}
}

// invented returns a dialect of signs and words drawn at will, or nil where the draw is refused.
func invented(t *rapid.T) *dialect.Dialect {
	signs := rapid.Permutation([]string{"~", "^", "%", "$", "|", "&", "!", ";", "+"}).Draw(t, "signs")
	d := &dialect.Dialect{
		Tamiz:  dialect.Version,
		Name:   "invented",
		Title:  "Invented",
		Typed:  dialect.AsQuery,
		Fields: map[string][]string{},
	}
	for _, f := range []string{"text", "title", "abstract", "titleAbstract", "keyword", "any", "journal", "language",
		"year"} {
		if rapid.Bool().Draw(t, f) {
			d.Fields[f] = []string{"f" + f}
		}
	}
	if rapid.Bool().Draw(t, "bare") {
		d.Bare = rapid.SampledFrom([]string{"text", "any", "title"}).Draw(t, "bare field")
	}
	is := rapid.SampledFrom([]string{"{name}:{term}", "{term}`{name}", "{name}{{{term}}}"}).Draw(t, "clause")
	d.Clauses.Is = []string{is}
	if rapid.Bool().Draw(t, "many") {
		d.Clauses.Many = []string{"{name} holds {term}"}
	}
	if rapid.Bool().Draw(t, "whole") {
		d.Clauses.Whole = []string{"{name}::{term}"}
	}
	if rapid.Bool().Draw(t, "several") {
		d.Several = ","
	}
	if len(d.Fields["year"]) > 0 {
		d.Years = &dialect.Years{From: []string{"{name}:{from}-"}, To: []string{"{name}:-{to}"}}
		if rapid.Bool().Draw(t, "between") {
			d.Years.Between = []string{"{name}:{from}-{to}"}
		}
	}
	if rapid.Bool().Draw(t, "headings") {
		d.Headings = &dialect.Headings{Is: []string{"<{label}{modifiers}>"}}
		if rapid.Bool().Draw(t, "narrower") {
			d.Headings.Narrower = []string{" and below"}
		}
		if rapid.Bool().Draw(t, "qualify") {
			d.Headings.Qualifier = []string{" /of {label}"}
		}
	}
	d.Terms = dialect.Terms{
		Words: rapid.SampledFrom([]string{dialect.AsPhrase, dialect.AsAnd, dialect.Refused}).Draw(t, "side by side"),
		Left: rapid.Bool().
			Draw(t, "left"),
		Inside:   rapid.Bool().Draw(t, "inside"),
		End:      rapid.Bool().Draw(t, "end"),
		InPhrase: rapid.Bool().Draw(t, "in phrase"),
		Letters:  rapid.IntRange(0, 4).Draw(t, "letters"),
	}
	if rapid.Bool().Draw(t, "marks") {
		d.Terms.Marks = [][2]string{{"\"", "\""}}
		d.Terms.Always = rapid.Bool().Draw(t, "always")
	}
	if d.Terms.Left || d.Terms.Inside || d.Terms.End {
		d.Terms.Many = signs[:1]
	}
	if rapid.Bool().Draw(t, "one") {
		d.Terms.One = signs[1:2]
	}
	d.Operators = dialect.Operators{
		And: []string{rapid.SampledFrom([]string{"AND", "and also", signs[2]}).Draw(t, "and")},
		Or:  []string{rapid.SampledFrom([]string{"OR", "or else"}).Draw(t, "or")},
		Ranks: rapid.SampledFrom([][][]string{{{"near"}, {"not"}, {"and"}, {"or"}}, {{"and", "or", "not", "near"}},
			{{"near"}, {"or"}, {"and", "not"}}}).
			Draw(t, "ranks"),
	}
	if rapid.Bool().Draw(t, "not") {
		d.Operators.Not = []string{"BUT NOT"}
	}
	if rapid.Bool().Draw(t, "near") {
		d.Near = &dialect.Near{
			Unordered: []string{"near{n}"},
			Most:      rapid.IntRange(1, 5).Draw(t, "most"),
			Between:   rapid.Bool().Draw(t, "between counted"),
		}
		if rapid.Bool().Draw(t, "in order") {
			d.Near.Ordered = []string{"before{n}"}
		}
	}
	d.Brackets = dialect.Brackets{
		Open:    "(",
		Shut:    ")",
		Always:  rapid.Bool().Draw(t, "always held"),
		Deepest: rapid.IntRange(0, 3).Draw(t, "deepest"),
	}
	if rapid.Bool().Draw(t, "escape") {
		d.Escape = "\\"
	}
	if rapid.Bool().Draw(t, "short") {
		d.Longest = 80
	}
	if err := d.Check(); err != nil {
		return nil
	}
	return d
}

// law: what a dialect writes its reader reads back to what it was said to say; where nothing was noted, that is what was
// meant. Where a note tells what was asked in its place, that is so.
func law(t *rapid.T, d *dialect.Dialect) {
	all := records(t)
	ix := index.Build(all)
	q := expression(t, 3)
	w := d.Write(q, dialect.Options{Forms: func(p text.TokenPattern) (out []string) {
		for _, word := range ix.TokensWith("") {
			if p.Match(word) {
				out = append(out, word)
			}
		}
		return out
	}})
	if len(w.Queries) == 0 {
		if w.Said != nil || len(w.Notes) == 0 {
			t.Fatalf("%s is not written, and nothing says why", query.Write(q))
		}
		return
	}
	var read query.Or
	for _, s := range w.Queries {
		r, err := d.Read(s, nil)
		if err != nil {
			t.Fatal(err)
		}
		if r.Expr() == nil {
			t.Fatalf("%q is read as nothing", s)
		}
		for _, f := range r.Findings {
			if f.Code != dialect.TooLongFor && f.Code != dialect.Mixed && f.Code != dialect.ExactTruncated {
				t.Fatalf("%q is written, and read with the finding that %s", s, f.Why)
			}
		}
		read = append(read, r.Expr())
	}
	assert.Equal(t, w.Said.Match(ix).ToArray(), read.Match(ix).ToArray(), "%s is written as %q", query.Write(q), w.Text())
	meant := len(w.Notes) == 0
	if len(w.Notes) == 1 && w.Notes[0].Code == dialect.Parted {
		meant = true
	}
	if meant {
		assert.Equal(
			t,
			q.Match(ix).ToArray(),
			w.Said.Match(ix).ToArray(),
			"%s is written as %q without a note",
			query.Write(q),
			w.Text(),
		)
	}
}

func TestWhatIsWrittenIsReadBack(t *testing.T) {
	for _, d := range dialect.Known() {
		t.Run(d.Name, func(t *testing.T) { rapid.Check(t, func(t *rapid.T) { law(t, d) }) })
	}
	refused, drawn := 0, 0
	t.Run("invented", func(t *testing.T) {
		rapid.Check(t, func(t *rapid.T) {
			drawn++
			if d := invented(t); d != nil {
				law(t, d)
			} else {
				refused++
			}
		})
		assert.Less(t, 2*refused, drawn+1, "most dialects that are drawn can be read")
	})
}

func TestCQLIsReadLikeTheStrictParser(t *testing.T) {
	data, err := os.ReadFile("../../testdata/vectors/cql.json")
	require.NoError(t, err)
	var examples []struct {
		Query          string
		Refused, Warns bool
		Vocabulary     map[string][]string
	}
	require.NoError(t, json.Unmarshal(data, &examples))
	cql, _ := dialect.Named("cql")
	for _, e := range examples {
		var v *thesaurus.Thesaurus
		if e.Vocabulary != nil {
			v = thesaurustest.Tree(e.Vocabulary)
		}
		r, err := cql.Read(e.Query, v)
		require.NoError(t, err)
		strict, refused := query.Parse(e.Query, v)
		if refused != nil {
			assert.NotEmpty(t, r.Findings, "%q is refused: %v", e.Query, refused)
			continue
		}
		if assert.NotNil(t, r.Expr(), e.Query) {
			assert.True(
				t,
				dialect.Same(strict.Expr, r.Expr()),
				"%q is read as %s, not as %s",
				e.Query,
				query.Write(r.Expr()),
				query.Write(strict.Expr),
			)
		}
		for _, f := range r.Findings {
			if f.Code == dialect.Mixed || f.Code == dialect.ExactTruncated {
				continue
			}
			assert.Fail(t, "a finding in what the strict parser reads", "%q: %s: %s", e.Query, f.Code, f.Why)
		}
	}
}

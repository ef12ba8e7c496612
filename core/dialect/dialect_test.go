package dialect_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"strings"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/text"
)

// The schema and the program are of one mind about what ships.
func TestWhatShipsIsProved(t *testing.T) {
	c := jsonschema.NewCompiler()
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(dialect.Schema))
	require.NoError(t, err)
	require.NoError(t, c.AddResource("dialect.json", doc))
	schema, err := c.Compile("dialect.json")
	require.NoError(t, err)
	for _, d := range dialect.Known() {
		data, err := dialect.Source(d.Name)
		require.NoError(t, err)
		_, err = dialect.Parse(data)
		require.NoError(t, err)
		value, err := jsonschema.UnmarshalJSON(bytes.NewReader(data))
		require.NoError(t, err)
		assert.NoError(t, schema.Validate(value), d.Name)
		again, err := json.Marshal(d)
		require.NoError(t, err)
		_, err = dialect.Parse(again)
		assert.NoError(t, err, "%s is what it was after it was written", d.Name)
	}
}

// changed returns a dialect that ships with one text of its file in place of another.
func changed(t *testing.T, name, old, with string) error {
	data, err := dialect.Source(name)
	require.NoError(t, err)
	require.Contains(t, string(data), old)
	_, err = dialect.Parse([]byte(strings.Replace(string(data), old, with, 1)))
	return err
}

func TestADialectThatCannotBeUsedIsRefused(t *testing.T) {
	for _, c := range []struct{ name, old, with, says string }{
		{"surco", `{name}{{{term}}}`, `{name}{{{word}}}`, "has a slot {word}"},
		{"surco", `{name}{{{term}}}`, `{name}{{{term`, "brace"},
		{"surco", `{name}{{{term}}}`, `{name}`, "lacks {term}"},
		{"almagre", `"title": ["title"]`, `"title": ["text"]`, "ambiguous"},
		{"almagre", `"not": ["LESS"]`, `"not": ["OR"]`, "ambiguous"},
		{"almagre", `"many": ["^"]`, `"many": ["%"]`, "ambiguous"},
		{"almagre", `"many": ["^"]`, `"many": ["@"]`, "ambiguous"},
		{"almagre", `"many": ["^"]`, `"many": ["x"]`, "no letters"},
		{"almagre", `"most": 20`, `"most": 2000`, "greatest distance"},
		{"almagre", `[["near"], ["not"], ["and"], ["or"]]`, `[["near"], ["and"], ["or"]]`, "ranks do not say"},
		{"vilano", `"longest": 250`, `"longest": 5`, "40 characters or more"},
		{"vilano", `"open": "(", "shut": ")"`, `"open": "(", "shut": "("`, "two different signs"},
		{"vilano", `dialect/1`, `dialect/9`, "does not say"},
		{"vilano", `"typed"`, `"typedd"`, "unknown field"},
	} {
		assert.ErrorContains(t, changed(t, c.name, c.old, c.with), c.says, "%s: %s", c.name, c.with)
	}
	_, err := dialect.Parse([]byte("{"))
	assert.Error(t, err)
}

// A dialect without phrase marks says words that belong together one by one, and notes it.
func TestADialectWithoutPhraseMarks(t *testing.T) {
	assert.NoError(t, changed(t, "words", `"marks": [["\"", "\""]], `, ""))
}

// What people paste is read, however large and odd, and what cannot be is told.
func TestLargeAndOddQueriesAreRead(t *testing.T) {
	cql, _ := dialect.Named("cql")
	read := func(s string) *dialect.Reading {
		r, err := cql.Read(s, nil)
		require.NoError(t, err)
		return r
	}
	_, err := cql.Read(strings.Repeat("x", dialect.MaxText+1), nil)
	assert.ErrorContains(t, err, "at most")
	assert.Empty(t, read(strings.Repeat("(", 400)+"heat"+strings.Repeat(")", 400)).Findings, "400 brackets")
	deep := read(strings.Repeat("(", 20_000) + "heat")
	assert.Equal(t, dialect.Bracket, deep.Findings[0].Code)
	assert.NotNil(t, read(strings.Repeat("heat or ", 100_000) + "rest").Lines[0].Tree)

	// Lines that each stand for the one before twice stand for too much.
	lines := "1. heat\n"
	for i := 2; i < 60; i++ {
		lines += fmt.Sprintf("%d. %d or %d\n", i, i-1, i-1)
	}
	big := read(lines)
	assert.Contains(t, codes(big), dialect.TooLongFor)
	lines = "1. heat\n2. rest\n"
	for i := 3; i < 60; i++ {
		lines += fmt.Sprintf("%d. any of 1-%d\n", i, i-1)
	}
	assert.Contains(t, codes(read(lines)), dialect.TooLongFor, "runs of lines, each of all before it")

	open := read(`"field hands or campesinos`)
	assert.Equal(t, []string{dialect.Bracket}, codes(open))
	assert.Equal(
		t,
		`"field hands" or campesinos`,
		query.Write(open.Expr()),
		"a mark that is not closed holds up to the next operator",
	)
	assert.Equal(t, `"field hands"`, *open.Findings[0].Mend)
	assert.Equal(t, []int{0, len(`"field hands`)}, []int{open.Findings[0].From, open.Findings[0].To})

	odd := read("（“heat\u00a0stress”\u200b or\u00a0kidney） and\u3000rest")
	assert.Empty(t, odd.Findings)
	assert.Equal(t, `("heat stress" or kidney) and rest`, query.Write(odd.Expr()))

	circle := read("1. heat\n2. 1 and 3\n3. 2 or rest")
	assert.Contains(t, codes(circle), dialect.LineCircle)
	gaps := read("3. heat\n7. rest\n9. 3 and 7")
	assert.Empty(t, gaps.Findings)
	assert.Equal(t, `heat and rest`, query.Write(gaps.Expr()))
	assert.Contains(t, codes(read("1. heat\n2. rest\n3. 1 and 5")), dialect.LineUnknown)

	almagre, _ := dialect.Named("almagre")
	mixed, err := almagre.Read(`"heat^" @title AND words{rest…}`, nil)
	require.NoError(t, err)
	assert.NotEmpty(t, mixed.Findings, "a part in another dialect is told")
	assert.NotNil(t, mixed.Expr(), "and what can be read is kept")
}

func codes(r *dialect.Reading) (out []string) {
	for _, f := range r.Findings {
		out = append(out, f.Code)
	}
	return out
}

func TestADialectIsToldByItself(t *testing.T) {
	for text, name := range map[string]string{
		`("cane cutter*" or farmworker*) and title = shade`: "cql",
		`dc.title = heat and dc.date >= 2000`:               "cql", // its names are known there too
		`words{cane cutter…} and topic{Heat Illness}`:       "surco",
		`"cane cutter^" @title AND <Heat Illness; below>`:   "almagre",
		`(farmworker* else "cane cutters") with shade`:      "vilano",
		`(farmworker* OR "cane cutters") AND shade`:         "cql",
		`weaver* and not noise*`:                            "cql",
		`noise* near weaver*`:                               "cql",
		"1. farmworker*\n2. shade\n3. 1 and 2":              "cql",
	} {
		assert.Equal(t, name, dialect.Tell(text, dialect.Known()).Name, text)
	}
}

func FuzzParse(f *testing.F) {
	for _, d := range dialect.Known() {
		data, err := dialect.Source(d.Name)
		require.NoError(f, err)
		f.Add(data)
	}
	f.Fuzz(func(_ *testing.T, data []byte) {
		d, err := dialect.Parse(data)
		if err == nil {
			_, _ = d.Read(`("heat" or kidney) and rest`, nil)
		}
	})
}

// FuzzRead: whatever somebody pastes is read in every dialect, and findings lie in the text.
func FuzzRead(f *testing.F) {
	for _, s := range []string{`("cane cutter*" or farm*) and heat`, "1. heat\n2. 1 or 3\n3. 2",
		`words{heat…} and topic{Heat, and under}`, `"heat" @title+summary AND <Heat; below; of x>`, "((((((", `"heat`,
		"a\u00a0and（b）", "farm-\nworker*",
		`year within "2000 2010" and heading =/narrower/qualifier="x" "Heat"`, "heat &3& rest", "*", "or or not",
		"1\t\n2\t1"} {
		f.Add(s)
	}
	f.Fuzz(func(t *testing.T, s string) {
		for _, d := range dialect.Known() {
			r, err := d.Read(s, nil)
			if err != nil {
				continue
			}
			for _, x := range r.Findings {
				if x.From < 0 || x.To > len(r.Text) || x.From > x.To {
					t.Fatalf("%s: %q: %s stands at %d to %d", d.Name, s, x.Code, x.From, x.To)
				}
			}
			if q := r.Expr(); q != nil {
				d.Write(q, dialect.Options{})
			}
		}
	})
}

// What a dialect encloses is typed in full, whatever words stand in it, and read back as it was meant.
func TestWordsThatMeanSomethingElsewhereAreTypedWhereTheyAreEnclosed(t *testing.T) {
	surco, _ := dialect.Named("surco")
	for _, words := range []string{"type 2 diabetes", "and", "or", "line 3", "years", "title", "12",
		"either of lines 1 to 3", "but not"} {
		p, err := text.ParsePattern(words)
		require.NoError(t, err)
		q := query.Phrase{Pattern: p, Fields: bib.Text}
		w := surco.Write(q, dialect.Options{})
		assert.Equal(t, "words{"+words+"}", w.Text())
		assert.Empty(t, w.Notes)
		r, err := surco.Read(w.Text(), nil)
		require.NoError(t, err)
		assert.True(t, dialect.Same(q, r.Expr()), "%s is read as %v", words, r.Expr())
	}
}

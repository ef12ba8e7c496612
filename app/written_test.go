package app_test

import (
	"archive/zip"
	"bytes"
	"crypto/sha256"
	"fmt"
	"io"
	"slices"
	"strings"
	"tamiz/app/logbook"
	"testing"
	"time"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/reviews"
	"tamiz/app/runs"
	"tamiz/app/written"
	"tamiz/core/review"
	"tamiz/core/strategy"
	"tamiz/exchange/document"
	"tamiz/exchange/records"
	"tamiz/exchange/ris"
)

func section(t *testing.T, r *written.Record, id string) document.Section {
	t.Helper()
	for _, s := range r.Document.Sections {
		if s.ID == id {
			return s
		}
	}
	t.Fatalf("there is no section %q", id)
	return document.Section{}
}

func filled(r *written.Record) map[string]bool {
	out := map[string]bool{}
	for _, i := range r.Items {
		out[i.ID] = i.Filled
	}
	return out
}

// asTheSchemaSays holds the record as JSON against its schema.
func asTheSchemaSays(t *testing.T, a *trial, id int64) {
	t.Helper()
	c := jsonschema.NewCompiler()
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(written.Schema))
	require.NoError(t, err)
	require.NoError(t, c.AddResource("record.json", doc))
	schema, err := c.Compile("record.json")
	require.NoError(t, err)
	body, _, err := a.Written.File(t.Context(), desk.At{Review: id}, written.JSON)
	require.NoError(t, err)
	value, err := jsonschema.UnmarshalJSON(bytes.NewReader(body))
	require.NoError(t, err)
	assert.NoError(t, schema.Validate(value))
}

func TestTheRecordOfAnEmptyReviewSaysWhatIsMissing(t *testing.T) {
	a, id := start(t)
	r, err := a.Written.Record(t.Context(), desk.At{Review: id})
	require.NoError(t, err)
	require.Len(t, r.Items, 16)
	for _, i := range r.Items {
		assert.NotEmpty(t, i.Fill, i.ID)
		section(t, r, i.By)
		assert.Equal(t, i.ID == "limits", i.Filled, i.ID) // that there are none is said
	}
	assert.Equal(t, "There is no strategy yet.", r.Methods)
	asTheSchemaSays(t, a, id)
	for _, s := range r.Document.Sections {
		assert.True(t, len(s.Parts) > 0 || s.Empty != "", s.ID)
	}
	_, _, err = a.Written.HandSearch(t.Context(), desk.At{Review: id}, "", written.DOCX)
	assert.Contains(t, problem(t, err).Error(), "No journal is on the hand-search list yet")
	_, err = a.Written.Record(t.Context(), desk.At{Review: 999})
	assert.Equal(t, 404, problem(t, err).Status)
}

func TestTheRecordIsWrittenFromWhatWasDone(t *testing.T) {
	a, id := start(t)
	w := standInSources(t, a)
	at := desk.At{Review: id}
	var sample strings.Builder
	for _, r := range w.Almagre {
		require.NoError(t, ris.Write(&sample, r))
	}
	_, err := bring(t, a, id, "sample", "almagre.ris", strings.NewReader(sample.String()))
	require.NoError(t, err)
	var keys strings.Builder
	for _, k := range w.Keys {
		require.NoError(t, ris.Write(&keys, k))
	}
	_, err = bring(t, a, id, "keys", "keys.ris", strings.NewReader(keys.String()))
	require.NoError(t, err)
	crewsStrategy(t, a, id)
	now, err := a.Reviews.Review(t.Context(), id)
	require.NoError(t, err)
	require.NoError(t, a.Reviews.Keep(t.Context(), id, reviews.VersionEdit{Name: "Draft | one"}))
	year := 2005
	_, err = a.Reviews.Change(t.Context(), id, now.Revision, reviews.Change{What: what, Edits: desk.Edits{
		&review.SetQuestion{
			Text: "Does <rest> protect *crews*?",
		}, &review.SetLimits{Limits: []strategy.Limit{{Kind: "years", From: &year}}},
		&review.HandSearched{Journal: "letters", Name: "Letters in Warm Work", On: true}}})
	require.NoError(t, err)
	ids := []int64{w.ids["almagre"], w.ids["surco"]}
	require.NoError(t, a.Runs.Run(t.Context(), id, runs.NewRuns{Sources: ids, Records: 5000}))
	everywhere(t, a, id)
	found := int64(12)
	require.NoError(
		t,
		a.Runs.WriteDown(
			t.Context(),
			id,
			runs.HandRun{
				Way:     logbook.ByBrowsing,
				Place:   "Card box",
				Query:   "=heat+rest",
				Records: &found,
				At:      time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC),
			},
		),
	)

	r, err := a.Written.Record(t.Context(), at)
	require.NoError(t, err)
	asTheSchemaSays(t, a, id)
	all := filled(r)
	for _, item := range []string{"databases", "browsed", "other", "strategies", "limits", "dates", "totals",
		"sameWorks"} {
		assert.True(t, all[item], item)
	}
	for _, item := range []string{"registries", "citations", "contacts", "filters", "updates", "checked"} {
		assert.False(t, all[item], item)
	}
	// Each way of looking fills the item that asks for it.
	require.NoError(
		t,
		a.Runs.WriteDown(
			t.Context(),
			id,
			runs.HandRun{Place: "Paper index", At: time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)},
		),
	)
	with, err := a.Written.Record(t.Context(), at)
	require.NoError(t, err)
	assert.Len(t, section(t, with, "sources").Parts[0].Table.Rows, 3, "one that was searched by hand is a source")
	for way, item := range map[string]string{logbook.ByRegister: "registries", logbook.ByCiting: "citations",
		logbook.ByAsking: "contacts"} {
		require.NoError(
			t,
			a.Runs.WriteDown(
				t.Context(),
				id,
				runs.HandRun{Way: way, Place: "by " + way, At: time.Date(2026, 3, 2, 0, 0, 0, 0, time.UTC)},
			),
		)
		more, err := a.Written.Record(t.Context(), at)
		require.NoError(t, err)
		assert.True(t, filled(more)[item], item)
	}
	require.Len(t, r.Flow.Sources, 3)
	assert.Equal(t, found, r.Flow.ByHand)
	assert.Equal(t, r.Flow.Sources[0].Records+r.Flow.Sources[1].Records+found, r.Flow.Found)
	assert.Positive(t, *r.Flow.Removed)
	assert.Equal(t, r.Flow.Found-*r.Flow.Removed, *r.Flow.Left)
	bench, err := a.Figures.Bench(t.Context(), at, desk.Proposal{})
	require.NoError(t, err)
	rows := section(t, r, "strategy").Parts[0].Table.Rows
	require.Len(t, rows, 7, "four terms, two blocks, the whole")
	assert.Equal(t, "farmworker*", rows[0][1])
	assert.NotEqual(t, "0", rows[6][2])
	assert.Positive(t, *bench.Records)
	versions := section(t, r, "versions").Parts[0].Table.Rows
	require.Len(t, versions, 2)
	assert.Contains(t, versions[1][5], "Limits set: years 2005–")
	assert.Contains(t, section(t, r, "left").Parts[0].Items, "Vilano: not asked yet")
	words := len(strings.Fields(r.Methods))
	assert.True(t, words >= 60 && words <= 200, "%d words: %s", words, r.Methods)

	body, name, err := a.Written.File(t.Context(), at, written.Markdown)
	require.NoError(t, err)
	assert.True(t, strings.HasSuffix(name, ", record of the search.md"), name)
	for _, s := range []string{`Draft \| one`, `Does \<rest\> protect \*crews\*?`, "Letters in Warm Work", "Card box",
		"12"} {
		assert.Contains(t, string(body), s)
	}
	page, _, err := a.Written.File(t.Context(), at, written.HTML)
	require.NoError(t, err)
	assert.Contains(t, string(page), "Does &lt;rest&gt; protect")
	assert.Equal(t, len(r.Document.Sections), strings.Count(string(page), "<h2>"))
	docx, name, err := a.Written.File(t.Context(), at, written.DOCX)
	require.NoError(t, err)
	assert.True(t, strings.HasSuffix(name, ", record of the search.docx"), name)
	assert.Equal(t, len(r.Document.Sections), strings.Count(unpacked(t, docx)["word/document.xml"], `w:val="Heading1"`))
	_, _, err = a.Written.File(t.Context(), at, "exe")
	assert.Equal(t, "format", problem(t, err).Field)

	list, name, err := a.Written.HandSearch(t.Context(), at, "", written.Markdown)
	require.NoError(t, err)
	assert.True(t, strings.HasSuffix(name, ", hand-search list.md"), name)
	assert.Contains(t, string(list), "| Letters in Warm Work | 0 ")
	_, _, err = a.Written.HandSearch(t.Context(), at, "", written.JSON)
	assert.Equal(t, "format", problem(t, err).Field)

	// Everything in one file, each with its checksum, to be read by a stranger and by programs.
	file, name, err := a.Written.Bundle(t.Context(), at, []records.Format{records.RIS, records.CSV})
	require.NoError(t, err)
	assert.True(t, strings.HasSuffix(name, ".zip"), name)
	packed, err := io.ReadAll(file)
	require.NoError(t, err)
	files := unpacked(t, packed)
	for _, line := range strings.Split(strings.TrimSpace(files["SHA256SUMS"]), "\n") {
		sum, of, _ := strings.Cut(line, "  ")
		assert.Equal(t, sum, fmt.Sprintf("%x", sha256.Sum256([]byte(files[of]))), of)
	}
	assert.Equal(t, len(files)-1, strings.Count(files["SHA256SUMS"], "\n"))
	back, err := strategy.Parse([]byte(files["strategy/strategy.json"]))
	require.NoError(t, err)
	now, err = a.Reviews.Review(t.Context(), id)
	require.NoError(t, err)
	assert.Equal(t, now.Document.Strategy(now.Name), back, "the strategy is read back as it was")
	all2, _, err := records.Open(strings.NewReader(files["records/Almagre.ris"]), records.Options{})
	require.NoError(t, err)
	n := int64(0)
	for {
		if _, err := all2.Read(); err != nil {
			assert.ErrorIs(t, err, io.EOF)
			break
		}
		n++
	}
	assert.Equal(t, r.Flow.Sources[0].Records, n)
	assert.Contains(t, files["runs.csv"], "Card box")
	assert.Contains(t, files["runs.csv"], ",'=heat+rest,", "no spreadsheet takes it for a formula")
	assert.Contains(t, files["README.txt"], "records/Surco.csv")
	assert.Contains(t, unpacked(t, []byte(files["record.docx"])), "word/document.xml")
	typed := 0
	for of := range files {
		if strings.HasPrefix(of, "strategy/typed for ") {
			typed++
		}
	}
	assert.GreaterOrEqual(t, typed, 5)
	_, _, err = a.Written.Bundle(t.Context(), at, []records.Format{"exe"})
	assert.Equal(t, "formats", problem(t, err).Field)
}

// TestTheRecordIsOfWhatWasRun: what is changed after a run is an open point, and in no figure, line or file of the
// record.
func TestTheRecordIsOfWhatWasRun(t *testing.T) {
	a, id := start(t)
	w := standInSources(t, a)
	at := desk.At{Review: id}
	keyStudies(t, a, id, w.Keys)
	crewsStrategy(t, a, id)
	before, err := a.Written.Record(t.Context(), at)
	require.NoError(t, err)
	assert.False(t, filled(before)["strategies"], "what was not run was not described as it was run")
	assert.Equal(t, "Lines as they would be asked", section(t, before, "lines").Title)

	require.NoError(t, a.Runs.Run(t.Context(), id, runs.NewRuns{Sources: []int64{w.ids["almagre"]}}))
	ran := everywhere(t, a, id).Sources[0]
	run, err := a.Written.Record(t.Context(), at)
	require.NoError(t, err)
	assert.True(t, filled(run)["strategies"])
	assert.Nil(t, run.Open)
	lines := section(t, run, "lines")
	assert.Equal(t, "Almagre, as one query", lines.Parts[1].Title)
	assert.Equal(t, ran.Run.Query, lines.Parts[1].Code, "the whole is what was sent")

	doc := state(t, a, id).Document
	for _, words := range []string{"zebra*", "gnu*"} {
		doc.Blocks[0].Terms = append(
			doc.Blocks[0].Terms,
			desk.Term{ID: words, Term: strategy.Term{Kind: strategy.TextTerm, Text: words, Field: "text", On: true}},
		)
	}
	doc.Blocks[1].Terms[0].On = false
	_, err = a.Change(t.Context(), id, state(t, a, id).Revision, change{What: what, Document: &doc})
	require.NoError(t, err)
	now := everywhere(t, a, id).Sources[0]
	assert.True(t, now.Stale)
	assert.Equal(t, ran.Caught, now.Caught, "what it catches is told of what was run")
	later, err := a.Written.Record(t.Context(), at)
	require.NoError(t, err)
	asTheSchemaSays(t, a, id)
	require.NotNil(t, later.Open)
	assert.Equal(t, []string{"Almagre"}, later.Open.Sources)
	assert.Contains(t, later.Open.Says, "has changed since it was run at Almagre")
	assert.Contains(t, later.Open.Changed, "zebra*")
	assert.Equal(t, run.Methods, later.Methods, "terms, recall and all are those of what was run")
	for _, of := range []string{"strategy", "lines", "limits", "results", "tested", "found"} {
		assert.Equal(t, section(t, run, of), section(t, later, of), of)
	}
	assert.True(t, filled(later)["strategies"], "it is still described as it was run")
	file, _, err := a.Written.Bundle(t.Context(), at, []records.Format{records.RIS})
	require.NoError(t, err)
	packed, err := io.ReadAll(file)
	require.NoError(t, err)
	for of, body := range unpacked(t, packed) {
		if strings.HasPrefix(of, "strategy/") {
			assert.NotContains(t, body, "zebra", of)
		}
	}

	// Where lines were not kept they are written anew as long as they still make what was sent.
	a.exec(t, "update run set lines = null where review = $1", id)
	again, err := a.Written.Record(t.Context(), at)
	require.NoError(t, err)
	assert.Equal(t, lines, section(t, again, "lines"))
	a.exec(t, "update run set query = query || ' and tamiz.title = other' where review = $1", id)
	other, err := a.Written.Record(t.Context(), at)
	require.NoError(t, err)
	assert.False(t, filled(other)["strategies"], "its lines cannot be told any more")
	assert.Equal(
		t,
		"Almagre, asked on "+ran.Run.At.Format("2 January 2006")+", as one query",
		section(t, other, "lines").Parts[0].Title,
	)
}

func unpacked(t *testing.T, packed []byte) map[string]string {
	t.Helper()
	z, err := zip.NewReader(bytes.NewReader(packed), int64(len(packed)))
	require.NoError(t, err)
	out := map[string]string{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		body, err := io.ReadAll(r)
		require.NoError(t, err)
		require.NoError(t, r.Close())
		_, twice := out[f.Name]
		require.False(t, twice, f.Name)
		out[f.Name] = string(body)
	}
	return out
}

// BenchmarkTheRecord writes the record of a review with 120 lines, 12 versions and a run at each source. The goal
// is a second.
func BenchmarkTheRecord(b *testing.B) {
	a, id := start(b)
	w := standInSources(b, a)
	var sample strings.Builder
	for _, r := range w.Almagre {
		require.NoError(b, ris.Write(&sample, r))
	}
	_, err := bring(b, a, id, "sample", "almagre.ris", strings.NewReader(sample.String()))
	require.NoError(b, err)
	var keys strings.Builder
	for _, k := range w.Keys {
		require.NoError(b, ris.Write(&keys, k))
	}
	_, err = bring(b, a, id, "keys", "keys.ris", strings.NewReader(keys.String()))
	require.NoError(b, err)
	doc := desk.Document{Blocks: []desk.Block{block("a", "A"), block("b", "B")}}
	for version := range 12 {
		for i := range 10 {
			words := slices.DeleteFunc(
				strings.FieldsFunc(w.Almagre[version*10+i].Title, func(r rune) bool { return r < 97 || r > 122 }),
				func(x string) bool { return len(x) < 4 },
			)
			word := words[i%len(words)] + "*"
			at := &doc.Blocks[i%2].Terms
			*at = append(*at, term(fmt.Sprint(version, "-", i), word))
		}
		now, err := a.Reviews.Review(b.Context(), id)
		require.NoError(b, err)
		_, err = a.Change(b.Context(), id, now.Revision, change{What: what, Document: &doc})
		require.NoError(b, err)
		require.NoError(b, a.Reviews.Keep(b.Context(), id, reviews.VersionEdit{Name: fmt.Sprint("Version ", version)}))
	}
	require.NoError(
		b,
		a.Runs.Run(
			b.Context(),
			id,
			runs.NewRuns{Sources: []int64{w.ids["almagre"], w.ids["surco"], w.ids["vilano"]}, Records: 300},
		),
	)
	everywhere(b, a, id)
	for b.Loop() {
		_, err := a.Written.Record(b.Context(), desk.At{Review: id})
		require.NoError(b, err)
	}
}

package app_test

import (
	"context"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/intake"
	"tamiz/app/reviews"
	"tamiz/core/set"
	"tamiz/exchange/records"
	"tamiz/exchange/table"
	"tamiz/exchange/tagged"
)

func answer(t *testing.T, a *trial, review int64, i reviews.Import, said intake.FileAnswer) (reviews.Import, error) {
	t.Helper()
	heard := a.Jobs.Listen(context.Background(), review)
	i, err := a.Intake.AnswerImport(context.Background(), i.ID, said)
	require.NoError(t, err)
	return read(t, a, heard, i.ID)
}

func titles(t *testing.T, a *trial, review int64, of desk.RecordSet) (out []string) {
	t.Helper()
	list, err := a.Records(context.Background(), review, figures.RecordsQuestion{Of: of, Limit: 100})
	require.NoError(t, err)
	for _, r := range list.Records {
		out = append(out, r.Title)
	}
	return out
}

func TestFilesOfEveryFormatBecomeSamples(t *testing.T) {
	a, review := start(t)
	for name, c := range map[string]struct{ file, format string }{
		"a.bib":  {"@article{a, title = {Heat}}", "bibtex"},
		"b.json": {`[{"title": "Heat"}]`, "csl"},
		"c.csv":  {"title,year\nHeat,2014\n", "csv"},
		"d.xml":  {"<mods><titleInfo><title>Heat</title></titleInfo></mods>", "mods"},
		"e":      {"<dc:dc xmlns:dc=\"http://purl.org/dc/elements/1.1/\"><dc:title>Heat</dc:title></dc:dc>", "dc"},
		"f.ris":  {"TY  - JOUR\nTI  - Heat\nER  - \n", "ris"},
	} {
		i, err := bring(t, a, review, "sample", name, strings.NewReader(c.file))
		require.NoError(t, err, name)
		assert.Equal(t, c.format, i.Format, name)
		assert.Equal(t, []string{"Heat"}, titles(t, a, review, desk.RecordSet{Set: &set.Sample{Sample: *i.Sample}}), name)
	}
	_, err := bring(t, a, review, "sample", "x.html", strings.NewReader("<html><body>Log in</body></html>"))
	assert.Contains(t, problem(t, err).Detail, "it is a web page")
}

func TestATableIsExplainedOnceAndKnownAgainByItsHeads(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	file := "Entry;People;Seen by\nHeat in crews;Velkana T, Osolana I;Ife\nRest;;\n"
	i, err := bring(t, a, review, "sample", "own.csv", strings.NewReader(file))
	require.NoError(t, err)
	require.Equal(t, [2]string{"asking", "columns"}, [2]string{i.State, i.Asks})
	q, err := a.Intake.Asked(ctx, i.ID)
	require.NoError(t, err)
	assert.Equal(t, file, q.Head)
	columns := *q.Settings.Columns
	assert.Equal(t, []string{"Entry", "People", "Seen by"}, columns.Heads())
	columns.Columns[0].Field, columns.Columns[1] = "title", table.Column{Name: "People", Field: "authors", Split: ","}
	p, err := a.Intake.PreviewImport(ctx, i.ID, intake.FileSettings{Columns: &columns}, false)
	require.NoError(t, err)
	assert.Empty(t, p.Problem)
	require.Len(t, p.Records, 2)
	assert.Equal(
		t,
		[]intake.PreviewField{
			{Field: "title", Values: []string{"Heat in crews"}},
			{Field: "authors", Values: []string{"Velkana T", "Osolana I"}},
			{Field: "Seen by", Own: true, Values: []string{"Ife"}},
		},
		p.Records[0].Fields,
	)
	bad := columns
	bad.Columns = []table.Column{{Name: "Entry", Field: "colour"}}
	p, err = a.Intake.PreviewImport(ctx, i.ID, intake.FileSettings{Columns: &bad}, false)
	require.NoError(t, err)
	assert.Contains(t, p.Problem, `no field "colour"`)
	p, err = a.Intake.PreviewImport(
		ctx,
		i.ID,
		intake.FileSettings{Columns: &table.Columns{Format: table.Version, Delimiter: ",", Quote: `"`}},
		true,
	)
	require.NoError(t, err)
	assert.Len(t, p.Settings.Columns.Columns, 1, "guessed anew by another delimiter")

	i, err = answer(
		t,
		a,
		review,
		i,
		intake.FileAnswer{FileSettings: intake.FileSettings{Columns: &columns}, Remember: true},
	)
	require.NoError(t, err)
	assert.Equal(t, "done", i.State)
	assert.Equal(
		t,
		[]string{"Heat in crews", "Rest"},
		titles(t, a, review, desk.RecordSet{Set: &set.Sample{Sample: *i.Sample}}),
	)
	_, err = a.Intake.AnswerImport(ctx, i.ID, intake.FileAnswer{FileSettings: intake.FileSettings{Columns: &columns}})
	assert.Equal(t, "not-asked", problem(t, err).Type)

	i, err = bring(t, a, review, "sample", "next.csv", strings.NewReader("Entry;People;Seen by\nShade;Wexlin Z;\n"))
	require.NoError(t, err)
	assert.Equal(t, "done", i.State, "known by its heads")

	i, err = bring(t, a, review, "sample", "other.csv", strings.NewReader("Thing;Who\nShade;Wexlin Z\n"))
	require.NoError(t, err)
	require.Equal(t, "asking", i.State)
	require.NoError(t, a.Intake.GiveUpImport(ctx, i.ID))
	_, err = a.Intake.Asked(ctx, i.ID)
	assert.Equal(t, "import-gone", problem(t, err).Type)
}

func TestAnyTaggedTextIsReadByAMap(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	file := "Nr: 1\nTitle: Heat\n in crews\nBy: Velkana, Temi; Osolana, Ife\n\nNr: 2\nTitle: Shade\n\nNr: 3\nTitle: Rest\n"
	i, err := bring(t, a, review, "keys", "own.txt", strings.NewReader(file))
	require.NoError(t, err)
	require.Equal(t, "tags", i.Asks)
	q, err := a.Intake.Asked(ctx, i.ID)
	require.NoError(t, err)
	m := *q.Settings.Map
	require.NoError(t, m.Check(), "the guess can be read by")
	m.Name = "Own cards"
	i, err = answer(t, a, review, i, intake.FileAnswer{FileSettings: intake.FileSettings{Map: &m}, Remember: true})
	require.NoError(t, err)
	assert.Equal(t, 3, i.Records)
	r, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	assert.Equal(t, "Heat in crews", r.KeyStudies[0].Title)
	kept, err := a.Intake.ReaderMaps(ctx)
	require.NoError(t, err)
	require.Len(t, kept, 1)
	assert.Equal(t, "Own cards", kept[0].Map.Name)
	require.NoError(t, a.Intake.DropReaderMap(ctx, kept[0].ID))
	assert.Error(t, a.Intake.DropReaderMap(ctx, kept[0].ID))

	i, err = bring(t, a, review, "sample", "again.txt", strings.NewReader(file))
	require.NoError(t, err)
	_, err = a.Intake.AnswerImport(ctx, i.ID, intake.FileAnswer{FileSettings: intake.FileSettings{Map: &tagged.Map{}}})
	assert.Contains(t, problem(t, err).Title, "reader map")
}

func TestRecordsOfOneWorkAreKeptApartJoinedOrLeftOut(t *testing.T) {
	one := "TY  - JOUR\nAN  - A1\nTI  - Heat in crews\nAU  - Velkana, T.\nPY  - 2014\nER  - \n"
	two := "TY  - JOUR\nAN  - B7\nTI  - Heat in Crews.\nAU  - Velkana, Temi\nPY  - 2015\nAB  - They rested.\nDO  - " +
		"10.99999/b.7\nKW  - shade\nER  - \n"
	other := "TY  - JOUR\nAN  - A2\nTI  - Shade\nER  - \n"
	file := one + other + two + strings.Replace(two, "B7", "C9", 1)
	for _, c := range []struct {
		rule    string
		choices map[int]string
		records []string // accession numbers
		first   string   // abstract of the first
	}{
		{intake.Apart, nil, []string{"A1", "A2", "B7", "C9"}, ""},
		{intake.Leave, nil, []string{"A1", "A2"}, ""},
		{intake.Join, nil, []string{"A1", "A2"}, "They rested."},
		{intake.Apart, map[int]string{4: intake.Leave}, []string{"A1", "A2", "B7"}, ""},
		{intake.Leave, map[int]string{3: intake.Join}, []string{"A1", "A2"}, "They rested."},
	} {
		a, review := start(t)
		ctx := context.Background()
		i, err := bring(t, a, review, "sample", "merged.ris", strings.NewReader(file))
		require.NoError(t, err)
		require.Equal(t, "doubles", i.Asks)
		r, err := a.Reviews.Review(ctx, review)
		require.NoError(t, err)
		assert.Empty(t, r.Samples, "nothing is filed before it is answered")
		q, err := a.Intake.Asked(ctx, i.ID)
		require.NoError(t, err)
		assert.Equal(t, 2, q.Total)
		assert.Equal(t, [2]int{1, 3}, [2]int{q.Doubles[0].Of, q.Doubles[0].Place})
		var fields []string
		for _, d := range q.Doubles[0].Differences {
			fields = append(fields, d.Field)
		}
		assert.Equal(t, []string{"title", "abstract", "authors", "year", "keywords", "doi", "accession"}, fields)
		i, err = answer(
			t,
			a,
			review,
			i,
			intake.FileAnswer{FileSettings: intake.FileSettings{Doubles: c.rule, Choices: c.choices}},
		)
		require.NoError(t, err)
		require.Equal(t, "done", i.State)
		ids := []string{}
		e, _, err := a.Export(
			ctx,
			review,
			figures.Export{
				Of:     desk.RecordSet{Set: &set.Sample{Sample: *i.Sample}},
				Format: records.TSV,
				Fields: []string{"accession", "abstract"},
				Name:   "x",
			},
		)
		require.NoError(t, err)
		text, err := io.ReadAll(e)
		require.NoError(t, err)
		abstract := ""
		for n, line := range strings.Split(strings.TrimSpace(string(text)), "\n")[1:] {
			about, id, _ := strings.Cut(line, "\t")
			ids = append(ids, id)
			if n == 0 {
				abstract = about
			}
		}
		assert.Equal(t, c.records, ids, "%s %v", c.rule, c.choices)
		assert.Equal(t, c.first, abstract, "%s %v", c.rule, c.choices)
	}
}

func TestTheShelfKeepsRecordsWithNotesAndTags(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	i, err := bring(t, a, review, "sample", "x.ris", strings.NewReader(file("Heat", "Rest", "Shade")))
	require.NoError(t, err)
	list, err := a.Records(ctx, review, figures.RecordsQuestion{Of: of(`{"kind":"all"}`), Limit: 10})
	require.NoError(t, err)
	note, tags := "look at the table", []string{"kidney", "to read", "kidney"}
	r, err := a.Change(
		ctx,
		review,
		1,
		change{
			What: what,
			Shelf: []reviews.ShelfPatch{
				{Record: list.Records[0].ID, On: true},
				{Record: list.Records[2].ID, On: true, Note: &note, Tags: &tags},
			},
		},
	)
	require.NoError(t, err)
	assert.ElementsMatch(t, []int64{list.Records[0].ID, list.Records[2].ID}, r.Shelf)
	// It stays when the sample goes, and can be taken out again as a file.
	gone := true
	_, err = a.Change(ctx, review, 1, change{What: what, Samples: []reviews.SamplePatch{{ID: *i.Sample, Deleted: &gone}}})
	require.NoError(t, err)
	shelf, err := a.Shelf(ctx, review)
	require.NoError(t, err)
	require.Len(t, shelf, 2)
	assert.Equal(t, "look at the table", shelf[0].Note)
	assert.Equal(t, []string{"kidney", "to read"}, shelf[0].Tags)
	e, name, err := a.Export(
		ctx,
		review,
		figures.Export{Of: desk.RecordSet{Set: &set.Shelf{}}, Format: records.BibTeX, Name: "../kept: of/mine"},
	)
	require.NoError(t, err)
	text, err := io.ReadAll(e)
	require.NoError(t, err)
	assert.Equal(t, "kept of mine.bib", name)
	assert.Contains(t, string(text), "title = {Shade}")
	// Undone step by step.
	_, err = a.Undo(ctx, review)
	require.NoError(t, err)
	back, err := a.Undo(ctx, review)
	require.NoError(t, err)
	assert.Empty(t, back.Shelf)
	back, err = a.Redo(ctx, review)
	require.NoError(t, err)
	assert.Len(t, back.Shelf, 2)
	for _, wrong := range []reviews.ShelfPatch{{Record: 1 << 40, On: true}, {Record: list.Records[0].ID, On: true,
		Tags: &[]string{"a;b"}}, {Record: list.Records[0].ID, On: true, Tags: &[]string{""}}} {
		_, err = a.Change(ctx, review, 1, change{What: what, Shelf: []reviews.ShelfPatch{wrong}})
		assert.Error(t, err)
	}
}

func TestAnySetOfRecordsIsWritten(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	i, err := bring(t, a, review, "sample", "x.ris", strings.NewReader(file("Heat in crews", "Rest in crews", "Shade")))
	require.NoError(t, err)
	j, err := bring(t, a, review, "sample", "y.ris", strings.NewReader(file("Heat in crews", "Harvest")))
	require.NoError(t, err)
	_, err = bring(t, a, review, "keys", "k.ris", strings.NewReader(file("Heat in crews", "Noon")))
	require.NoError(t, err)
	d := desk.Document{Blocks: []desk.Block{block("a", "A", term("1", "heat"), term("2", "crews"), term("3", "rest"))}}
	_, err = a.Change(ctx, review, 1, change{What: what, Document: &d})
	require.NoError(t, err)
	_, err = a.SetView(ctx, review, desk.NewLook{Sample: i.Sample, Rest: true})
	require.NoError(t, err)
	studies, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	only := term("2", "crews")
	for name, c := range map[string]struct {
		of   desk.RecordSet
		want []string
	}{
		"a sample": {desk.RecordSet{Set: &set.Sample{Sample: *j.Sample}}, []string{"Heat in crews", "Harvest"}},
		"a difference": {desk.RecordSet{Set: &set.Joined{A: *i.Sample, B: *j.Sample, How: desk.Difference}},
			[]string{"Rest in crews", "Shade"}},
		"a term":               {desk.RecordSet{Set: &set.Term{Term: only}}, []string{"Heat in crews", "Rest in crews"}},
		"what only a term has": {desk.RecordSet{Set: &set.Term{Term: only, Block: "a", Only: true}}, nil},
		"the strategy":         {desk.RecordSet{Set: &set.Strategy{}}, []string{"Heat in crews", "Rest in crews"}},
		"a selection": {desk.RecordSet{Set: &set.Picked{IDs: []int64{studies.KeyStudies[1].Record}}},
			[]string{"Noon"}},
	} {
		assert.Equal(t, c.want, titles(t, a, review, c.of), name)
		e, _, err := a.Export(
			ctx,
			review,
			figures.Export{Of: c.of, Format: records.CSV, Fields: []string{"title"}, Name: name},
		)
		require.NoError(t, err, name)
		text, err := io.ReadAll(e)
		require.NoError(t, err, name)
		assert.Equal(t, strings.Join(append([]string{"title"}, c.want...), "\n")+"\n", string(text), name)
	}
	_, _, err = a.Export(ctx, review, figures.Export{Format: "doc", Name: "x"})
	assert.Error(t, err)
	_, _, err = a.Export(ctx, review, figures.Export{Format: records.RIS, Fields: []string{"colour"}, Name: "x"})
	assert.Error(t, err)
	none := int64(1 << 40)
	_, _, err = a.Export(
		ctx,
		review,
		figures.Export{Of: desk.RecordSet{Set: &set.Sample{Sample: none}}, Format: records.RIS, Name: "x"},
	)
	assert.Error(t, err)
}

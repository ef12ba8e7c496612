package app_test

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"log/slog"
	"strings"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app"
	"tamiz/app/alerts"
	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/intake"
	"tamiz/app/jobs"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/source/sru"
	"tamiz/store"
	"tamiz/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

// start returns the application on an empty database, with a review.
func start(t testing.TB) (*trial, int64) {
	t.Helper()
	return startWith(t, nil, time.Now)
}

// startWith does the same with a mail server and a clock.
func startWith(t testing.TB, post *alerts.Post, now func() time.Time) (*trial, int64) {
	t.Helper()
	url := storetest.URL(t)
	db, err := store.Open(context.Background(), url)
	require.NoError(t, err)
	t.Cleanup(db.Close)
	a, err := app.New(db, sru.Guard{Everywhere: true}, post, slog.New(slog.DiscardHandler))
	require.NoError(t, err)
	a.Alerts.SetClock(now)
	ctx, cancel := context.WithCancel(context.Background())
	require.NoError(t, a.Start(ctx))
	t.Cleanup(func() {
		_ = a.Stop(context.Background())
		cancel()
	})
	r, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "Heat and kidneys"})
	require.NoError(t, err)
	return &trial{App: a, url: url, docs: map[[2]int64]desk.Document{}, choice: map[int64]desk.NewLook{}}, r.ID
}

// exec changes what is kept behind the back of the program, as an older edition of it would have left it.
func (a *trial) exec(t testing.TB, sql string, args ...any) {
	t.Helper()
	c, err := pgx.Connect(t.Context(), a.url)
	require.NoError(t, err)
	defer c.Close(t.Context())
	_, err = c.Exec(t.Context(), sql, args...)
	require.NoError(t, err)
}

// bring brings in a file and waits until it has been read.
func bring(t testing.TB, a *trial, review int64, kind, name string, body io.Reader) (reviews.Import, error) {
	t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), 3*time.Minute)
	defer cancel()
	heard := a.Jobs.Listen(ctx, review)
	i, err := a.Intake.ImportFile(ctx, review, kind, name, false, body)
	if err != nil {
		return i, err
	}
	return read(t, a, heard, i.ID)
}

// read waits until a file has been read, or until something is asked of it.
func read(t testing.TB, a *trial, heard <-chan jobs.News, id int64) (reviews.Import, error) {
	t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), 3*time.Minute)
	defer cancel()
	for {
		i, err := a.Intake.Import(ctx, id)
		require.NoError(t, err)
		switch i.State {
		case "done", "asking":
			return i, nil
		case "failed":
			return i, i.Error
		}
		select {
		case <-heard:
		case <-time.After(100 * time.Millisecond): // the news may have come before anyone listened
		case <-ctx.Done():
			require.NoError(t, ctx.Err(), "the import never ended")
		}
	}
}

func file(records ...string) string {
	var b strings.Builder
	for i, title := range records {
		fmt.Fprintf(
			&b,
			"TY  - JOUR\nAN  - R%d\nTI  - %s\nAU  - Velkana, T.\nPY  - 2014\nKW  - *Fluid Intake\nER  - \n\n",
			i+1,
			title,
		)
	}
	return b.String()
}

func problem(t *testing.T, err error) *problems.Problem {
	t.Helper()
	var p *problems.Problem
	require.ErrorAs(t, err, &p)
	return p
}

func term(id, text string) desk.Term {
	return desk.Term{ID: id, Term: strategy.Term{Kind: "text", Text: text, Field: "text", On: true}}
}

func block(id, name string, terms ...desk.Term) desk.Block {
	return desk.Block{ID: id, Name: name, Concept: name, Searched: true, Seeds: []string{}, Terms: terms}
}

var what = reviews.What{Key: "addTerm", Params: map[string]string{}}

func TestAFileBecomesASample(t *testing.T) {
	a, review := start(t)
	i, err := bring(
		t,
		a,
		review,
		"sample",
		"rough.ris",
		strings.NewReader(file("Heat in crews", "Rest in crews", "Shade")),
	)
	require.NoError(t, err)
	assert.Equal(t, 3, i.Records)
	r, err := a.Reviews.Review(context.Background(), review)
	require.NoError(t, err)
	require.Len(t, r.Samples, 1)
	assert.Equal(t, "rough", r.Samples[0].Name)
	assert.Equal(t, r.Samples[0].ID, *r.Look.Sample, "the only sample is looked at")
	words, err := a.Tally(context.Background(), review, tally.Words)
	require.NoError(t, err)
	assert.Equal(t, "crews", words.Rows[0].Item)
	assert.Nil(t, words.Rows[0].Pull, "nothing to compare with")
}

func TestFilesThatCannotBeTakenSayWhyAndLeaveNothing(t *testing.T) {
	a, review := start(t)
	_, err := bring(t, a, review, "sample", "first.ris", strings.NewReader(file("Heat")))
	require.NoError(t, err)
	broken := io.MultiReader(strings.NewReader(file("Rest", "Shade")), failing{})
	for kind, c := range map[string]io.Reader{
		"empty-file": strings.NewReader(""),
		"no-records": strings.NewReader("<html><body>Log in</body></html>"),
		"same-file":  strings.NewReader(file("Heat")),
		"broken-off": broken,
	} {
		_, err := bring(t, a, review, "sample", "x.ris", c)
		assert.Equal(t, kind, problem(t, err).Type)
	}
	r, err := a.Reviews.Review(context.Background(), review)
	require.NoError(t, err)
	assert.Len(t, r.Samples, 1)
	again, err := a.Intake.ImportFile(
		context.Background(),
		review,
		"sample",
		"first.ris",
		true,
		strings.NewReader(file("Heat")),
	)
	require.NoError(t, err, "the same file, when it is asked for")
	assert.NotZero(t, again.ID)
}

type failing struct{}

func (failing) Read([]byte) (int, error) { return 0, io.ErrUnexpectedEOF }

func TestWhatWasSkippedCanBeRead(t *testing.T) {
	a, review := start(t)
	odd := "Exported\nTY  - JOUR\nAB  - caf\xe9\nPY  - n.d.\nER  - \nTY  - JOUR\nER  - \n" + file(
		"Heat",
		"Heat",
	) + file(
		"Heat",
	)
	i, err := bring(t, a, review, "sample", `C:\files\odd.ris`, strings.NewReader(odd))
	require.NoError(t, err)
	require.Equal(t, "doubles", i.Asks)
	i, err = answer(t, a, review, i, intake.FileAnswer{FileSettings: intake.FileSettings{Doubles: intake.Apart}})
	require.NoError(t, err)
	assert.Equal(t, "odd.ris", i.Name)
	assert.Equal(t, 3, i.Records)
	assert.Equal(t, 3, i.Skipped, "the line before the first, the record that holds nothing, the one that stands twice")
	_, text, err := a.Intake.NoticesText(context.Background(), i.ID)
	require.NoError(t, err)
	for _, part := range []string{"Windows-1252", "line 1: text before", "n.d.", "without title",
		"nothing but its type", "same record", "same work"} {
		assert.Contains(t, text, part)
	}
}

func TestKeyStudiesAreNotTakenTwice(t *testing.T) {
	a, review := start(t)
	_, err := bring(t, a, review, "keys", "keys.ris", strings.NewReader(file("Heat", "Rest")))
	require.NoError(t, err)
	_, err = bring(t, a, review, "keys", "keys.ris", strings.NewReader(file("Heat", "Rest")))
	assert.Equal(t, "nothing-new", problem(t, err).Type)
	i, err := bring(t, a, review, "keys", "more.ris", strings.NewReader(file("Heat", "Rest", "Shade")))
	require.NoError(t, err)
	assert.Equal(t, [2]int{1, 2}, [2]int{i.Records, i.Skipped})
	r, err := a.Reviews.Review(context.Background(), review)
	require.NoError(t, err)
	assert.Len(t, r.KeyStudies, 3)
}

func TestAFileOf300MBIsBroughtIn(t *testing.T) {
	if testing.Short() {
		t.Skip("writes 300 MB")
	}
	a, review := start(t)
	record := []byte("TY  - JOUR\nTI  - Heat\nAB  - " + strings.Repeat("crews rested ", (1<<20)/13) + "\nAN  - ")
	var parts []io.Reader
	for n := range 300 {
		parts = append(parts, bytes.NewReader(record), strings.NewReader(fmt.Sprintf("N%d\nER  - \n", n)))
	}
	i, err := bring(t, a, review, "sample", "large.ris", io.MultiReader(parts...))
	require.NoError(t, err)
	assert.Equal(t, 300, i.Records)
	assert.Greater(t, i.Bytes, int64(300<<20))
}

func TestChangesAreUndoneAndMadeAgain(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	i, err := bring(t, a, review, "sample", "rough.ris", strings.NewReader(file("Heat in crews", "Rest in crews")))
	require.NoError(t, err)
	first := desk.Document{Question: "Heat?", Blocks: []desk.Block{block("a", "A", term("t1", "crew*"))}}
	s, err := a.Change(ctx, review, 1, change{What: what, Document: &first})
	require.NoError(t, err)
	second := s.Document
	second.Blocks[0].Terms = append(second.Blocks[0].Terms, term("t2", "cane cutter*"))
	s, err = a.Change(ctx, review, s.Revision, change{What: what, Document: &second,
		Decisions: []reviews.NewDecision{{Facet: tally.Words, Item: "rest", State: "dropped", Reason: "too-broad"}}})
	require.NoError(t, err)
	yes, name := true, "other name"
	s, err = a.Change(
		ctx,
		review,
		s.Revision,
		change{What: what, Samples: []reviews.SamplePatch{{ID: *i.Sample, Name: &name, Deleted: &yes}}},
	)
	require.NoError(t, err)
	assert.Empty(t, s.Samples)

	s, err = a.Undo(ctx, review)
	require.NoError(t, err)
	require.Len(t, s.Samples, 1)
	assert.Equal(t, "rough", s.Samples[0].Name)
	s, err = a.Undo(ctx, review)
	require.NoError(t, err)
	assert.Len(t, s.Document.Blocks[0].Terms, 1)
	assert.Empty(t, s.Decisions)
	s, err = a.Undo(ctx, review)
	require.NoError(t, err)
	assert.Empty(t, s.Document.Blocks)
	s, err = a.Undo(ctx, review) // the sample that was brought in
	require.NoError(t, err)
	assert.Empty(t, s.Samples)
	s, err = a.Undo(ctx, review)
	require.NoError(t, err)
	assert.Nil(t, s.What, "nothing is left to undo")

	for range 4 {
		s, err = a.Redo(ctx, review)
		require.NoError(t, err)
	}
	assert.Nil(t, s.Redo)
	assert.Len(t, s.Document.Blocks[0].Terms, 2)
	assert.Len(t, s.Decisions, 1)
	assert.Empty(t, s.Samples)

	_, err = a.Undo(ctx, review)
	require.NoError(t, err)
	s, err = a.Change(
		ctx,
		review,
		s.Revision,
		change{What: what, Decisions: []reviews.NewDecision{{Facet: tally.Words, Item: "heat", State: "parked"}}},
	)
	require.NoError(t, err)
	assert.Nil(t, s.Redo, "after a new change the undone one is past")
}

func TestTwoWindowsNeverLoseEachOthersChange(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	both := desk.Document{Blocks: []desk.Block{block("a", "A"), block("b", "B")}}
	s, err := a.Change(ctx, review, 1, change{What: what, Document: &both})
	require.NoError(t, err)
	edit := func(id int, t desk.Term) *desk.Document {
		d := desk.Document{Blocks: []desk.Block{block("a", "A"), block("b", "B")}}
		d.Blocks[id].Terms = []desk.Term{t}
		return &d
	}
	_, err = a.Change(ctx, review, s.Revision, change{What: what, Document: edit(0, term("t1", "crew"))})
	require.NoError(t, err)
	merged, err := a.Change(ctx, review, s.Revision, change{What: what, Document: edit(1, term("t2", "shade"))})
	require.NoError(t, err)
	assert.True(t, merged.Merged)
	assert.Equal(t, "crew", merged.Document.Blocks[0].Terms[0].Text)
	assert.Equal(t, "shade", merged.Document.Blocks[1].Terms[0].Text)

	more, err := a.Change(ctx, review, s.Revision, change{What: what, Document: edit(0, term("t3", "cane"))})
	require.NoError(t, err)
	require.Len(t, more.Document.Blocks[0].Terms, 2, "who adds to the same block adds to it")
	_, err = a.Change(ctx, review, more.Revision, change{What: what, Document: edit(0, term("t1", "crews"))})
	require.NoError(t, err)
	_, err = a.Change(ctx, review, more.Revision, change{What: what, Document: edit(0, term("t1", "gangs"))})
	p := problem(t, err)
	assert.Equal(t, "conflict", p.Type)
	assert.Equal(
		t,
		[]desk.Clash{{What: "term", Part: "text", ID: "t1", Block: "A", Name: "crews", Mine: "gangs", Theirs: "crews"}},
		p.Clashes,
	)
	now, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	assert.Equal(t, more.Revision+1, now.Revision, "nothing was changed")
}

func TestATermThatCannotBeSearchedIsNotSaved(t *testing.T) {
	a, review := start(t)
	for _, typed := range []string{"...", "a*", strings.Repeat("x", 10_000)} {
		d := desk.Document{Blocks: []desk.Block{block("a", "A", term("t", typed))}}
		_, err := a.Change(context.Background(), review, 1, change{What: what, Document: &d})
		assert.Equal(t, "refused", problem(t, err).Type, "%.20s", typed)
		tried, err := a.TryTerm(context.Background(), review, figures.Typed{Typed: typed})
		require.NoError(t, err)
		require.NotNil(t, tried.Refused, "%.20s", typed)
		assert.NotEmpty(t, tried.Refused.Message)
	}
}

func TestAReviewWithNothingInIt(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	b, err := a.Bench(ctx, review, desk.Proposal{})
	require.NoError(t, err)
	assert.Nil(t, b.Records)
	assert.Nil(t, b.Recall)
	c, err := a.Coverage(ctx, review)
	require.NoError(t, err)
	assert.Empty(t, c.Studies)
	_, err = a.Tally(ctx, review, tally.Words)
	assert.Equal(t, "no-sample", problem(t, err).Type)
	_, err = a.Records(ctx, review, figures.RecordsQuestion{Of: of(`{"kind":"all"}`), Limit: 10})
	assert.Equal(t, "no-sample", problem(t, err).Type)
	_, err = a.Records(ctx, review, figures.RecordsQuestion{Limit: 10_000})
	assert.Equal(t, "invalid", problem(t, err).Type)
	_, err = a.Reviews.Review(ctx, 999)
	assert.Equal(t, "review-gone", problem(t, err).Type)
}

func TestASampleDeletedWhileItIsLookedAt(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	i, err := bring(t, a, review, "sample", "rough.ris", strings.NewReader(file("Heat")))
	require.NoError(t, err)
	_, err = a.SetView(ctx, review, desk.NewLook{Sample: i.Sample, Rest: true})
	require.NoError(t, err)
	yes := true
	_, err = a.Change(ctx, review, 1, change{What: what, Samples: []reviews.SamplePatch{{ID: *i.Sample, Deleted: &yes}}})
	require.NoError(t, err)
	r, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	assert.Nil(t, r.Look.Sample)
	_, err = a.Tally(ctx, review, tally.Words)
	assert.Equal(t, "no-sample", problem(t, err).Type)
	_, err = a.SetView(ctx, review, desk.NewLook{Sample: i.Sample})
	assert.Equal(t, "sample-gone", problem(t, err).Type)
}

func TestADeletedReviewCanBeTakenBack(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	yes, no := true, false
	_, err := a.Reviews.PatchReview(ctx, review, reviews.ReviewPatch{Deleted: &yes})
	require.NoError(t, err)
	list, err := a.Reviews.Reviews(ctx)
	require.NoError(t, err)
	assert.Empty(t, list)
	_, err = a.Change(ctx, review, 1, change{What: what, Document: &desk.Document{Question: "x"}})
	assert.Equal(t, "review-gone", problem(t, err).Type)
	_, err = a.Reviews.PatchReview(ctx, review, reviews.ReviewPatch{Deleted: &no})
	require.NoError(t, err)
	_, err = a.Reviews.Review(ctx, review)
	assert.NoError(t, err)
}

func TestTheWayFromAMissedStudyToTheWordThatBringsItBack(t *testing.T) {
	a, review := start(t)
	ctx := context.Background()
	w := demo.NewWorld(demo.Seed, 800)
	var sample, keys bytes.Buffer
	for _, r := range w.Records {
		require.NoError(t, ris.Write(&sample, r))
	}
	for _, r := range w.Keys {
		require.NoError(t, ris.Write(&keys, r))
	}
	_, err := bring(t, a, review, "sample", "all.ris", &sample)
	require.NoError(t, err)
	_, err = bring(t, a, review, "keys", "keys.ris", &keys)
	require.NoError(t, err)
	d := desk.Document{
		Blocks: []desk.Block{block("a", "A", term("t1", "farmworker*")), block("b", "B", term("t2", "rest break*"))},
	}
	s, err := a.Change(ctx, review, 1, change{What: what, Document: &d})
	require.NoError(t, err)

	before, err := a.Bench(ctx, review, desk.Proposal{})
	require.NoError(t, err)
	study := s.KeyStudies[3] // cane cutters, found by B alone
	rescue, err := a.Rescue(ctx, review, study.ID)
	require.NoError(t, err)
	require.True(t, rescue.Blocks[0].Missed)
	require.False(t, rescue.Blocks[1].Missed)
	var chosen *figures.RescueCandidate
	for i, c := range rescue.Blocks[0].Candidates {
		if c.Item == "cane cutters" {
			chosen = &rescue.Blocks[0].Candidates[i]
		}
	}
	require.NotNil(t, chosen)

	d.Blocks[0].Terms = append(d.Blocks[0].Terms, term("t3", chosen.Item))
	preview, err := a.Bench(ctx, review, a.proposal(ctx, review, d))
	require.NoError(t, err)
	assert.Equal(t, *before.Records+*chosen.Price, *preview.Records, "the price is what it then costs")
	assert.False(t, before.Caught[3])
	assert.True(t, preview.Caught[3])
	again, err := a.Bench(ctx, review, desk.Proposal{})
	require.NoError(t, err)
	assert.Equal(t, before.Caught, again.Caught, "a preview changes nothing")

	item, err := a.Item(ctx, review, tally.Words, "cane cutters")
	require.NoError(t, err)
	require.NotEmpty(t, item.Context)
	assert.True(t, item.Context[0].Key, "key studies come first")
	assert.Equal(t, "cane cutters", strings.ToLower(strings.ReplaceAll(item.Context[0].Match, "-", " ")))
	facet := tally.Words
	list, err := a.Records(ctx, review, figures.RecordsQuestion{Of: itemSet(facet, item.Item), Limit: 500})
	require.NoError(t, err)
	assert.Equal(t, item.Records, list.Total)
	assert.Len(t, list.Records, list.Total)
}

func TestARevisionIsReadFromIfMatch(t *testing.T) {
	for header, want := range map[string]int{`"7"`: 7, "7": 7, `W/"12"`: 12, "": 0, `"x"`: 0, `"-1"`: 0} {
		n, err := reviews.Revision(header)
		assert.Equal(t, want, n, header)
		assert.Equal(t, want == 0, err != nil, header)
	}
}

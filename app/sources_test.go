package app_test

import (
	"context"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strconv"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/draws"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/core/dialect"
	"tamiz/core/strategy"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/source"
	"tamiz/source/standin"
)

// world is the three made-up sources, with a door that a test can shut or watch.
type world struct {
	*demo.Literature
	ids   map[string]int64
	shut  atomic.Bool
	asked atomic.Int32
	each  func(n int32) // called for each page of records

	collections []*standin.Collection
	lose        string // a source that counts records and then gives none, "" for none
}

// hold makes a source hold some of its records alone; all, for nil.
func (w *world) hold(name string, records []*bib.Record, keep func(*bib.Record) bool) {
	for _, c := range w.collections {
		if c.Name != name {
			continue
		}
		held := []*bib.Record{}
		for _, r := range records {
			if keep == nil || keep(r) {
				held = append(held, r)
			}
		}
		c.Fill(held, c.Vocabulary())
	}
}

// standInSources makes the made-up sources known to the application.
func standInSources(t testing.TB, a *trial) *world {
	t.Helper()
	w := &world{Literature: demo.NewLiterature(demo.Seed, 2400), ids: map[string]int64{}}
	all := standin.Sources(w.Literature)
	w.collections = all
	handler := standin.Handler(all...)
	server := httptest.NewServer(http.HandlerFunc(func(out http.ResponseWriter, r *http.Request) {
		if r.FormValue("maximumRecords") != "0" && r.FormValue("query") != "" {
			n := w.asked.Add(1)
			if w.each != nil {
				w.each(n)
			}
			if w.lose != "" && strings.HasSuffix(r.URL.Path, w.lose) {
				q := r.URL.Query()
				q.Set("maximumRecords", "0")
				r.URL.RawQuery, r.Form = q.Encode(), nil
			}
		}
		if w.shut.Load() {
			out.Header().Set("Retry-After", "0")
			out.WriteHeader(http.StatusTooManyRequests)
			return
		}
		handler.ServeHTTP(out, r)
	}))
	t.Cleanup(server.Close)
	for _, c := range all {
		address := server.URL + "/" + c.Name
		s, err := a.Sources.AddSource(t.Context(), sources.SourceEdit{Address: &address})
		require.NoError(t, err)
		w.ids[c.Name] = s.ID
	}
	return w
}

// until waits for news of a review until something is so.
func until(t testing.TB, a *trial, review int64, so func() bool) {
	t.Helper()
	ctx, cancel := context.WithTimeout(context.Background(), time.Minute)
	defer cancel()
	heard := a.Jobs.Listen(ctx, review)
	tick := time.NewTicker(200 * time.Millisecond) // news may be missed
	defer tick.Stop()
	for !so() {
		select {
		case _, ok := <-heard:
			require.True(t, ok, "it did not come to that")
		case <-tick.C:
		}
	}
}

func words(of ...string) []draws.RoughConcept {
	return []draws.RoughConcept{{Name: "A", Words: of}}
}

// draw draws samples and waits until they are at rest.
func draw(t *testing.T, a *trial, review int64, n draws.NewDraw) []draws.Draw {
	t.Helper()
	begun, err := a.Draws.BeginDraw(t.Context(), review, n)
	require.NoError(t, err)
	return rested(t, a, review, begun)
}

func rested(t *testing.T, a *trial, review int64, begun []draws.Draw) (out []draws.Draw) {
	t.Helper()
	until(t, a, review, func() bool {
		out = nil
		all, err := a.Draws.Draws(t.Context(), review)
		require.NoError(t, err)
		for _, b := range begun {
			for _, d := range all {
				if d.ID == b.ID && (d.State == "done" || d.State == "stopped" || d.State == "failed") {
					out = append(out, d)
				}
			}
		}
		return len(out) == len(begun)
	})
	return out
}

func sample(t *testing.T, a *trial, review int64, id *int64) library.Sample {
	t.Helper()
	require.NotNil(t, id)
	r, err := a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	for _, s := range r.Samples {
		if s.ID == *id {
			return s
		}
	}
	require.Fail(t, "no such sample")
	return library.Sample{}
}

func TestADrawBecomesASampleThatCanBeRaisedAndUndone(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	for _, how := range []source.How{source.All, source.Newest, source.Years, source.Random} {
		d := draw(t, a, review, draws.NewDraw{Name: "crews " + string(how), Sources: []int64{w.ids["almagre"]},
			Concepts: words("farm*", "cane"), How: how, AtMost: 130, Seed: 3})[0]
		require.Equal(t, "done", d.State, d.Problem)
		assert.Equal(t, []int{130, 130}, []int{d.Wanted, d.Got})
		assert.Zero(t, d.Troubles)
		first := sample(t, a, review, d.Sample)
		assert.Equal(t, 130, first.Records)
		asked := w.asked.Load()
		require.NoError(t, a.Draws.GoOn(t.Context(), review, d.ID, 210))
		d = rested(t, a, review, []draws.Draw{d})[0]
		assert.Equal(t, 210, d.Got, how)
		assert.Equal(t, 210, sample(t, a, review, d.Sample).Records, "the same sample, with what was missing")
		if how == source.All {
			assert.Equal(t, int32(1), w.asked.Load()-asked, "only what was missing was fetched")
		}
	}
	entries := logged(t, a, review)
	require.Len(t, entries, 8, "each is in the logbook, and that it was gone on with")
	assert.Equal(t, "draw", entries[0].Kind)
	assert.Equal(t, "Almagre", entries[0].Place)
	assert.Equal(t, "Sample “crews random”: 210 of 210 records that were wanted, at random; ended.", entries[0].Note)
	assert.Greater(t, *entries[0].Records, int64(210), "what was found, not what was drawn of it")
	before, err := a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	s, err := a.Undo(t.Context(), review)
	require.NoError(t, err)
	assert.Len(t, s.Samples, len(before.Samples)-1)
}

// What the store cannot hold, and what is too much, is turned away at the door.
func TestOrdersAreLookedAtBeforeTheyAreTaken(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	good := draws.NewDraw{
		Name:     "x",
		Sources:  []int64{w.ids["almagre"]},
		Concepts: words("farm*"),
		How:      source.All,
		AtMost:   5,
	}
	for name, spoil := range map[string]func(*draws.NewDraw){
		"no name":          func(n *draws.NewDraw) { n.Name = " " },
		"no source":        func(n *draws.NewDraw) { n.Sources = nil },
		"unknown source":   func(n *draws.NewDraw) { n.Sources = []int64{999} },
		"nothing":          func(n *draws.NewDraw) { n.AtMost = 0 },
		"too many":         func(n *draws.NewDraw) { n.AtMost = 2_000_000 },
		"no way of it":     func(n *draws.NewDraw) { n.How = "best" },
		"a seed too large": func(n *draws.NewDraw) { n.Seed = 1 << 40 },
		"too many words": func(n *draws.NewDraw) {
			n.Concepts = words(make([]string, 300)...)
			n.Concepts[0].Words = strings.Fields(strings.Repeat("farm ", 300))
		},
		"a long name": func(n *draws.NewDraw) { n.Concepts[0].Name = strings.Repeat("x", 400) },
	} {
		bad := good
		bad.Concepts = words("farm*")
		spoil(&bad)
		_, err := a.Draws.BeginDraw(t.Context(), review, bad)
		var p *problems.Problem
		require.ErrorAs(t, err, &p, name)
		assert.Less(t, p.Status, 500, name)
	}
	strange := good
	strange.Concepts = words("farm*\x00", "\x00", "  ")
	d := draw(t, a, review, strange)[0]
	assert.Equal(t, []string{"farm*"}, d.Concepts[0].Words)
}

func TestADrawIsStoppedAndGoneOnWith(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	var id atomic.Int64
	w.each = func(n int32) {
		if n == 3 {
			all, _ := a.Draws.Draws(context.Background(), review)
			id.Store(all[0].ID)
			_ = a.Draws.StopDraw(context.Background(), review, all[0].ID)
		}
	}
	d := draw(t, a, review, draws.NewDraw{Name: "anything", Sources: []int64{w.ids["almagre"]}, How: source.All,
		AtMost: 2000})[0]
	assert.Equal(t, "stopped", d.State)
	assert.Less(t, d.Got, 500)
	assert.Equal(t, d.Got, sample(t, a, review, d.Sample).Records, "what was got is a sample")
	w.each = nil
	require.NoError(t, a.Draws.GoOn(t.Context(), review, d.ID, 2000))
	d = rested(t, a, review, []draws.Draw{d})[0]
	assert.Equal(t, "done", d.State)
	assert.Equal(t, 2000, sample(t, a, review, d.Sample).Records)
	assert.Error(t, a.Draws.GoOn(t.Context(), review, d.ID, 10), "a number cannot be lowered")
}

func TestADrawOutlivesASourceThatGoesAway(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	w.each = func(n int32) { w.shut.Store(n > 4) }
	d := draw(t, a, review, draws.NewDraw{Name: "anything", Sources: []int64{w.ids["surco"]}, How: source.All,
		AtMost: 900})[0]
	assert.Equal(t, "stopped", d.State)
	assert.Contains(t, d.Problem, "gives no more")
	assert.Equal(t, 400, d.Got)
	troubles, err := a.Draws.Troubles(t.Context(), review, d.ID)
	require.NoError(t, err)
	require.NotEmpty(t, troubles)
	assert.Equal(t, source.Unanswered, troubles[0].Kind)
	w.each = nil
	w.shut.Store(false)
	require.NoError(t, a.Draws.GoOn(t.Context(), review, d.ID, 900))
	d = rested(t, a, review, []draws.Draw{d})[0]
	assert.Equal(
		t,
		[]any{"done", 900, 0},
		[]any{d.State, d.Got, d.Troubles},
		"the rest was fetched, and the trouble is gone",
	)
}

// A source that gives one work at two positions: it is kept once, and said.
func TestAWorkThatIsGivenTwiceIsKeptOnce(t *testing.T) {
	a, review := start(t)
	server := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if r.FormValue("query") == "" {
			fmt.Fprint(
				w,
				`<explainResponse><record><recordData><explain><databaseInfo><title>Twice</title></databaseInfo><indexInfo><index><map><name set="dc">title</name></map></index></indexInfo><schemaInfo><schema name="dc"/></schemaInfo></explain></recordData></record></explainResponse>`,
			)
			return
		}
		from, _ := strconv.Atoi(r.FormValue("startRecord"))
		most, _ := strconv.Atoi(r.FormValue("maximumRecords"))
		fmt.Fprint(w, "<searchRetrieveResponse><numberOfRecords>250</numberOfRecords><records>")
		for n := from; n < from+most && n <= 250; n++ {
			work := n
			if n == 144 {
				work = 3
			}
			fmt.Fprintf(
				w,
				"<record><recordData><dc><title>Shade nets in field %d</title><creator>Osolana, "+
					"Ife</creator><date>2019</date><identifier>W%d</identifier></dc></recordData><recordPosition>"+
					"%d</recordPosition></record>",
				work,
				n,
				n,
			)
		}
		fmt.Fprint(w, "</records></searchRetrieveResponse>")
	}))
	defer server.Close()
	s, err := a.Sources.AddSource(t.Context(), sources.SourceEdit{Address: &server.URL})
	require.NoError(t, err)
	d := draw(t, a, review, draws.NewDraw{Name: "nets", Sources: []int64{s.ID}, Concepts: words("shade"),
		How: source.All, AtMost: 250})[0]
	assert.Equal(t, []any{"done", 249, 1}, []any{d.State, d.Got, d.Troubles})
	troubles, err := a.Draws.Troubles(t.Context(), review, d.ID)
	require.NoError(t, err)
	assert.Equal(t, []source.Trouble{{From: 144, To: 144, Kind: source.Repeated, Detail: "W144"}}, troubles)
	require.NoError(t, a.Draws.GoOn(t.Context(), review, d.ID, 250))
	d = rested(t, a, review, []draws.Draw{d})[0]
	assert.Equal(t, 249, d.Got, "gone on with, there is nothing more to fetch")
}

func TestSeveralSourcesAndConceptsAreDrawnInOneGo(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	concepts := []draws.RoughConcept{
		{Name: "A", Words: []string{"farm*"}},
		{Name: "B", Words: []string{"shade", "rest break*"}},
		{Name: "C"},
	}
	all := draw(
		t,
		a,
		review,
		draws.NewDraw{
			Name:     "crews",
			Sources:  []int64{w.ids["almagre"], w.ids["surco"]},
			Concepts: concepts,
			Each:     true,
			How:      source.All,
			AtMost:   50,
		},
	)
	var names []string
	for _, d := range all {
		names = append(names, d.Name)
	}
	assert.ElementsMatch(
		t,
		[]string{"crews, A alone, Almagre", "crews, A alone, Surco", "crews, B alone, Almagre", "crews, B alone, Surco"},
		names,
	)

	// The overlap of two sources for the same question.
	both := draw(
		t,
		a,
		review,
		draws.NewDraw{
			Name:     "both",
			Sources:  []int64{w.ids["almagre"], w.ids["surco"]},
			Concepts: concepts,
			How:      source.All,
			AtMost:   1000,
		},
	)
	pair := desk.Pair{A: *both[0].Sample, B: *both[1].Sample}
	c, err := a.Reviews.Compare(t.Context(), review, pair)
	require.NoError(t, err)
	assert.Positive(t, c.Both)
	assert.Equal(t, c.A, c.OnlyA+c.Both)
	assert.Equal(t, c.B, c.OnlyB+c.Both)
	assert.Equal(t, c.Any, c.OnlyA+c.OnlyB+c.Both)
	for how, want := range map[string]int{desk.Union: c.Any, desk.Overlap: c.Both, desk.Difference: c.OnlyA} {
		s, err := a.Join(t.Context(), review, reviews.Joining{Pair: pair, How: how, Name: how})
		require.NoError(t, err)
		assert.Equal(t, want, s.Samples[0].Records, how)
		assert.Equal(t, how, s.Samples[0].Joined.How)
	}
	_, err = a.Join(
		t.Context(),
		review,
		reviews.Joining{Pair: desk.Pair{A: pair.A, B: pair.A}, How: desk.Difference, Name: "nothing"},
	)
	assert.ErrorContains(t, err, "No record is left")
}

func TestRoughWordsAreCountedBeforeAnythingIsDrawn(t *testing.T) {
	a, _ := start(t)
	w := standInSources(t, a)
	p, err := a.Draws.Preview(
		t.Context(),
		w.ids["almagre"],
		draws.Preview{
			Concepts: []draws.RoughConcept{
				{Name: "A", Words: []string{"farm*", "f*"}},
				{Name: "B", Words: []string{"heat"}},
				{Name: "C"},
			},
		},
	)
	require.NoError(t, err)
	require.Len(t, p.Concepts, 3)
	assert.Equal(t, "too-open", p.Concepts[0].Refused[0].Reason)
	assert.Greater(t, p.Concepts[0].Count.Records, p.Together.Records)
	assert.Nil(t, p.Concepts[2].Count)
	assert.Len(t, p.Titles, 10)
	marked := ""
	for _, title := range p.Titles {
		for _, piece := range title.Title {
			if len(piece.Blocks) > 0 {
				marked += strings.ToLower(piece.Text) + " "
			}
		}
	}
	assert.Contains(t, marked, "heat")
	p, err = a.Draws.Preview(
		t.Context(),
		w.ids["almagre"],
		draws.Preview{
			Concepts: []draws.RoughConcept{{Name: "A", Words: []string{"farm*"}}, {Name: "B", Words: []string{"zzyzx"}}},
		},
	)
	require.NoError(t, err)
	assert.Equal(t, "B", p.Nothing)
	_, err = a.Draws.BeginDraw(
		t.Context(),
		1,
		draws.NewDraw{Name: "x", Sources: []int64{w.ids["almagre"]}, Concepts: words("f*"), How: source.All, AtMost: 5},
	)
	assert.ErrorContains(t, err, "matches too much")
}

// counted returns the counts of a review when all are there.
func counted(t *testing.T, a *trial, review int64) (c *sources.SourceCounts) {
	t.Helper()
	until(t, a, review, func() bool {
		var err error
		c, err = a.Counts(t.Context(), review, false)
		require.NoError(t, err)
		return c.Waiting == 0 || c.Problem != nil
	})
	return c
}

func TestEveryTermBlockAndTheWholeAreCountedAtTheSource(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	plan := demo.NewReview()
	doc := desk.Document{Limits: plan.Limits}
	for i, c := range plan.Concepts {
		b := desk.Block{ID: fmt.Sprint(i), Name: c.Block.Name, Searched: c.Block.Searched}
		for j, term := range c.Block.Terms {
			b.Terms = append(b.Terms, desk.Term{ID: fmt.Sprint(i, "-", j), Term: term})
		}
		doc.Blocks = append(doc.Blocks, b)
	}
	_, err := a.Change(
		t.Context(),
		review,
		1,
		change{What: reviews.What{Key: "x", Params: map[string]string{}}, Document: &doc},
	)
	require.NoError(t, err)
	almagre, surco := w.ids["almagre"], w.ids["surco"]
	_, err = a.SetView(t.Context(), review, desk.NewLook{Source: &almagre, Rest: true})
	require.NoError(t, err)
	c := counted(t, a, review)
	require.Nil(t, c.Problem)

	// The same figures as over all that the source holds.
	var file strings.Builder
	for _, r := range w.Almagre {
		require.NoError(t, ris.Write(&file, r))
	}
	other, err := a.Reviews.CreateReview(t.Context(), reviews.NewReview{Name: "the same, over a sample"})
	require.NoError(t, err)
	_, err = bring(t, a, other.ID, "sample", "all.ris", strings.NewReader(file.String()))
	require.NoError(t, err)
	_, err = a.Change(
		t.Context(),
		other.ID,
		1,
		change{What: reviews.What{Key: "x", Params: map[string]string{}}, Document: &doc},
	)
	require.NoError(t, err)
	bench, err := a.Bench(t.Context(), other.ID, desk.Proposal{})
	require.NoError(t, err)
	for _, b := range bench.Blocks {
		assert.Equal(t, *b.Records, c.Blocks[b.ID].Records, b.ID)
		for _, term := range b.Terms {
			assert.Equal(t, *term.Records, c.Terms[term.ID].Records, term.Text)
			assert.Empty(t, c.Terms[term.ID].Notes)
		}
	}
	assert.Equal(t, *bench.Records, c.Whole.Records)
	assert.NotEmpty(t, c.Whole.Sent)
	assert.Equal(t, c.Whole.Query, c.Whole.Echoed)

	// What is changed is counted, what is not is not asked again; another source says what it lacks.
	asked := w.asked.Load()
	doc.Blocks[0].Terms = append(
		doc.Blocks[0].Terms,
		desk.Term{ID: "new", Term: strategy.Term{Kind: strategy.TextTerm, Text: "field hand*", Field: "text", On: true}},
	)
	_, err = a.Change(
		t.Context(),
		review,
		2,
		change{What: reviews.What{Key: "x", Params: map[string]string{}}, Document: &doc},
	)
	require.NoError(t, err)
	c = counted(t, a, review)
	assert.Positive(t, c.Terms["new"].Records)
	assert.Equal(t, asked, w.asked.Load(), "counting fetches no records")
	_, err = a.SetView(t.Context(), review, desk.NewLook{Source: &surco, Rest: true})
	require.NoError(t, err)
	c = counted(t, a, review)
	assert.Equal(
		t,
		source.NoteKind(dialect.Wider),
		c.Terms["1-2"].Notes[0].Kind,
		"what is asked in its keywords is asked in its headings too",
	)
	assert.Equal(t, source.NoteKind(dialect.NoNear), c.Terms["1-2"].Notes[1].Kind, "the near pair of block B")
	assert.Positive(t, c.Terms["1-2"].Records)

	w.shut.Store(true)
	_, err = a.Counts(t.Context(), review, true)
	require.NoError(t, err)
	c = counted(t, a, review)
	require.NotNil(t, c.Problem, "a source that is away is said to be away")
	assert.Contains(t, c.Problem.Title, "Surco")
}

func TestKeyStudiesAreLookedUpInEverySource(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	var file strings.Builder
	for _, k := range w.Keys {
		require.NoError(t, ris.Write(&file, k))
	}
	_, err := bring(t, a, review, "keys", "keys.ris", strings.NewReader(file.String()))
	require.NoError(t, err)
	held := map[int64]int{}
	until(t, a, review, func() bool {
		all, err := a.Holdings.Holdings(t.Context(), review)
		require.NoError(t, err)
		clear(held)
		for _, h := range all {
			if h.State == library.Held {
				held[h.Source]++
			}
		}
		return len(all) == 3*len(w.Keys)
	})
	assert.Equal(t, 25, held[w.ids["almagre"]])
	assert.GreaterOrEqual(t, held[w.ids["surco"]], 2)
	assert.GreaterOrEqual(t, held[w.ids["vilano"]], 2)

	// What the source does not hold no strategy can catch there.
	almagre := w.ids["almagre"]
	_, err = a.SetView(t.Context(), review, desk.NewLook{Source: &almagre, Rest: true})
	require.NoError(t, err)
	b, err := a.Bench(t.Context(), review, desk.Proposal{})
	require.NoError(t, err)
	assert.Equal(t, 25, b.Recall.Of)
	cover, err := a.Coverage(t.Context(), review)
	require.NoError(t, err)
	away := 0
	for i, s := range cover.Studies {
		if s.NotHere {
			away++
		}
		assert.Equal(t, s.NotHere, b.NotHere[i])
	}
	assert.Equal(t, 3, away)
}

func TestPastedReferencesAreFoundAndTakenOnlyByHand(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	k := w.Keys
	pasted := strings.Join([]string{
		"doi:" + strings.ToUpper(k[5].DOI),
		k[6].Title,
		fmt.Sprintf("%s %s, et al. %s. %s %d;12(3):1-9.", k[7].Authors[0].Family, "B", k[7].Title, k[7].Journal, k[7].Year),
		"Rest breaks and kidney function in seasonal farm workers",
		"Something that nobody has written about anything at all",
	}, "\n")
	found, err := a.Holdings.LookUp(t.Context(), review, pasted)
	require.NoError(t, err)
	require.Len(t, found, 5)
	for i, how := range []string{"identifier", "title", "title", "near"} {
		require.NotEmpty(t, found[i].Found, found[i].Line)
		assert.Equal(t, how, found[i].Found[0].How, found[i].Line)
		assert.Equal(t, k[map[int]int{0: 5, 1: 6, 2: 7, 3: 5}[i]].Title, found[i].Found[0].Record.Title)
	}
	assert.Empty(t, found[4].Found)
	r, err := a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, r.KeyStudies, "nothing is taken silently")
	s, err := a.AddKeyStudies(
		t.Context(),
		review,
		[]int64{found[0].Found[0].Record.ID, found[3].Found[0].Record.ID, found[1].Found[0].Record.ID},
	)
	require.NoError(t, err)
	assert.Len(t, s.KeyStudies, 2, "one of them was the same study")
	s, err = a.Undo(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, s.KeyStudies)
	_, err = a.Holdings.LookUp(t.Context(), review, " \n ")
	assert.Error(t, err)
}

func TestASourceIsAddedChangedAndSwitchedOff(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	id := w.ids["vilano"]
	all, err := a.Sources.Sources(t.Context())
	require.NoError(t, err)
	m := all[2].Map
	m.Indexes["journal"] = ""
	off, name := true, "Vilano, without journals"
	s, err := a.Sources.ChangeSource(t.Context(), id, sources.SourceEdit{Map: &m, Name: &name})
	require.NoError(t, err)
	assert.Contains(t, s.Lacks, "journal")
	assert.Equal(t, name, s.Name)
	n, err := a.Sources.Neighbours(t.Context(), id, "text", "labour")
	require.NoError(t, err)
	assert.NotEmpty(t, n)
	_, err = a.Sources.ChangeSource(t.Context(), id, sources.SourceEdit{Off: &off})
	require.NoError(t, err)
	_, err = a.Sources.Try(t.Context(), id, sources.TryOut{Query: "heat"})
	assert.ErrorContains(t, err, "switched off")
	_, err = a.SetView(t.Context(), review, desk.NewLook{Source: &id, Rest: true})
	require.NoError(t, err)
	counts, err := a.Counts(t.Context(), review, false)
	require.NoError(t, err)
	require.NotNil(t, counts.Problem, "counts of a source that is off say so")
	_, err = a.Draws.BeginDraw(
		t.Context(),
		review,
		draws.NewDraw{Name: "x", Sources: []int64{id}, Concepts: words("heat"), How: source.All, AtMost: 5},
	)
	assert.ErrorContains(t, err, "switched off")
	require.NoError(t, a.Sources.DeleteSource(t.Context(), id))
	_, err = a.Sources.Try(t.Context(), id, sources.TryOut{Query: "heat"})
	assert.ErrorContains(t, err, "not there")
	for _, address := range []string{"ftp://x.example", "nonsense", "http://a:b@x.example/"} {
		_, err := a.Sources.AddSource(t.Context(), sources.SourceEdit{Address: &address})
		assert.ErrorContains(t, err, "This address is not asked", address)
	}
}

// TestAStemIsJudgedByTheWordsOfTheSource: a stem that is clean in the sample may drag in words that the source
// alone holds.
func TestAStemIsJudgedByTheWordsOfTheSource(t *testing.T) {
	a, _ := start(t)
	w := standInSources(t, a)
	almagre := w.ids["almagre"]
	stems, err := a.Sources.Stems(t.Context(), almagre, []string{"sleep"})
	require.NoError(t, err)
	require.Len(t, stems, 1)
	around, err := a.Sources.Neighbours(t.Context(), almagre, "text", "slee")
	require.NoError(t, err)
	others := 0
	for _, e := range around {
		if strings.HasPrefix(e.Term, strings.TrimSuffix(stems[0].Term, "*")) && e.Term != "sleep" {
			others += e.Records
		}
	}
	assert.LessOrEqual(t, others*50, stems[0].Reach, "%s: %v", stems[0].Term, around)
	assert.Equal(t, others, stems[0].Drag)
	for _, none := range [][]string{{"cane cutters"}, {"ox"}} {
		got, err := a.Sources.Stems(t.Context(), almagre, none)
		require.NoError(t, err)
		for _, s := range got {
			assert.NotContains(t, s.Term, "*", "an index of words knows nothing of phrases, and nothing is cut so short")
		}
	}
	_, err = a.Sources.Stems(t.Context(), almagre, nil)
	assert.Equal(t, "forms", problem(t, err).Field)
	w.shut.Store(true)
	_, err = a.Sources.Stems(t.Context(), w.ids["vilano"], []string{"sleep"})
	assert.Error(t, err, "a source that is away is said to be away")
}

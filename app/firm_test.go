package app_test

import (
	"bytes"
	"context"
	"fmt"
	"net/http"
	"net/http/httptest"
	"strings"
	"sync"
	"sync/atomic"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/draws"
	"tamiz/app/figures"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/source"
	"tamiz/source/standin"
	"tamiz/store"
)

// gate is a file that comes in and is held up on the way.
type gate struct {
	first string
	open  chan struct{}
	rest  string
	part  int
}

func (g *gate) Read(p []byte) (int, error) {
	if g.part == 0 {
		if g.first == "" {
			g.part = 1
			<-g.open
		}
		n := copy(p, g.first)
		g.first = g.first[n:]
		if n > 0 {
			return n, nil
		}
	}
	n := copy(p, g.rest)
	g.rest = g.rest[n:]
	if n == 0 {
		return 0, fmt.Errorf("the sender left")
	}
	return n, nil
}

func manyRecords(t *testing.T, n int) []byte {
	t.Helper()
	var b bytes.Buffer
	for _, r := range demo.NewWorld(demo.Seed, n).Records {
		require.NoError(t, ris.Write(&b, r))
	}
	return b.Bytes()
}

// While a file is read into a review, many change it at once, and each change is made.
func TestAReviewIsChangedWhileAFileComesIn(t *testing.T) {
	a, review := start(t)
	ctx := t.Context()
	i, err := a.Intake.ImportFile(ctx, review, "sample", "large.ris", false, bytes.NewReader(manyRecords(t, 12_000)))
	require.NoError(t, err)
	var wait sync.WaitGroup
	for k := range 40 {
		wait.Go(func() {
			c := change{
				What:      what,
				Decisions: []reviews.NewDecision{{Facet: "words", Item: fmt.Sprint("word ", k), State: "parked"}},
			}
			_, err := a.Change(ctx, review, 1, c)
			assert.NoError(t, err)
			_, err = a.Health(ctx)
			assert.NoError(t, err)
		})
	}
	wait.Wait()
	now, err := a.Intake.Import(ctx, i.ID)
	require.NoError(t, err)
	r, err := a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	if now.State != "done" {
		assert.Empty(t, r.Samples, "what is being filed is not seen")
	}
	assert.Len(t, r.Decisions, 40)
	until(t, a, review, func() bool {
		now, err := a.Intake.Import(ctx, i.ID)
		require.NoError(t, err)
		return now.State == "done"
	})
	r, err = a.Reviews.Review(ctx, review)
	require.NoError(t, err)
	require.Len(t, r.Samples, 1)
	assert.Equal(t, 12_000, r.Samples[0].Records)
}

// Sixty at once add key studies, and each is answered.
func TestManyAddKeyStudiesAtOnce(t *testing.T) {
	a, review := start(t)
	_, err := bring(t, a, review, "sample", "a.ris", bytes.NewReader(manyRecords(t, 100)))
	require.NoError(t, err)
	list, err := a.Records(t.Context(), review, figures.RecordsQuestion{Of: of(`{"kind":"all"}`), Limit: 60})
	require.NoError(t, err)
	require.Len(t, list.Records, 60)
	var wait sync.WaitGroup
	for _, r := range list.Records {
		wait.Go(func() {
			_, err := a.AddKeyStudies(t.Context(), review, []int64{r.ID})
			assert.NoError(t, err)
		})
	}
	wait.Wait()
	r, err := a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	assert.Len(t, r.KeyStudies, 60)
}

// Files that stop on their way hold nothing that others need.
func TestFilesThatDripKeepNobodyWaiting(t *testing.T) {
	a, review := start(t)
	open := make(chan struct{})
	var wait sync.WaitGroup
	for k := range 30 {
		wait.Go(func() {
			g := &gate{first: file("Heat"), open: open, rest: ""}
			_, err := a.Intake.ImportFile(context.Background(), review, "sample", fmt.Sprint(k, ".ris"), false, g)
			assert.Equal(t, "broken-off", problem(t, err).Type)
		})
	}
	_, err := bring(t, a, review, "sample", "whole.ris", strings.NewReader(file("Rest in crews")))
	require.NoError(t, err)
	_, err = a.Change(
		t.Context(),
		review,
		1,
		change{What: what, Decisions: []reviews.NewDecision{{Facet: "words", Item: "rest", State: "parked"}}},
	)
	require.NoError(t, err)
	close(open)
	wait.Wait()
	r, err := a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, r.Imports, "what broke off leaves nothing")
	assert.Len(t, r.Samples, 1)
}

// slowSource answers with nothing until it is told to, and counts who asks.
func slowSource(t *testing.T, a *trial) (int64, func()) {
	t.Helper()
	handler := standin.Handler(standin.Sources(demo.NewLiterature(demo.Seed, 300))...)
	open := make(chan struct{})
	var slow atomic.Bool
	server := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if slow.Load() {
			select {
			case <-open:
			case <-r.Context().Done():
				return
			}
		}
		handler.ServeHTTP(w, r)
	}))
	t.Cleanup(server.Close)
	address := server.URL + "/almagre"
	s, err := a.Sources.AddSource(t.Context(), sources.SourceEdit{Address: &address})
	require.NoError(t, err)
	slow.Store(true)
	release := sync.OnceFunc(func() { close(open) })
	t.Cleanup(release)
	return s.ID, release
}

// Draws from a source that does not answer keep no import waiting, and only some of them are at it at once; a
// waiting one says what for.
func TestDrawsFromABadSourceKeepNothingElseWaiting(t *testing.T) {
	a, review := start(t)
	id, release := slowSource(t, a)
	var begun []draws.Draw
	for k := range 8 {
		d, err := a.Draws.BeginDraw(
			t.Context(),
			review,
			draws.NewDraw{
				Name:     fmt.Sprint("draw ", k),
				Sources:  []int64{id},
				Concepts: words("farm*"),
				How:      source.All,
				AtMost:   5,
			},
		)
		require.NoError(t, err)
		begun = append(begun, d...)
	}
	_, err := bring(t, a, review, "sample", "one.ris", strings.NewReader(file("Heat")))
	require.NoError(t, err)
	until(t, a, review, func() bool {
		all, err := a.Draws.Draws(t.Context(), review)
		require.NoError(t, err)
		waiting := 0
		for _, d := range all {
			if d.Waits == "source" {
				waiting++
			}
		}
		return waiting == 5
	})
	release()
	for _, d := range rested(t, a, review, begun) {
		assert.Equal(t, "done", d.State, d.Problem)
	}
}

// Whatever the source does, a draw stops within two seconds; the bound of the test is wide for a busy machine.
func TestADrawStopsWhateverItsSourceDoes(t *testing.T) {
	a, review := start(t)
	id, _ := slowSource(t, a)
	d, err := a.Draws.BeginDraw(
		t.Context(),
		review,
		draws.NewDraw{Name: "slow", Sources: []int64{id}, Concepts: words("farm*"), How: source.All, AtMost: 5},
	)
	require.NoError(t, err)
	require.NoError(t, a.Draws.StopDraw(t.Context(), review, d[0].ID))
	ctx, cancel := context.WithTimeout(t.Context(), 15*time.Second)
	defer cancel()
	heard := a.Jobs.Listen(ctx, review)
	for {
		all, err := a.Draws.Draws(t.Context(), review)
		require.NoError(t, err)
		if all[0].State == "stopped" {
			return
		}
		select {
		case _, ok := <-heard:
			require.True(t, ok, "it did not stop")
		case <-time.After(100 * time.Millisecond):
		}
	}
}

func TestAFileIsGivenUpInEveryState(t *testing.T) {
	a, review := start(t)
	// While it is read.
	i, err := a.Intake.ImportFile(t.Context(), review, "sample", "large.ris", false, bytes.NewReader(manyRecords(t, 8000)))
	require.NoError(t, err)
	until(t, a, review, func() bool {
		now, err := a.Intake.Import(t.Context(), i.ID)
		require.NoError(t, err)
		return now.Records > 0
	})
	require.NoError(t, a.Intake.GiveUpImport(t.Context(), i.ID))
	_, err = a.Intake.Import(t.Context(), i.ID)
	assert.Equal(t, "import-gone", problem(t, err).Type)
	// While it is asked about.
	asked, err := bring(t, a, review, "sample", "own.csv", strings.NewReader("Entry;Team\nHeat in crews;Velkana\n"))
	require.NoError(t, err)
	require.Equal(t, "asking", asked.State)
	require.NoError(t, a.Intake.GiveUpImport(t.Context(), asked.ID))
	// When it has failed.
	heard := a.Jobs.Listen(t.Context(), review)
	failed, err := a.Intake.ImportFile(
		t.Context(),
		review,
		"sample",
		"none.ris",
		false,
		strings.NewReader("<html></html>"),
	)
	require.NoError(t, err)
	_, err = read(t, a, heard, failed.ID)
	require.Error(t, err)
	require.NoError(t, a.Intake.GiveUpImport(t.Context(), failed.ID))
	// A file that is brought in is a sample, which is deleted as one.
	done, err := bring(t, a, review, "sample", "one.ris", strings.NewReader(file("Heat")))
	require.NoError(t, err)
	assert.Equal(t, "brought-in", problem(t, a.Intake.GiveUpImport(t.Context(), done.ID)).Type)
	r, err := a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	assert.Empty(t, r.Imports)
	assert.Len(t, r.Samples, 1)
}

// A change whose answer was lost is sent again, and made once.
func TestAChangeThatIsSentAgainIsMadeOnce(t *testing.T) {
	a, review := start(t)
	doc := desk.Document{Blocks: []desk.Block{block("a", "A", term("t", "heat"))}}
	ctx := store.AsRequest(t.Context(), uuid.New())
	first, err := a.Change(ctx, review, 1, change{What: what, Document: &doc})
	require.NoError(t, err)
	again, err := a.Change(ctx, review, 1, change{What: what, Document: &doc})
	require.NoError(t, err, "not a conflict with itself")
	assert.Equal(t, first.Revision, again.Revision)
	undo := store.AsRequest(t.Context(), uuid.New())
	_, err = a.Undo(undo, review)
	require.NoError(t, err)
	state, err := a.Undo(undo, review)
	require.NoError(t, err)
	assert.Nil(t, state.Undo)
	assert.NotNil(t, state.Redo)
}

// Many windows that look at counts have them counted once: a source that refuses is not asked again for each of
// them, and why there is no count stays in view.
func TestCountsThatManyLookAtAreAskedForOnce(t *testing.T) {
	a, review := start(t)
	handler := standin.Handler(standin.Sources(demo.NewLiterature(demo.Seed, 300))...)
	var bad atomic.Bool
	var asked atomic.Int32
	begun, open := make(chan struct{}, 100), make(chan struct{})
	server := httptest.NewServer(http.HandlerFunc(func(w http.ResponseWriter, r *http.Request) {
		if !bad.Load() {
			handler.ServeHTTP(w, r)
			return
		}
		asked.Add(1)
		begun <- struct{}{}
		<-open
		w.WriteHeader(http.StatusForbidden)
	}))
	t.Cleanup(server.Close)
	address := server.URL + "/almagre"
	s, err := a.Sources.AddSource(t.Context(), sources.SourceEdit{Address: &address})
	require.NoError(t, err)
	bad.Store(true)
	doc := desk.Document{Blocks: []desk.Block{block("a", "A", term("h", "heat"))}}
	_, err = a.Change(
		t.Context(),
		review,
		1,
		change{What: reviews.What{Key: "x", Params: map[string]string{}}, Document: &doc},
	)
	require.NoError(t, err)
	_, err = a.SetView(t.Context(), review, desk.NewLook{Source: &s.ID, Rest: true})
	require.NoError(t, err)

	look := func() *sources.SourceCounts {
		c, err := a.Counts(t.Context(), review, false)
		require.NoError(t, err)
		return c
	}
	look()
	<-begun
	for range 30 {
		look()
	}
	close(open)
	until(t, a, review, func() bool { return look().Problem != nil })
	for range 30 {
		c := look()
		require.NotNil(t, c.Problem)
		assert.Positive(t, c.Waiting)
	}
	// Whoever wants it may have it tried again.
	before := asked.Load()
	assert.EqualValues(t, 1, before)
	_, err = a.Counts(t.Context(), review, true)
	require.NoError(t, err)
	until(t, a, review, func() bool { return asked.Load() > before })
}

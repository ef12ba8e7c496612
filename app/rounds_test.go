package app_test

import (
	"bytes"
	"cmp"
	"fmt"
	"math"
	"net/http/httptest"
	"slices"
	"strings"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/holdings"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/app/rounds"
	"tamiz/app/sources"
	"tamiz/core/bib"
	core "tamiz/core/review"
	"tamiz/core/set"
	"tamiz/core/tally"
	"tamiz/exchange/mods"
	"tamiz/exchange/ris"
	"tamiz/source/standin"
	"tamiz/store"
)

// keyStudies brings some of the world's key studies into a review, from a file.
func keyStudies(t testing.TB, a *trial, review int64, of []*bib.Record) {
	t.Helper()
	var file strings.Builder
	for _, k := range of {
		require.NoError(t, ris.Write(&file, k))
	}
	_, err := bring(t, a, review, "keys", "keys.ris", strings.NewReader(file.String()))
	require.NoError(t, err)
	// Which sources hold them is looked up beside: what a test counts or stops is to be its own.
	all, err := a.Sources.Sources(t.Context())
	require.NoError(t, err)
	until(t, a, review, func() bool {
		held, err := a.Holdings.Holdings(t.Context(), review)
		require.NoError(t, err)
		return len(held) >= len(of)*len(all)
	})
}

// round has a round be made and waits until all that follow from it have come to rest.
func round(t testing.TB, a *trial, review int64, n rounds.Asked) rounds.Round {
	t.Helper()
	require.NoError(t, a.Rounds.Begin(t.Context(), desk.At{Review: review}, n))
	return atRest(t, a, review)
}

func atRest(t testing.TB, a *trial, review int64) (last rounds.Round) {
	t.Helper()
	until(t, a, review, func() bool {
		all, err := a.Rounds.Rounds(t.Context(), review)
		require.NoError(t, err)
		last = all[len(all)-1]
		return !slices.ContainsFunc(all, func(r rounds.Round) bool { return r.State == "waiting" || r.State == "going" })
	})
	return last
}

func found(t testing.TB, a *trial, review int64, w rounds.Window) *rounds.Found {
	t.Helper()
	w.Most = cmp.Or(w.Most, 500)
	f, err := a.Rounds.Found(t.Context(), desk.At{Review: review}, w)
	require.NoError(t, err)
	return f
}

// Along references and citing works, both ways and twice, a round brings what the network says, tells what leads to
// each work and what the strategy does with it; a round twice brings nothing new; what was judged is not asked
// again.
func TestRoundsBringWhatIsLinked(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, review)
	keyStudies(t, a, review, w.Keys[5:10])
	ids := []int64{w.ids["almagre"], w.ids["vilano"]}
	r := round(t, a, review, rounds.Asked{Way: "both", From: "keys", Sources: ids})
	require.Equal(t, "done", r.State, "%+v", r)
	assert.Equal(t, "5 key studies", r.Name)
	require.Positive(t, r.Works)

	// What it brought is what the references say: of what Vilano holds, all that cites a key study or is cited by one.
	var keys bib.Known
	for i, k := range w.Keys[5:10] {
		keys.Add(k, i)
	}
	byDOI := map[string]*bib.Record{}
	for _, x := range slices.Concat(w.Vilano, w.Almagre) {
		byDOI[bib.DOIKey(x.DOI)] = x
	}
	want := map[string]bool{}
	for _, x := range w.Vilano {
		_, own := keys.Find(x)
		for _, f := range x.References {
			cited := byDOI[bib.DOIKey(f.DOI)]
			if f.DOI == "" || cited == nil {
				continue
			}
			if _, isKey := keys.Find(cited); isKey && !own {
				want[bib.DOIKey(x.DOI)] = true
			}
			if _, isKey := keys.Find(cited); own && !isKey {
				want[bib.DOIKey(cited.DOI)] = true
			}
		}
	}
	got := map[string]bool{}
	f := found(t, a, review, rounds.Window{Show: "all"})
	for _, x := range f.Works {
		stored, err := a.Figures.ReadRecord(t.Context(), desk.At{Review: review}, x.Record.ID, nil, nil)
		require.NoError(t, err)
		got[bib.DOIKey(stored.DOI)] = true
	}
	for doi := range want {
		if doi != "" {
			assert.True(t, got[doi], "%s is linked and was not brought", doi)
		}
	}
	for i := 1; i < len(f.Works); i++ {
		assert.GreaterOrEqual(t, f.Works[i-1].Worth, f.Works[i].Worth)
	}
	assert.Equal(t, f.Counts.All, f.Counts.Open+f.Counts.Keys)

	again := round(t, a, review, rounds.Asked{Way: "both", From: "keys", Sources: ids})
	assert.Equal(t, r.Works, again.Works)
	assert.Equal(t, f.Total, found(t, a, review, rounds.Window{Show: "all"}).Total, "a round twice brings nothing new")
	said, err := a.Rounds.Says(t.Context(), desk.At{Review: review})
	require.NoError(t, err)
	assert.Zero(t, said.Rounds[1].New)
	assert.Equal(t, said.Rounds[0].All, said.Rounds[1].Known)

	// Judged, it is not asked again: by the work, whichever record of it was judged.
	open := found(t, a, review, rounds.Window{})
	require.Greater(t, len(open.Works), 4)
	require.NoError(t, a.Judge(t.Context(), review, open.Works[0].Record.ID, "not"))
	require.NoError(t, a.Judge(t.Context(), review, open.Works[1].Record.ID, "relevant"))
	_, err = a.Holdings.AddKeyStudies(
		t.Context(),
		review,
		holdings.Chosen{Records: []int64{open.Works[2].Record.ID}, Way: "round", Origin: "round 1"},
	)
	require.NoError(t, err)
	after := found(t, a, review, rounds.Window{})
	assert.Equal(t, open.Total-3, after.Total)
	assert.Equal(t, open.Counts.Keys+1, after.Counts.Keys)
	said, err = a.Rounds.Says(t.Context(), desk.At{Review: review})
	require.NoError(t, err)
	assert.Equal(t, 3, said.Rounds[0].Judged)
	assert.Equal(t, 2, said.Rounds[0].Belongs)
	assert.Equal(t, 1, said.Rounds[0].Keys)
	require.Len(t, said.Origins, 2)
	assert.Equal(
		t,
		rounds.Origin{
			Way:    "file",
			Keys:   5,
			Caught: said.Origins[0].Caught,
			Low:    said.Origins[0].Low,
			High:   said.Origins[0].High,
		},
		said.Origins[0],
	)
	assert.Equal(t, "round", said.Origins[1].Way)
	assert.False(t, said.Draft)

	// Twice: the second round follows the first by itself.
	twice := round(t, a, review, rounds.Asked{Way: "forward", From: "keys", Sources: ids, Twice: true})
	all, err := a.Rounds.Rounds(t.Context(), review)
	require.NoError(t, err)
	require.Len(t, all, 4)
	assert.Equal(t, "last", twice.Asked.From)
	assert.Positive(t, twice.Works)

	net, err := a.Rounds.Network(t.Context(), desk.At{Review: review})
	require.NoError(t, err)
	assert.LessOrEqual(t, len(net.Works), 500)
	require.NotEmpty(t, net.Links)
	for _, l := range net.Links {
		assert.GreaterOrEqual(t, net.Works[l[0]].Record.Year, net.Works[l[1]].Record.Year, "who cites is not older")
	}
}

// A key study from a file does not say what it cites; what its source says of it counts for what others share with it.
func TestWhatASourceSaysOfAKeyStudyCounts(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	key := &bib.Record{
		Title:      "A study of shade",
		Year:       2015,
		DOI:        "10.99999/key.1",
		Accession:  "VIL930000",
		References: []bib.Reference{{DOI: "10.99999/far.1"}, {DOI: "10.99999/far.2"}},
	}
	citing := &bib.Record{
		Title:      "Noon",
		Year:       2018,
		DOI:        "10.99999/one.1",
		Accession:  "VIL930001",
		References: []bib.Reference{{DOI: key.DOI}, {DOI: "10.99999/far.1"}, {DOI: "10.99999/far.2"}},
	}
	w.hold("vilano", []*bib.Record{key, citing}, nil)
	keyStudies(t, a, review, []*bib.Record{{Title: key.Title, Year: 2015, DOI: key.DOI}})
	round(t, a, review, rounds.Asked{Way: "forward", From: "keys", Sources: []int64{w.ids["vilano"]}})
	f := found(t, a, review, rounds.Window{})
	require.Len(t, f.Works, 1)
	assert.Equal(t, [2]int{1, 2}, [2]int{f.Works[0].Leads, f.Works[0].Shared})
}

// References that nobody holds are listed; what resembles something is offered, and not taken.
func TestReferencesThatLeadNowhereAreListed(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	held := w.Almagre[7]
	citing := &bib.Record{
		Title:     "A study of rest that cites what is hard to find",
		Year:      2026,
		DOI:       "10.99999/own.1",
		Accession: "VIL900001",
		References: []bib.Reference{
			{Text: held.Authors[0].String() + " (" + "1901). " + held.Title + ". Somewhere."}, // a year that cannot be
			{DOI: "10.99999/nowhere.1"},
			{Text: "Nobody, N. (1999). Nothing that anybody holds under this sky. Lost Letters."},
			{DOI: "10.99999/wrong.1", Title: held.Title, Author: held.Authors[0].String(), Year: held.Year},
			{DOI: "10.99999/own.1"}, // itself
		},
	}
	w.hold("vilano", append(slices.Clone(w.Vilano), citing), nil)
	keyStudies(t, a, review, []*bib.Record{{Title: citing.Title, Year: 2026, DOI: citing.DOI}})
	r := round(
		t,
		a,
		review,
		rounds.Asked{Way: "backward", From: "keys", Sources: []int64{w.ids["vilano"], w.ids["almagre"]}},
	)
	require.Equal(t, "done", r.State, "%+v", r.Problem)
	f := found(t, a, review, rounds.Window{Show: "all"})
	require.Len(t, f.Works, 1, "by title, though its identifier is wrong")
	assert.Equal(t, held.Title, f.Works[0].Record.Title)
	assert.Equal(t, 1, f.Works[0].Leads)
	lost, err := a.Rounds.Losts(t.Context(), review, r.ID)
	require.NoError(t, err)
	why := map[string]int{}
	for _, l := range lost {
		why[l.Why]++
		assert.Equal(t, citing.Title, l.In.Title)
		if l.Why == "near" {
			assert.Equal(t, held.Title, l.Near.Title)
		}
	}
	assert.Equal(t, 2, why["none"], "%+v", lost)
}

// A source that says nothing of citations is told to have none; half of it is used, and said; wrong answers lead
// nowhere.
func TestSourcesThatKnowLittleOfCitations(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	keyStudies(t, a, review, w.Keys[5:10])
	err := a.Rounds.Begin(
		t.Context(),
		desk.At{Review: review},
		rounds.Asked{Way: "forward", From: "keys", Sources: []int64{w.ids["almagre"], w.ids["surco"]}},
	)
	assert.Equal(t, "no-links", problem(t, err).Type)
	none := round(t, a, review, rounds.Asked{Way: "backward", From: "keys", Sources: []int64{w.ids["almagre"]}})
	assert.Equal(t, "done", none.State)
	assert.Contains(t, none.Notes, rounds.Note{Kind: "no-links", What: "backward"})
	assert.Zero(t, none.Works)

	// Half: what cites is known, what is cited is not asked for, and taken from the references.
	all, err := a.Sources.Sources(t.Context())
	require.NoError(t, err)
	i := slices.IndexFunc(all, func(s sources.Source) bool { return s.Name == "Vilano" })
	half := all[i].Map
	delete(half.Indexes, "citedBy")
	_, err = a.Sources.ChangeSource(t.Context(), all[i].ID, sources.SourceEdit{Map: &half})
	require.NoError(t, err)
	r := round(t, a, review, rounds.Asked{Way: "both", From: "keys", Sources: []int64{w.ids["vilano"]}})
	assert.Contains(t, r.Notes, rounds.Note{Kind: "half", What: "Vilano backward"})
	assert.Positive(t, r.Works)

	// An index of words in place of one of citations: what comes is linked to nothing, and says so by having no more
	// leads than one.
	half.Indexes["cites"] = "tamiz.text"
	_, err = a.Sources.ChangeSource(t.Context(), all[i].ID, sources.SourceEdit{Map: &half})
	require.NoError(t, err)
	wrong := round(t, a, review, rounds.Asked{Way: "forward", From: "keys", Sources: []int64{w.ids["vilano"]}})
	assert.Equal(t, "done", wrong.State)
}

// While a source is down a round waits for it in vain, says so, loses nothing, and goes on later from where it was:
// wherever that is, it brings what a round that nothing disturbed brings, and lists the same references as led
// nowhere.
func TestARoundOutlivesASourceThatIsDown(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	keyStudies(t, a, review, w.Keys[5:12])
	order := rounds.Asked{Way: "both", From: "keys", Sources: []int64{w.ids["vilano"], w.ids["almagre"]}}
	calm := round(t, a, review, order)
	require.Equal(t, "done", calm.State, "%+v", calm.Problem)
	asked := int32(calm.Requests)
	require.Greater(t, asked, int32(8))
	require.Positive(t, calm.Lost)
	lines := func(r rounds.Round) (out []string) {
		all, err := a.Rounds.Losts(t.Context(), review, r.ID)
		require.NoError(t, err)
		for _, l := range all {
			out = append(out, l.Why+" "+l.Line)
		}
		slices.Sort(out)
		return out
	}
	for _, n := range []int32{1, asked / 4, asked / 2, asked * 3 / 4, asked - 1} {
		before := w.asked.Load()
		w.each = func(now int32) {
			if now == before+n {
				w.shut.Store(true)
			}
		}
		r := round(t, a, review, order)
		require.Equal(t, "failed", r.State, "at question %d of %d", n, asked)
		require.NotNil(t, r.Problem)
		assert.Equal(t, "source-unanswered", r.Problem.Type)
		w.each = nil
		w.shut.Store(false)
		require.NoError(t, a.Rounds.GoOn(t.Context(), review, r.ID))
		whole := atRest(t, a, review)
		require.Equal(t, "done", whole.State, "%+v", whole.Problem)
		assert.Equal(t, calm.Works, whole.Works, "at question %d of %d", n, asked)
		assert.Equal(t, lines(calm), lines(whole), "at question %d of %d", n, asked)
		assert.Equal(t, "under-way", problem(t, a.Rounds.GoOn(t.Context(), review, whole.ID)).Type)
	}
}

// A round is stopped while its source is silent; what it brought stays, and it goes on without a source that was
// switched off meanwhile, which is said.
func TestARoundIsStoppedAndGoneOnWith(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	keyStudies(t, a, review, w.Keys[5:10])
	reached, free := make(chan struct{}), make(chan struct{})
	before := w.asked.Load()
	w.each = func(n int32) {
		if n == before+3 {
			close(reached)
			<-free
		}
	}
	require.NoError(
		t,
		a.Rounds.Begin(
			t.Context(),
			desk.At{Review: review},
			rounds.Asked{Way: "both", From: "keys", Sources: []int64{w.ids["almagre"], w.ids["vilano"]}},
		),
	)
	<-reached
	all, err := a.Rounds.Rounds(t.Context(), review)
	require.NoError(t, err)
	require.NoError(t, a.Rounds.Stop(t.Context(), review, all[0].ID))
	r := atRest(t, a, review)
	close(free)
	assert.Equal(t, "stopped", r.State)
	off := true
	_, err = a.Sources.ChangeSource(t.Context(), w.ids["almagre"], sources.SourceEdit{Off: &off})
	require.NoError(t, err)
	require.NoError(t, a.Rounds.GoOn(t.Context(), review, r.ID))
	r = atRest(t, a, review)
	require.Equal(t, "done", r.State, "%+v", r.Problem)
	assert.Positive(t, r.Works)
	assert.True(
		t,
		slices.ContainsFunc(
			r.Notes,
			func(n rounds.Note) bool { return n.Kind == "source" && strings.Contains(n.What, "Almagre") },
		),
		"%+v",
		r.Notes,
	)
}

// Where all key studies come from the draft search itself, that is said. What a round that did not go along
// citations brought is not counted as found along them.
func TestWhatKeyStudiesSayOfTheSearch(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, review)
	at := desk.At{Review: review}
	round(
		t,
		a,
		review,
		rounds.Asked{Way: "author", Name: w.Vilano[0].Authors[0].String(), Sources: []int64{w.ids["vilano"]}},
	)
	f := found(t, a, review, rounds.Window{Show: "all"})
	require.NotEmpty(t, f.Works)
	_, err := a.Holdings.AddKeyStudies(
		t.Context(),
		review,
		holdings.Chosen{Records: []int64{f.Works[0].Record.ID}, Way: "judged", Origin: "what the blocks find"},
	)
	require.NoError(t, err)
	said, err := a.Rounds.Says(t.Context(), at)
	require.NoError(t, err)
	assert.True(t, said.Draft)
	assert.Equal(t, "what the blocks find", said.Studies[0].Origin)
	assert.Equal(t, []int{1}, said.Studies[0].Rounds)
	assert.Nil(t, said.Captures, "no citation led anywhere yet")
	assert.Nil(t, said.Next)
	keyStudies(t, a, review, w.Keys[5:6])
	said, err = a.Rounds.Says(t.Context(), at)
	require.NoError(t, err)
	assert.False(t, said.Draft)
	_, err = a.Holdings.AddKeyStudies(t.Context(), review, holdings.Chosen{Records: []int64{1}, Way: "by chance"})
	assert.Equal(t, "invalid", problem(t, err).Type)
}

func TestHowManyAreLeftIsToldByWhatWasReadAtRandom(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, review)
	at := desk.At{Review: review}
	keyStudies(t, a, review, w.Keys[:10])
	round(t, a, review, rounds.Asked{Way: "both", From: "keys", Sources: []int64{w.ids["vilano"], w.ids["almagre"]}})
	left := func() rounds.Left {
		said, err := a.Rounds.Says(t.Context(), at)
		require.NoError(t, err)
		require.NotNil(t, said.Left)
		return *said.Left
	}
	first := left()
	assert.True(t, first.Few)
	assert.Equal(t, first.Works, first.Open)
	require.Greater(t, first.Works, 40)

	// Some are judged in order, the likeliest first: that says nothing of the rest.
	for _, x := range found(t, a, review, rounds.Window{Most: 3}).Works {
		require.NoError(t, a.Judge(t.Context(), review, x.Record.ID, "relevant"))
	}
	assert.True(t, left().Few)
	belong := 0
	for i := range 12 {
		x := found(t, a, review, rounds.Window{Order: "random", Most: 1}).Works[0]
		again := found(t, a, review, rounds.Window{Order: "random", Most: 1}).Works[0]
		require.Equal(t, x.Record.ID, again.Record.ID, "the order does not change")
		verdict := "not"
		if i%3 == 0 {
			verdict = "relevant"
			belong++
		}
		require.NoError(t, a.Judge(t.Context(), review, x.Record.ID, verdict))
	}
	now := left()
	assert.False(t, now.Few)
	assert.GreaterOrEqual(t, now.Read, 12, "those that were judged before are read at random too, where chance takes them")
	assert.GreaterOrEqual(t, now.Belong, belong)
	assert.Equal(t, first.Works-15, now.Open)
	assert.True(t, now.Low <= now.Total && now.Total <= now.High && now.High <= float64(now.Open))
	r, err := a.Written.Record(t.Context(), at)
	require.NoError(t, err)
	assert.Contains(t, fmt.Sprint(section(t, r, "found").Parts), "that were read at random")
}

// What an earlier review of the sample cites is followed: a review by its type, or by what its title says.
func TestWhatEarlierReviewsCiteIsFollowed(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	one, two, three := *w.Vilano[0], *w.Vilano[1], *w.Vilano[2]
	one.Types, two.Title = []string{"Review"}, "Shade for crews: a systematic review of what was tried"
	one.References, two.References = []bib.Reference{{DOI: w.Almagre[3].DOI}}, []bib.Reference{{DOI: w.Almagre[4].DOI}}
	three.References = []bib.Reference{{DOI: w.Almagre[5].DOI}}
	var file bytes.Buffer
	mw := mods.NewWriter(&file)
	for _, r := range []*bib.Record{&one, &two, &three} {
		require.NoError(t, mw.Write(r))
	}
	require.NoError(t, mw.Close())
	i, err := bring(t, a, review, "sample", "reviews.xml", &file)
	require.NoError(t, err)
	_, err = a.SetView(t.Context(), review, desk.NewLook{Sample: i.Sample})
	require.NoError(t, err)
	require.NoError(
		t,
		a.Rounds.Begin(
			t.Context(),
			a.at(t.Context(), review),
			rounds.Asked{Way: "backward", From: "reviews", Sources: []int64{w.ids["almagre"]}},
		),
	)
	r := atRest(t, a, review)
	assert.Equal(t, "2 earlier reviews", r.Name)
	assert.Equal(t, 2, r.Works)
	titles := []string{}
	for _, x := range found(t, a, review, rounds.Window{Show: "all"}).Works {
		titles = append(titles, x.Record.Title)
	}
	assert.ElementsMatch(t, []string{w.Almagre[3].Title, w.Almagre[4].Title}, titles)
}

// A round begins from any set of records, as it is when it is asked for.
func TestARoundBeginsFromAnySetOfRecords(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	var file strings.Builder
	for _, r := range w.Vilano[:40] {
		require.NoError(t, ris.Write(&file, r))
	}
	i, err := bring(t, a, review, "sample", "some.ris", strings.NewReader(file.String()))
	require.NoError(t, err)
	_, err = a.SetView(t.Context(), review, desk.NewLook{Sample: i.Sample})
	require.NoError(t, err)
	there, err := a.Figures.Records(
		t.Context(),
		a.at(t.Context(), review),
		figures.RecordsQuestion{Of: desk.RecordSet{Set: &set.All{}}, Limit: 100},
	)
	require.NoError(t, err)
	var ids []int64
	for _, r := range there.Records {
		ids = append(ids, r.ID)
	}
	require.Len(t, ids, 40)
	begin := func(s set.Set) error {
		return a.Rounds.Begin(
			t.Context(),
			a.at(t.Context(), review),
			rounds.Asked{Way: "forward", From: "records", Of: &desk.RecordSet{Set: s}, Sources: []int64{w.ids["vilano"]}},
		)
	}
	for name, s := range map[string]set.Set{"40 records": &set.Sample{Sample: *i.Sample},
		"2 records": &set.Picked{IDs: []int64{ids[3], ids[1], ids[3]}}} {
		require.NoError(t, begin(s))
		r := atRest(t, a, review)
		assert.Equal(t, name, r.Name)
		assert.Equal(t, "done", r.State)
		assert.Nil(t, r.Asked.Of, "what it begins from is kept as records")
	}
	for field, s := range map[string]set.Set{"of": nil, "from": &set.Picked{IDs: []int64{999999}}} {
		var p *problems.Problem
		require.ErrorAs(t, begin(s), &p)
		assert.Equal(t, field, p.Field)
	}
	many := make([]int64, 2001)
	for n := range many {
		many[n] = int64(n + 1)
	}
	require.ErrorContains(t, begin(&set.Picked{IDs: many}), "at most 2000 works; these are 2001")
}

// A work that very many cite, one that cites what comes later, circles, a list of five thousand.
func TestNetworksThatAreOutOfOrder(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	star := &bib.Record{Title: "A work that everybody cites", Year: 2000, DOI: "10.99999/star.1", Accession: "VIL910000"}
	list := &bib.Record{
		Title:      "A work that cites everything",
		Year:       2001,
		DOI:        "10.99999/list.1",
		Accession:  "VIL910001",
		References: []bib.Reference{{DOI: star.DOI}, {DOI: "10.99999/list.2"}},
	}
	ring := &bib.Record{
		Title:      "A work of the future that is cited before its time",
		Year:       2020,
		DOI:        "10.99999/list.2",
		Accession:  "VIL910002",
		References: []bib.Reference{{DOI: list.DOI}},
	}
	all := []*bib.Record{star, list, ring}
	for i, r := range w.Vilano[:1200] {
		c := *r
		c.References = []bib.Reference{{DOI: star.DOI}}
		all = append(all, &c)
		if c.DOI != "" && i < 4990 {
			list.References = append(list.References, bib.Reference{DOI: c.DOI})
		}
	}
	w.hold("vilano", all, nil)
	keyStudies(t, a, review, []*bib.Record{star, list})
	r := round(t, a, review, rounds.Asked{Way: "both", From: "keys", Sources: []int64{w.ids["vilano"]}})
	require.Equal(t, "done", r.State, "%+v", r.Problem)
	var many []rounds.Note
	for _, n := range r.Notes {
		if n.Kind == "many" {
			many = append(many, n)
		}
	}
	require.Len(t, many, 2, "%+v", r.Notes)
	assert.Equal(t, 500, many[0].Taken)
	assert.Greater(t, many[0].Total, 1000)
	later := found(t, a, review, rounds.Window{Show: "all", Order: "year"})
	i := slices.IndexFunc(later.Works, func(x rounds.Work) bool { return x.Record.Title == ring.Title })
	require.GreaterOrEqual(t, i, 0)
	assert.True(t, later.Works[i].Later)
}

func TestRoundsOfPeopleJournalsAndTheMostCited(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, review)
	keyStudies(t, a, review, w.Keys[5:10])
	person := w.Vilano[0].Authors[0]
	r := round(
		t,
		a,
		review,
		rounds.Asked{Way: "author", Name: person.String(), Sources: []int64{w.ids["vilano"], w.ids["almagre"]}},
	)
	require.Equal(t, "done", r.State, "%+v", r.Problem)
	for _, x := range found(t, a, review, rounds.Window{Show: "all", Round: 1}).Works {
		stored, err := a.Figures.ReadRecord(t.Context(), desk.At{Review: review}, x.Record.ID, nil, nil)
		require.NoError(t, err)
		assert.Contains(t, strings.Join(stored.Authors, "; "), person.Family)
	}
	journal := w.Vilano[0].Journal
	r = round(
		t,
		a,
		review,
		rounds.Asked{Way: "journal", Name: journal, Years: []int{2010, 2020}, Sources: []int64{w.ids["vilano"]}},
	)
	require.Equal(t, "done", r.State, "%+v", r.Problem)
	assert.Positive(t, r.Works)
	for _, x := range found(t, a, review, rounds.Window{Show: "all", Round: 2}).Works {
		assert.Equal(t, journal, x.Record.Journal)
		assert.True(t, x.Record.Year >= 2010 && x.Record.Year <= 2020)
	}
	r = round(t, a, review, rounds.Asked{Way: "cited", Most: 20, Sources: []int64{w.ids["vilano"], w.ids["almagre"]}})
	require.Equal(t, "done", r.State, "%+v", r.Problem)
	assert.Equal(t, 20, r.Works)
	assert.Contains(t, r.Notes, rounds.Note{Kind: "no-links", What: "Almagre"})
	for _, x := range found(t, a, review, rounds.Window{Show: "all", Round: 3}).Works {
		assert.True(t, x.Caught, "it is of what the strategy finds")
	}
	// A team, as one; people who are not there bring nothing.
	both := w.Vilano[0].Authors[0].String() + "; " + w.Vilano[5].Authors[0].String() + "; Nobody, Whosoever"
	team := round(t, a, review, rounds.Asked{Way: "author", Name: both, Sources: []int64{w.ids["vilano"]}})
	assert.GreaterOrEqual(t, team.Works, 2)

	// Within a sample that does not say what it cites nothing can be told; within one that does, it is.
	_, err := bring(t, a, review, "sample", "plain.ris", strings.NewReader("TY  - JOUR\nTI  - Heat in crews\nER  - \n"))
	require.NoError(t, err)
	err = a.Rounds.Begin(t.Context(), desk.At{Review: review}, rounds.Asked{Way: "cited", From: "sample"})
	assert.Equal(t, "no-references", problem(t, err).Type)
	var file bytes.Buffer
	mw := mods.NewWriter(&file)
	for _, r := range w.Vilano[:800] {
		require.NoError(t, mw.Write(r))
	}
	require.NoError(t, mw.Close())
	i, err := bring(t, a, review, "sample", "vilano.xml", &file)
	require.NoError(t, err)
	_, err = a.SetView(t.Context(), review, desk.NewLook{Sample: i.Sample})
	require.NoError(t, err)
	err = a.Rounds.Begin(t.Context(), a.at(t.Context(), review), rounds.Asked{Way: "alike", Most: 25})
	assert.Equal(t, "no-contrast", problem(t, err).Type)
	var aside strings.Builder
	for _, r := range w.Almagre[:300] {
		require.NoError(t, ris.Write(&aside, r))
	}
	_, err = bring(t, a, review, "sample", "anything.ris", strings.NewReader(aside.String()))
	require.NoError(t, err)
	_, err = a.SetView(t.Context(), review, desk.NewLook{Sample: i.Sample, Rest: true})
	require.NoError(t, err)
	require.NoError(
		t,
		a.Rounds.Begin(t.Context(), a.at(t.Context(), review), rounds.Asked{Way: "cited", From: "sample", Most: 10}),
	)
	r = atRest(t, a, review)
	assert.Equal(t, 10, r.Works)
	require.Len(t, r.Notes, 1)
	assert.Equal(t, "elsewhere", r.Notes[0].Kind)
	beyond := r.Notes[0].Total
	require.Positive(t, beyond)
	// What the sample cites most and does not hold is looked up at a source, where one is chosen.
	require.NoError(
		t,
		a.Rounds.Begin(
			t.Context(),
			a.at(t.Context(), review),
			rounds.Asked{Way: "cited", From: "sample", Most: 10, Sources: []int64{w.ids["vilano"]}},
		),
	)
	r = atRest(t, a, review)
	assert.Greater(t, r.Works, 10)
	assert.LessOrEqual(t, r.Works, 10+beyond)
	assert.Empty(t, r.Notes)
	assert.Positive(t, r.Requests)
	inSample := map[string]bool{}
	for _, v := range w.Vilano[:800] {
		inSample[v.Title] = true
	}
	outside := 0
	for _, x := range found(t, a, review, rounds.Window{Show: "all", Round: r.Number}).Works {
		if !inSample[x.Record.Title] {
			outside++
		}
	}
	assert.Equal(t, r.Works-10, outside)
	require.NoError(t, a.Rounds.Begin(t.Context(), a.at(t.Context(), review), rounds.Asked{Way: "alike", Most: 25}))
	r = atRest(t, a, review)
	assert.LessOrEqual(t, r.Works, 25)
	last := math.Inf(1)
	for _, x := range found(t, a, review, rounds.Window{Show: "all", Round: r.Number, Order: "alike"}).Works {
		assert.NotEqual(t, "key", x.Verdict)
		require.NotNil(t, x.Score, "how alike each is is told")
		assert.LessOrEqual(t, *x.Score, last, "the likest first")
		last = *x.Score
	}
	for _, bad := range []rounds.Asked{
		{Way: "author", Name: " ", Sources: []int64{w.ids["vilano"]}}, {Way: "journal", Name: "X", Years: []int{2020,
			2010}, Sources: []int64{w.ids["vilano"]}},
		{Way: "sideways", Sources: []int64{w.ids["vilano"]}}, {Way: "both", From: "keys"}, {Way: "both", From: "nothing",
			Sources: []int64{w.ids["vilano"]}},
		{Way: "both", From: "last", Sources: []int64{99999}}, {Way: "cited", Most: 5000,
			Sources: []int64{w.ids["vilano"]}}, {Way: "both", From: "shelf", Sources: []int64{w.ids["vilano"]}},
	} {
		assert.Error(t, a.Rounds.Begin(t.Context(), desk.At{Review: review}, bad), "%+v", bad)
	}
}

// A name stands for all writings that are folded with it, unless somebody parted one.
func TestTheWorksOfAPersonGoByFoldedNamesAndThoseThatWereParted(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, review)
	var all []*bib.Record
	for i, name := range []string{"Velkana, Tomasa", "Velkana, T", "Velkana, Tadeo", "Velkana, Ines", "Velkana, T"} {
		all = append(
			all,
			&bib.Record{
				Title:     "Work of " + name + " number " + string(rune('a'+i)),
				Year:      2010 + i,
				Accession: "VIL93000" + string(rune('0'+i)),
				Authors:   []bib.Person{bib.ParsePerson(name)},
			},
		)
	}
	all[4].Authors = append(all[4].Authors, bib.ParsePerson("Velkana, Tadeo"))
	w.hold("vilano", all, nil)
	of := func(name string) []string {
		r := round(t, a, review, rounds.Asked{Way: "author", Name: name, Sources: []int64{w.ids["vilano"]}})
		require.Equal(t, "done", r.State, "%+v", r.Problem)
		out := []string{}
		for _, x := range found(t, a, review, rounds.Window{Show: "all", Round: r.Number}).Works {
			out = append(out, x.Record.Title[len(x.Record.Title)-1:])
		}
		slices.Sort(out)
		return out
	}
	assert.Equal(t, []string{"a", "b", "c", "e"}, of("Velkana, Tomasa"))
	assert.Equal(t, []string{"a", "b", "c", "d", "e"}, of("Velkana"), "anybody of that name")
	now, err := a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	doc := now.Document
	doc.Parted = []string{"Velkana, Tadeo"}
	_, err = a.Change(t.Context(), review, now.Revision, change{What: what, Document: &doc})
	require.NoError(t, err)
	assert.Equal(t, []string{"a", "b", "e"}, of("Velkana, T"), "one who was parted is another")
	all2, err := a.Rounds.Rounds(t.Context(), review)
	require.NoError(t, err)
	assert.Contains(t, all2[len(all2)-1].Notes, rounds.Note{Kind: "others", What: "Vilano", Total: 1})
	assert.Equal(t, []string{"c", "e"}, of("Velkana, Tadeo"))
}

// The contents of a journal are read volume by volume: who looked at what, and when, is told.
func TestAJournalIsReadVolumeByVolume(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	crewsStrategy(t, a, review)
	var all []*bib.Record
	for i, v := range []string{"9", "10", "10", ""} {
		all = append(
			all,
			&bib.Record{
				Title:     "Contents number " + string(rune('a'+i)),
				Year:      2010 + i/2,
				Volume:    v,
				Journal:   "Letters in Warm Work",
				Accession: "VIL94000" + string(rune('0'+i)),
				Authors:   []bib.Person{{Family: "Belan" + string(rune('a'+i))}},
			},
		)
	}
	all[3].Year = 2011
	w.hold("vilano", all, nil)
	now, err := a.Reviews.Review(t.Context(), review)
	require.NoError(t, err)
	note := "since 2009"
	_, err = a.Reviews.Change(t.Context(), review, now.Revision, reviews.Change{What: what, Edits: desk.Edits{
		&core.HandSearched{
			Journal: tally.JournalKey("Letters in Warm Work"),
			Name:    "Letters in Warm Work",
			Note:    &note,
			On:      true,
		},
		&core.HandSearched{Journal: tally.JournalKey("Card Box"), Name: "Card Box", On: true}}})
	require.NoError(t, err)
	r := round(
		t,
		a,
		review,
		rounds.Asked{
			Way:     "journal",
			Name:    "Letters in Warm Work",
			Years:   []int{2009, 2012},
			Sources: []int64{w.ids["vilano"]},
		},
	)
	require.Equal(t, 4, r.Works, "%+v", r.Problem)
	bo := store.By(t.Context(), store.Author{Name: "Bo"})
	for i, x := range found(t, a, review, rounds.Window{Show: "all", Order: "title"}).Works {
		if i < 2 {
			require.NoError(t, a.Judge(bo, review, x.Record.ID, []string{"relevant", "not"}[i]))
		}
	}
	said, err := a.Rounds.Says(t.Context(), desk.At{Review: review})
	require.NoError(t, err)
	require.Len(t, said.Journals, 2)
	card, letters := said.Journals[0], said.Journals[1]
	if card.Journal != "Card Box" {
		card, letters = letters, card
	}
	assert.Empty(t, card.Volumes, "nothing of it was looked at")
	assert.Equal(t, note, letters.Note)
	assert.Equal(t, []int{1}, letters.Rounds)
	require.Len(t, letters.Volumes, 4)
	var rows []string
	for _, v := range letters.Volumes {
		rows = append(
			rows,
			fmt.Sprintf(
				"%d %q: %d of %d, %d belong, %v, %t",
				v.Year,
				v.Volume,
				v.Judged,
				v.Works,
				v.Belongs,
				v.Who,
				v.Last != nil,
			),
		)
	}
	assert.Equal(
		t,
		[]string{
			`2011 "10": 0 of 1, 0 belong, [], false`,
			`2011 "": 0 of 1, 0 belong, [], false`,
			`2010 "10": 1 of 1, 0 belong, [Bo], true`,
			`2010 "9": 1 of 1, 1 belong, [Bo], true`,
		},
		rows,
	)
	record, err := a.Written.Record(t.Context(), desk.At{Review: review})
	require.NoError(t, err)
	table := fmt.Sprint(section(t, record, "other").Parts[0].Table.Rows)
	assert.Contains(t, table, "9 (2010) 1 1 1 Bo, ")
	assert.Contains(t, table, "Card Box")
}

// The same work under two identifiers, in two sources, one of them in another form: it is one work, with both
// records. That a work was taken back is said, whichever record says it. Two DOIs speak against one work, unless
// both stand at the same place.
func TestOneWorkOfTwoRecords(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	key := &bib.Record{
		Title:     "A study that others cite",
		Year:      2015,
		DOI:       "10.99999/key.1",
		Accession: "VIL920000",
		Authors:   []bib.Person{{Family: "Osolana"}},
	}
	one := &bib.Record{
		Title:      "Shade for crews at noon",
		Year:       2018,
		DOI:        "10.99999/one.1",
		Accession:  "VIL920001",
		Journal:    "Field Notes",
		Volume:     "3",
		FirstPage:  "11",
		Authors:    []bib.Person{{Family: "Velkana"}},
		Types:      []string{"Retracted Work"},
		References: []bib.Reference{{DOI: "https://doi.org/10.99999/KEY.1"}},
	}
	other := &bib.Record{
		Title:     "Shade for Crews at Noon",
		Year:      2019,
		DOI:       "10.99999/two.1",
		Accession: "ALM920001",
		Journal:   "Field Notes",
		Volume:    "3",
		FirstPage: "11",
		Authors:   []bib.Person{{Family: "Velkana"}},
		Abstract:  "Of farmworkers and heat.",
	}
	list := &bib.Record{
		Title:      "A list of works",
		Year:       2021,
		DOI:        "10.99999/list.9",
		Accession:  "VIL920002",
		Authors:    []bib.Person{{Family: "Belan"}},
		References: []bib.Reference{{DOI: "10.99999/two.1"}, {DOI: "10.99999/key.1"}},
	}
	w.hold("vilano", []*bib.Record{key, one, list}, nil)
	w.hold("almagre", []*bib.Record{other}, nil)
	keyStudies(t, a, review, []*bib.Record{key, list})
	round(t, a, review, rounds.Asked{Way: "both", From: "keys", Sources: []int64{w.ids["vilano"], w.ids["almagre"]}})
	f := found(t, a, review, rounds.Window{})
	require.Len(t, f.Works, 1, "%+v", f.Works)
	assert.Len(t, f.Works[0].Records, 2)
	assert.True(t, f.Works[0].Retracted)
	assert.Equal(
		t,
		2,
		f.Works[0].Leads,
		"it cites one by an identifier in another form; the other cites its second record",
	)
	require.NoError(t, a.Judge(t.Context(), review, f.Works[0].Records[1], "not"))
	assert.Zero(t, found(t, a, review, rounds.Window{}).Total, "judged in one record, it is judged")
}

// A key study of which nothing is known but title, author and year is found at a source by these; one that no
// source knows is left out, and that is said.
func TestRoundsBeginFromWorksWithoutAnIdentifier(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	key := &bib.Record{
		Title:     "A study of shade that others cite",
		Year:      2015,
		DOI:       "10.99999/key.1",
		Accession: "VIL920000",
		Authors:   []bib.Person{{Family: "Osolana", Given: "Ife"}},
	}
	citing := &bib.Record{
		Title:      "Noon",
		Year:       2018,
		DOI:        "10.99999/one.1",
		Accession:  "VIL920001",
		Authors:    []bib.Person{{Family: "Velkana"}},
		References: []bib.Reference{{DOI: key.DOI}},
	}
	w.hold("vilano", []*bib.Record{key, citing}, nil)
	keyStudies(
		t,
		a,
		review,
		[]*bib.Record{
			{Title: key.Title, Year: 2015, Authors: key.Authors},
			{Title: "A work that nobody holds at all", Year: 2001, Authors: key.Authors},
		},
	)
	r := round(t, a, review, rounds.Asked{Way: "forward", From: "keys", Sources: []int64{w.ids["vilano"]}})
	assert.Equal(t, 1, r.Works)
	assert.Contains(t, r.Notes, rounds.Note{Kind: "unnamed", Total: 1})
}

// A round whose order was sent again, since its answer was lost, is made once.
func TestARoundThatIsOrderedTwiceIsMadeOnce(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	keyStudies(t, a, review, w.Keys[5:10])
	ctx := store.AsRequest(t.Context(), uuid.New())
	for range 2 {
		require.NoError(
			t,
			a.Rounds.Begin(
				ctx,
				desk.At{Review: review},
				rounds.Asked{Way: "forward", From: "keys", Sources: []int64{w.ids["vilano"]}},
			),
		)
	}
	assert.Equal(t, 1, atRest(t, a, review).Number)
}

// A foreign server without such indexes is told to have none, and one that has them under other names is asked by them.
func TestCitationsOfAForeignServer(t *testing.T) {
	a, review := start(t)
	w := standInSources(t, a)
	keyStudies(t, a, review, w.Keys[5:10])
	foreign := &standin.Collection{
		Name:        "foreign",
		Title:       "Foreign",
		About:       "%d records",
		MostRecords: 30,
		Indexes:     []string{"dc.title", "dc.identifier", "tamiz.year", "tamiz.cites"},
	}
	foreign.Fill(w.Vilano, nil)
	server := httptest.NewServer(standin.Handler(foreign))
	t.Cleanup(server.Close)
	address := server.URL + "/foreign"
	s, err := a.Sources.AddSource(t.Context(), sources.SourceEdit{Address: &address})
	require.NoError(t, err)
	assert.Equal(t, "tamiz.cites", s.Map.Indexes["cites"])
	assert.Empty(t, s.Map.Indexes["citedBy"])
	r := round(t, a, review, rounds.Asked{Way: "forward", From: "keys", Sources: []int64{s.ID}})
	require.Equal(t, "done", r.State, "%+v", r.Problem)
	assert.Positive(t, r.Works)
	assert.WithinDuration(t, time.Now(), *r.Ended, time.Minute)
}

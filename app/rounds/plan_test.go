package rounds

import (
	"context"
	"encoding/json"
	"errors"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/source"
	"tamiz/source/sru"
	"tamiz/store"
)

// inMemory is what rounds ask of the database and of sources, in memory.
type inMemory struct {
	ownRows
	libraryRows
	sourceRoom
	rounds  []RoundRow
	works   map[int64][]WorkRow
	keys    []int64
	shelf   []int64
	judged  []library.Judgement
	sources map[int64]source.Map
}

func (m *inMemory) Rounds(context.Context, int64) ([]RoundRow, error) { return m.rounds, nil }

func (m *inMemory) WorksOfRound(_ context.Context, round int64) ([]WorkRow, error) {
	return m.works[round], nil
}

func (m *inMemory) Head(_ context.Context, review int64) (reviews.Head, error) {
	if review != 1 {
		return reviews.Head{}, store.ErrNone
	}
	return reviews.Head{ID: review}, nil
}

func (m *inMemory) KeyStudies(context.Context, int64) (out []library.Key, err error) {
	for i, id := range m.keys {
		out = append(out, library.Key{ID: int64(i), StoredRecord: library.StoredRecord{ID: id, Record: &bib.Record{}}})
	}
	return out, nil
}

func (m *inMemory) ShelvedIDs(context.Context, int64) ([]int64, error) { return m.shelf, nil }

func (m *inMemory) Judgements(context.Context, int64) ([]library.Judgement, error) {
	return m.judged, nil
}

func (m *inMemory) Named(_ context.Context, id int64) (sources.Source, *sru.Client, error) {
	says, ok := m.sources[id]
	if !ok {
		return sources.Source{}, nil, problems.Gone(store.ErrNone, "source")
	}
	return sources.Source{ID: id, Map: says}, &sru.Client{}, nil
}

var at1 = desk.At{Review: 1}

func mustJSON(t *testing.T, v any) []byte {
	t.Helper()
	body, err := json.Marshal(v)
	require.NoError(t, err)
	return body
}

// laidOut is a room in which one round is at rest and one goes on: the first brought two works.
func laidOut() (*Service, *inMemory) {
	m := &inMemory{
		rounds:  []RoundRow{{ID: 7, State: "done"}, {ID: 8, State: "going"}},
		works:   map[int64][]WorkRow{7: {{Record: 71}, {Record: 72}}},
		keys:    []int64{5, 3, 5},
		judged:  []library.Judgement{{Record: 9, Verdict: relevant}, {Record: 4, Verdict: "not"}},
		sources: map[int64]source.Map{1: {}, 2: {Indexes: map[string]string{"cites": "x.cites"}}},
	}
	return &Service{rows: m, library: m, reviewRows: m, sources: m}, m
}

func TestARoundIsLaidOutByItsWay(t *testing.T) {
	one, seven := []int64{1}, int64(7)
	for name, c := range map[string]struct {
		asked Asked
		name  string
		start []int64
		after *int64
		more  int
	}{
		"key studies, each once": {Asked{Way: Backward, From: "keys", Sources: []int64{2, 1, 2}}, "2 key studies",
			[]int64{3, 5}, nil, 0},
		"what belongs": {Asked{Way: Backward, From: "relevant", Sources: one}, "3 works that belong",
			[]int64{3, 5, 9}, nil, 0},
		"the round before that is at rest": {Asked{Way: Backward, From: "last", Sources: one},
			"2 works of the round before", []int64{71, 72}, &seven, 0},
		"twice": {Asked{Way: Both, From: "keys", Sources: []int64{2}, Twice: true}, "2 key studies",
			[]int64{3, 5}, nil, 1},
		"a journal in some years": {Asked{Way: Journal, Name: " Annals \x00of  Warm Work ", Years: []int{2010, 2014},
			Sources: one}, "Annals of Warm Work, 2010 to 2014", nil, nil, 0},
		"what the strategy finds": {Asked{Way: Cited, Sources: one}, "what the strategy finds", nil, nil, 0},
	} {
		t.Run(name, func(t *testing.T) {
			a, _ := laidOut()
			got, err := a.order(t.Context(), at1, c.asked)
			require.NoError(t, err)
			assert.Equal(t, c.name, got.RoundRow.Name)
			assert.Equal(t, c.start, got.start)
			assert.Equal(t, c.after, got.After)
			assert.Equal(t, c.more, got.More)
			assert.Equal(t, "waiting", got.State)
			assert.Equal(t, 200, got.Most)
			assert.IsIncreasing(t, append([]int64{0}, got.RoundRow.Sources...))
			assert.JSONEq(t, string(mustJSON(t, got.Asked)), string(got.RoundRow.Asked), "it is kept as it was laid out")
		})
	}
}

func TestWhatCannotBeLaidOutIsSaid(t *testing.T) {
	many := make([]int64, mostStart+1)
	for i := range many {
		many[i] = int64(i + 1)
	}
	for name, c := range map[string]struct {
		asked  Asked
		change func(*inMemory)
		kind   string
		field  string
	}{
		"no such way":          {Asked{Way: "sideways", Sources: []int64{1}}, nil, "invalid", "way"},
		"no source":            {Asked{Way: Backward, From: "keys"}, nil, "invalid", "sources"},
		"a source that is not": {Asked{Way: Backward, From: "keys", Sources: []int64{3}}, nil, "source-gone", ""},
		"nobody says who cites whom": {Asked{Way: Forward, From: "keys", Sources: []int64{1}}, nil, "no-links",
			"sources"},
		"too many works":       {Asked{Way: Author, Name: "Olmo", Most: 1001, Sources: []int64{1}}, nil, "invalid", "most"},
		"a name of nothing":    {Asked{Way: Journal, Name: " \x00 ", Sources: []int64{1}}, nil, "invalid", "name"},
		"a name without words": {Asked{Way: Journal, Name: "–", Sources: []int64{1}}, nil, "invalid", "name"},
		"an empty shelf":       {Asked{Way: Backward, From: "shelf", Sources: []int64{1}}, nil, "invalid", "from"},
		"no round before": {Asked{Way: Backward, From: "last", Sources: []int64{1}},
			func(m *inMemory) { m.rounds = m.rounds[1:] }, "invalid", "from"},
		"which records": {Asked{Way: Backward, From: "records", Sources: []int64{1}}, nil, "invalid", "of"},
		"from nowhere":  {Asked{Way: Backward, From: "somewhere", Sources: []int64{1}}, nil, "invalid", "from"},
		"more than a round begins from": {Asked{Way: Backward, From: "shelf", Sources: []int64{1}},
			func(m *inMemory) { m.shelf = many }, "invalid", "from"},
		"more rounds than a review has": {Asked{Way: Backward, From: "keys", Sources: []int64{1}},
			func(m *inMemory) { m.rounds = make([]RoundRow, mostRounds) }, "invalid", "way"},
	} {
		t.Run(name, func(t *testing.T) {
			a, m := laidOut()
			if c.change != nil {
				c.change(m)
			}
			_, err := a.order(t.Context(), at1, c.asked)
			var p *problems.Problem
			require.True(t, errors.As(err, &p), "%v", err)
			assert.Equal(t, c.kind, p.Type, p.Title)
			assert.Equal(t, c.field, p.Field, p.Title)
			assert.NotEmpty(t, p.Title)
		})
	}
}

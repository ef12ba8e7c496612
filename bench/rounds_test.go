package bench

import (
	"fmt"
	"math/rand/v2"
	"net/http/httptest"
	"os"
	"path/filepath"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/reviews"
	"tamiz/app/rounds"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/core/cite"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/source/standin"
)

// citing gives each record some 25 references to earlier ones, a few of which are cited by very many.
func citing(records []*bib.Record) (references int) {
	r := rand.New(rand.NewPCG(7, 7))
	bag := []int{0}
	for i, x := range records {
		x.Accession, x.References, x.TimesCited = fmt.Sprintf("B%06d", i), nil, nil
		for range min(i, 15+r.IntN(21)) {
			to := r.IntN(i)
			if r.IntN(2) == 0 {
				to = bag[r.IntN(len(bag))]
			}
			bag = append(bag, to)
			x.References = append(x.References, bib.Reference{DOI: records[to].DOI})
			references++
		}
	}
	return references
}

// roundsBeside measures two rounds along citations at a source that answers politely, and the ties of what they bring.
func roundsBeside(t *testing.T, _ sizes) []row {
	records := demo.NewWorld(demo.Seed, demo.AlmagreSize).Records
	references := citing(records)
	c := &standin.Collection{Name: "vilano", Title: "Vilano", About: "%d records", MostRecords: 50,
		Indexes: []string{
			"tamiz.any",
			"tamiz.title",
			"tamiz.year",
			"tamiz.identifier",
			"tamiz.cites",
			"tamiz.citedBy",
			"tamiz.timesCited",
		}}
	c.Fill(records, nil)
	server := httptest.NewServer(standin.Handler(c))
	t.Cleanup(server.Close)

	a, dir, ctx := application(t)
	address := server.URL + "/vilano"
	src, err := a.Sources.AddSource(ctx, sources.SourceEdit{Address: &address})
	require.NoError(t, err)
	review, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "Rounds"})
	require.NoError(t, err)
	file, err := os.Create(filepath.Join(dir, "keys.ris"))
	require.NoError(t, err)
	for i := range 30 {
		require.NoError(t, ris.Write(file, records[12_000+i*350]))
	}
	require.NoError(t, file.Close())
	brought(t, ctx, a, review.ID, "keys", file.Name())
	began := time.Now()
	require.NoError(
		t,
		a.Rounds.Begin(
			ctx,
			desk.At{Review: review.ID},
			rounds.Asked{Way: rounds.Both, From: "keys", Sources: []int64{src.ID}, Twice: true},
		),
	)
	var all []rounds.Round
	for done := false; !done; time.Sleep(50 * time.Millisecond) {
		all, err = a.Rounds.Rounds(ctx, review.ID)
		require.NoError(t, err)
		done = len(all) == 2 && all[1].Ended != nil
	}
	took := time.Since(began)
	requests, works := 0, 0
	for _, r := range all {
		require.Equal(t, "done", r.State, "%+v", r.Problem)
		requests, works = requests+r.Requests, works+r.Works
	}
	least := (works + 49) / 50
	began = time.Now()
	_, err = a.Rounds.Found(ctx, desk.At{Review: review.ID}, rounds.Window{})
	require.NoError(t, err)
	laid := time.Since(began)
	began = time.Now()
	_, err = a.Rounds.Found(ctx, desk.At{Review: review.ID}, rounds.Window{})
	require.NoError(t, err)
	again := time.Since(began)

	five := records[len(records)-5000:]
	began = time.Now()
	g := cite.Of(five, nil)
	start := []int{}
	for i := 0; i < len(five); i += 166 {
		start = append(start, i)
	}
	g.Ties(start)
	ties := time.Since(began)
	return []row{
		{
			fmt.Sprintf(
				"two rounds from 30 key studies over %d works with %d citations: %d and %d works, %d requests, %s",
				len(records),
				references,
				all[0].Works,
				all[1].Works,
				requests,
				took.Round(time.Millisecond),
			),
			fmt.Sprintf(
				"each work fetched once, 50 an answer (%d requests)",
				least,
			),
			fmt.Sprintf("%.2f", float64(requests)/float64(least)),
			"printed",
		},
		{
			fmt.Sprintf("those %d works put together, set against the strategy, tied and ordered", works),
			"the same a second time",
			fmt.Sprintf("%s, then %s", laid.Round(time.Millisecond), again.Round(time.Millisecond)),
			"printed",
		},
		{"coupling and co-citation of 5,000 works with 30 of them", "", ties.Round(time.Millisecond).String(), "≤ 1 s"},
	}
}

package bench

import (
	"fmt"
	"io"
	"math/rand/v2"
	"net/http/httptest"
	"path/filepath"
	"slices"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"tamiz/app/desk"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/core/coverage"
	"tamiz/core/review"
	"tamiz/exchange/records"
	"tamiz/source/standin"
)

// largestWritten times the record and the bundle of the largest strategies that are taken: 26 blocks of 200 terms,
// three sources, five versions.
func largestWritten(t *testing.T, _ sizes) []row {
	const many = 24_000
	a, dir, ctx := application(t)
	r, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "Everything"})
	require.NoError(t, err)
	for _, f := range []struct {
		name    string
		records int
	}{{"keys", 60}, {"sample", many}} {
		path := filepath.Join(dir, f.name+".ris")
		written(t, path, f.records)
		brought(t, ctx, a, r.ID, f.name, path)
	}
	for _, name := range []string{"Almagre", "Ostrava", "Vilano"} {
		c := &standin.Collection{
			Name:        name,
			Title:       name,
			About:       "%d records",
			MostRecords: 50,
			Indexes:     []string{"tamiz.any", "tamiz.title", "tamiz.abstract", "tamiz.year"},
		}
		c.Fill(world(100), nil)
		server := httptest.NewServer(standin.Handler(c))
		t.Cleanup(server.Close)
		address := server.URL + "/" + name
		_, err := a.Sources.AddSource(ctx, sources.SourceEdit{Address: &address})
		require.NoError(t, err)
	}
	set := coverage.NewSet(world(2000))
	tokens := slices.DeleteFunc(set.Index.Neighbours("", 0, 1<<20), func(w string) bool { return len(w) < 5 })
	random := rand.New(rand.NewPCG(1, 2))
	for n := range 5 {
		now, err := a.Reviews.Review(ctx, r.ID)
		require.NoError(t, err)
		doc := now.Document
		doc.Blocks = slices.Clone(doc.Blocks)
		for b := range blocksOfLargest {
			if n > 0 && b >= n { // each version has another first block, second block …
				break
			}
			block := review.Block{
				ID:       fmt.Sprint("b", b),
				Name:     string(rune('A' + b)),
				Concept:  fmt.Sprint("concept ", b),
				Searched: true,
			}
			for k := range termsOfLargest {
				kind := []string{"words", "phrases", "truncated"}[k%3]
				block.Terms = append(
					block.Terms,
					review.Term{
						ID:   fmt.Sprint("t", b, "-", k),
						Term: termOf(kind, tokens[random.IntN(len(tokens))], tokens[random.IntN(len(tokens))]),
					},
				)
			}
			if n == 0 {
				doc.Blocks = append(doc.Blocks, block)
			} else {
				doc.Blocks[b] = block
			}
		}
		_, err = a.Reviews.Change(
			ctx,
			r.ID,
			now.Revision,
			reviews.Change{What: reviews.What{Key: "demo"}, Edits: review.Diff(now.Document, doc)},
		)
		require.NoError(t, err)
		err = a.Reviews.Keep(ctx, r.ID, reviews.VersionEdit{Name: fmt.Sprint("version ", n)})
		require.NoError(t, err)
	}
	at := desk.At{Review: r.ID}
	began := time.Now()
	_, err = a.Written.Record(ctx, at)
	require.NoError(t, err)
	first := time.Since(began)
	began = time.Now()
	_, err = a.Written.Record(ctx, at)
	require.NoError(t, err)
	again := time.Since(began)
	began = time.Now()
	file, _, err := a.Written.Bundle(ctx, at, []records.Format{records.RIS})
	require.NoError(t, err)
	_, err = io.Copy(io.Discard, file)
	require.NoError(t, err)
	bundle := time.Since(began)
	return []row{
		{
			"record of 26 × 200 terms, 24,000 records, three sources",
			"–",
			fmt.Sprint(short(first), "; once more: ", short(again)),
			"≤ 5 s",
		},
		{"its bundle", "–", short(bundle), "≤ 5 s"},
	}
}

const (
	blocksOfLargest = 26
	termsOfLargest  = 200
)

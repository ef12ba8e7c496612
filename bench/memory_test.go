package bench

import (
	"context"
	"fmt"
	"math"
	"math/rand/v2"
	"runtime"
	"strings"
	"testing"
	"time"

	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/tally"
)

const (
	wordyRecords  = 50_000
	wordyWords    = 200    // of each
	wordyDistinct = 30_000 // in all
)

// wordy makes records whose words are drawn as those of a language are (Zipf): 50,000 of 200 words, 30,000 of them
// distinct.
func wordy(n int) []*bib.Record {
	r := rand.New(rand.NewPCG(8, 1))
	syllables := []string{
		"ba",
		"cor",
		"del",
		"fen",
		"gra",
		"hol",
		"jun",
		"kel",
		"lor",
		"min",
		"nev",
		"ost",
		"pra",
		"qui",
		"rel",
		"san",
		"tor",
		"ulm",
		"ver",
		"wex",
	}
	stock := make([]string, wordyDistinct)
	for i := range stock {
		for k := i + 400; k > 0; k /= len(syllables) {
			stock[i] += syllables[k%len(syllables)]
		}
	}
	draw := rand.NewZipf(r, 1.05, 3, uint64(len(stock)-1))
	out := make([]*bib.Record, n)
	for i := range out {
		words := make([]string, wordyWords)
		for k := range words {
			words[k] = stock[draw.Uint64()]
			if k%12 == 11 {
				words[k] += "."
			}
		}
		out[i] = &bib.Record{
			Title:    strings.Join(words[:12], " "),
			Abstract: strings.Join(words[12:], " "),
			Year:     1990 + i%35,
			Journal:  "Journal of " + stock[i%400],
		}
	}
	return out
}

// peakOf returns how many bytes the heap grew to, at most, while something was done, and how many it holds
// afterwards, both beside what it held before.
func peakOf(do func()) (peak, after int64) {
	before := int64(heap())
	ended, watched := make(chan struct{}), make(chan int64)
	go func() {
		most := int64(0)
		tick := time.NewTicker(5 * time.Millisecond)
		defer tick.Stop()
		for {
			select {
			case <-ended:
				watched <- most
				return
			case <-tick.C:
				var m runtime.MemStats
				runtime.ReadMemStats(&m)
				most = max(most, int64(m.HeapInuse))
			}
		}
	}()
	do()
	close(ended)
	peak = <-watched - before
	return peak, int64(heap()) - before
}

// memories tells how many bytes each part of a pool takes for each record: what stays, and what it takes while it
// is made.
func memories(t *testing.T, _ sizes) (rows []row) {
	ctx := context.Background()
	var records []*bib.Record
	var p *tally.Pool
	var kept []any
	whole := int64(0)
	for _, part := range []struct {
		name string
		make func()
	}{
		{"the records, with their text", func() { records = wordy(wordyRecords) }},
		{"the index", func() { p = must(tally.NewPool(ctx, records, nil)); p.Keep() }},
		{"the n-grams, with their families", func() {
			kept = append(kept, must(tally.Fold(ctx, p, nil, tally.DefaultWords)))
		}},
		{"the lists of the other facets", func() {
			for _, f := range tally.Facets[1:] {
				kept = append(kept, must(tally.Count(ctx, p, f, nil, tally.DefaultWords)))
			}
		}},
		{"the company", func() { kept = append(kept, must(company.Of(ctx, p))) }},
	} {
		peak, after := peakOf(part.make)
		whole += after
		rows = append(rows, row{fmt.Sprintf("memory of %s, %d records of %d words", part.name, wordyRecords, wordyWords), "–",
			fmt.Sprintf(
				"%d bytes a record (%.0f MB), at most %.0f MB while it is made",
				int(math.Round(float64(after)/wordyRecords)),
				float64(after)/1e6,
				float64(peak)/1e6,
			), "printed"})
	}
	runtime.KeepAlive(kept)
	runtime.KeepAlive(p)
	return append(rows, row{"memory of all of it", "–", fmt.Sprintf("%.0f MB", float64(whole)/1e6), "< 600 MB"})
}

package tally_test

import (
	"context"
	"testing"
	"time"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/demo"
)

// BenchmarkWords counts words of up to 4 tokens of 10,000 records against a contrast as large, from
// their text, and compares it with one pass that only tokenises the same text. Goal: at most 10 times.
func BenchmarkWords(b *testing.B) {
	records := demo.NewWorld(1, 20_000).Records
	sample, contrast := records[:10_000], records[10_000:]
	var tokenising time.Duration
	for b.Loop() {
		b.StopTimer()
		began, tokens := time.Now(), 0
		for _, r := range records {
			r.Values(bib.Text|bib.HeadingLabel, func(_ bib.Field, v string) { text.Scan(v, func([]byte, bool) { tokens++ }) })
		}
		tokenising += time.Since(began)
		b.StartTimer()
		must(
			tally.CountWords(
				context.Background(),
				must(tally.NewPool(context.Background(), sample, contrast)),
				nil,
				tally.DefaultWords,
			),
		)
	}
	b.ReportMetric(b.Elapsed().Seconds()/tokenising.Seconds(), "ratio-to-tokenising(goal≤10)")
}

// A tally of half of the records of a pool against the other half, from what the pool keeps.
func BenchmarkAnySet(b *testing.B) {
	records := demo.NewWorld(1, 20_000).Records
	p := must(tally.NewPool(context.Background(), records[:6000], records[6000:]))
	p.Keep()
	half := roaring.New()
	for i := uint32(0); i < 20_000; i += 2 {
		half.Add(i)
	}
	over := p.Over(half, p.Index.All())
	for b.Loop() {
		must(tally.Fold(context.Background(), over, nil, tally.DefaultWords))
	}
}

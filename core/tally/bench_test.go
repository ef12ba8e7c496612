package tally_test

import (
	"testing"
	"time"

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
		tally.CountWords(tally.NewPool(sample, contrast), nil, tally.DefaultWords)
	}
	b.ReportMetric(b.Elapsed().Seconds()/tokenising.Seconds(), "ratio-to-tokenising(goal≤10)")
}

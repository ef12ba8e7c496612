package coverage_test

import (
	"context"
	"runtime"
	"testing"
	"time"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/demo"
)

// threeByFifteen is a strategy of 3 blocks of 15 terms: words, phrases, truncated ones, pairs, headings.
func threeByFifteen() strategy.Strategy {
	b := [][]string{
		{
			"farmworker*",
			"farm worker*",
			"agricultural worker*",
			"agricultural labo?rer*",
			"field hand*",
			"harvest crew*",
			"seasonal worker*",
			"migrant worker*",
			"cane cutter*",
			"sugarcane cutter*",
			"campesino*",
			"fruit picker*",
		},
		{
			"rest break*",
			"hydration",
			"drinking water",
			"work rest schedule*",
			"heat stress prevention",
			"cooling vest*",
			"acclimati?ation",
			"shade",
			"electrolyte*",
			"siesta*",
			"buddy system",
			"workload pacing",
		},
		{
			"kidney*",
			"renal",
			"creatinine",
			"egfr",
			"nephropathy",
			"glomerular filtration",
			"proteinuria",
			"acute kidney injury",
			"aki",
			"tubular injury",
			"chronic kidney disease",
			"*filtration",
		},
	}
	near := [][2]string{{"farm*", "crew*"}, {"shade", "tent*"}, {"kidney", "function"}}
	headings := [][]string{
		{"Agricultural Labor Force", "Seasonal Employment"},
		{"Heat Protection Programmes", "Fluid Intake"},
		{"Kidney Function", "Laboratory Measures"},
	}
	s := strategy.Strategy{}
	for i, name := range []string{"A", "B", "C"} {
		x := block(name, b[i]...)
		x.Terms = append(
			x.Terms,
			strategy.Term{Kind: "near", Left: near[i][0], Right: near[i][1], Within: 3, Field: "text", On: true},
		)
		for _, h := range headings[i] {
			x.Terms = append(x.Terms, strategy.Term{Kind: "heading", Heading: h, On: true})
		}
		s.Blocks = append(s.Blocks, x)
	}
	return s
}

// scanStrategy counts by looking at every record, its text tokenised beforehand.
func scanStrategy(records [][][]string, headings [][]bib.Assignment, s strategy.Strategy) int {
	var blocks [][]query.Expr
	for _, b := range s.Blocks {
		var exprs []query.Expr
		for _, t := range b.Terms {
			q, err := t.Query()
			if err != nil {
				panic(err)
			}
			exprs = append(exprs, q)
		}
		blocks = append(blocks, exprs)
	}
	matches := func(q query.Expr, i int) bool {
		if h, ok := q.(query.Heading); ok {
			for _, a := range headings[i] {
				if h.MatchesAssignment(a) {
					return true
				}
			}
			return false
		}
		m := q.(interface{ MatchesValue([]string) bool })
		for _, v := range records[i] {
			if m.MatchesValue(v) {
				return true
			}
		}
		return false
	}
	n := 0
	for i := range records {
		all := true
		for _, exprs := range blocks {
			any := false
			for _, q := range exprs {
				if any = matches(q, i); any {
					break
				}
			}
			if all = any; !all {
				break
			}
		}
		if all {
			n++
		}
	}
	return n
}

// BenchmarkStrategy counts a strategy on the index of 50,000 records and compares it with a scan of the
// same records, tokenised beforehand. Goal: at least 20 times faster.
func BenchmarkStrategy(b *testing.B) {
	world := demo.NewWorld(1, 50_000).Records
	set, s := coverage.NewSet(world), threeByFifteen()
	tokens, headings := make([][][]string, len(world)), make([][]bib.Assignment, len(world))
	for i, r := range world {
		r.Values(bib.Text, func(_ bib.Field, v string) { tokens[i] = append(tokens[i], text.Tokens(v)) })
		headings[i] = r.Headings
	}
	began := time.Now()
	want := scanStrategy(tokens, headings, s)
	scanning := time.Since(began)
	for b.Loop() {
		reach, err := coverage.Find(context.Background(), set, s)
		if err != nil {
			b.Fatal(err)
		}
		if got := int(reach.Whole.GetCardinality()); got != want {
			b.Fatalf("the index finds %d records, the scan %d", got, want)
		}
	}
	b.ReportMetric(scanning.Seconds()/(b.Elapsed().Seconds()/float64(b.N)), "faster-than-scan(goal≥20)")
}

// BenchmarkIndexMemory builds the index of 100,000 records. Goal: under 3 GB, and in fact far less.
func BenchmarkIndexMemory(b *testing.B) {
	records := demo.NewWorld(1, 100_000).Records
	var before, after runtime.MemStats
	for b.Loop() {
		runtime.GC()
		runtime.ReadMemStats(&before)
		ix := index.Build(records)
		runtime.GC()
		runtime.ReadMemStats(&after)
		runtime.KeepAlive(ix)
	}
	b.ReportMetric(float64(after.HeapAlloc-before.HeapAlloc)/1e9, "GB-of-index(goal<3)")
	b.ReportMetric(float64(len(records))/(b.Elapsed().Seconds()/float64(b.N)), "records/s")
}

package bench

import (
	"context"
	"fmt"
	"os"
	"runtime"
	"slices"
	"strconv"
	"strings"
	"testing"
	"time"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/index"
	"tamiz/core/parallel"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/demo"
)

// sizes are how many records each comparison takes.
type sizes struct {
	tally, strategy, large, block int
	growth                        [2]int
}

// sizesOf returns the sizes for "plain", "full", or a number of records for the large comparisons.
func sizesOf(name string) (sizes, error) {
	s := sizes{tally: 10_000, strategy: 50_000, large: 50_000, block: 100_000, growth: [2]int{10_000, 100_000}}
	if name == "plain" {
		return s, nil
	}
	n := 1_000_000
	if name != "full" {
		var err error
		if n, err = strconv.Atoi(name); err != nil || n < 1000 {
			return s, fmt.Errorf("SIZE is plain, full, or a number of records from 1000, not %q", name)
		}
	}
	s.large, s.block, s.growth = n, n, [2]int{n / 10, n}
	return s, nil
}

// A row of the table: the figure of one comparison beside its goal.
type row struct{ work, against, figure, goal string }

// TestSpeeds prints the table. It asserts that answers agree, never a time.
func TestSpeeds(t *testing.T) {
	name := os.Getenv("TAMIZ_BENCH")
	if name == "" {
		t.Skip("make bench runs this")
	}
	size, err := sizesOf(name)
	require.NoError(t, err)
	var rows []row
	only := strings.Fields(os.Getenv("TAMIZ_BENCH_ONLY"))
	for _, part := range []struct {
		name string
		work func(*testing.T, sizes) []row
	}{{"tally", tallies}, {"strategy", strategies}, {"large", large}, {"block", blockMeasures}, {"limits", limits},
		{"growth", growth}, {"pool", pools}, {"specialist", specialists}, {"company", companies}, {"rescue", rescues},
		{"proposed", proposals}, {"advice", advice}, {"same", sameWorks}, {"small", smallSets}, {"source", answering},
		{"saving", savings}, {"decision", decisions}, {"blocks", blockScreens}, {"headings", headings}, {"leads", leads},
		{"explain", explaining}, {"long", longExplained}, {"memory", memories}, {"process", processes},
		{"written", largestWritten}, {"lines", strategyLines}, {"logbook", logbooks}, {"rounds", roundsBeside},
		{"formats", formats}} {
		if len(only) > 0 && !slices.Contains(only, part.name) {
			continue
		}
		began := time.Now()
		got := part.work(t, size)
		rows = append(rows, got...)
		for _, r := range got {
			t.Logf("%s | against %s | %s | goal %s", r.work, r.against, r.figure, r.goal)
		}
		t.Logf("(%s in all)", time.Since(began).Round(time.Second))
		runtime.GC()
	}
	var b strings.Builder
	b.WriteString("\n| work | against | figure | goal |\n| --- | --- | --- | --- |\n")
	for _, r := range rows {
		fmt.Fprintf(&b, "| %s | %s | %s | %s |\n", r.work, r.against, r.figure, r.goal)
	}
	fmt.Println(b.String())
}

func world(n int) []*bib.Record { return demo.NewWorld(1, n).Records }

// taken returns how long it takes, the least of some runs: what disturbs a run only makes it longer.
func taken(runs int, work func()) time.Duration {
	best := time.Duration(1 << 62)
	for range runs {
		runtime.GC()
		began := time.Now()
		work()
		best = min(best, time.Since(began))
	}
	return best
}

func ratio(a, b time.Duration) string {
	return fmt.Sprintf("%.2f (%s : %s)", a.Seconds()/b.Seconds(), short(a), short(b))
}

func sizeRatio(a, b uint64) string {
	return fmt.Sprintf("%.2f (%.0f MB : %.0f MB)", float64(a)/float64(b), float64(a)/1e6, float64(b)/1e6)
}

func short(d time.Duration) string {
	switch {
	case d > time.Second:
		return d.Round(10 * time.Millisecond).String()
	case d > time.Millisecond:
		return d.Round(10 * time.Microsecond).String()
	}
	return d.Round(10 * time.Nanosecond).String()
}

// heap returns the memory that is in use.
func heap() uint64 {
	runtime.GC()
	runtime.GC()
	var m runtime.MemStats
	runtime.ReadMemStats(&m)
	return m.HeapAlloc
}

func tallies(t *testing.T, size sizes) []row {
	records := world(2 * size.tally)
	sample, contrast := records[:size.tally], records[size.tally:]
	ours := taken(3, func() {
		p := must(tally.NewPool(context.Background(), sample, contrast))
		require.Positive(t, must(tally.Fold(context.Background(), p, nil, tally.DefaultWords)).Len())
	})
	tokens := 0
	tokenising := taken(3, func() {
		for _, r := range records {
			r.Values(bib.Any, func(_ bib.Field, v string) { text.Scan(v, func([]byte, bool) { tokens++ }) })
		}
	})
	db := openPostgres(t)
	db.load(t, records)
	counting := taken(3, func() { db.countWords(t) })
	work := fmt.Sprintf(
		"tally of words to 4 tokens with families, absorption and contrast, %d + %d records",
		len(sample),
		len(contrast),
	)
	return []row{
		{work, "PostgreSQL counting single words of the same records (to_tsvector, ts_stat)", ratio(ours, counting), "≤ 1"},
		{work, "one pass that only tokenises", ratio(ours, tokenising), "≤ 10"},
	}
}

func strategies(t *testing.T, size sizes) []row {
	records := world(size.strategy)
	set := coverage.NewSet(records)
	drawn := draw(records, 40, everyKind)
	db := openPostgres(t)
	db.load(t, records)
	db.index(t)
	differ := 0
	var ours, theirs []time.Duration
	for _, s := range drawn {
		var mine, other int
		ours = append(ours, taken(3, func() { mine = count(t, set, s) }))
		theirs = append(theirs, db.time(t, s, &other))
		if mine != other {
			differ++
		}
	}
	return []row{
		{fmt.Sprintf("count of a strategy of 3 blocks × 15 terms, %d records, median of %d", size.strategy, len(drawn)),
			"PostgreSQL tsquery over a GIN index, headings as an indexed array",
			fmt.Sprintf(
				"%s; %d of %d answers are the same",
				ratio(percentile(ours, 50), percentile(theirs, 50)),
				len(drawn)-differ,
				len(drawn),
			), "≤ 1"},
	}
}

func large(t *testing.T, size sizes) []row {
	records := world(size.large)
	drawn := draw(records, 200, spoken)
	before := heap()
	began := time.Now()
	ix := index.Build(records)
	building := time.Since(began)
	memory := heap() - before
	runtime.KeepAlive(records)
	records = nil // so that neither has to carry them along
	before = heap()
	rival := openBleve(t, size.large)
	rival.bytes += heap() - before // what it holds besides the files that it maps
	var ours, theirs []time.Duration
	for _, s := range drawn {
		q, err := s.Query(nil)
		require.NoError(t, err)
		began := time.Now()
		mine := int(q.Match(ix).GetCardinality())
		ours = append(ours, time.Since(began))
		began = time.Now()
		other := rival.count(t, s)
		theirs = append(theirs, time.Since(began))
		require.Equal(t, mine, other, "%+v", s)
	}
	work := fmt.Sprintf("count of a strategy, %d records, %d strategies", size.large, len(drawn))
	return []row{
		{
			work + ", median",
			"bleve v2 with positions, the same answers",
			ratio(percentile(ours, 50), percentile(theirs, 50)),
			"< 1",
		},
		{work + ", 99th percentile", "the same", ratio(percentile(ours, 99), percentile(theirs, 99)), "< 1"},
		{
			fmt.Sprintf("time to build the index of %d records", size.large),
			"the same",
			ratio(building, rival.building),
			"< 1",
		},
		{
			fmt.Sprintf("memory of the index of %d records", size.large),
			"the same: its heap and the files it maps",
			sizeRatio(memory, rival.bytes),
			"< 1",
		},
	}
}

func blockMeasures(t *testing.T, size sizes) []row {
	records := world(size.block)
	set := coverage.NewSet(records)
	d := newDrawing(records)
	return []row{
		measures(t, set, d.blocks(1, 60), "a block of 60 terms", "≤ 3"),
		measures(t, set, d.blocks(4, 25), "4 blocks × 25 terms", "≤ 1.2"),
	}
}

// measures sets all that is told of blocks against plain counts of their terms, both on all cores.
func measures(t *testing.T, set coverage.Set, blocks []strategy.Block, what, goal string) row {
	ctx := context.Background()
	var terms []strategy.Term
	for _, b := range blocks {
		terms = append(terms, b.Terms...)
	}
	counts := taken(3, func() {
		require.NoError(t, parallel.Each(ctx, len(terms), func(i int) error {
			hits, err := coverage.Hits(set, terms[i])
			if err == nil {
				hits.GetCardinality()
			}
			return err
		}))
	})
	var kept []any
	before := heap()
	reach := must(coverage.Find(ctx, set, strategy.Strategy{Blocks: blocks}))
	for i := range blocks {
		kept = append(kept, must(coverage.Measure(ctx, reach, nil, i)))
	}
	grown := heap() - before
	runtime.KeepAlive([]any{reach, kept})
	all := taken(3, func() {
		reach := must(coverage.Find(ctx, set, strategy.Strategy{Blocks: blocks}))
		for i := range blocks {
			must(coverage.Measure(ctx, reach, nil, i))
		}
	})
	work := fmt.Sprintf(
		"hits, only here, staircase, inside of %s, %d records; they take %d MB",
		what,
		len(set.Records),
		grown>>20,
	)
	return row{work, "the plain counts of the terms", ratio(all, counts), goal}
}

func growth(t *testing.T, size sizes) []row {
	var times [2]time.Duration
	var memory [2]uint64
	for i, n := range size.growth {
		records := world(n)
		drawn := draw(records, 20, everyKind)
		before := heap()
		var ix *index.Index
		times[i] = taken(2, func() {
			ix = index.Build(records)
			for _, s := range drawn {
				count(t, coverage.Set{Records: records, Index: ix}, s)
			}
		})
		memory[i] = heap() - before
		runtime.KeepAlive(ix)
		runtime.KeepAlive(records)
	}
	factor := size.growth[1] / size.growth[0]
	work := fmt.Sprintf("index and 20 strategies, %d records", size.growth[1])
	against := fmt.Sprintf("%d records", size.growth[0])
	return []row{
		{work, against, ratio(times[1], times[0]), fmt.Sprintf("≤ %d in time", factor)},
		{work, against, sizeRatio(memory[1], memory[0]), fmt.Sprintf("≤ %d in memory", factor)},
	}
}

// pools measures what is kept of a pool, and then looking from above at any set of it.
func pools(t *testing.T, _ sizes) []row {
	records := world(34_000)
	tokens := taken(2, func() {
		for _, r := range records {
			r.Values(bib.TitleAbstract, func(_ bib.Field, v string) { text.Scan(v, func([]byte, bool) {}) })
		}
	})
	var p *tally.Pool
	before := heap()
	building := taken(2, func() {
		p = must(tally.NewPool(context.Background(), records[:10_000], records[10_000:]))
		p.Keep()
		require.NotEmpty(t, must(tally.CountWords(context.Background(), p, nil, tally.DefaultWords)).Rows)
		require.NotZero(t, must(company.Build(context.Background(), p.Index, p.Index.All())).Len())
	})
	memory := heap() - before
	every := func(n uint32) *roaring.Bitmap {
		set := roaring.New()
		for i := uint32(0); i < uint32(len(records)); i += n {
			set.Add(i)
		}
		return set
	}
	rows := []row{
		{
			fmt.Sprintf(
				"pool of 10,000 + 24,000 records: index, items with their records, families, absorption, company; %.0f "+
					"records a second, %.0f MB",
				float64(len(records))/building.Seconds(),
				float64(memory)/1e6,
			),
			"one pass that only tokenises",
			ratio(building, tokens),
			"printed",
		},
	}
	for _, n := range []uint32{2, 10} {
		sample := every(n)
		over := p.Over(sample, p.Index.All())
		read := &tally.Pool{Records: p.Records, Index: p.Index, Sample: over.Sample, Contrast: over.Contrast}
		var kept, counted *tally.Tally
		fast := taken(5, func() { kept = must(tally.CountWords(context.Background(), over, nil, tally.DefaultWords)) })
		slow := taken(2, func() { counted = must(tally.CountWords(context.Background(), read, nil, tally.DefaultWords)) })
		require.Equal(t, len(counted.Rows), len(kept.Rows))
		rows = append(
			rows,
			row{
				fmt.Sprintf("tally of words of %d of these records against the rest", sample.GetCardinality()),
				"counting it from the text",
				ratio(fast, slow),
				"≤ 0.10",
			},
		)
		families := taken(3, func() { must(tally.Fold(context.Background(), over, nil, tally.DefaultWords)) })
		rows = append(
			rows,
			row{
				fmt.Sprintf("the same folded into families: %d items", len(kept.Rows)),
				"counting it from the text",
				ratio(families, slow),
				"printed",
			},
		)
	}
	return rows
}

func companies(t *testing.T, _ sizes) []row {
	records := world(34_000)
	// Both begin with the records.
	var p *tally.Pool
	pool := func() { p = must(tally.NewPool(context.Background(), records[:10_000], records[10_000:])) }
	counting := taken(2, func() { pool(); must(tally.CountWords(context.Background(), p, nil, tally.DefaultWords)) })
	s := demo.NewReview().Strategy()
	s.Blocks = append(
		s.Blocks,
		strategy.Block{Name: "D", Terms: []strategy.Term{{Kind: "text", Text: "sleep", On: true, Field: "text"}}},
	)
	all := taken(2, func() {
		pool()
		c := must(company.Build(context.Background(), p.Index, p.Index.All()))
		fits, err := c.Fits(context.Background(), s)
		require.NoError(t, err)
		for _, f := range fits[:100] {
			_, ok := c.Alike(f.Item, 20)
			require.True(t, ok)
		}
	})
	pool()
	p.Keep()
	words := taken(1, func() { must(p.Grams(context.Background())) })
	once := taken(2, func() { must(company.Of(context.Background(), p)) })
	twice := taken(2, func() { must(company.Build(context.Background(), p.Index, p.Index.All())) })
	return []row{
		{
			fmt.Sprintf("company of them, where the pool keeps its words (counted in %s)", short(words)),
			"finding their n-grams once more",
			ratio(once, twice),
			"< 1",
		},
		{
			"company of all items of 10,000 + 24,000 records, 100 alike, fit of all items to 4 blocks",
			"the tally of words of the same records",
			ratio(all, counting),
			"≤ 5",
		}}
}

func rescues(t *testing.T, _ sizes) []row {
	records := world(24_000)
	set := coverage.NewSet(records)
	s := draw(records, 1, func(d *drawing) []strategy.Block { return d.blocks(4, 25) })[0]
	whole, err := coverage.Find(context.Background(), set, s)
	require.NoError(t, err)
	var studies []*bib.Record // 30 that are missed
	for i, r := range records {
		if len(studies) < 30 && !whole.Whole.Contains(uint32(i)) {
			studies = append(studies, r)
		}
	}
	keys := coverage.NewSet(studies)
	candidates, steps := 0, 0
	kept := must(company.Build(context.Background(), set.Index, set.Index.All())) // which a pool keeps
	all := taken(2, func() {
		suits, err := coverage.NewSuits(context.Background(), set, kept, s)
		require.NoError(t, err)
		r, err := coverage.NewRescuer(context.Background(), set, keys, s, suits)
		require.NoError(t, err)
		var blocks []coverage.BlockRescue
		candidates = 0
		for i := range s.Blocks {
			blocks = append(blocks, must(r.Block(context.Background(), i)))
			candidates += len(blocks[i].Candidates)
		}
		steps = len(must(r.Plan(context.Background(), blocks)))
	})
	counting := taken(3, func() { count(t, set, s) })
	return []row{
		{
			fmt.Sprintf(
				"rescue (%d candidates) and plan (%d steps) for 30 missed studies, 4 blocks × 25 terms, 24,000 records, their "+
					"company known",
				candidates,
				steps,
			),
			"the count of the strategy",
			ratio(all, counting),
			"≤ 1.5 s in all",
		},
	}
}

func count(t *testing.T, set coverage.Set, s strategy.Strategy) int {
	q, err := s.Query(nil)
	require.NoError(t, err)
	return int(q.Match(set.Index).GetCardinality())
}

func percentile(times []time.Duration, p int) time.Duration {
	sorted := slices.Sorted(slices.Values(times))
	return sorted[min(len(sorted)*p/100, len(sorted)-1)]
}

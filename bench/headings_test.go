package bench

import (
	"bufio"
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"path/filepath"
	"runtime"
	"slices"
	"strings"
	"sync/atomic"
	"testing"
	"time"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/heading"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
	"tamiz/demo"
	"tamiz/exchange"
	"tamiz/exchange/skos"
)

const (
	manyHeadings = 300_000
	ofEach       = 8  // labels and entry terms, in several languages
	levels       = 12 // of the tree
)

// largeVocabulary writes a made-up vocabulary of real size as N-Triples and returns how many statements it has, and
// some of its labels.
func largeVocabulary(t *testing.T, to string) (triples int, labels []string) {
	const core = "http://www.w3.org/2004/02/skos/core#"
	file, err := os.Create(to)
	require.NoError(t, err)
	defer file.Close()
	w := bufio.NewWriterSize(file, 1<<20)
	r := rand.New(rand.NewPCG(4, 2))
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
		"yar",
		"zel",
	}
	var stock []string
	for range 40_000 {
		word := ""
		for range 2 + r.IntN(3) {
			word += syllables[r.IntN(len(syllables))]
		}
		stock = append(stock, word)
	}
	phrase := func() string {
		var out []string
		for range 1 + r.IntN(3) {
			// As in every language a few words are in very many labels.
			out = append(out, stock[int(float64(len(stock))*r.Float64()*r.Float64()*r.Float64())])
		}
		return strings.Join(out, " ")
	}
	say := func(format string, args ...any) {
		fmt.Fprintf(w, format, args...)
		triples++
	}
	languages := []string{"en", "es", "pt", "de", "fr", "it", "pl"}
	// Each level is about twice and a half as large as the one above.
	begins := []int{0}
	for size := 5.0; begins[len(begins)-1] < manyHeadings && len(begins) < levels; size *= 2.6 {
		begins = append(begins, min(manyHeadings, begins[len(begins)-1]+int(size)))
	}
	begins = append(begins, manyHeadings)
	for level := range len(begins) - 1 {
		for i := begins[level]; i < begins[level+1]; i++ {
			id := fmt.Sprintf("<v:%d>", i)
			label := phrase() + fmt.Sprint(" ", i%97)
			if i%500 == 0 {
				labels = append(labels, label)
			}
			say("%s <%sprefLabel> \"%s\"@en .\n", id, core, label)
			for k := 1; k < len(languages) && k < ofEach/2; k++ {
				say("%s <%sprefLabel> \"%s\"@%s .\n", id, core, phrase(), languages[k])
			}
			for k := range ofEach / 2 {
				say("%s <%saltLabel> \"%s\"@%s .\n", id, core, phrase(), languages[k%2])
			}
			if level > 0 {
				above := begins[level] - begins[level-1]
				say("%s <%sbroader> <v:%d> .\n", id, core, begins[level-1]+r.IntN(above))
			}
			if i%3 == 0 {
				say("%s <%sscopeNote> \"%s %s %s\"@en .\n", id, core, phrase(), phrase(), phrase())
			}
		}
	}
	require.NoError(t, w.Flush())
	return triples, labels
}

// headings measures a vocabulary of real size, and what is asked of one.
func headings(t *testing.T, size sizes) []row {
	dir := t.TempDir()
	name := filepath.Join(dir, "large.nt")
	triples, labels := largeVocabulary(t, name)
	before := heap()
	var v *thesaurus.Thesaurus
	var peak atomic.Uint64
	stop := make(chan struct{})
	go func() {
		for {
			select {
			case <-stop:
				return
			case <-time.After(20 * time.Millisecond):
				var m runtime.MemStats
				runtime.ReadMemStats(&m)
				if m.HeapInuse > peak.Load() {
					peak.Store(m.HeapInuse)
				}
			}
		}
	}()
	began := time.Now()
	file, err := os.Open(name)
	require.NoError(t, err)
	v, err = skos.Load(file, "en", func(exchange.Notice) {})
	require.NoError(t, err)
	file.Close()
	took := time.Since(began)
	close(stop)
	keeps := heap() - before
	require.Equal(t, manyHeadings, v.Len())
	rows := []row{
		{
			fmt.Sprintf("N-Triples of %d headings, %d statements", v.Len(), triples),
			"–",
			fmt.Sprintf("%s, %.2f million a second", short(took), float64(triples)/1e6/took.Seconds()),
			"< 60 s",
		},
		{
			"its peak memory, and what is kept",
			"–",
			fmt.Sprintf("%.2f GB, %.0f MB (it says %.0f)", float64(peak.Load())/1e9, float64(keeps)/1e6, float64(v.Bytes())/1e6),
			"< 1.5 GB, < 400 MB",
		},
	}
	rows = append(rows, fromTheStore(t, v))
	rows = append(rows, asTyped(t, v, labels)...)
	rows = append(rows, branch(t, v))
	runtime.KeepAlive(v)
	v = nil
	rows = append(rows, evidence(t))
	return append(rows, nodes(t, size))
}

// branch measures a heading at the top with all below it over 50,000 records that carry 20,000 of the headings,
// beside walking through what all records carry.
func branch(t *testing.T, v *thesaurus.Thesaurus) row {
	r := rand.New(rand.NewPCG(7, 7))
	var records []*bib.Record
	for range 50_000 {
		record := &bib.Record{Title: "Made up"}
		for range 10 {
			record.Headings = append(record.Headings, bib.Assignment{Label: v.Label(r.IntN(20_000) * 15)})
		}
		records = append(records, record)
	}
	ix := index.Build(records)
	top, most := 0, 0
	for h := range v.Len() {
		if len(v.Broader(h)) == 0 {
			if n := len(v.Below(h)); n > most {
				top, most = h, n
			}
		}
	}
	term := strategy.Term{Kind: strategy.HeadingTerm, Heading: v.Label(top), Narrower: true}
	var q query.Expr
	var before, after runtime.MemStats
	runtime.GC()
	runtime.ReadMemStats(&before)
	said := taken(5, func() { q = must(term.QueryIn(v)) })
	runtime.GC()
	runtime.ReadMemStats(&after)
	found := 0
	took := taken(5, func() { found = int(q.Match(ix).GetCardinality()) })
	below := map[string]bool{}
	for _, h := range v.Below(top) {
		below[text.Label(v.Label(h))] = true
	}
	scanned := 0
	scan := taken(5, func() {
		scanned = 0
		for _, record := range records {
			if slices.ContainsFunc(record.Headings, func(a bib.Assignment) bool { return below[text.Label(a.Label)] }) {
				scanned++
			}
		}
	})
	require.Equal(t, scanned, found)
	return row{
		fmt.Sprintf(
			"a heading with %d below it, over 50,000 records: said in %s and %.1f MB, found",
			most-1,
			short(said),
			float64(int64(after.HeapAlloc)-int64(before.HeapAlloc))/1e6,
		),
		"a walk through what the records carry",
		ratio(took, scan),
		"printed",
	}
}

// fromTheStore measures how long a vocabulary takes from the form in which it is kept.
func fromTheStore(t *testing.T, v *thesaurus.Thesaurus) row {
	name := filepath.Join(t.TempDir(), "packed")
	file, err := os.Create(name)
	require.NoError(t, err)
	require.NoError(t, v.Write(file))
	require.NoError(t, file.Close())
	took := taken(1, func() {
		file, err := os.Open(name)
		require.NoError(t, err)
		defer file.Close()
		again, err := thesaurus.Read(bufio.NewReader(file))
		require.NoError(t, err)
		require.Equal(t, v.Len(), again.Len())
	})
	return row{"the same vocabulary read back as it is kept", "–", short(took), "seconds"}
}

// asTyped looks words up letter by letter, beside a scan of all labels and PostgreSQL's trigrams.
func asTyped(t *testing.T, v *thesaurus.Thesaurus, labels []string) []row {
	var typed []string
	for _, l := range labels[:120] {
		word := text.Tokens(l)[0]
		for n := 2; n <= len(word); n++ {
			typed = append(typed, word[:n])
		}
		typed = append(typed, l, word[:len(word)-1]+"q") // all of it, and a letter wrong
	}
	var times []time.Duration
	for _, w := range typed {
		began := time.Now()
		v.Suggest(w, 60)
		times = append(times, time.Since(began))
	}
	slices.Sort(times)
	var all []string
	for h := range v.Len() {
		all = append(all, text.Normalise(v.Label(h)))
		for _, e := range v.EntryTerms(h) {
			all = append(all, text.Normalise(e))
		}
	}
	few := typed[:40]
	scan := taken(1, func() {
		for _, w := range few {
			n := 0
			for _, l := range all {
				if strings.Contains(l, w) {
					n++
				}
			}
			_ = n
		}
	}) / time.Duration(len(few))
	p := openPostgres(t)
	p.do(t, "create extension pg_trgm")
	p.do(t, "create table label (words text)")
	_, err := p.CopyFrom(
		context.Background(),
		pgx.Identifier{"label"},
		[]string{"words"},
		pgx.CopyFromSlice(len(all), func(i int) ([]any, error) { return []any{all[i]}, nil }),
	)
	require.NoError(t, err)
	p.do(t, "create index on label using gin (words gin_trgm_ops)")
	p.do(t, "analyze label")
	var there []time.Duration
	for _, w := range few {
		began := time.Now()
		var n int
		require.NoError(
			t,
			p.QueryRow(context.Background(), "select count(*) from (select 1 from label where words ilike '%' || $1 || '%' "+
				"or $1 <% words limit 60) x", w).
				Scan(&n),
		)
		there = append(there, time.Since(began))
	}
	slices.Sort(there)
	return []row{
		{
			fmt.Sprintf("looking up as one types, %d words, median", len(typed)),
			"the goal",
			short(percentile(times, 50)),
			"≤ 5 ms",
		},
		{"the same, 99th of 100", "the goal", short(percentile(times, 99)), "≤ 25 ms"},
		{
			"the same, median",
			fmt.Sprintf("a scan of %d labels of one language", len(all)),
			ratio(percentile(times, 50), scan),
			"< 1",
		},
		{
			"the same, median",
			"PostgreSQL, trigrams in a GIN index",
			ratio(percentile(times, 50), percentile(there, 50)),
			"< 1",
		},
	}
}

// evidence measures which headings records carry that say a word.
func evidence(t *testing.T) row {
	records := world(34_000)
	set := coverage.NewSet(records)
	set.Thesaurus, _ = thesaurus.Build(demo.Headings(), "")
	pool := &tally.Pool{
		Records:   set.Records,
		Index:     set.Index,
		Sample:    set.All(),
		Contrast:  roaring.New(),
		Thesaurus: set.Thesaurus,
	}
	pool.Keep()
	took := taken(5, func() {
		said, err := coverage.Hits(set, strategy.Term{Kind: strategy.TextTerm, Text: "shade", Field: "text", On: true})
		require.NoError(t, err)
		_, _, err = coverage.HeadingsOfRecords(context.Background(), pool, said)
		require.NoError(t, err)
	})
	return row{"evidence for a word over 34,000 records", "the goal", short(took), "≤ 50 ms"}
}

// nodes measures the figures of the nodes in sight beside counting as many tokens.
func nodes(t *testing.T, size sizes) row {
	records := world(size.large)
	set := coverage.NewSet(records)
	set.Thesaurus, _ = thesaurus.Build(demo.Headings(), "")
	v := set.Thesaurus
	var shown []int
	for h := 0; h < v.Len() && len(shown) < 60; h += v.Len() / 60 {
		shown = append(shown, h)
	}
	words := map[string]bool{}
	for _, r := range records[:2000] {
		for _, token := range text.Tokens(r.Title) {
			if len(token) > 5 && len(words) < len(shown) {
				words[token] = true
			}
		}
	}
	look := heading.Look{Set: set}
	of := taken(5, func() {
		_, err := look.Nodes(context.Background(), shown)
		require.NoError(t, err)
	})
	tokens := taken(5, func() {
		for w := range words {
			set.Index.Gram([]string{w}, bib.TitleAbstract).GetCardinality()
		}
	})
	return row{
		fmt.Sprintf("figures of %d headings in sight, %d records", len(shown), len(records)),
		fmt.Sprintf("counting %d words", len(words)),
		ratio(of, tokens),
		"≤ 2",
	}
}

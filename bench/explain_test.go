package bench

import (
	"context"
	"fmt"
	"math/rand/v2"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/dialect"
	"tamiz/core/explain"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/demo"
)

const (
	drawnQueries = 60 // a topic and kind
	leastOfTerm  = 30 // records
)

// explaining tells how often findings about concepts are right: over queries whose terms are drawn from those that
// are known to be about a concept, with and without a mistake; and how fast queries are read, explained and
// written.
func explaining(t *testing.T, _ sizes) []row {
	w := demo.NewWorld(demo.Seed, demo.AlmagreSize)
	rng := rand.New(rand.NewPCG(1, 2))
	cql, _ := dialect.Named("cql")
	var anded, ored, merged, cleanly, alone, two tallied
	ctx := context.Background()
	var over explain.Over
	var terms [][]string
	for _, topic := range demo.Topics {
		s := newSpecialist(w.Records, w.About, topic)
		c := must(company.Build(ctx, s.index.Index, s.index.All()))
		over = explain.Over{
			Set:     coverage.Set{Records: s.index.Records, Index: s.index.Index},
			Company: func() (*company.Company, error) { return c, nil },
		}
		terms = make([][]string, len(topic.Concepts))
		families := map[string]bool{}
		for i, concept := range topic.Concepts {
			for _, item := range concept.Written() {
				if key := text.FamilyKey(strings.Fields(item)); s.says([]string{item}).GetCardinality() >= leastOfTerm &&
					!families[key] {
					families[key] = true
					terms[i] = append(terms[i], item)
				}
			}
		}
		drawn := func(i, n int) []string {
			n = min(n, len(terms[i]))
			out := make([]string, n)
			for k, at := range rng.Perm(len(terms[i]))[:n] {
				out[k] = terms[i][at]
			}
			return out
		}
		found := func(q string) map[string]bool {
			r, err := cql.Read(q, nil)
			require.NoError(t, err)
			e, err := explain.Explain(ctx, r, over)
			require.NoError(t, err)
			codes := map[string]bool{}
			for _, f := range e.Findings {
				codes[f.Code] = true
			}
			return codes
		}
		any := func(words []string) string { return `("` + strings.Join(words, `" or "`) + `")` }
		for range drawnQueries {
			a, b := drawn(0, 3+rng.IntN(3)), drawn(1, 3+rng.IntN(3))
			codes := found(any(a) + " and " + any(b))
			cleanly.count(!codes[explain.OrAmongConcepts] && !codes[explain.AndAmongSynonyms])
			ored.count(found(any(append(a[:2:2], b[0])) + " and " + any(b[1:]))[explain.OrAmongConcepts])
			merged.count(found(any(append(a[:2:2], b[:2]...)))[explain.OrAmongConcepts])
			alone.count(!found(any(a))[explain.OrAmongConcepts])
			alone.count(!found(any(a[:2]))[explain.OrAmongConcepts])
			two.count(found(any([]string{a[0], b[0]}))[explain.OrAmongConcepts])
			anded.count(found(`("` + a[0] + `" and "` + a[1] + `") and ` + any(b))[explain.AndAmongSynonyms])
		}
	}
	rows := []row{
		{"of queries without a mistake, those in which none is found about concepts", "–", cleanly.String(), "1"},
		{"of concepts by themselves, those in which none is found", "–", alone.String(), "1"},
		{"of terms of the other concept that stand among those of one, those that are found", "–", ored.String(), "printed"},
		{"of two concepts joined by OR alone, those that are found", "–", merged.String(), "printed"},
		{"of two terms, one of each concept, joined by OR alone, those that are found", "–", two.String(), "printed"},
		{"of terms of one concept joined by AND, those that are found", "–", anded.String(), "printed"},
	}
	return append(rows, querySpeeds(t, over, terms, rng)...)
}

// querySpeeds tells how fast a query of 1 MB is read, one of 300 terms explained, and 2,000 terms written.
func querySpeeds(t *testing.T, over explain.Over, terms [][]string, rng *rand.Rand) []row {
	cql, _ := dialect.Named("cql")
	var big strings.Builder
	for big.Len() < 1_000_000 {
		fmt.Fprintf(
			&big,
			`(title = "%s" or "%s*" or abstract = %s) and `,
			terms[0][rng.IntN(len(terms[0]))],
			terms[1][rng.IntN(len(terms[1]))],
			strings.Fields(terms[0][0])[0],
		)
	}
	long := strings.TrimSuffix(big.String(), " and ")
	reading := taken(3, func() { must(cql.Read(long, nil)) })
	words := taken(3, func() { text.Tokens(long) })
	var blocks []string
	items := must(over.Company()).ItemsIn(over.Set.All())
	for i := range terms {
		var all []string
		for k := range 150 {
			all = append(all, `"`+items[(7*k+3*i)%len(items)]+`"`)
		}
		blocks = append(blocks, "("+strings.Join(all, " or ")+")")
	}
	query300 := strings.Join(blocks, " and ")
	explained := taken(3, func() {
		r := must(cql.Read(query300, nil))
		must(explain.Explain(context.Background(), r, over))
	})
	var b strategy.Block
	for i := range 2000 {
		b.Terms = append(
			b.Terms,
			strategy.Term{Kind: strategy.TextTerm, Text: terms[i%2][i%len(terms[i%2])] + "*", Field: "text", On: true},
		)
	}
	var or query.Or
	for _, term := range b.Terms {
		or = append(or, must(term.Query()))
	}
	var slowest time.Duration
	which := ""
	for _, d := range dialect.Known() {
		if took := taken(3, func() { d.Write(or, dialect.Options{}) }); took > slowest {
			slowest, which = took, d.Name
		}
	}
	plain := taken(3, func() { query.Write(or) })
	return []row{
		{
			"reading a query of 1 MB",
			"cutting it into words " + ratio(reading, words),
			fmt.Sprintf("%s, %.1f MB/s", short(reading), float64(len(long))/1e6/reading.Seconds()),
			"≥ 5 MB/s",
		},
		{"explaining 300 terms over 24,000 records", "–", short(explained), "≤ 1 s"},
		{
			"writing 2,000 terms in the slowest dialect (" + which + ")",
			"as CQL by the one writer " + ratio(slowest, plain),
			short(slowest),
			"< 50 ms",
		},
	}
}

package bench

import (
	"context"
	"crypto/sha256"
	"fmt"
	"runtime"
	"testing"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/likeness"
	"tamiz/core/overlap"
	"tamiz/core/strategy"
	"tamiz/demo"
)

// logbooks: two versions compared, the same works among answers, and how likely new records are.
func logbooks(t *testing.T, _ sizes) []row {
	records := world(24_000)
	set := coverage.NewSet(records)
	plan := demo.NewReview()
	var now strategy.Strategy
	for _, c := range plan.Concepts {
		now.Blocks = append(now.Blocks, c.Block)
	}
	now.Limits = plan.Limits
	before := now
	before.Limits = nil
	compared := taken(9, func() {
		for _, s := range []strategy.Strategy{before, now} {
			must(coverage.Find(context.Background(), set, s))
		}
	})
	rows := []row{{"two versions compared over 24,000 records, nothing remembered", "", short(compared), "≤ 50 ms"}}

	// Four sources hold 25,000 records each, a third of them shared with the next.
	all := world(75_000)
	var ids []bib.Identity
	var source []int
	for s := range 4 {
		for i := range 25_000 {
			ids, source = append(ids, bib.IdentityOf(all[s*16_600+i])), append(source, s)
		}
	}
	held := heap()
	var works *bib.Works
	var answers []overlap.Answer
	numbered := taken(3, func() {
		works, answers = &bib.Works{}, make([]overlap.Answer, 4)
		seen := make([]map[int]bool, 4)
		for s := range seen {
			seen[s] = map[int]bool{}
		}
		for i, id := range ids {
			if n := works.Number(id); !seen[source[i]][n] {
				seen[source[i]][n] = true
				answers[source[i]].Works = append(answers[source[i]].Works, n)
			}
		}
		for s := range answers {
			answers[s].Records = len(answers[s].Works)
		}
		overlap.Of(answers)
	})
	full := heap()
	runtime.KeepAlive(works)
	grown := full - min(held, full)
	o := overlap.Of(answers)
	shared := 0
	for i := range answers {
		for k := range i {
			shared += int(o.Both[k][i].Works)
		}
	}
	db := openPostgres(t)
	db.do(t, "create table w (source int, n int, doi bytea, work bytea, year int)")
	_, err := db.CopyFrom(
		context.Background(),
		pgx.Identifier{"w"},
		[]string{"source", "n", "doi", "work", "year"},
		pgx.CopyFromSlice(len(ids), func(i int) ([]any, error) {
			digest := func(d bib.Digest) []byte {
				if d == (bib.Digest{}) {
					return nil
				}
				return d[:]
			}
			return []any{
				source[i],
				i,
				digest(ids[i].DOI),
				digest(byWords(all[source[i]*16_600+i-source[i]*25_000])),
				ids[i].Year,
			}, nil
		}),
	)
	require.NoError(t, err)
	db.do(t, "analyze w")
	var joined int
	sql := taken(3, func() {
		require.NoError(t, db.QueryRow(context.Background(), `select count(*) from (
			select a.n, b.n from w a join w b on a.source < b.source and a.doi = b.doi union
			select a.n, b.n from w a join w b on a.source < b.source and a.work = b.work and abs(a.year - b.year) <= 1) x`).Scan(&joined))
	})
	rows = append(
		rows,
		row{
			fmt.Sprintf(
				"same works among 100,000 records of four sources, %s kept (%d pairs; the join has %d)",
				sizeOf(grown),
				shared,
				joined,
			),
			"a join in PostgreSQL on the same digests, " + short(
				sql,
			),
			fmt.Sprintf("%s, %s", short(numbered), ratio(numbered, sql)),
			"≤ 3 s",
		},
	)

	m := likeness.Of(records[:40], records[40:600])
	fresh := records[1000:6000]
	scored := taken(3, func() {
		for _, r := range fresh {
			m.Score(r)
		}
	})
	return append(rows, row{"how likely 5,000 new records are", "", short(scored), "≤ 2 s"})
}

// byWords stands for the words of the title and the first author, by which a database can join.
func byWords(r *bib.Record) (d bib.Digest) {
	if key := r.WorkKey(); key != "" {
		sum := sha256.Sum256([]byte(key))
		d = bib.Digest(sum[:16])
	}
	return d
}

// sizeOf writes bytes in megabytes.
func sizeOf(bytes uint64) string { return fmt.Sprintf("%.0f MB", float64(bytes)/1e6) }

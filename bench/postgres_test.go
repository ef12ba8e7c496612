package bench

import (
	"context"
	"fmt"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/store/cluster"
)

// postgres is a PostgreSQL with the records in it: their normalised tokens, so that both sides see the same
// words, with a gap between values that no phrase or pair spans.
type postgres struct {
	*pgx.Conn
}

func openPostgres(t *testing.T) postgres {
	ctx := context.Background()
	dir, err := os.MkdirTemp("", "tamiz-bench-")
	require.NoError(t, err)
	t.Cleanup(func() { os.RemoveAll(dir) })
	require.NoError(t, os.Chmod(dir, 0o755)) // whom the database runs as has to pass
	server, err := cluster.Start(ctx, dir, true)
	require.NoError(t, err)
	t.Cleanup(server.Stop)
	c, err := pgx.Connect(ctx, server.URL)
	require.NoError(t, err)
	t.Cleanup(func() { c.Close(ctx) })
	p := postgres{c}
	p.do(t, "set max_parallel_workers_per_gather = 2")
	p.do(t, "set work_mem = '256MB'")
	p.do(t, "set maintenance_work_mem = '512MB'")
	return p
}

func (p postgres) do(t *testing.T, sql string) {
	_, err := p.Exec(context.Background(), sql)
	require.NoError(t, err)
}

// gap parts the values of a record: as many words as a pair may be apart.
const gap = " zzgapa zzgapb zzgapc zzgapd "

func (p postgres) load(t *testing.T, records []*bib.Record) {
	p.do(t, "create table doc (id int primary key, body text, keywords text, headings text[])")
	_, err := p.CopyFrom(
		context.Background(),
		pgx.Identifier{"doc"},
		[]string{"id", "body", "keywords", "headings"},
		pgx.CopyFromSlice(len(records), func(i int) ([]any, error) {
			r := records[i]
			var headings, keywords []string
			for _, h := range r.Headings {
				headings = append(headings, text.Label(h.Label))
			}
			for _, k := range r.Keywords {
				keywords = append(keywords, text.Key(k))
			}
			return []any{i, text.Key(r.Title) + gap + text.Key(r.Abstract), strings.Join(keywords, gap), headings}, nil
		}),
	)
	require.NoError(t, err)
	p.do(t, "analyze doc")
}

func (p postgres) countWords(t *testing.T) {
	var n int
	require.NoError(
		t,
		p.QueryRow(context.Background(), "select count(*) from ts_stat('select to_tsvector(''simple'', body) from doc')").
			Scan(&n),
	)
}

func (p postgres) index(t *testing.T) {
	p.do(t, "alter table doc add words tsvector")
	p.do(t, "update doc set words = to_tsvector('simple', body || '"+gap+"' || keywords)")
	p.do(t, "create index on doc using gin (words)")
	p.do(t, "create index on doc using gin (headings)")
	p.do(t, "vacuum analyze doc")
}

// where returns a strategy as a condition.
func where(s strategy.Strategy) string {
	var blocks []string
	for _, b := range s.Blocks {
		var words, headings []string
		for _, t := range b.Terms {
			switch t.Kind {
			case strategy.HeadingTerm:
				headings = append(headings, "'"+strings.ReplaceAll(text.Label(t.Heading), "'", "''")+"'")
			case strategy.NearTerm:
				var ways []string
				for d := 1; d <= t.Within; d++ {
					ways = append(ways, fmt.Sprintf("%s <%d> %s", t.Left, d, t.Right), fmt.Sprintf("%s <%d> %s", t.Right, d, t.Left))
				}
				words = append(words, "("+strings.Join(ways, " | ")+")")
			default:
				phrase := strings.Fields(strings.ReplaceAll(t.Text, "*", ":*"))
				words = append(words, "("+strings.Join(phrase, " <-> ")+")")
			}
		}
		var any []string
		if len(words) > 0 {
			any = append(any, "words @@ '"+strings.Join(words, " | ")+"'::tsquery")
		}
		if len(headings) > 0 {
			any = append(any, "headings && array["+strings.Join(headings, ",")+"]")
		}
		blocks = append(blocks, "("+strings.Join(any, " or ")+")")
	}
	return strings.Join(blocks, " and ")
}

// time counts a strategy with a prepared statement, warm.
func (p postgres) time(t *testing.T, s strategy.Strategy, found *int) time.Duration {
	ctx := context.Background()
	_, err := p.Prepare(ctx, "count", "select count(*) from doc where "+where(s))
	require.NoError(t, err)
	defer func() { require.NoError(t, p.Deallocate(ctx, "count")) }()
	return taken(3, func() { require.NoError(t, p.QueryRow(ctx, "count").Scan(found)) })
}

package bench

import (
	"context"
	"fmt"
	"math/rand/v2"
	"os"
	"strings"
	"testing"
	"time"

	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/dialect"
	"tamiz/core/explain"
	"tamiz/core/index"
	"tamiz/core/thesaurus"
	"tamiz/demo"
)

// A longQuery is a shape of query that may be as long as one likes, with how long it is looked at.
type longQuery struct {
	name string
	n    int
	make func(n int, word func() string, heading func() string) string
}

// each writes n parts with something between them.
func each(n int, between string, part func(i int) string) string {
	var b strings.Builder
	for i := range n {
		if i > 0 {
			b.WriteString(between)
		}
		b.WriteString(part(i))
	}
	return b.String()
}

// longestExplained is how long a query is waited for.
const longestExplained = 20 * time.Second

var longQueries = []longQuery{
	{"words joined by OR", 20_000, func(n int, word, _ func() string) string {
		return each(n, " or ", func(int) string { return word() })
	}},
	{"words joined by AND", 20_000, func(n int, word, _ func() string) string {
		return each(n, " and ", func(int) string { return word() })
	}},
	{"words that are nowhere", 20_000, func(n int, _, _ func() string) string {
		return each(n, " or ", func(i int) string { return fmt.Sprintf("word%dless", i) })
	}},
	{"misspelt words", 20_000, func(n int, word, _ func() string) string {
		return each(n, " or ", func(i int) string { w := word(); return w[:len(w)-1] + "x" + w[len(w)-1:] })
	}},
	{"one word again and again", 20_000, func(n int, word, _ func() string) string {
		w := word()
		return each(n, " or ", func(int) string { return w })
	}},
	{"stems", 20_000, func(n int, word, _ func() string) string {
		return each(n, " or ", func(int) string { w := word(); return w[:max(4, len(w)-2)] + "*" })
	}},
	{"misspelt stems", 20_000, func(n int, word, _ func() string) string {
		return each(n, " or ", func(int) string { w := word(); return w[:len(w)-1] + "x" + w[len(w)-1:] + "*" })
	}},
	{"short stems", 20_000, func(n int, word, _ func() string) string {
		return each(n, " or ", func(int) string { return word()[:2] + "*" })
	}},
	{"words with a sign at their beginning", 20_000, func(n int, word, _ func() string) string {
		return each(n, " or ", func(int) string { return "?" + word()[1:] })
	}},
	{"phrases that begin alike", 20_000, func(n int, word, _ func() string) string {
		return each(n, " or ", func(int) string { return `"sleep ` + word() + `"` })
	}},
	{"pairs", 10_000, func(n int, word, _ func() string) string {
		return each(n, " or ", func(int) string { return word() + " prox/distance<5 " + word() })
	}},
	{"headings", 10_000, func(n int, _, heading func() string) string {
		return each(n, " or ", func(int) string { return `heading =/narrower "` + heading() + `"` })
	}},
	{"brackets side by side", 30_000, func(n int, word, _ func() string) string {
		return each(n, " and ", func(int) string { return "(" + word() + " or " + word() + ")" })
	}},
	{"brackets in each other", 30_000, func(n int, word, _ func() string) string {
		return strings.Repeat("(", n) + word() + each(n, "", func(int) string { return " or " + word() + ")" })
	}},
	{"brackets in each other, OR and AND", 30_000, func(n int, word, _ func() string) string {
		return strings.Repeat(
			"(",
			n,
		) + word() + each(
			n,
			"",
			func(i int) string { return [2]string{" or ", " and "}[i%2] + word() + ")" },
		)
	}},
	{"languages joined by AND", 10_000, func(n int, word, _ func() string) string {
		return each(
			n,
			" and ",
			func(i int) string { return fmt.Sprintf(`dc.language = "%c%c%c"`, 'a'+i%26, 'a'+i/26%26, 'a'+i/676%26) },
		)
	}},
	{"NOT after NOT", 20_000, func(n int, word, _ func() string) string {
		return each(n, " not ", func(int) string { return word() })
	}},
	{"lines that name the line before", 5_000, func(n int, word, _ func() string) string {
		return each(n, "\n", func(i int) string {
			if i == 0 {
				return "1 " + word()
			}
			return fmt.Sprintf("%d %d or %s", i+1, i, word())
		})
	}},
	{"lines that name the two before", 5_000, func(n int, word, _ func() string) string {
		return each(n, "\n", func(i int) string {
			if i < 2 {
				return fmt.Sprintf("%d %s", i+1, word())
			}
			return fmt.Sprintf("%d %d %s %d", i+1, i, [2]string{"or", "and"}[i%2], i-1)
		})
	}},
	{"lines that name one line", 5_000, func(n int, word, _ func() string) string {
		return "1 " + each(
			2000,
			" or ",
			func(int) string { return word() },
		) + "\n" + each(
			n,
			"\n",
			func(i int) string { return fmt.Sprintf("%d 1 or %s", i+2, word()) },
		)
	}},
	{"lines of all before", 5_000, func(n int, word, _ func() string) string {
		return each(
			n,
			"\n",
			func(i int) string { return fmt.Sprintf("%d %s", i+1, word()) },
		) + fmt.Sprintf(
			"\n%d %s",
			n+1,
			each(n, " or ", func(i int) string { return fmt.Sprint(i + 1) }),
		)
	}},
}

// longExplained tells how long it takes to explain a query of each shape, and how much longer for twice as much.
func longExplained(t *testing.T, _ sizes) (rows []row) {
	w := demo.NewWorld(demo.Seed, demo.AlmagreSize)
	ix := index.Build(w.Records)
	terms, _ := thesaurus.Build(demo.Headings(), "")
	c := must(company.Build(context.Background(), ix, ix.All()))
	over := explain.Over{
		Set:     coverage.Set{Records: w.Records, Index: ix, Thesaurus: terms},
		Keys:    coverage.NewSet(w.Records[:40]),
		Company: func() (*company.Company, error) { return c, nil },
	}
	only := os.Getenv("TAMIZ_BENCH_SHAPE")
	words := over.Set.Index
	for _, shape := range longQueries {
		if only != "" && !strings.Contains(shape.name, only) {
			continue
		}
		explained := func(n int) time.Duration {
			rng := rand.New(rand.NewPCG(3, 4))
			word := func() string {
				for {
					if w := words.Token(uint32(rng.IntN(words.Tokens()))); len(w) >= 4 &&
						strings.Trim(w, "abcdefghijklmnopqrstuvwxyz") == "" &&
						w != "near" &&
						w != "prox" {
						return w
					}
				}
			}
			heading := func() string { return terms.Label(rng.IntN(terms.Len())) }
			text := shape.make(n, word, heading)
			return taken(2, func() {
				ctx, done := context.WithTimeout(context.Background(), longestExplained)
				defer done()
				d := dialect.Tell(text, dialect.Known())
				r, err := d.Read(text, terms)
				if err != nil {
					t.Logf("%s: %v", shape.name, err)
					return
				}
				if _, err := explain.Explain(ctx, r, over); err != nil {
					t.Logf("%s, %d: %v", shape.name, n, err)
				}
			})
		}
		half, whole := explained(shape.n/2), explained(shape.n)
		rows = append(
			rows,
			row{
				fmt.Sprintf("explaining %d %s", shape.n, shape.name),
				"half as many " + ratio(whole, half),
				short(whole),
				"≤ 2 s, 2.5×",
			},
		)
		t.Logf("%v", rows[len(rows)-1])
	}
	return rows
}

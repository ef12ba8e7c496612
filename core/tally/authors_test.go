package tally

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/bib"
)

func by(names ...string) *bib.Record {
	r := &bib.Record{Title: "any"}
	for _, n := range names {
		r.Authors = append(r.Authors, bib.ParsePerson(n))
	}
	return r
}

func counted(t *Tally) map[string]int {
	out := map[string]int{}
	for _, r := range t.Rows {
		out[r.Item] = r.Records
	}
	return out
}

func TestAuthorsArePartedFromThoseTheyWereFoldedWith(t *testing.T) {
	for _, keep := range []bool{false, true} {
		pool := must(
			NewPool(
				context.Background(),
				[]*bib.Record{
					by("Olmo, M."),
					by("Olmo, Marta"),
					by("Olmo, Marta", "Ruiz, P."),
					by("Olmo, Mario"),
					by("Olmo, Marta"),
				},
				nil,
			),
		)
		if keep {
			pool.Keep()
		}
		assert.Equal(
			t,
			map[string]int{"Olmo, Marta": 5, "Ruiz, P.": 1},
			counted(must(CountList(context.Background(), pool, Authors, nil))),
		)

		apart := pool.Apart(Part([]string{"olmo,  MARTA", "Olmo, M.", "?"}))
		assert.Equal(
			t,
			map[string]int{"Olmo, Marta": 3, "Olmo, M.": 2, "Ruiz, P.": 1},
			counted(must(CountList(context.Background(), apart, Authors, nil))),
		)
		assert.Equal(t, 3, int(apart.Having(Authors, "olmo|marta").GetCardinality()))
		keys := must(CountList(context.Background(), apart, Authors, []*bib.Record{by("Olmo, Marta"), by("Olmo, Mateo")}))
		for _, r := range keys.Rows {
			assert.Equal(t, map[string]int{"Olmo, Marta": 1, "Olmo, M.": 1}[r.Item], r.Keys, r.Item)
		}
		// What others see is as it was.
		assert.Len(t, must(CountList(context.Background(), pool, Authors, nil)).Rows, 2)
	}
}

func TestTeamsAreOfAuthorsAsTheyAreParted(t *testing.T) {
	pool := must(
		NewPool(context.Background(), []*bib.Record{by("Olmo, Marta", "Ruiz, P."), by("Olmo, Mario", "Ruiz, P.")}, nil),
	)
	pool.Keep()
	assert.Len(t, pool.Teams(nil), 1)
	assert.Empty(t, pool.Apart(Part([]string{"Olmo, Mario"})).Teams(nil))
}

// Parting moves records from one author to another; none is lost, and none is made.
func TestPartingLosesNothing(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		name := rapid.SampledFrom([]string{"Olmo, M.", "Olmo, Marta", "Olmo, Mario", "Olmo, M. A.", "Ruiz, P.", "Ruiz"})
		var records []*bib.Record
		for range rapid.IntRange(1, 20).Draw(t, "records") {
			records = append(records, by(name.Draw(t, "author")))
		}
		pool := must(NewPool(context.Background(), records, nil))
		apart := pool.Apart(Part(rapid.SliceOf(name).Draw(t, "parted")))
		sum := func(p *Pool) (n int) {
			for _, r := range must(CountList(context.Background(), p, Authors, nil)).Rows {
				n += r.Records
			}
			return n
		}
		assert.Equal(t, sum(pool), sum(apart))
		assert.GreaterOrEqual(
			t,
			len(must(CountList(context.Background(), apart, Authors, nil)).Rows),
			len(must(CountList(context.Background(), pool, Authors, nil)).Rows),
		)
	})
}

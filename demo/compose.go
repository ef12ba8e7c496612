package demo

import (
	_ "embed"
	"math/rand/v2"
	"strconv"
	"strings"
)

//go:embed data/composed.txt
var composedText string

// A grid puts two lists of words together: parts of the body and what ails them, crops and what is done
// with them. Each pair is an entry with a heading of its own.
type grid struct {
	rows, columns []string
	entries       [][]*entry
}

var (
	composed = readComposed(composedText)
	ailments = newGrid(composed["parts"], composed["aspects"])
	farming  = newGrid(composed["crops"], composed["tasks"])
)

func readComposed(s string) map[string][]string {
	out, section := map[string][]string{}, ""
	lines(s, func(line string) {
		if strings.HasPrefix(line, "[") {
			section = strings.Trim(line, "[]")
			return
		}
		out[section] = append(out[section], line)
	})
	return out
}

func newGrid(rows, columns []string) grid {
	var g grid
	var writings []string
	for _, c := range columns {
		parts := strings.Split(c, " | ")
		g.columns, writings = append(g.columns, parts[2]), append(writings, parts[1])
	}
	for _, r := range rows {
		x, y, _ := strings.Cut(r, " | ")
		g.rows = append(g.rows, capital(x))
		var of []*entry
		for i := range g.columns {
			e := &entry{heading: capital(x) + " " + g.columns[i]}
			for _, w := range strings.Split(strings.NewReplacer("{x}", x, "{y}", y).Replace(writings[i]), ";") {
				text, weight, _ := strings.Cut(w, ":")
				n, err := strconv.Atoi(weight)
				if err != nil {
					panic("demo: composed: " + w)
				}
				e.written, e.weights = append(e.written, text), append(e.weights, n)
			}
			of = append(of, e)
		}
		g.entries = append(g.entries, of)
	}
	return g
}

// row returns all entries of one row.
func (g grid) row(i int) []*entry { return g.entries[i%len(g.entries)] }

func capital(s string) string { return strings.ToUpper(s[:1]) + s[1:] }

// farFields are topics that are put together: people of every kind with ailments, and crops with what is
// done with them. They are the same in every world.
func farFields(given []field) (body, land []field) {
	r := rand.New(rand.NewPCG(5, 8))
	for i := range ailments.rows {
		for range 2 {
			like := given[10+r.IntN(len(given)-10)]
			for like.animals() {
				like = given[10+r.IntN(len(given)-10)]
			}
			body = append(
				body,
				field{weight: 1, pops: like.pops, problems: ailments.row(i), measures: like.measures, outcomes: like.outcomes,
					things: like.things, name: strings.ToLower(ailments.rows[i]) + " in " + like.name},
			)
		}
	}
	farm := given[9]
	for i := range farming.rows {
		land = append(land, field{weight: 1, pops: entries["pop owner"], problems: farming.row(i), measures: farm.measures,
			outcomes: append(
				append([]*entry{}, farm.outcomes...),
				entries["outcome cost"]...), things: entries["thing farm"], name: strings.ToLower(farming.rows[i])})
	}
	return body, land
}

package demo

import (
	"cmp"
	"fmt"
	"math"
	"slices"
	"strings"

	"tamiz/core/bib"
)

// A community is the works of one field, which mostly cite each other. What is cited stands in the bag once more each
// time, so that what is drawn from it is drawn by how often it is cited: few works are cited by many, most by few
// (Price 1976).
type community struct {
	all   []*bib.Record // the earliest first
	bag   []int
	known []*bib.Record // of them the well-known
}

// add lets a work be cited from now on.
func (c *community) add(r *bib.Record, wellKnown *bib.Known) {
	if _, ok := wellKnown.Find(r); ok {
		c.bag = append(c.bag, slices.Repeat([]int{len(c.all)}, headStart)...)
		c.known = append(c.known, r)
	}
	c.all = append(c.all, r)
}

// Shares of what is cited, of 100.
const (
	ofOwnField  = 82 // the rest from any other
	ofTheKnown  = 62 // drawn by how often it is cited; the rest evenly
	ofOneself   = 8
	asText      = 10 // given as a line of text, without an identifier
	withError   = 3  // a wrong sign in the identifier, a wrong year, a word too few
	takenBack   = 4  // works of 1,000
	mendedLater = 6
	headStart   = 10 // times that a well-known work is taken to be cited at its beginning
	oneAnother  = 35 // of the well-known works before it that a well-known work cites
)

// cite gives the works of a source the works that they cite: earlier ones, mostly of their own field, and says of
// each how many of the source cite it. fields names the field of each record. elsewhere are works on the question
// that the source does not hold; they are cited all the same. What is wellKnown is cited more than others.
func (g *generator) cite(records []*bib.Record, fields []string, elsewhere []*bib.Record, wellKnown *bib.Known) {
	order := make([]int, len(records))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(records[a].Year, records[b].Year) })
	elsewhere = slices.Clone(elsewhere)
	slices.SortStableFunc(elsewhere, func(a, b *bib.Record) int { return cmp.Compare(a.Year, b.Year) })
	communities, names := map[string]*community{}, []string{}
	of := func(name string) *community {
		if communities[name] == nil {
			communities[name] = &community{}
			names = append(names, name)
		}
		return communities[name]
	}
	byTeam := map[string][]*bib.Record{}
	cited := map[*bib.Record]int{}
	next := 0
	for _, at := range order {
		r := records[at]
		for ; next < len(elsewhere) && elsewhere[next].Year < r.Year; next++ {
			of(topicField).add(elsewhere[next], wellKnown)
		}
		own := of(fields[at])
		chosen := map[*bib.Record]bool{}
		team := firstAuthor(r)
		take := func(c *bib.Record) {
			if c != nil && !chosen[c] && c.Year <= r.Year {
				chosen[c] = true
				cited[c]++
				r.References = append(r.References, g.reference(c))
			}
		}
		for range g.howMany() {
			take(g.drawn(own, communities, names, byTeam[team]))
		}
		if _, known := wellKnown.Find(r); known { // who asks the same question knows who asked it before
			for _, c := range own.known {
				if g.IntN(100) < oneAnother {
					take(c)
				}
			}
		}
		own.add(r, wellKnown)
		byTeam[team] = append(byTeam[team], r)
	}
	for _, r := range records {
		r.TimesCited = new(cited[r])
		switch k := g.IntN(1000); {
		case k < takenBack:
			r.Types = append(slices.Clone(r.Types), "Retracted Work")
		case k < takenBack+mendedLater:
			r.Types = append(slices.Clone(r.Types), "Corrected Work")
		}
	}
}

// topicField is the name of the field of the question itself.
const topicField = "the question"

// howMany is how many works one cites: most some ten, a review sixty.
func (g *generator) howMany() int {
	n := int(math.Exp(2.3 + 0.6*g.NormFloat64()))
	return min(max(n, 1), 80)
}

// drawn draws what is cited.
func (g *generator) drawn(own *community, all map[string]*community, names []string, team []*bib.Record) *bib.Record {
	if len(team) > 0 && g.IntN(100) < ofOneself {
		return team[g.IntN(len(team))]
	}
	c := own
	if g.IntN(100) >= ofOwnField {
		c = all[names[g.IntN(len(names))]]
	}
	if len(c.all) == 0 {
		return nil
	}
	at := g.IntN(len(c.all))
	if len(c.bag) > 0 && g.IntN(100) < ofTheKnown {
		at = c.bag[g.IntN(len(c.bag))]
	}
	c.bag = append(c.bag, at)
	return c.all[at]
}

func firstAuthor(r *bib.Record) string {
	if len(r.Authors) == 0 {
		return ""
	}
	return r.Authors[0].String()
}

// reference writes a work down as somebody cites it: by its DOI, or as a line of text, and sometimes wrongly.
func (g *generator) reference(r *bib.Record) bib.Reference {
	f := bib.Reference{DOI: r.DOI, Title: r.Title, Author: firstAuthor(r), Year: r.Year}
	wrong := g.IntN(100) < withError
	if wrong {
		switch g.IntN(3) {
		case 0:
			f.Year += 1 + g.IntN(3)
		case 1:
			if words := strings.Fields(f.Title); len(words) > 4 {
				f.Title = strings.Join(words[:len(words)-1], " ")
			}
		}
		if f.DOI != "" {
			f.DOI = f.DOI[:len(f.DOI)-1] + "x"
		}
	}
	if f.DOI == "" || g.IntN(100) < asText {
		return bib.Reference{
			Text: fmt.Sprintf("%s (%d). %s. %s.", f.Author, f.Year, strings.TrimSuffix(f.Title, "."), r.Journal),
		}
	}
	if !wrong {
		f.Title, f.Author, f.Year = "", "", 0
	}
	return f
}

package demo

import (
	"math"
	"math/rand/v2"
	"strings"

	"tamiz/core/bib"
)

// names coins people, places, countries, scales and journals that do not exist.
type names struct {
	families  []string
	places    []string
	countries []string
	journals  []string
	near      []string
	teams     [][]bib.Person // who write about the question together
}

var (
	starts = strings.Split(
		"ba be bo bra bre da del do el fa fen gal gri ha hel i ja ka kel kro la lin lo ma mar me mon na nor o or pa pel "+
			"quen ra ren ro sa sel sho ta tar te tor u va vel vi wen xa yor za zel",
		" ",
	)
	middles = strings.Split(
		"bra da di do fe ga go ka ke la le li lo ma me mi mo na ne ni no pa ra re ri ro sa se so ta te ti to va ve vo zu",
		" ",
	)
	ends = strings.Split(
		"ba berg dal den do ez gara gh ik in ka koa la lith lund ma men mo na nd nen o osa ov ra rez ro rud sk son ta "+
			"tan th ti to u va vik wa yan yo",
		" ",
	)
	givens = strings.Split(
		"Ada Amaru Anneke Bela Chidi Dao Eero Fadila Goro Hana Ife Ioana Jorun Kofi Lais Lumi Mateo Mei Nadia Naoki Olu "+
			"Priya Quilla Ravi Runa Sefa Sólveig Tadeo Temi Uxue Vesna Wanjiru Xoán Yara Zuri Álvaro Élise Óscar",
		" ",
	)
)

func newNames(r *rand.Rand) names {
	var n names
	for range 900 {
		n.families = append(n.families, coin(r))
	}
	for range 260 {
		place := coin(r)
		switch r.IntN(7) {
		case 0:
			place = "Upper " + place
		case 1:
			place = "San " + place
		case 2:
			place += " Valley"
		}
		n.places = append(n.places, place)
	}
	n.places[6] = "Farmington" // which farm* drags in
	for range 40 {
		n.countries = append(n.countries, coin(r)+pick(r, []string{"ia", "land", "istan", "ua"}))
	}
	subjects := strings.Split(
		"Field Medicine;Warm Work;Crops and Crews;Renal Notes;Occupational Weather;Rural Practice;Work and Water;Human "+
			"Heat;Ward Practice;School Days;Hearts and Vessels;Sleep Letters;Clinic and Community;Skin and Craft;Dental "+
			"Matters;Later Life;Birth and After;Breath;Mind and Place;Trade Hygiene;Kidney Studies;Movement;Public "+
			"Sums;Animal Husbandry Reports",
		";",
	)
	for i, s := range subjects {
		for _, kind := range []string{"Journal of ", "Annals of ", "Letters in "} {
			if r.IntN(2) == 0 {
				n.journals = append(n.journals, kind+s)
			}
		}
		if i < 8 {
			n.near = append(n.near, "Journal of "+s)
		}
	}
	for range 3 {
		var team []bib.Person
		for range 5 {
			team = append(team, bib.Person{Family: coin(r) + pick(r, ends), Given: pick(r, givens)})
		}
		n.teams = append(n.teams, team)
	}
	n.journals = append(n.journals, "The Quarterly of "+n.places[0], "Cuadernos de "+n.places[1])
	return n
}

func coin(r *rand.Rand) string {
	s := pick(r, starts)
	for range r.IntN(2) + r.IntN(2) {
		s += pick(r, middles)
	}
	s += pick(r, ends)
	return strings.ToUpper(s[:1]) + s[1:]
}

// common draws one of a list with the first far more often than the last, as real names are.
func common(r *rand.Rand, of []string) string {
	return of[int(math.Pow(r.Float64(), 2.2)*float64(len(of)))]
}

// place is one of a few hundred, or now and then one that is named but once.
func (n names) place(r *rand.Rand) string {
	if r.IntN(5) == 0 {
		return coin(r)
	}
	return common(r, n.places)
}

func (n names) coined(r *rand.Rand) string {
	if r.IntN(3) == 0 {
		return common(r, n.families)
	}
	return coin(r)
}

func (n names) person(r *rand.Rand) bib.Person {
	p := bib.Person{Family: common(r, n.families)}
	if r.IntN(8) == 0 {
		p.Family += "-" + common(r, n.families)
	}
	given := pick(r, givens)
	if r.IntN(2) == 0 {
		given = string([]rune(given)[:1]) + "."
	}
	p.Given = given
	return p
}

// team returns some people of one of the three teams.
func (n names) team(r *rand.Rand) []bib.Person {
	of := n.teams[r.IntN(len(n.teams))]
	var out []bib.Person
	for _, i := range r.Perm(len(of))[:2+r.IntN(3)] {
		out = append(out, of[i])
	}
	return out
}

func (n names) journal(r *rand.Rand, near bool) string {
	if near && r.IntN(3) == 0 {
		return common(r, n.near)
	}
	return pick(r, n.journals)
}

package bench

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"
	"time"

	"tamiz/core/bib"
	"tamiz/demo"
)

// A pairing is a kind of pair that is planted: a record and what somebody else writes of it, or another work that
// looks alike.
type pairing struct {
	name   string
	same   bool
	change func(r *rand.Rand, b *bib.Record)
}

var pairings = []pairing{
	{"capitals", true, func(_ *rand.Rand, b *bib.Record) { b.Title = strings.ToUpper(b.Title) }},
	{"a full stop and an article", true, func(_ *rand.Rand, b *bib.Record) { b.Title = "The " + b.Title + "." }},
	{"tags in the title", true, func(_ *rand.Rand, b *bib.Record) { b.Title = "<b>" + b.Title + "</b>" }},
	{"hyphens for blanks", true, func(_ *rand.Rand, b *bib.Record) { b.Title = strings.Replace(b.Title, " ", "-", 1) }},
	{"a letter left out", true, func(r *rand.Rand, b *bib.Record) {
		for range 50 { // a letter, no sign, in a word that says something
			if i := 1 + r.IntN(len(b.Title)-2); isLetter(b.Title[i]) && isLetter(b.Title[i-1]) && isLetter(b.Title[i+1]) {
				b.Title = b.Title[:i] + b.Title[i+1:]
				return
			}
		}
	}},
	{"a letter doubled", true, func(r *rand.Rand, b *bib.Record) {
		for range 50 {
			if i := r.IntN(len(b.Title)); isLetter(b.Title[i]) {
				b.Title = b.Title[:i] + b.Title[i:i+1] + b.Title[i:]
				return
			}
		}
	}},
	{"without its subtitle", true, func(_ *rand.Rand, b *bib.Record) { b.Title, _, _ = strings.Cut(b.Title, ": ") }},
	{"a year later", true, func(_ *rand.Rand, b *bib.Record) { b.Year++ }},
	{"no year", true, func(_ *rand.Rand, b *bib.Record) { b.Year = 0 }},
	{"no authors", true, func(_ *rand.Rand, b *bib.Record) { b.Authors = nil }},
	{"initials alone", true, func(_ *rand.Rand, b *bib.Record) {
		for i := range b.Authors {
			b.Authors[i].Given = b.Authors[i].Given[:min(1, len(b.Authors[i].Given))]
		}
	}},
	{"names as they are spoken", true, func(_ *rand.Rand, b *bib.Record) {
		for i, p := range b.Authors {
			b.Authors[i] = bib.Person{Family: strings.TrimSpace(p.Given + " " + p.Family)}
		}
	}},
	{
		"a particle more",
		true,
		func(_ *rand.Rand, b *bib.Record) { b.Authors[0].Family = "van der " + b.Authors[0].Family },
	},
	{"authors turned round", true, func(_ *rand.Rand, b *bib.Record) { slices.Reverse(b.Authors) }},
	{"ue for ü", true, func(_ *rand.Rand, b *bib.Record) {
		b.Authors[0].Family = strings.NewReplacer("u", "ü", "o", "ö").Replace(b.Authors[0].Family)
	}},
	{"its correction", false, func(_ *rand.Rand, b *bib.Record) { b.Title = "Correction to: " + b.Title }},
	{"its protocol", false, func(_ *rand.Rand, b *bib.Record) {
		b.Title, _, _ = strings.Cut(b.Title, ": ")
		b.Title += ": study protocol"
	}},
	{"a reply", false, func(_ *rand.Rand, b *bib.Record) { b.Title = "Reply: " + b.Title }},
	{"its second part", false, func(_ *rand.Rand, b *bib.Record) { b.Title += ", part 2" }},
	{
		"others wrote it",
		false,
		func(_ *rand.Rand, b *bib.Record) { b.Authors = []bib.Person{{Family: "Quillanor", Given: "Zed"}} },
	},
	{"three years later", false, func(_ *rand.Rand, b *bib.Record) { b.Year += 3 }},
	{
		"another place of the same study",
		false,
		func(_ *rand.Rand, b *bib.Record) { b.Title += " in the northern valleys" },
	},
	{
		"another DOI and page",
		false,
		func(_ *rand.Rand, b *bib.Record) { b.DOI, b.FirstPage = "10.99999/other."+b.DOI, "x"+b.FirstPage },
	},
}

func isLetter(c byte) bool { return c >= 'a' && c <= 'z' }

// sameWorks tells how many of planted pairs of one work are seen, how many that are joined are of two, and what
// joining takes.
func sameWorks(t *testing.T, _ sizes) []row {
	const records = 4000
	w := demo.NewWorld(demo.Seed+1, records)
	r := rand.New(rand.NewPCG(3, 9))
	var seen, joined, asked tallied
	weakest := ""
	least := 2.0
	for _, p := range pairings {
		var of tallied
		for i := range 200 {
			a := w.Records[(i*17)%records]
			if len(a.Authors) == 0 || a.Year == 0 || !strings.Contains(a.Title, ": ") && strings.Contains(p.name, "subtitle") {
				continue
			}
			b := *a
			b.Authors = slices.Clone(a.Authors)
			if b.DOI = ""; p.name == "another DOI and page" {
				b.DOI = a.DOI
			}
			if p.change(r, &b); b.Title == a.Title && strings.Contains(p.name, "subtitle") {
				continue
			}
			var known bib.Known
			known.Add(a, 0)
			_, same := known.Find(&b)
			if _, perhaps := known.Perhaps(&b); !same {
				asked.count(perhaps)
			}
			if p.same {
				seen.count(same)
				of.count(same)
			}
			if same {
				joined.count(!p.same)
			}
		}
		if share := float64(of.right) / float64(max(1, of.shown)); p.same && share < least {
			least, weakest = share, p.name
		}
	}
	ids := func(identity func(*bib.Record) any) time.Duration {
		began := time.Now()
		for range 100_000 / records {
			for _, x := range w.Records {
				identity(x)
			}
		}
		return time.Since(began)
	}
	keys := ids(func(x *bib.Record) any { return x.WorkKey() })
	var works bib.Works
	all := ids(func(x *bib.Record) any { return works.Number(bib.IdentityOf(x)) })
	return []row{
		{
			fmt.Sprintf("pairs of the same work that are seen, %d kinds", len(pairings)),
			fmt.Sprintf("fewest of “%s”: %.2f", weakest, least),
			seen.String(),
			"≥ 0.90",
		},
		{"of those that are joined, pairs of two works", "", joined.String(), "≤ 0.02"},
		{"of those that are not joined, pairs that are asked about", "", asked.String(), "printed"},
		{"numbering 100,000 records by their work", "the words of title and first author alone", ratio(all, keys), "printed"},
	}
}

// smallSets tells how many of the first candidates of small sets are planted terms, before and after pieces of
// sentences stand aside.
func smallSets(t *testing.T, _ sizes) (rows []row) {
	const first = 50
	w := demo.NewWorld(demo.Seed, demo.AlmagreSize)
	topic := demo.Topics[0]
	s := newSpecialist(w.Records, w.About, topic)
	about := s.truth[0].Clone()
	about.Or(s.truth[1])
	for _, n := range []int{50, 200, 1000} {
		set := some(rand.New(rand.NewPCG(uint64(n), 1)), about, n)
		var before, after tallied
		shown, stood := 0, 0
		for _, f := range s.order(set, false) {
			right := false
			piece := true
			for _, form := range f.Forms {
				piece = piece && form.Piece
				for block := range topic.Concepts {
					right = right || s.planted(block, form.Item)
				}
			}
			if shown < first {
				before.count(right)
				shown++
			}
			if !piece && stood < first {
				after.count(right)
				stood++
			}
		}
		rows = append(
			rows,
			row{
				fmt.Sprintf("of the first %d candidates of %d records on the question, planted terms", first, n),
				"with pieces of sentences " + before.String(),
				after.String(),
				"printed",
			},
		)
	}
	return rows
}

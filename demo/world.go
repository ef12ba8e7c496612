// Package demo makes the invented world that ships with Tamiz: literature that reads like abstracts,
// key studies, and a review half done. Everything comes from a seed, the same each time. No person,
// journal, place or study in it exists.
package demo

import (
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// A World is invented literature and the papers known to belong to the demo question.
type World struct {
	Records []*bib.Record // in no order that means anything
	Keys    []*bib.Record // the key studies; each is among Records too
}

// Size is how many records the demo review is made from.
const Size = 3000

// Seed is the seed of the demo review.
const Seed = 20260219

// NewWorld makes a world of n records, the key studies among them.
func NewWorld(seed uint64, n int) *World {
	w := &World{}
	Each(seed, n, func(r *bib.Record, key bool) error {
		w.Records = append(w.Records, r)
		if key {
			w.Keys = append(w.Keys, r)
		}
		return nil
	})
	slices.SortFunc(w.Keys, func(a, b *bib.Record) int { return strings.Compare(a.LocalID, b.LocalID) })
	for _, k := range w.Keys {
		k.LocalID = ""
	}
	return w
}

// Each makes the records of a world one by one, so that it may be of any size, and tells which are key
// studies. It stops at the first error of visit and returns it. The key studies are numbered in LocalID,
// in the order in which the review lists them.
func Each(seed uint64, n int, visit func(r *bib.Record, key bool) error) error {
	g := &generator{Rand: rand.New(rand.NewPCG(seed, 0x7a6d))}
	g.names = newNames(g.Rand)
	keys := g.keyStudies()
	n = max(n, len(keys))
	at := map[int]*bib.Record{}
	for i, k := range keys {
		k.LocalID = fmt.Sprintf("KEY%02d", i+1)
		place := g.IntN(n)
		for at[place] != nil {
			place = g.IntN(n)
		}
		at[place] = k
	}
	for i := range n {
		r, key := at[i], at[i] != nil
		if !key {
			r = g.record()
		}
		r.Accession = fmt.Sprintf("ALM%06d", i+1)
		r.ID = r.Accession
		r.DOI = fmt.Sprintf("10.99999/alm.%06d", i+1)
		if err := visit(r, key); err != nil {
			return err
		}
	}
	return nil
}

// generator draws everything from one source of randomness, in one order.
type generator struct {
	*rand.Rand
	names names
}

// A writer writes one record of a topic: it remembers how the record calls its people and problems, so
// that title and abstract agree.
type writer struct {
	*generator
	field                    field
	pop, problem             *entry
	measure, outcome         *entry
	pop2, problem2, outcome2 *entry
	used                     map[*entry]string
	place, place2, country   string
	scale, group, season     string
	year                     int
	n                        int
}

func (g *generator) record() *bib.Record {
	f := fields[weighted(g.Rand, len(fields), func(i int) int { return fields[i].weight })]
	w := &writer{generator: g, field: f, used: map[*entry]string{}}
	w.pop, w.pop2 = pick(g.Rand, f.pops), pick(g.Rand, f.pops)
	if g.IntN(3) == 0 {
		w.pop2 = pick(g.Rand, fields[g.IntN(len(fields))].pops)
	}
	w.problem, w.problem2 = pick(g.Rand, f.problems), pick(g.Rand, fields[g.IntN(len(fields))].problems)
	w.measure, w.outcome, w.outcome2 = pick(g.Rand, f.measures), pick(g.Rand, f.outcomes), pick(g.Rand, f.outcomes)
	for w.pop2 == w.pop {
		w.pop2 = pick(g.Rand, fields[g.IntN(len(fields))].pops)
	}
	w.setting()
	w.year = w.yearOf(f)

	r := &bib.Record{Year: w.year}
	title := w.sentence("title")
	r.Title = strings.TrimSuffix(title, ".")
	r.Abstract = w.abstract()
	w.frame(r)
	w.index(r, []*entry{w.pop, w.problem, w.measure, w.outcome})
	return r
}

// setting draws what is constant in one record.
func (w *writer) setting() {
	w.place, w.place2, w.country = w.names.place(w.Rand), w.names.place(w.Rand), pick(w.Rand, w.names.countries)
	w.scale, w.group = w.names.coined(w.Rand), w.names.coined(w.Rand)
	w.season = pick(w.Rand, []string{"harvest", "summer", "dry season", "season", "hot season", "spring", "winter"})
	if !strings.Contains(w.field.name, "farm") && !strings.Contains(w.field.name, "cane") && w.season == "harvest" {
		w.season = "winter"
	}
	w.n = 40 + w.IntN(900)
}

// yearOf draws a year. The literature grows, and heat on farms is written about mostly after 2013.
func (w *writer) yearOf(f field) int {
	if strings.Contains(f.name, "heat and farm") || strings.Contains(f.name, "cane") {
		if w.IntN(4) > 0 {
			return 2014 + w.IntN(13)
		}
	}
	a, b := w.IntN(30), w.IntN(30)
	return 1997 + max(a, b)
}

// abstract writes the four parts, with labels in some records.
func (w *writer) abstract() string {
	labels := []string{"", "", "", ""}
	switch w.IntN(5) {
	case 0:
		labels = []string{"BACKGROUND: ", "METHODS: ", "RESULTS: ", "CONCLUSION: "}
	case 1:
		labels = []string{"Background. ", "Methods. ", "Findings. ", "Interpretation. "}
	}
	part := func(label string, kinds ...string) string {
		var out []string
		seen := map[string]bool{}
		for _, k := range kinds {
			s := w.sentence(k)
			if !seen[s] {
				out, seen[s] = append(out, s), true
			}
		}
		return label + strings.Join(out, " ")
	}
	repeat := func(kind string, least, most int) (kinds []string) {
		for range least + w.IntN(most-least+1) {
			kinds = append(kinds, kind)
		}
		return kinds
	}
	return strings.Join([]string{
		part(labels[0], append(repeat("background", 1, 2), "aim")...),
		part(labels[1], repeat("methods", 2, 4)...),
		part(labels[2], repeat("results", 2, 5)...),
		part(labels[3], repeat("conclusion", 1, 2)...),
	}, " ")
}

// frame gives a record all that is not its text.
func (w *writer) frame(r *bib.Record) {
	for range 1 + w.IntN(3) + w.IntN(3) {
		r.Authors = append(r.Authors, w.names.person(w.Rand))
	}
	r.Journal = w.names.journal(w.Rand, w.field.near)
	r.Volume, r.Issue = fmt.Sprint(1+w.IntN(60)), fmt.Sprint(1+w.IntN(12))
	page := 1 + w.IntN(900)
	r.FirstPage, r.LastPage = fmt.Sprint(page), fmt.Sprint(page+4+w.IntN(12))
	r.Languages = []string{[]string{"eng", "eng", "eng", "eng", "eng", "eng", "eng", "eng", "eng", "eng", "eng", "spa", "spa", "por", "fre", "ger"}[w.IntN(16)]}
	r.Countries = []string{w.country}
	lower := strings.ToLower(r.Title + r.Abstract)
	switch {
	case strings.Contains(lower, "randomised"):
		r.Types = []string{"Trial Report"}
	case strings.Contains(lower, "review"):
		r.Types = []string{"Review"}
	case w.IntN(14) == 0:
		r.Types = []string{pick(w.Rand, []string{"Letter", "Comment", "Conference Paper", "Protocol"})}
	default:
		r.Types = []string{"Journal Article"}
	}
	r.Types = append(r.Types, "JOUR")
}

// index gives a record author keywords and headings. Headings lag: of the newest records most have
// none, and some never get any. Before 2014 farm crews were indexed under an older heading.
func (w *writer) index(r *bib.Record, about []*entry) {
	for _, e := range about {
		if w.IntN(3) > 0 {
			k := pickWritten(w.Rand, e)
			if w.IntN(3) == 0 {
				k = strings.ToUpper(k[:1]) + k[1:]
			}
			r.Keywords = append(r.Keywords, k)
		}
	}
	r.Keywords = append(r.Keywords, w.place)
	if w.IntN(100) < 4 || r.Year >= 2025 && w.IntN(100) < 60 {
		return
	}
	seen := map[string]bool{}
	add := func(label string, central bool) {
		if seen[label] {
			return
		}
		seen[label] = true
		a := bib.Assignment{Label: label, Central: central}
		if w.IntN(3) == 0 {
			a.Qualifiers = []string{pick(w.Rand, qualifiers)}
		}
		r.Headings = append(r.Headings, a)
	}
	for i, e := range about {
		if e.heading == "" || w.IntN(8) == 0 {
			continue
		}
		label := e.heading
		if label == "Agricultural Labor Force" && r.Year < 2014 {
			label = "Rural Occupations"
		}
		if written := w.used[e]; strings.Contains(written, "seasonal") || strings.Contains(written, "migrant") {
			add("Seasonal Employment", false)
		}
		if written := w.used[e]; written == "hydration" || strings.Contains(written, "water") {
			add("Fluid Intake", i < 2)
			continue
		}
		add(label, i < 2 && w.IntN(2) == 0)
	}
	for _, more := range []string{"Adults", "Surveys", "Follow-up", "Working Life", "Rural Life", "Questionnaires", "Risk Factors", "Costs and Savings"} {
		if w.IntN(7) == 0 {
			add(more, false)
		}
	}
	// Marked by the star alone, so that a file without a vocabulary still tells headings from keywords.
	for i := range r.Headings {
		if h := &r.Headings[i]; !h.Central && len(h.Qualifiers) == 0 {
			h.Qualifiers = []string{pick(w.Rand, qualifiers)}
		}
	}
}

func (w *writer) sentence(kind string) string {
	p := pick(w.Rand, patterns[kind])
	out := slot.ReplaceAllStringFunc(p, func(s string) string { return w.fill(s[1 : len(s)-1]) })
	if r := []rune(out); len(r) > 0 {
		return strings.ToUpper(string(r[:1])) + string(r[1:])
	}
	return out
}

// fill returns what stands in a slot. A slot with a capital begins with one.
func (w *writer) fill(name string) string {
	low := strings.ToLower(name)
	out := w.fillLow(low)
	if low != name {
		r := []rune(out)
		out = strings.ToUpper(string(r[:1])) + string(r[1:])
	}
	return out
}

func (w *writer) fillLow(name string) string {
	switch name {
	case "pop":
		return w.write(w.pop)
	case "pop2":
		return w.write(w.pop2)
	case "problem":
		return w.write(w.problem)
	case "problem2":
		return w.write(w.problem2)
	case "measure":
		return w.write(w.measure)
	case "outcome":
		return w.write(w.outcome)
	case "outcome2":
		return w.write(w.outcome2)
	case "thing", "thing2":
		return pickWritten(w.Rand, pick(w.Rand, w.field.things))
	case "place":
		return w.place
	case "place2":
		return w.place2
	case "country":
		return w.country
	case "scale":
		return w.scale
	case "group":
		return w.group
	case "season":
		return w.season
	case "n":
		return fmt.Sprint(w.n)
	case "m":
		return fmt.Sprint(6 + w.IntN(max(2, w.n/3)))
	case "pct":
		return decimal(w.Rand, 4, 92)
	case "pct2":
		return decimal(w.Rand, 4, 92)
	case "small":
		return fmt.Sprintf("0.%02d", 5+w.IntN(90))
	case "or":
		return decimal(w.Rand, 1, 6)
	case "lo":
		return decimal(w.Rand, 1, 3)
	case "hi":
		return decimal(w.Rand, 4, 12)
	case "months":
		return fmt.Sprint(2 + w.IntN(22))
	case "years":
		return fmt.Sprintf("%d–%d", w.year-4-w.IntN(3), w.year-1-w.IntN(2))
	case "p":
		return pick(w.Rand, []string{"< 0.001", "= 0.03", "= 0.41", "< 0.01", "= 0.02", "= 0.78", "= 0.005"})
	}
	panic("demo: no slot is named " + name)
}

// write returns how the record calls a thing: nearly always the same, now and then otherwise.
func (w *writer) write(e *entry) string {
	if s, ok := w.used[e]; ok && w.IntN(5) > 0 {
		return s
	}
	s := pickWritten(w.Rand, e)
	if _, ok := w.used[e]; !ok {
		w.used[e] = s
	}
	return s
}

func decimal(r *rand.Rand, from, to int) string {
	return fmt.Sprintf("%d.%d", from+r.IntN(to-from), r.IntN(10))
}

// Says reports whether a record's title, abstract or keywords hold any of the typed words.
func Says(r *bib.Record, typed ...string) bool {
	found := false
	r.Values(bib.Text, func(_ bib.Field, v string) {
		tokens := text.Tokens(v)
		for _, t := range typed {
			if p, err := text.ParsePattern(t); err == nil && len(p.Find(tokens)) > 0 {
				found = true
			}
		}
	})
	return found
}

package demo

import (
	"fmt"
	"hash/fnv"
	"strings"

	"tamiz/core/bib"
)

// frame gives a record all that is not its text.
func (w *writer) frame(r *bib.Record) {
	if w.field.topic && w.IntN(6) == 0 {
		r.Authors = w.names.team(w.Rand)
	}
	for range 1 + w.IntN(3) + w.IntN(3) {
		r.Authors = append(r.Authors, w.names.person(w.Rand))
	}
	r.Journal = w.names.journal(w.Rand, w.field.near)
	r.Volume, r.Issue = fmt.Sprint(1+w.IntN(60)), fmt.Sprint(1+w.IntN(12))
	page := 1 + w.IntN(900)
	r.FirstPage, r.LastPage = fmt.Sprint(page), fmt.Sprint(page+4+w.IntN(12))
	r.Languages = []string{
		[]string{"eng", "eng", "eng", "eng", "eng", "eng", "eng", "eng", "eng", "eng", "eng", "spa", "spa", "por", "fre",
			"ger"}[w.IntN(16)],
	}
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
			if of := w.others[e]; len(of) > 0 {
				k = pick(w.Rand, of)
			}
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
	for _, more := range []string{"Adults", "Surveys", "Follow-up", "Working Life", "Rural Life", "Questionnaires",
		"Risk Factors", "Costs and Savings"} {
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
	w.living(r)
}

// living says of an indexed record whether it tells of humans or of animals: most that tell of humans say it,
// nearly all that tell of animals, and some of those of both. It draws by the title, so that nothing else is drawn
// otherwise for it.
func (w *writer) living(r *bib.Record) {
	h := fnv.New32a()
	_, _ = h.Write([]byte(r.Title)) // never fails
	n := h.Sum32() % 100
	animals := w.field.animals()
	if animals && n < 95 {
		r.Headings = append(r.Headings, bib.Assignment{Label: "Animals"})
	}
	if !animals && n < 78 || animals && n < 15 {
		r.Headings = append(r.Headings, bib.Assignment{Label: "Humans"})
	}
}

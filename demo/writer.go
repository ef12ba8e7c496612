package demo

import (
	"fmt"
	"hash/fnv"
	"math/rand/v2"
	"regexp"
	"strings"

	"tamiz/core/bib"
)

// generator draws everything from one source of randomness, in one order.
type generator struct {
	*rand.Rand
	names names
	told  map[uint64]bool // works that are written already
}

// other writes a record that is no work which was written before.
func (g *generator) other(of []field) (*bib.Record, *writer) {
	for {
		r, w := g.record(of)
		if g.first(r) {
			return r, w
		}
	}
}

// first reports whether a record is the first of its work, and remembers it.
func (g *generator) first(r *bib.Record) bool {
	h := fnv.New64a()
	_, _ = h.Write([]byte(r.WorkKey())) // never fails
	key := h.Sum64()
	if g.told[key] {
		return false
	}
	g.told[key] = true
	return true
}

// A writer writes one record of a topic: it remembers how the record calls its people and problems, so
// that title and abstract agree.
type writer struct {
	*generator
	field                    field
	pop, problem             *entry
	measure, outcome         *entry
	pop2, problem2, outcome2 *entry
	measure2                 *entry
	used                     map[*entry]string
	said                     map[string]bool     // the patterns of its abstract so far
	onlyUsed                 bool                // a thing is always called the same
	others                   map[*entry][]string // what it is called beside
	short                    map[*entry]string   // and how that is abbreviated
	named                    *entry              // what an abbreviation stands for
	explained                bool                // it may be used
	place, place2, country   string
	scale, group, season     string
	year                     int
	figures                  figures
}

// record writes a record of one of some topics.
func (g *generator) record(of []field) (*bib.Record, *writer) {
	f := of[weighted(g.Rand, len(of), func(i int) int { return of[i].weight })]
	w := &writer{generator: g, field: f, used: map[*entry]string{}}
	w.pop, w.pop2 = pick(g.Rand, f.pops), pick(g.Rand, f.pops)
	if g.IntN(3) == 0 {
		w.pop2 = pick(g.Rand, fields[g.IntN(len(fields))].pops)
	}
	w.problem, w.problem2 = pick(g.Rand, f.problems), pick(g.Rand, fields[g.IntN(len(fields))].problems)
	w.measure, w.outcome, w.outcome2 = pick(g.Rand, f.measures), pick(g.Rand, f.outcomes), pick(g.Rand, f.outcomes)
	w.measure2 = pick(g.Rand, f.measures)
	for w.outcome2 == w.outcome {
		w.outcome2 = pick(g.Rand, fields[g.IntN(len(fields))].outcomes)
	}
	for w.measure2 == w.measure {
		w.measure2 = pick(g.Rand, fields[g.IntN(len(fields))].measures)
	}
	for w.pop2 == w.pop {
		w.pop2 = pick(g.Rand, fields[g.IntN(len(fields))].pops)
	}
	w.setting()
	w.year = w.yearOf(f)

	w.vary()
	r := &bib.Record{Year: w.year}
	title := w.sentence("title")
	r.Title = strings.TrimSuffix(title, ".")
	r.Abstract = w.abstract()
	w.frame(r)
	w.index(r, []*entry{w.pop, w.problem, w.measure, w.outcome})
	return r, w
}

// setting draws what is constant in one record.
func (w *writer) setting() {
	w.place, w.place2, w.country = w.names.place(w.Rand), w.names.place(w.Rand), pick(w.Rand, w.names.countries)
	w.scale, w.group = w.names.coined(w.Rand), w.names.coined(w.Rand)
	w.season = pick(w.Rand, []string{"harvest", "summer", "dry season", "season", "hot season", "spring", "winter"})
	if !strings.Contains(w.field.name, "farm") && !strings.Contains(w.field.name, "cane") && w.season == "harvest" {
		w.season = "winter"
	}
	w.figures = newFigures(w.Rand, 40+w.IntN(900), 2+w.IntN(22))
}

// yearOf draws a year. The literature grows, and heat on farms is written about mostly after 2013.
func (w *writer) yearOf(f field) int {
	if f.topic {
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
	w.said = map[string]bool{}
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
		strings.Join(append([]string{part(labels[1], repeat("methods", 2, 4)...)}, w.definitions()...), " "),
		part(labels[2], repeat("results", 2, 5)...),
		part(labels[3], repeat("conclusion", 1, 2)...),
	}, " ")
}

func (w *writer) sentence(kind string) string {
	p := pick(w.Rand, patterns[kind])
	for tries := 0; w.said[p] && tries < 20 || w.pop != nil && w.pop.heading == "Veterinary Subjects" &&
		ofPeople.MatchString(p); tries++ {
		p = pick(w.Rand, patterns[kind])
	}
	if w.said != nil {
		w.said[p] = true
	}
	return w.written(p)
}

// ofPeople are sentences that only people can be the subject of.
var ofPeople = regexp.MustCompile(
	`themselves|asked|interview|pay|questionnaire|agreed|women|Women|voices|qualitative|Employers|seek care|diary|report|described|jobs|involve|learned|{scale}|{Scale}|barriers|Barriers|focus groups|work|Transcripts|job`,
)

// written writes a sentence after a pattern.
func (w *writer) written(pattern string) string {
	p := choice.ReplaceAllStringFunc(pattern, func(s string) string {
		left := strings.HasSuffix(s, "?")
		if left && w.IntN(2) == 0 {
			return ""
		}
		return pick(w.Rand, strings.Split(strings.Trim(s, "()?"), "|"))
	})
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
	case "popa", "popb":
		return w.otherName(w.pop, int(name[3]-'a'))
	case "problema":
		return w.otherName(w.problem, 0)
	case "measurea":
		return w.otherName(w.measure, 0)
	case "named":
		return w.used[w.named]
	case "short":
		return w.short[w.named]
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
	case "measure2":
		return pickWritten(w.Rand, w.measure2)
	case "m":
		return fmt.Sprint(6 + w.IntN(60))
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
	case "years":
		return fmt.Sprintf("%d–%d", w.year-4-w.IntN(3), w.year-1-w.IntN(2))
	case "p":
		return pick(w.Rand, []string{"< 0.001", "= 0.03", "< 0.01", "= 0.02", "= 0.005"})
	case "pns":
		return fmt.Sprintf("= 0.%02d", 8+w.IntN(90))
	}
	if v, ok := w.figures[name]; ok {
		return v
	}
	panic("demo: no slot is named " + name)
}

// write returns how the record calls a thing: nearly always the same, now and then otherwise; where it
// varies its words, by another of its names in two of five places.
func (w *writer) write(e *entry) string {
	if of := w.others[e]; len(of) > 0 && !w.onlyUsed && w.IntN(100) < w.varies(e) {
		if s := w.short[e]; s != "" && w.explained && w.IntN(3) == 0 {
			return s
		}
		return pick(w.Rand, of)
	}
	if s, ok := w.used[e]; ok && (w.onlyUsed || w.IntN(5) > 0) {
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

package demo

import (
	"slices"
	"strings"
)

// People who write about one thing vary their words: a synonym in the title, another in the methods, a
// third among the keywords, a definition that lists what is meant, an abbreviation once it is explained.
// Records do so with all that they are about; where that is a concept of Topics, over all entries that stand for it.

// namesOf are all ways in which a concept of Topics is written, by its name. What most papers say is
// drawn more often beside other words than they are beside it: the first kind of a concept is its general one.
var namesOf = func() map[string]*entry {
	out := map[string]*entry{}
	for _, t := range Topics {
		for _, c := range t.Concepts {
			all := &entry{}
			for i, kind := range c.kinds {
				for _, e := range entries[kind] {
					for j, s := range e.written {
						weight := e.weights[j]
						if i == 0 && strings.HasPrefix(kind, "pop ") {
							weight *= generalWeight
						}
						all.written, all.weights = append(all.written, s), append(all.weights, weight)
					}
				}
			}
			out[c.Name] = all
		}
	}
	return out
}()

// generalWeight is how many times as often the general names of a concept stand beside another name.
const generalWeight = 2

// vary draws what else a record calls what it is about, and now and then an abbreviation.
func (w *writer) vary() {
	w.others, w.short = map[*entry][]string{}, map[*entry]string{}
	for _, e := range []*entry{w.pop, w.problem, w.measure} {
		all, most := e, 1
		if e == w.pop {
			most = 2 // what people are called varies more than what is done
		}
		if of := conceptsOf[e]; len(of) > 0 {
			all = namesOf[of[0]]
			if e == w.pop {
				most = 3
			}
		}
		if len(all.written) <= most+1 {
			continue
		}
		first := w.write(e)
		for len(w.others[e]) < most {
			if s := pickWritten(w.Rand, all); s != first && !slices.Contains(w.others[e], s) {
				w.others[e] = append(w.others[e], s)
			}
		}
		if w.IntN(8) == 0 {
			w.short[e] = initials(first)
		}
	}
}

// varies returns in how many places of a hundred a thing is called by another of its names.
func (w *writer) varies(e *entry) int {
	if e == w.pop {
		return 45
	}
	return 25
}

// initials abbreviates a name of several plain words; others have no abbreviation.
func initials(name string) string {
	words := strings.FieldsFunc(name, func(r rune) bool { return r == ' ' || r == '-' })
	if len(words) < 2 || strings.ContainsAny(name, ",–()") {
		return ""
	}
	var out strings.Builder
	for _, word := range words {
		out.WriteString(strings.ToUpper(word[:1]))
	}
	return out.String()
}

// otherName returns a further name of a thing, or the name the record gives it where it has no other.
func (w *writer) otherName(e *entry, i int) string {
	if of := w.others[e]; len(of) > 0 {
		return of[i%len(of)]
	}
	return w.write(e)
}

// definitions returns sentences that say what a record means by its words, of which the first is what it says
// elsewhere.
func (w *writer) definitions() (out []string) {
	before := w.onlyUsed
	w.onlyUsed = true
	defer func() { w.onlyUsed = before }()
	for _, of := range []struct {
		e    *entry
		kind string
	}{{w.pop, "people"}, {w.problem, "complaint"}, {w.measure, "package"}} {
		if len(w.others[of.e]) == 0 {
			continue
		}
		if w.short[of.e] != "" {
			w.named = of.e
			out, w.explained = append(out, w.sentence("short")), true
		}
		if w.IntN(100) < w.varies(of.e) {
			out = append(out, w.sentence(of.kind))
		}
	}
	return out
}

package thesaurus

import (
	"slices"

	"tamiz/core/text"
)

// link notes which headings stand below, above and beside each other. A file may say it from one side
// only; both know it then.
func (t *Thesaurus) link(concepts []Concept, place map[string]int, tell func(TroubleKind, string, string)) {
	find := func(from Concept, id string) (int, bool) {
		i, ok := place[id]
		if !ok {
			tell(NoParent, from.ID, id)
		}
		return i, ok
	}
	under := func(narrower, broader int) {
		if !slices.Contains(t.Headings[narrower].Broader, broader) {
			t.Headings[narrower].Broader = append(t.Headings[narrower].Broader, broader)
			t.Headings[broader].Narrower = append(t.Headings[broader].Narrower, narrower)
		}
	}
	for i, c := range concepts {
		for _, id := range c.Broader {
			if b, ok := find(c, id); ok {
				under(i, b)
			}
		}
		for _, id := range c.Narrower {
			if n, ok := find(c, id); ok {
				under(n, i)
			}
		}
		for _, id := range c.Related {
			if r, ok := place[id]; ok && r != i {
				for _, pair := range [2][2]int{{i, r}, {r, i}} {
					h := &t.Headings[pair[0]]
					if !slices.Contains(h.Related, pair[1]) {
						h.Related = append(h.Related, pair[1])
					}
				}
			}
		}
	}
	for i := range t.Headings {
		slices.Sort(t.Headings[i].Broader)
		slices.Sort(t.Headings[i].Narrower)
		slices.Sort(t.Headings[i].Related)
	}
}

// unknot breaks circles: it walks down from every heading, and passes over a step to one that it is
// below already. The walk keeps its own stack, since a vocabulary may be as deep as it is large.
func (t *Thesaurus) unknot(tell func(TroubleKind, string, string)) {
	const (
		fresh = iota
		open
		done
	)
	state := make([]byte, len(t.Headings))
	type step struct{ heading, next int }
	for root := range t.Headings {
		if state[root] != fresh {
			continue
		}
		state[root] = open
		path := []step{{root, 0}}
		for len(path) > 0 {
			at := &path[len(path)-1]
			h := &t.Headings[at.heading]
			if at.next == len(h.Narrower) {
				state[at.heading] = done
				path = path[:len(path)-1]
				continue
			}
			below := h.Narrower[at.next]
			switch state[below] {
			case open:
				tell(Cycle, t.Headings[below].ID, h.ID)
				h.Narrower = slices.Delete(h.Narrower, at.next, at.next+1)
				b := &t.Headings[below]
				b.Broader = slices.DeleteFunc(b.Broader, func(i int) bool { return i == at.heading })
			case fresh:
				at.next++
				state[below] = open
				path = append(path, step{below, 0})
			default:
				at.next++
			}
		}
	}
}

// Below returns the places of the heading and of all that stand below it, each once.
func (t *Thesaurus) Below(heading int) []int {
	seen := map[int]bool{heading: true}
	out := []int{heading}
	for i := 0; i < len(out); i++ {
		for _, n := range t.Headings[out[i]].Narrower {
			if !seen[n] {
				seen[n] = true
				out = append(out, n)
			}
		}
	}
	return out
}

// BelowLabels returns a label and those of all headings below it, as text.Label writes them. A label
// that the vocabulary does not have stands for itself alone.
func (t *Thesaurus) BelowLabels(label string) []string {
	i, ok := t.Find(label)
	if !ok {
		return []string{text.Label(label)}
	}
	below := t.Below(i)
	out := make([]string, len(below))
	for k, h := range below {
		out[k] = text.Label(t.Headings[h].Label)
	}
	return out
}

// MaxPlaces is the most paths that Places returns: a heading with many parents, each with many, has
// more than anyone would read.
const MaxPlaces = 200

// Places returns every path from a top heading down to this one, as labels, in ascending order.
func (t *Thesaurus) Places(heading int) [][]string {
	var out [][]string
	var climb func(h int, tail []string)
	climb = func(h int, tail []string) {
		if len(out) == MaxPlaces || len(tail) > 500 {
			return
		}
		tail = append(tail, t.Headings[h].Label)
		if len(t.Headings[h].Broader) == 0 {
			path := slices.Clone(tail)
			slices.Reverse(path)
			out = append(out, path)
			return
		}
		for _, b := range t.Headings[h].Broader {
			climb(b, tail)
		}
	}
	climb(heading, nil)
	slices.SortFunc(out, slices.Compare)
	return out
}

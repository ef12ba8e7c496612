package thesaurus

import "slices"

// link notes which headings stand below, above and beside each other, and what was used before what. A file may
// say it from one side only; both know it then.
func (t *Thesaurus) link(kept []labelled, tell func(TroubleKind, string, string)) {
	place := make(map[string]uint32, len(kept))
	for i, c := range kept {
		place[c.ID] = uint32(i)
	}
	find := func(from labelled, id string) (uint32, bool) {
		i, ok := place[id]
		if !ok {
			tell(NoParent, from.ID, id)
		}
		return i, ok
	}
	both := func() (one, other [][]uint32, join func(i, k uint32)) {
		one, other = make([][]uint32, len(kept)), make([][]uint32, len(kept))
		return one, other, func(i, k uint32) { one[i], other[k] = append(one[i], k), append(other[k], i) }
	}
	broader, narrower, under := both()
	related, beside, relate := both()
	replaces, replacedBy, replace := both()
	for i, c := range kept {
		i := uint32(i)
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
				relate(i, r)
			}
		}
		for _, id := range c.Replaces {
			if r, ok := place[id]; ok && r != i {
				replace(i, r)
			}
		}
		for _, id := range c.ReplacedBy {
			if r, ok := place[id]; ok && r != i {
				replace(r, i)
			}
		}
	}
	for i := range related {
		related[i] = append(related[i], beside[i]...)
	}
	for _, lists := range [][][]uint32{broader, narrower, related, replaces, replacedBy} {
		for i := range lists {
			slices.Sort(lists[i])
			lists[i] = slices.Compact(lists[i])
		}
	}
	t.unknot(narrower, broader, tell)
	t.broader, t.narrower, t.related = flatten(broader), flatten(narrower), flatten(related)
	t.replaces, t.replacedBy = flatten(replaces), flatten(replacedBy)
}

// unknot breaks circles: it walks down from every heading, and passes over a step to one that it is
// below already. The walk keeps its own stack, since a vocabulary may be as deep as it is large.
func (t *Thesaurus) unknot(narrower, broader [][]uint32, tell func(TroubleKind, string, string)) {
	const (
		fresh = iota
		open
		done
	)
	state := make([]byte, len(narrower))
	type step struct {
		heading uint32
		next    int
	}
	for root := range narrower {
		if state[root] != fresh {
			continue
		}
		state[root] = open
		path := []step{{uint32(root), 0}}
		for len(path) > 0 {
			at := &path[len(path)-1]
			list := narrower[at.heading]
			if at.next == len(list) {
				state[at.heading] = done
				path = path[:len(path)-1]
				continue
			}
			below := list[at.next]
			switch state[below] {
			case open:
				tell(Cycle, t.text(int(t.from[below])), t.text(int(t.from[at.heading])))
				narrower[at.heading] = slices.Delete(list, at.next, at.next+1)
				broader[below] = slices.DeleteFunc(broader[below], func(i uint32) bool { return i == at.heading })
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
func (t *Thesaurus) Below(heading int) []int { return t.BelowBut(heading, nil) }

// BelowBut returns the places of the heading and of all that stand below it, come to without going through one that
// is left out: what stands under a heading left out and elsewhere too is still there.
func (t *Thesaurus) BelowBut(heading int, without []int) []int {
	out := []int{heading}
	if len(t.narrower.span(heading)) == 0 {
		return out
	}
	seen := make([]uint64, t.Len()/64+1) // a bit for each
	see := func(h int) (fresh bool) {
		fresh = seen[h/64]&(1<<(h%64)) == 0
		seen[h/64] |= 1 << (h % 64)
		return fresh
	}
	see(heading)
	for _, w := range without {
		see(w)
	}
	for i := 0; i < len(out); i++ {
		for _, n := range t.narrower.span(out[i]) {
			if see(int(n)) {
				out = append(out, int(n))
			}
		}
	}
	return out
}

// A Branch is a heading, with or without all below it.
type Branch struct {
	Heading  int
	Narrower bool
}

// Cover returns headings and branches that are together just the given headings: as few as there are when each is
// taken from above, with all below it where all of that is given.
func (t *Thesaurus) Cover(of []int) []Branch {
	given, covered := map[int]bool{}, map[int]bool{}
	for _, h := range of {
		given[h] = true
	}
	var out []Branch
	for _, h := range of {
		if covered[h] {
			continue
		}
		below := t.Below(h)
		whole := len(below) > 1 && !slices.ContainsFunc(below, func(b int) bool { return !given[b] })
		out = append(out, Branch{h, whole})
		if whole {
			for _, b := range below {
				covered[b] = true
			}
		}
	}
	return slices.DeleteFunc(out, func(b Branch) bool { return !b.Narrower && covered[b.Heading] })
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
		tail = append(tail, t.Label(h))
		if len(t.broader.span(h)) == 0 {
			path := slices.Clone(tail)
			slices.Reverse(path)
			out = append(out, path)
			return
		}
		for _, b := range t.broader.span(h) {
			climb(int(b), tail)
		}
	}
	climb(heading, nil)
	slices.SortFunc(out, slices.Compare)
	return out
}

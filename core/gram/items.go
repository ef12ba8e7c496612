package gram

import (
	"slices"
	"strings"

	"tamiz/core/index"
	"tamiz/core/parallel"
	"tamiz/core/text"
)

// Items are the n-grams that are kept as items, by number from 0: each with its name, of how many tokens it is, its
// family, and the longer ones that hold it.
type Items struct {
	names    string
	ends     []uint32 // where each item's name ends
	words    []uint8  // tokens of each
	rank     []int32  // the place of each among all, by name, from 1
	byName   []int32  // all, by name
	family   []int32  // the number of each item's family
	families int

	// The longer items that hold item i, of which one may absorb it, are longer[longerStops[i-1]:longerStops[i]].
	longer      []int32
	longerStops []uint32
}

// A Count is how many records hold an item, and how often it occurs in them.
type Count struct{ Records, Occurrences int32 }

// Len returns how many there are.
func (it *Items) Len() int { return len(it.ends) }

// Name returns an item as it is written.
func (it *Items) Name(i int32) string {
	if i == 0 {
		return it.names[:it.ends[0]]
	}
	return it.names[it.ends[i-1]:it.ends[i]]
}

// Words returns of how many tokens an item is.
func (it *Items) Words(i int32) int { return int(it.words[i]) }

// Rank returns the place of an item among all, by name, from 1.
func (it *Items) Rank(i int32) int32 { return it.rank[i] }

// Family returns the number of an item's family.
func (it *Items) Family(i int32) int32 { return it.family[i] }

// Families returns how many families there are; they are numbered from 0.
func (it *Items) Families() int { return it.families }

// Find returns the item of a name.
func (it *Items) Find(name string) (int32, bool) {
	at, ok := slices.BinarySearchFunc(
		it.byName,
		name,
		func(i int32, name string) int { return strings.Compare(it.Name(i), name) },
	)
	if !ok {
		return None, false
	}
	return it.byName[at], true
}

// Labels returns the item that labels each family, of those that are counted in enough records; None of one without
// any.
func (it *Items) Labels(counts func(i int32) Count, least int) []int32 {
	label := make([]int32, it.families)
	for f := range label {
		label[f] = None
	}
	for i := range int32(it.Len()) {
		c := counts(i)
		if int(c.Records) < least {
			continue
		}
		f := &label[it.family[i]]
		if *f == None || text.Labels(it.Name(i), int(c.Records), it.Name(*f), int(counts(*f).Records)) {
			*f = i
		}
	}
	return label
}

// Absorber returns the longer item under which one is folded, or None: one that is in exactly as many records, so
// in the same ones; of several the longest, then the one that occurs most often, then the first by name.
func (it *Items) Absorber(i int32, counts func(i int32) Count) int32 {
	from, best := uint32(0), int32(None)
	if i > 0 {
		from = it.longerStops[i-1]
	}
	better := func(a, b int32) bool {
		if it.words[a] != it.words[b] {
			return it.words[a] > it.words[b]
		}
		if x, y := counts(a).Occurrences, counts(b).Occurrences; x != y {
			return x > y
		}
		return it.rank[a] < it.rank[b]
	}
	records := counts(i).Records
	for _, whole := range it.longer[from:it.longerStops[i]] {
		if counts(whole).Records == records && (best == None || better(whole, best)) {
			best = whole
		}
	}
	return best
}

// name numbers the n-grams that are kept, with their names and families, and returns the number of each.
func (it *Items) name(ix *index.Index, s index.Stream, found Levels) (place [][]int32) {
	var names strings.Builder
	bases := newBases(ix)
	families := map[string]int32{}
	var tokens []string
	for n, l := range found {
		place = append(place, make([]int32, len(l.Records)))
		for g := range l.Records {
			place[n][g] = None
			terms := s.Terms[l.places[g]:][:n+1]
			if !text.Keeps(n+1, ix.Role(terms[0]), ix.Role(terms[n])) {
				continue
			}
			tokens = tokens[:0]
			for i, term := range terms {
				if i > 0 {
					names.WriteByte(' ')
				}
				names.WriteString(ix.Token(term))
				tokens = append(tokens, bases.of(term))
			}
			key := text.FamilyKeyOfBases(tokens)
			family, ok := families[key]
			if !ok {
				family = int32(len(families))
				families[key] = family
			}
			place[n][g] = int32(len(it.ends))
			it.ends = append(it.ends, uint32(names.Len()))
			it.words = append(it.words, uint8(n+1))
			it.family = append(it.family, family)
		}
	}
	it.names, it.families = names.String(), len(families)
	it.byName = make([]int32, len(it.ends))
	for i := range it.byName {
		it.byName[i] = int32(i)
	}
	parallel.Sort(it.byName, func(a, b int32) int { return strings.Compare(it.Name(a), it.Name(b)) })
	it.rank = make([]int32, len(it.byName))
	for rank, i := range it.byName {
		it.rank[i] = int32(rank) + 1
	}
	return place
}

// contain notes for each item the longer ones that hold it.
func (it *Items) contain(found Levels, place [][]int32) {
	counts := make([]uint32, len(it.ends)+1)
	pairs := func(visit func(part, whole int32)) {
		var parts, next, seen []int32
		for n := 1; n < len(found); n++ {
			for g, whole := range place[n] {
				if whole == None {
					continue
				}
				parts = append(parts[:0], int32(g))
				for m := n; m > 0; m-- { // the n-grams of m tokens that it holds
					next = next[:0]
					for _, p := range parts {
						prefix, suffix := apart(found[m].parents[p])
						for _, part := range []int32{prefix, suffix} {
							if !slices.Contains(next, part) {
								next = append(next, part)
							}
						}
					}
					seen = seen[:0]
					for _, p := range next {
						if part := place[m-1][p]; part != None && !slices.Contains(seen, part) {
							seen = append(seen, part)
							visit(part, whole)
						}
					}
					parts, next = next, parts
				}
			}
		}
	}
	pairs(func(part, _ int32) { counts[part+1]++ })
	for i := range it.ends {
		counts[i+1] += counts[i]
	}
	it.longerStops = slices.Clone(counts[1:])
	it.longer = make([]int32, counts[len(counts)-1])
	pairs(func(part, whole int32) {
		it.longer[counts[part]] = whole
		counts[part]++
	})
}

// bases keeps the base of each token, which is in many items.
type bases struct {
	ix    *index.Index
	known []string
}

func newBases(ix *index.Index) bases { return bases{ix, make([]string, ix.Tokens())} }

func (b bases) of(token uint32) string {
	if b.known[token] == "" {
		b.known[token] = text.Base(b.ix.Token(token))
	}
	return b.known[token]
}

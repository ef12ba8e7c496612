package gram

import "tamiz/core/index"

// Places are items of some records and where each stands in their text.
type Places struct {
	Stream index.Stream
	Items  []Item
	places [][]uint32 // where in the stream each begins, ascending
}

// An Item is one with its figures.
type Item struct {
	Number      int32 // among all that were found
	Name        string
	Words       int // tokens
	Records     int
	Occurrences int
	Family      string // the item that labels it
	Absorbed    bool   // it never stands without a longer one
}

// Of returns where in the stream an item begins, ascending.
func (p *Places) Of(item int) []uint32 { return p.places[item] }

// Places returns where in a stream those of the items stand that keep admits. It is the stream in which they were
// found, or another of the same records.
func (f *Found) Places(s index.Stream, keep func(Item) bool) *Places {
	p := &Places{Stream: s}
	counts := f.Counts()
	of := func(i int32) Count { return counts[i] }
	label := f.Labels(of, 0)
	number := make([]int32, f.Len())
	for i, c := range counts {
		i := int32(i)
		number[i] = None
		item := Item{
			Number:      i,
			Name:        f.Name(i),
			Words:       f.Words(i),
			Records:     int(c.Records),
			Occurrences: int(c.Occurrences),
			Family:      f.Name(label[f.Family(i)]),
			Absorbed:    f.Absorber(i, of) != None,
		}
		if keep(item) {
			number[i] = int32(len(p.Items))
			p.Items = append(p.Items, item)
			p.places = append(p.places, make([]uint32, 0, item.Occurrences))
		}
	}
	f.Levels.walk(s, func(n int, at []int32) {
		for i, gram := range at {
			if gram == None || f.Place[n][gram] == None {
				continue
			}
			if item := number[f.Place[n][gram]]; item != None {
				p.places[item] = append(p.places[item], uint32(i))
			}
		}
	})
	return p
}

package tally

import (
	"context"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/gram"
	"tamiz/core/parallel"
	"tamiz/core/text"
)

// A Family is the variants of one word or phrase. Its figures are those of all its forms together: a
// record with two of them counts once.
type Family struct {
	Row              // the Item is the family's label
	Forms   []Row    // the label first, then the most frequent
	Absorbs []string // items that never stand without one of the forms
}

// A Folded is the words and phrases of a sample, folded into families, in order. There may be a million of them, of
// which a few are shown: it holds their figures as numbers, by item, and makes a Family when it is asked for one.
// It does not change.
type Folded struct {
	Tally // without rows

	items  *gram.Items
	counts []tallied // by item
	stands []bool    // by item; nil where nothing is known of it
	inKeys map[int32]int32

	families []family
	forms    []int32 // the items of all families, those of one after those of another
	place    []int32 // of each item's family among families, or gram.None

	// The items that item i absorbs are absorbed[absorbs[i]:absorbs[i+1]].
	absorbs  []uint32
	absorbed []int32
}

// A family is the figures of a family, and where its forms begin among all.
type family struct {
	tallied
	begin, forms uint32
	keys         int32
}

// Fold counts the words of a pool's sample and gathers them by family. An item that is absorbed is folded away:
// under the longer item that absorbs it, or, where its family has another form that stands alone, under that. keys
// may be nil.
func Fold(ctx context.Context, p *Pool, keys []*bib.Record, o WordOptions) (*Folded, error) {
	f := &Folded{Tally: p.wordHead(keys, o)}
	it, counts, stands, err := p.countedWords(ctx, o)
	if err != nil {
		return nil, err
	}
	f.items, f.counts, f.stands = it, counts, stands
	absorber := f.absorbers(o.MinRecords)
	together, err := p.together(ctx, it, o)
	if err != nil {
		return nil, err
	}
	if err := f.gather(ctx, absorber, o.MinRecords, together); err != nil {
		return nil, err
	}
	f.order()
	f.absorb(absorber)
	f.keys(keys, o)
	return f, ctx.Err()
}

// Len returns how many families there are.
func (f *Folded) Len() int { return len(f.families) }

// Label returns the label of a family.
func (f *Folded) Label(i int) string { return f.items.Name(f.forms[f.families[i].begin]) }

// Figures returns the figures of a family, without its forms.
func (f *Folded) Figures(i int) Row {
	of := &f.families[i]
	r := f.row(f.forms[of.begin], of.tallied)
	r.Keys = int(of.keys)
	return r
}

// Several reports whether a family has more forms than one.
func (f *Folded) Several(i int) bool { return f.families[i].forms > 1 }

// Piece reports whether none of the forms of a family stands by itself.
func (f *Folded) Piece(i int) bool {
	if f.stands == nil {
		return false
	}
	for _, item := range f.formsOf(i) {
		if f.stands[item] {
			return false
		}
	}
	return true
}

// Names returns the forms of a family, the label first.
func (f *Folded) Names(i int) []string {
	of := &f.families[i]
	out := make([]string, of.forms)
	for k, item := range f.formsOf(i) {
		out[k] = f.items.Name(item)
	}
	return out
}

// Family returns a family with all that is known of it.
func (f *Folded) Family(i int) Family {
	out := Family{Row: f.Figures(i)}
	for _, item := range f.formsOf(i) {
		r := f.row(item, f.counts[item])
		r.Keys = int(f.inKeys[item])
		out.Forms = append(out.Forms, r)
		for _, part := range f.absorbed[f.absorbs[item]:f.absorbs[item+1]] {
			out.Absorbs = append(out.Absorbs, f.items.Name(part))
		}
	}
	return out
}

// All returns every family.
func (f *Folded) All() []Family {
	out := make([]Family, f.Len())
	for i := range out {
		out[i] = f.Family(i)
	}
	return out
}

// Find returns the family of which a word or phrase is a form.
func (f *Folded) Find(form string) (int, bool) {
	if item, ok := f.items.Find(form); ok && f.place[item] != gram.None {
		return int(f.place[item]), true
	}
	return 0, false
}

// Bytes returns how much memory it takes, without what it shares with the pool.
func (f *Folded) Bytes() int64 {
	return int64(
		12*len(
			f.counts,
		) + 24*len(
			f.families,
		) + 4*(len(f.forms)+len(f.place)+len(f.absorbs)+len(f.absorbed)) + 32*len(
			f.inKeys,
		),
	)
}

func (f *Folded) formsOf(i int) []int32 {
	of := &f.families[i]
	return f.forms[of.begin : of.begin+of.forms]
}

func (f *Folded) row(item int32, t tallied) Row {
	r := Row{
		Item:            f.items.Name(item),
		Family:          f.Label(int(f.place[item])),
		Records:         int(t.Records),
		Occurrences:     int(t.Occurrences),
		ContrastRecords: int(t.contrast),
		Piece:           f.stands != nil && !f.stands[item],
	}
	r.figures(f.Sample, f.Contrast)
	return r
}

// absorbers returns the item that absorbs each, or gram.None.
func (f *Folded) absorbers(least int) []int32 {
	of := func(i int32) gram.Count { return f.counts[i].Count }
	out := make([]int32, len(f.counts))
	parallel.InParts(len(out), func(from, to int) {
		for i := from; i < to; i++ {
			out[i] = gram.None
			if int(f.counts[i].Records) >= least {
				out[i] = f.items.Absorber(int32(i), of)
			}
		}
	})
	return out
}

// gather finds the families with a form that nothing absorbs, the forms of each and its figures.
func (f *Folded) gather(
	ctx context.Context,
	absorber []int32,
	least int,
	together func(forms []int32) (records, contrast int),
) error {
	all := f.items.Families()
	sizes, alone := make([]uint32, all+1), make([]bool, all)
	for i, c := range f.counts {
		if int(c.Records) >= least {
			of := f.items.Family(int32(i))
			sizes[of+1]++
			alone[of] = alone[of] || absorber[i] == gram.None
		}
	}
	for n := range alone {
		if !alone[n] {
			sizes[n+1] = 0
		}
		sizes[n+1] += sizes[n]
	}
	f.forms = make([]int32, sizes[all])
	next := slices.Clone(sizes[:all])
	for i, c := range f.counts {
		if of := f.items.Family(int32(i)); int(c.Records) >= least && alone[of] {
			f.forms[next[of]] = int32(i)
			next[of]++
		}
	}
	for n := range alone {
		if n&1023 == 0 && ctx.Err() != nil {
			return ctx.Err()
		}
		if sizes[n] == sizes[n+1] {
			continue
		}
		forms := f.forms[sizes[n]:sizes[n+1]]
		of := family{begin: sizes[n], forms: uint32(len(forms)), tallied: f.counts[forms[0]]}
		if len(forms) > 1 {
			slices.SortFunc(forms, func(a, b int32) int {
				if text.Labels(f.items.Name(a), int(f.counts[a].Records), f.items.Name(b), int(f.counts[b].Records)) {
					return -1
				}
				return 1
			})
			records, contrast := together(forms)
			of.Records, of.contrast, of.Occurrences = int32(records), int32(contrast), 0
			for _, item := range forms {
				of.Occurrences += f.counts[item].Occurrences
			}
		}
		f.families = append(f.families, of)
	}
	f.families = slices.Clip(f.families)
	return nil
}

// order brings the families into the order of rows.
func (f *Folded) order() {
	places := make([]place, len(f.families))
	parallel.InParts(len(places), func(from, to int) {
		for i := from; i < to; i++ {
			of, pull := &f.families[i], 0.0
			if f.Contrast > 0 {
				pull = Pull(int(of.Records), f.Sample, int(of.contrast), f.Contrast)
			}
			places[i] = placeOf(pull, int(of.Records), f.items.Rank(f.forms[of.begin]), int32(i))
		}
	})
	inOrder(places, func(row int32) string { return f.Label(int(row)) })
	ordered := make([]family, len(f.families))
	for i, p := range places {
		ordered[i] = f.families[p.row]
	}
	f.families = ordered
	f.place = make([]int32, len(f.counts))
	for i := range f.place {
		f.place[i] = gram.None
	}
	for i := range f.families {
		for _, item := range f.formsOf(i) {
			f.place[item] = int32(i)
		}
	}
}

// absorb notes for each item those that it absorbs, in the order of rows.
func (f *Folded) absorb(absorber []int32) {
	f.absorbs = make([]uint32, len(f.counts)+1)
	for _, whole := range absorber {
		if whole != gram.None {
			f.absorbs[whole+1]++
		}
	}
	for i := range f.counts {
		f.absorbs[i+1] += f.absorbs[i]
	}
	f.absorbed = make([]int32, f.absorbs[len(f.counts)])
	next := slices.Clone(f.absorbs[:len(f.counts)])
	for i, whole := range absorber {
		if whole != gram.None {
			f.absorbed[next[whole]] = int32(i)
			next[whole]++
		}
	}
	// What one item absorbs is in as many records as it is, so nearly all the rest of their order is by name.
	for i := range f.counts {
		some := f.absorbed[f.absorbs[i]:f.absorbs[i+1]]
		if len(some) < 2 {
			continue
		}
		places := make([]place, len(some))
		for k, item := range some {
			c, pull := f.counts[item], 0.0
			if f.Contrast > 0 {
				pull = Pull(int(c.Records), f.Sample, int(c.contrast), f.Contrast)
			}
			places[k] = placeOf(pull, int(c.Records), f.items.Rank(item), item)
		}
		inOrder(places, f.items.Name)
		for k, p := range places {
			some[k] = p.row
		}
	}
}

// keys notes in how many of the key studies each item and each family is.
func (f *Folded) keys(keys []*bib.Record, o WordOptions) {
	f.inKeys = map[int32]int32{}
	last := map[int32]int{} // the key study in which a family was met last, from 1
	for n, k := range keys {
		for name := range grammed(k, o) {
			item, ok := f.items.Find(name)
			if !ok {
				continue
			}
			f.inKeys[item]++
			if of := f.place[item]; of != gram.None && last[of] != n+1 {
				last[of] = n + 1
				f.families[of].keys++
			}
		}
	}
}

// together returns what counts the records that hold any of several items.
func (p *Pool) together(
	ctx context.Context,
	it *gram.Items,
	o WordOptions,
) (func(forms []int32) (records, contrast int), error) {
	kept, err := p.items(ctx, o)
	if err != nil {
		return nil, err
	}
	if kept != nil {
		return (&union{it: kept, s: p.sides()}).of, nil
	}
	return func(forms []int32) (int, int) {
		found := roaring.New()
		for _, item := range forms {
			found.Or(p.Index.Gram(strings.Split(it.Name(item), " "), o.Fields))
		}
		return int(found.AndCardinality(p.Sample)), int(found.AndCardinality(p.Contrast))
	}, nil
}

package desk

import (
	"context"
	"encoding/json"
	"slices"
	"sync"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/library"
	"tamiz/core/bib"
	"tamiz/core/coverage"
)

// The ways in which records came about that a block's own words did not choose (measures.md §2), the better first.
const (
	ByOthers = "others" // drawn by the other concepts alone
	AtRandom = "random" // drawn without any concept
	FromFile = "file"   // read from a file: nobody knows what chose them
)

// Over says over which records something is told of a block that its own words did not choose.
type Over struct {
	Records int      `json:"records"`
	How     string   `json:"how"`  // others, random or file
	From    []string `json:"from"` // the samples
}

// A chosen is a sample or a part of one, with what chose its records.
type chosen struct {
	sample   int64
	part     int // its place; -1 where the sample has none
	name     string
	records  int
	draw     *int64
	source   *int64
	file     bool
	unknown  bool       // it cannot be said what chose them
	of       [][]chosen // the two samples that it was put together of, each with its parts
	concepts []drawnConcept
}

// A drawnConcept is a concept as a draw keeps it.
type drawnConcept struct {
	Name  string `json:"name"`
	Block string `json:"block"`
}

// chosenBy says what chose the records of the samples of a review, the newest first.
func chosenBy(origins []library.Origin) ([]chosen, error) {
	var out []chosen
	for _, o := range origins {
		c := chosen{sample: o.Sample, part: -1, name: o.Name, records: o.Records, draw: o.Draw, source: o.Source}
		var parts []struct {
			Concepts []drawnConcept `json:"concepts"`
			Wanted   int            `json:"wanted"`
		}
		if err := json.Unmarshal(o.Parts, &parts); err != nil {
			return nil, err
		}
		switch {
		case o.Draw == nil:
			c.file = o.Import != nil
			c.unknown = !c.file
			out = append(out, c)
		case len(parts) > 0:
			for i, p := range parts {
				part := c
				part.part, part.concepts, part.records = i, p.Concepts, p.Wanted
				out = append(out, part)
			}
		default:
			if err := json.Unmarshal(o.Concepts, &c.concepts); err != nil {
				return nil, err
			}
			c.unknown = o.Apart
			out = append(out, c)
		}
	}
	// What was put together of two is known by their names, as long as both are there.
	for _, o := range slices.Backward(origins) { // the oldest first: one may be of others that were put together
		at := slices.IndexFunc(out, func(c chosen) bool { return c.sample == o.Sample })
		if o.Joined == nil || at < 0 {
			continue
		}
		for _, name := range []string{o.Joined.A, o.Joined.B} {
			var parts []chosen
			for _, c := range out {
				if c.name == name && c.sample < o.Sample {
					parts = append(parts, c)
				}
			}
			out[at].of = append(out[at].of, parts)
		}
		out[at].unknown = len(out[at].of[0]) == 0 || len(out[at].of[1]) == 0
	}
	return out, nil
}

// free returns how the records came about where no condition on a block chose them; "" where one did, or may have.
func (c chosen) free(d Document, block string) string {
	if c.file {
		return FromFile
	}
	if c.unknown {
		return ""
	}
	if c.of != nil { // all of it has to be free: taking away what a block's words chose is a condition too
		how := ByOthers
		for _, part := range slices.Concat(c.of...) {
			switch free := part.free(d, block); {
			case free == "":
				return ""
			case how == ByOthers || free == FromFile:
				how = free
			}
		}
		return how
	}
	for _, by := range c.concepts {
		id := by.Block
		if d.Block(id) < 0 {
			// Drawn before concepts were told apart by more than their letters, or for one that is there no more.
			i := slices.IndexFunc(d.Blocks, func(b Block) bool { return b.Name == by.Name })
			if i < 0 {
				return ""
			}
			id = d.Blocks[i].ID
		}
		if id == block {
			return ""
		}
	}
	if len(c.concepts) == 0 {
		return AtRandom
	}
	return ByOthers
}

// beside returns the samples that a look needs beside its own: those of the same source that are free of a block of
// which its own sample is not.
func beside(all []chosen, d Document, sample int64, own []int64) (out []int64) {
	var source *int64
	var mine []chosen
	for _, c := range all {
		if c.sample == sample {
			source, mine = c.source, append(mine, c)
		}
	}
	for _, b := range d.Blocks {
		if source == nil || slices.ContainsFunc(mine, func(c chosen) bool { return c.free(d, b.ID) == ByOthers }) {
			continue
		}
		for _, c := range all {
			if c.source != nil && *c.source == *source && c.free(d, b.ID) != "" && !slices.Contains(own, c.sample) &&
				!slices.Contains(out, c.sample) {
				out = append(out, c.sample)
			}
		}
	}
	slices.Sort(out)
	return out
}

// A Free is the records of a pool that a block's own words did not choose.
type Free struct {
	coverage.Set
	Over Over
}

// Free returns the records by which a block's completeness is told: those of the sample that is looked at where
// these are free of the block; else, of the same source, those that the other concepts alone drew, or those drawn
// without any; nil for none.
func (d *Desk) Free(block string) *Free {
	if d.Pool == nil {
		return nil
	}
	own := d.source()
	for _, how := range []string{ByOthers, AtRandom, FromFile} {
		records := roaring.New()
		over := Over{How: how, From: []string{}}
		for _, c := range d.chosen {
			in := d.Pool.members[member{c.sample, c.part}]
			if in == nil || c.free(d.Document, block) != how || !same(c.source, own) ||
				how == FromFile && c.sample != d.Sample.ID {
				continue
			}
			records.Or(in)
			if !slices.Contains(over.From, c.name) {
				over.From = append(over.From, c.name)
			}
		}
		if records.IsEmpty() {
			continue
		}
		over.Records = int(records.GetCardinality())
		return &Free{d.Pool.setOf(records), over}
	}
	return nil
}

// setApart takes the records of a sample that were drawn as its contrast out of it, and sets it against them.
func (p *Pool) setApart(sample int64, all []chosen) {
	parts, contrast := roaring.New(), roaring.New()
	for _, c := range all {
		if in := p.members[member{c.sample, c.part}]; c.sample == sample && c.part >= 0 && in != nil {
			if len(c.concepts) == 0 {
				contrast.Or(in)
			} else {
				parts.Or(in)
			}
		}
	}
	contrast.AndNot(parts)
	if parts.IsEmpty() || contrast.IsEmpty() {
		return
	}
	p.Pool.Sample.AndNot(contrast)
	p.Pool.Contrast.Or(contrast)
}

// source returns the source that the sample which is looked at was drawn from; nil for a file.
func (d *Desk) source() *int64 {
	for _, c := range d.chosen {
		if c.sample == d.Sample.ID {
			return c.source
		}
	}
	return nil
}

func same(a, b *int64) bool { return a == nil && b == nil || a != nil && b != nil && *a == *b }

// A member is a sample, or a part of one, whose records are in a pool.
type member struct {
	sample int64
	part   int
}

// memberOf returns which records of a pool each sample holds, and each part of those that have some.
func (p *Pools) memberOf(
	ctx context.Context,
	pool *Pool,
	samples map[int64][]library.StoredRecord,
	all []chosen,
) (map[member]*roaring.Bitmap, error) {
	at := make(map[int64]uint32, len(pool.IDs))
	for i, id := range pool.IDs {
		at[id] = uint32(i)
	}
	// What makes records themselves is needed only where a sample holds one that the pool has in another record.
	known := sync.OnceValue(func() *bib.Known {
		var k bib.Known
		for i, r := range pool.Records {
			k.Add(r, i)
		}
		return &k
	})
	place := map[int64]uint32{} // of each record of the samples: its own, or that of the one it is the same as
	for _, stored := range samples {
		for _, s := range stored {
			if i, ok := at[s.ID]; ok {
				place[s.ID] = i
			} else if i, ok := known().Find(s.Record); ok {
				place[s.ID] = uint32(i)
			}
		}
	}
	out := map[member]*roaring.Bitmap{}
	parts := map[int64]map[int][]int64{}
	for _, c := range all {
		stored, ok := samples[c.sample]
		if !ok {
			continue
		}
		in := roaring.New()
		if c.part < 0 {
			for _, s := range stored {
				if i, ok := place[s.ID]; ok {
					in.Add(i)
				}
			}
		} else {
			if parts[c.sample] == nil {
				ids, err := p.library.PartIDs(ctx, *c.draw)
				if err != nil {
					return nil, err
				}
				parts[c.sample] = ids
			}
			for _, id := range parts[c.sample][c.part] {
				if i, ok := place[id]; ok {
					in.Add(i)
				}
			}
		}
		out[member{c.sample, c.part}] = in
	}
	return out, nil
}

package standin

import (
	"fmt"
	"slices"
	"strconv"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
)

// The indexes of a collection that knows who cites whom.
const (
	citesIndex      = "tamiz.cites"      // records that cite a work
	citedByIndex    = "tamiz.citedby"    // records that a work cites
	timesCitedIndex = "tamiz.timescited" // by how many records of the collection they are cited
)

// links is who cites whom: by identifiers, as references name them.
type links struct {
	citing map[string][]uint32 // the records that cite what goes by an identifier
	at     map[string]uint32   // the record that goes by one
	times  []int               // how often each record is cited
}

func linksOf(records []*bib.Record) links {
	l := links{citing: map[string][]uint32{}, at: map[string]uint32{}, times: make([]int, len(records))}
	for i, r := range records {
		for _, id := range []string{bib.DOIKey(r.DOI), bib.DOIKey(r.Accession)} {
			if id != "" {
				l.at[id] = uint32(i)
			}
		}
		if r.TimesCited != nil {
			l.times[i] = *r.TimesCited
		}
	}
	for i, r := range records {
		for _, f := range r.References {
			if id := bib.DOIKey(f.DOI); id != "" {
				if has := l.citing[id]; len(has) == 0 || has[len(has)-1] != uint32(i) {
					l.citing[id] = append(has, uint32(i))
				}
			}
		}
	}
	return l
}

// linked is a clause about citations.
type linked struct{ records []uint32 }

// Match implements query.Expr.
func (q linked) Match(*index.Index) *roaring.Bitmap { return roaring.BitmapOf(q.records...) }

// linked reads a clause about citations; nil where it is about something else, or nothing is known of them here.
func (c *Collection) linked(name, relation, value string) (query.Expr, error) {
	if !slices.ContainsFunc(c.Indexes, func(has string) bool { return strings.EqualFold(has, name) }) {
		return nil, nil
	}
	id := bib.DOIKey(value)
	switch name {
	case citesIndex:
		if at, ok := c.links.at[id]; ok { // by whichever of its identifiers it was named
			id = bib.DOIKey(c.records[at].DOI)
		}
		return linked{c.links.citing[id]}, nil
	case citedByIndex:
		at, ok := c.links.at[id]
		if !ok {
			return linked{}, nil
		}
		var out []uint32
		for _, f := range c.records[at].References {
			if to, here := c.links.at[bib.DOIKey(f.DOI)]; here && f.DOI != "" {
				out = append(out, to)
			}
		}
		return linked{out}, nil
	case timesCitedIndex:
		n, err := strconv.Atoi(value)
		if err != nil || relation != ">=" {
			return nil, fmt.Errorf("how often a work is cited is asked with >= and a number")
		}
		var out []uint32
		for i, times := range c.links.times {
			if times >= n {
				out = append(out, uint32(i))
			}
		}
		return linked{out}, nil
	}
	return nil, nil
}

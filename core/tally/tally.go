// Package tally counts what a sample is made of (its words and phrases, headings, keywords) and how
// typical each is of it, set against a contrast. It knows nothing of where records come from.
package tally

import (
	"context"
	"math"
	"slices"
	"unsafe"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/parallel"
	"tamiz/core/thesaurus"
)

// A Facet is a kind of item that is counted.
type Facet string

// The facets.
const (
	Words      Facet = "words"
	Headings   Facet = "headings"
	Qualifiers Facet = "qualifiers"
	Keywords   Facet = "keywords"
	Journals   Facet = "journals"
	Authors    Facet = "authors"
	Years      Facet = "years"
	Types      Facet = "types"
	Languages  Facet = "languages"
	Countries  Facet = "countries"
	Substances Facet = "substances"
	Ages       Facet = "ages"   // headings that stand for an age, with all below them
	Humans     Facet = "humans" // those that stand for humans and for animals
)

// Facets are all there are, in the order in which they are shown.
var Facets = []Facet{
	Words,
	Headings,
	Qualifiers,
	Keywords,
	Journals,
	Authors,
	Years,
	Types,
	Languages,
	Countries,
	Ages,
	Humans,
	Substances,
}

// A Pool is a sample and what it is compared with, indexed together.
type Pool struct {
	Records   []*bib.Record
	Index     *index.Index
	Sample    *roaring.Bitmap
	Contrast  *roaring.Bitmap      // empty when there is none
	Thesaurus *thesaurus.Thesaurus // of its headings; may be nil

	parted Parted // writings of authors that are not folded
	kept   *kept  // what is kept of all its records; nil where nothing is
}

// NewPool indexes a sample and its contrast. A record of the contrast that is one with a record of
// the sample is left out: it never counts on both sides.
func NewPool(ctx context.Context, sample, contrast []*bib.Record) (*Pool, error) {
	return NewPoolBeside(ctx, sample, contrast, nil)
}

// NewPoolBeside does the same, and indexes other records with them that belong to neither.
func NewPoolBeside(ctx context.Context, sample, contrast, beside []*bib.Record) (*Pool, error) {
	var known bib.Known
	for i, r := range sample {
		known.Add(r, i)
	}
	records := append(slices.Clone(sample), known.Without(contrast)...)
	both := len(records)
	if len(beside) > 0 {
		for i, r := range records[len(sample):] {
			known.Add(r, len(sample)+i)
		}
		records = append(records, known.Without(beside)...)
	}
	ix, err := index.BuildWithin(ctx, records)
	if err != nil {
		return nil, err
	}
	p := &Pool{Records: records, Index: ix, Sample: roaring.New(), Contrast: roaring.New()}
	p.Sample.AddRange(0, uint64(len(sample)))
	p.Contrast.AddRange(uint64(len(sample)), uint64(both))
	return p, nil
}

// A Tally is the counts of one facet.
type Tally struct {
	Facet        Facet
	Sample       int // records of the sample
	Contrast     int // records of the contrast; 0 when there is none, and then no row has its figures
	HasKeys      bool
	KeyStudies   int // that were counted
	HasCentral   bool
	HasNarrower  bool
	Rows         []Row
	LeftOutBelow int // items in fewer records than this are left out
	Missing      int // of a list: records of the sample without any item
	MissingKeys  int // key studies without any
}

// Bytes returns how much memory the rows take.
func (t *Tally) Bytes() (n int64) {
	n = int64(len(t.Rows)) * int64(unsafe.Sizeof(Row{}))
	for i := range t.Rows {
		n += 64 * int64(len(t.Rows[i].Writings)) // an entry of a map, about
	}
	return n
}

// A Row is one item with its figures.
type Row struct {
	Item            string
	Records         int     // records of the sample with the item
	Occurrences     int     // times it occurs in the sample
	Share           float64 // Records / records of the sample
	ContrastRecords int
	ContrastShare   float64
	Lift            float64 // how many times as common here as there
	Pull            float64 // how surely typical
	Keys            int     // key studies with the item
	AbsorbedBy      string  // of a word or phrase: the longer one without which it never stands
	Family          string  // of a word or phrase: the label of its family
	Piece           bool    // of a phrase: it does not stand by itself, and is a piece of a sentence (measures.md §4)
	Central         int     // records where the heading is a main point
	WithNarrower    int     // records with the heading or one below it
	Unindexed       int     // of a list: records with the item that carry no heading

	Writings map[string]int // of a list: records that use each way of writing it, where there are several

	item int32 // the number of a word or phrase among those that were found with it, from 1
	rank int32 // its place among all kept ones, by name, from 1
}

// figures works out share, lift and pull of every row and brings the rows into order: by pull, or
// without a contrast by records, then by records, then by item.
func (t *Tally) figures() {
	parallel.InParts(len(t.Rows), func(from, to int) {
		for i := from; i < to; i++ {
			t.Rows[i].figures(t.Sample, t.Contrast)
		}
	})
	out := make([]Row, len(t.Rows))
	for i, row := range order(t.Rows) {
		out[i] = t.Rows[row]
	}
	t.Rows = out
}

// figures works out share, lift and pull of a row.
func (r *Row) figures(sample, contrast int) {
	r.Share = float64(r.Records) / float64(sample)
	if contrast > 0 {
		r.ContrastShare = float64(r.ContrastRecords) / float64(contrast)
		r.Lift = Lift(r.Records, sample, r.ContrastRecords, contrast)
		r.Pull = Pull(r.Records, sample, r.ContrastRecords, contrast)
	}
}

// Lift is how many times as common an item is here (in a of n1 records) as there (in b of n2); the
// halves keep it finite where one of the two has none.
func Lift(a, n1, b, n2 int) float64 {
	return ((float64(a) + 0.5) / float64(n1+1)) / ((float64(b) + 0.5) / float64(n2+1))
}

// Pull is how surely an item is typical of n1 records, a of which have it, against n2, b of which do:
// the signed log-likelihood ratio G² of the two-by-two table, negative when the item is rarer here.
// Dunning 1993, "Accurate methods for the statistics of surprise and coincidence".
func Pull(a, n1, b, n2 int) float64 {
	n := float64(n1 + n2)
	if n1 == 0 || n2 == 0 {
		return 0
	}
	with, without := float64(a+b), n-float64(a+b)
	cell := func(observed, row, column float64) float64 {
		if observed == 0 {
			return 0
		}
		return observed * math.Log(observed*n/(row*column))
	}
	g := 2 * (cell(float64(a), float64(n1), with) + cell(float64(n1-a), float64(n1), without) +
		cell(float64(b), float64(n2), with) + cell(float64(n2-b), float64(n2), without))
	if float64(a)*float64(n2) < float64(b)*float64(n1) {
		return -g
	}
	return g
}

// Round rounds to the 6 decimals at which figures are compared.
func Round(x float64) float64 {
	if r := math.Round(x*1e6) / 1e6; r != 0 {
		return r
	}
	return 0
}

// Count counts a facet of the pool's sample; the options hold for words. keys, which may be nil, are
// the key studies. Where the context ends before, that is the error.
func Count(ctx context.Context, p *Pool, f Facet, keys []*bib.Record, o WordOptions) (*Tally, error) {
	if f == Words {
		return CountWords(ctx, p, keys, o)
	}
	return CountList(ctx, p, f, keys)
}

// Package set holds what records can be looked at, listed, saved or counted: a sum, one file for each kind. A set is a
// value that travels as JSON; which records it has is worked out in the pool that it is looked for in.
package set

import (
	"cmp"
	"context"
	"errors"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/coverage"
	"tamiz/core/review"
	"tamiz/core/strategy"
	"tamiz/core/sum"
	"tamiz/core/tally"
)

// A Set is some records. Kinds are told apart by the word kind of their JSON.
type Set interface {
	// Records returns the records of the set, by their numbers in a pool.
	Records(ctx context.Context, in Pool) (*roaring.Bitmap, error)
	// Check returns what keeps the set from being looked for: a *Fault.
	Check() error
}

// A Pool is what sets are looked for in.
type Pool interface {
	// All returns all that is looked at, of which items are told; Sample, the sample, of which blocks are.
	All() *roaring.Bitmap
	Sample() *roaring.Bitmap
	// Item returns the records with an item of a facet, in any of its forms.
	Item(ctx context.Context, f tally.Facet, item string) (*roaring.Bitmap, error)
	// Around returns records around an item of a facet, or around the whole facet.
	Around(f tally.Facet, item string, a tally.Aspect) *roaring.Bitmap
	// Together returns the records with two of some authors.
	Together(authors []string) *roaring.Bitmap
	// Document returns the document that blocks are taken from.
	Document() review.Document
	// Reach returns what its blocks find, and Hits what a term does.
	Reach(ctx context.Context) (*coverage.Reach, error)
	Hits(t strategy.Term) (*roaring.Bitmap, error)
	// Free returns where is told what a block lacks or could do without: among the records that its own words did not
	// choose. Where there are none it is the pool itself.
	Free(block string) Pool
	// ReachOf returns what those of a revision of the document find; of the one that is looked at, for 0.
	ReachOf(ctx context.Context, revision int) (*coverage.Reach, error)
	// Stored returns those of the pool that a set has which is known without it.
	Stored(ctx context.Context, s Stored) (*roaring.Bitmap, error)
}

// A Stored is a set that need not be of the pool that is looked at: its records are known by where they are kept.
type Stored interface {
	Set
	stored()
}

// A Fault is what keeps a set from being looked for: in which field, and in words. Err is what is behind it.
type Fault struct {
	Field   string
	Message string
	Err     error
}

func (f *Fault) Error() string { return f.Message }

// Unwrap returns what is behind the fault.
func (f *Fault) Unwrap() error { return f.Err }

// ErrNoBlock is the answer to a set of a block that the document does not have.
var ErrNoBlock = errors.New("there is no such block")

// Limits of what says which records are meant.
const (
	MostIDs    = 100_000 // records of a selection
	MostTeam   = 500     // authors
	MostWithin = 8       // sets within one another
)

var kinds = sum.Of[Set]("kind", "set of kind")

// kind makes a kind of set known by its word.
func kind[T any, P interface {
	*T
	Set
}](name string) {
	kinds.Add(name, func() Set { return P(new(T)) })
}

// Of is any set, as it travels.
type Of struct{ Set }

// UnmarshalJSON reads a set of any kind.
func (o *Of) UnmarshalJSON(data []byte) (err error) {
	o.Set, err = kinds.Read(data)
	return err
}

// MarshalJSON writes a set of any kind.
func (o Of) MarshalJSON() ([]byte, error) { return kinds.Write(o.Set) }

// InDocument says what keeps a set from being told by a document: that it names a block, a line or a limit which
// that does not have.
func InDocument(s Set, d review.Document) error {
	block := func(id string) error {
		if d.Block(id) < 0 {
			return ErrNoBlock
		}
		return nil
	}
	switch s := s.(type) {
	case *Block:
		return block(s.Block)
	case *Spot:
		return block(s.Block)
	case *Lost:
		return block(s.Block)
	case *Line:
		if d.Line(s.Line) < 0 {
			return errNoLine
		}
	case *Limit:
		if s.of(d) < 0 {
			return errNoLimit
		}
	case *Within:
		return cmp.Or(InDocument(s.Of.Set, d), InDocument(s.In.Set, d))
	case *Less:
		return cmp.Or(InDocument(s.Of.Set, d), InDocument(s.Less.Set, d))
	}
	return nil
}

// OfDocument reports whether which records a set has depends on the document.
func OfDocument(s Set) bool {
	switch s := s.(type) {
	case *Block, *Line, *Limit, *Spot, *Any, *Lost:
		return true
	case *Strategy:
		return s.Revision == 0
	case *Term:
		return s.Only
	case *Within:
		return OfDocument(s.Of.Set) || OfDocument(s.In.Set)
	case *Less:
		return OfDocument(s.Of.Set) || OfDocument(s.Less.Set)
	}
	return false
}

package desk

import (
	"crypto/sha256"
	"errors"

	lru "github.com/hashicorp/golang-lru/v2"

	"tamiz/app/problems"
	"tamiz/core/review"
	"tamiz/core/strategy"
)

type (
	// Document is what a review says: the question, the blocks for its concepts, the limits.
	Document = review.Document
	// Block is a concept of the question with its terms.
	Block = review.Block
	// Term is a line of a block, with where it came from.
	Term = review.Term
	// Origin is the item a term was made from.
	Origin = review.Origin
	// Halves are the key studies split at random.
	Halves = review.Halves
	// HandSearch is a journal of the hand-search list.
	HandSearch = review.HandSearch
	// Edits are what is done to a document, as data.
	Edits = review.Edits
	// Clash is one thing that two people made something else of.
	Clash = review.Clash
	// Limit is a limit on the whole strategy.
	Limit = strategy.Limit
)

// parsed are the documents that were read last, by what was read: every figure reads the one that it is of.
var parsed, _ = lru.New[[sha256.Size]byte, Document](8)

// Parse reads a document that was kept.
func Parse(body []byte) (Document, error) {
	key := sha256.Sum256(body)
	if known, ok := parsed.Get(key); ok {
		return known.Filled(), nil // a copy that shares nothing
	}
	d, err := review.Parse(body)
	if err == nil {
		parsed.Add(key, d.Filled())
	}
	return d, err
}

// applied returns a document with edits made.
func applied(d Document, e Edits) Document {
	d, _ = review.Apply(d, e)
	return d
}

// Checked says what keeps a document from being kept, as a problem.
func Checked(d Document) error {
	err := d.Validate()
	var f *review.Fault
	if !errors.As(err, &f) {
		return err
	}
	p := problems.Invalid(f.Field, "%s", problems.Sentence(f.Message))
	if f.Err != nil {
		p.Type, p.Detail = "refused", problems.RefusalOf(f.Err).Reason
	}
	return p
}

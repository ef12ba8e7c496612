package dialect

import (
	"errors"
	"fmt"

	"tamiz/core/query"
	"tamiz/core/thesaurus"
)

// Means returns what a query says that is written in the dialect; an error says what of it cannot be read.
func (d *Dialect) Means(text string, vocabulary *thesaurus.Thesaurus) (query.Expr, error) {
	r, err := d.Read(text, vocabulary)
	if err != nil {
		return nil, err
	}
	for _, f := range r.Findings {
		if f.Code == Unreadable || f.Code == FieldUnknown || f.Code == ExactTruncated || f.Code == Bracket {
			return nil, fmt.Errorf("at character %d: %s", f.From+1, f.Why)
		}
	}
	q := r.Expr()
	if q == nil {
		return nil, errors.New("it says nothing that could be searched")
	}
	return q, nil
}

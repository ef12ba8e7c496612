// Package readtest reads whole files for the tests of the readers of records.
package readtest

import (
	"errors"
	"io"

	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// A Reader is what every reader of records is.
type Reader interface {
	Read() (*bib.Record, error)
}

// All returns all records of a file and what was reported of it.
func All[R Reader](
	t require.TestingT,
	open func(report func(exchange.Notice)) R,
) (records []*bib.Record, notices []exchange.Notice) {
	for r := open(func(n exchange.Notice) { notices = append(notices, n) }); ; {
		rec, err := r.Read()
		if errors.Is(err, io.EOF) {
			return records, notices
		}
		require.NoError(t, err)
		records = append(records, rec)
	}
}

// Kinds returns what notices are about, and fails where one cannot be said in words.
func Kinds(t require.TestingT, notices []exchange.Notice) (out []exchange.Kind) {
	for _, n := range notices {
		out = append(out, n.Kind)
		require.NotContains(t, n.String(), "%!")
	}
	return out
}

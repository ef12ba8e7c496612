package sources

import (
	"context"
	"crypto/sha256"
	_ "embed"
	"encoding/json"
	"time"

	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the counts of a database.
type Rows struct{ db *store.Store }

// NewRows returns the counts of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// A Count is how many records a source said it finds, and what it made of the query.
type Count struct {
	Records  int
	Exchange json.RawMessage
	At       time.Time
	Today    bool
}

func queryHash(cql string) []byte {
	sum := sha256.Sum256([]byte(cql))
	return sum[:16]
}

// Counts returns the last count of each query at a source; what was never counted is absent.
func (r *Rows) Counts(ctx context.Context, source int64, cql []string) (map[string]Count, error) {
	hashes := make([][]byte, len(cql))
	byHash := make(map[string]string, len(cql))
	for i, q := range cql {
		hashes[i] = queryHash(q)
		byHash[string(hashes[i])] = q
	}
	type row struct {
		Hash []byte
		Count
	}
	rows, err := store.All[row](ctx, r.db, sql["Counts"], source, hashes)
	out := make(map[string]Count, len(rows))
	for _, r := range rows {
		out[byHash[string(r.Hash)]] = r.Count
	}
	return out, err
}

// PutCount keeps what a source said of a query today.
func (r *Rows) PutCount(ctx context.Context, source int64, cql string, records int, exchange json.RawMessage) error {
	_, err := r.db.Write.Exec(ctx, sql["PutCount"],
		source, queryHash(cql), records, exchange)
	return err
}

// ForgetCounts makes today's counts of some queries be counted again.
func (r *Rows) ForgetCounts(ctx context.Context, source int64, cql []string) error {
	hashes := make([][]byte, len(cql))
	for i, q := range cql {
		hashes[i] = queryHash(q)
	}
	_, err := r.db.Write.Exec(ctx, sql["ForgetCounts"], source, hashes)
	return err
}

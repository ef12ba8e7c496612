package library

import (
	"context"
	"encoding/json"

	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
	"tamiz/store"
)

// A Key is a key study with its record.
type Key struct {
	ID int64
	StoredRecord
}

// KeyStudies returns the key studies of a review in the order in which they came.
func (r *Rows) KeyStudies(ctx context.Context, review int64) ([]Key, error) {
	return readKeys(ctx, r.db, review)
}

func readKeys(ctx context.Context, q store.Asker, review int64) ([]Key, error) {
	rows, err := q.Query(ctx, sql["readKeys"], review)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, func(row pgx.CollectableRow) (k Key, err error) {
		var body []byte
		if err := row.Scan(&k.ID, &k.StoredRecord.ID, &body); err != nil {
			return k, err
		}
		k.Record = &bib.Record{}
		return k, json.Unmarshal(body, k.Record)
	})
}

// A KeyOrigin is where a key study came from.
type KeyOrigin struct {
	ID     int64
	Way    string
	Origin string
}

// KeyOrigins returns where the key studies of a review came from, in the order in which they came.
func (r *Rows) KeyOrigins(ctx context.Context, review int64) ([]KeyOrigin, error) {
	return store.All[KeyOrigin](ctx, r.db, sql["KeyOrigins"], review)
}

// KeyStudiesIn returns the key studies of the review.
func KeyStudiesIn(ctx context.Context, tx *store.Tx) ([]Key, error) {
	return readKeys(ctx, tx, tx.Review)
}

// AddKeyRecords stores records as key studies, of a way and an origin, and returns the numbers of those studies.
func AddKeyRecords(ctx context.Context, tx *store.Tx, records []*bib.Record, way, origin string) ([]int64, error) {
	ids, err := PutIn(ctx, tx, "file", records)
	if err != nil {
		return nil, err
	}
	return AddKeys(ctx, tx, ids, way, origin)
}

// AddKeys makes stored records key studies of the review, of a way and an origin, and returns the numbers of those
// studies.
func AddKeys(ctx context.Context, tx *store.Tx, records []int64, way, origin string) ([]int64, error) {
	rows, err := tx.Query(ctx, sql["AddKeys"], tx.Review, records, way, origin)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[int64])
}

// A KeyState is whether a key study is deleted.
type KeyState struct {
	ID      int64 `json:"id"`
	Deleted bool  `json:"deleted"`
}

// KeyStateIn returns the state of a key study of the review.
func KeyStateIn(ctx context.Context, tx *store.Tx, id int64) (KeyState, error) {
	return store.One[KeyState](ctx, tx, sql["KeyStateIn"], tx.Review, id)
}

// SetKey makes the state of a key study of the review be as it is said.
func SetKey(ctx context.Context, tx *store.Tx, k KeyState) error {
	_, err := tx.Exec(ctx, sql["SetKey"], tx.Review, k.ID, k.Deleted)
	return err
}

package library

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
	"tamiz/store"
)

// ShelvedIDs returns the records on the shelf of a review, in the order in which they came.
func (r *Rows) ShelvedIDs(ctx context.Context, review int64) ([]int64, error) {
	rows, err := r.db.Query(ctx, sql["ShelvedIDs"], review)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[int64])
}

// A ShelvedRecord is a record on the shelf with what is noted of it.
type ShelvedRecord struct {
	StoredRecord
	Note string
	Tags []string
	Made time.Time
}

// Shelf returns the shelf of a review, last added first.
func (r *Rows) Shelf(ctx context.Context, review int64) ([]ShelvedRecord, error) {
	rows, err := r.db.Query(ctx, sql["Shelf"], review)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, func(row pgx.CollectableRow) (out ShelvedRecord, err error) {
		var body []byte
		if err := row.Scan(&out.ID, &body, &out.Note, &out.Tags, &out.Made); err != nil {
			return out, err
		}
		out.Record = &bib.Record{}
		if err := json.Unmarshal(body, out.Record); err != nil {
			return out, fmt.Errorf("record %d: %w", out.ID, err)
		}
		return out, nil
	})
}

// A ShelfState is whether a record stands on the shelf of a review, with what is noted of it.
type ShelfState struct {
	Record int64    `json:"record"`
	On     bool     `json:"on"`
	Note   string   `json:"note,omitempty"`
	Tags   []string `json:"tags,omitempty"`
}

// ShelvedIn returns whether a record stands on the shelf of the review.
func ShelvedIn(ctx context.Context, tx *store.Tx, record int64) (ShelfState, error) {
	s, err := store.One[ShelfState](ctx, tx, sql["ShelvedIn"], tx.Review, record)
	if errors.Is(err, store.ErrNone) {
		return ShelfState{Record: record}, nil
	}
	if len(s.Tags) == 0 {
		s.Tags = nil
	}
	return s, err
}

// ShelfSize returns how many records stand on the shelf of the review.
func ShelfSize(ctx context.Context, tx *store.Tx) (n int, err error) {
	err = tx.QueryRow(ctx, sql["ShelfSize"], tx.Review).Scan(&n)
	return n, err
}

// Shelve makes a record stand on the shelf of the review or not, as it is said.
func Shelve(ctx context.Context, tx *store.Tx, s ShelfState) error {
	if !s.On {
		_, err := tx.Exec(ctx, sql["Shelve delete"], tx.Review, s.Record)
		return err
	}
	if s.Tags == nil {
		s.Tags = []string{}
	}
	_, err := tx.Exec(ctx, sql["Shelve insert"], tx.Review, s.Record, s.Note, s.Tags)
	return err
}

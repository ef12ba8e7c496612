package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
)

// A FactShelved is whether a record stands on the shelf of a review, with what is noted of it.
type FactShelved struct {
	Record int64    `json:"record"`
	On     bool     `json:"on"`
	Note   string   `json:"note,omitempty"`
	Tags   []string `json:"tags,omitempty"`
}

// Shelved returns whether a record stands on the shelf.
func (w *Tx) Shelved(ctx context.Context, record int64) (FactShelved, error) {
	f, err := one[FactShelved](ctx, w.tx, "select record, true as on, note, tags from shelved where review = $1 and record = $2", w.review, record)
	if errors.Is(err, ErrNone) {
		return FactShelved{Record: record}, nil
	}
	if len(f.Tags) == 0 {
		f.Tags = nil
	}
	return f, err
}

// ShelfSize returns how many records stand on the shelf.
func (w *Tx) ShelfSize(ctx context.Context) (n int, err error) {
	err = w.tx.QueryRow(ctx, "select count(*) from shelved where review = $1", w.review).Scan(&n)
	return n, err
}

// HasRecord reports whether there is such a record.
func (w *Tx) HasRecord(ctx context.Context, record int64) (bool, error) {
	var has bool
	err := w.tx.QueryRow(ctx, "select exists (select from record where id = $1)", record).Scan(&has)
	return has, err
}

func (w *Tx) shelve(ctx context.Context, all []FactShelved) error {
	for _, f := range all {
		var err error
		if f.On {
			if f.Tags == nil {
				f.Tags = []string{}
			}
			_, err = w.tx.Exec(ctx, `insert into shelved (review, record, note, tags) values ($1, $2, $3, $4)
				on conflict (review, record) do update set note = excluded.note, tags = excluded.tags`, w.review, f.Record, f.Note, f.Tags)
		} else {
			_, err = w.tx.Exec(ctx, "delete from shelved where review = $1 and record = $2", w.review, f.Record)
		}
		if err != nil {
			return err
		}
	}
	return nil
}

// ShelvedIDs returns the records on the shelf of a review, in the order in which they came.
func (s *Store) ShelvedIDs(ctx context.Context, review int64) ([]int64, error) {
	rows, err := s.Query(ctx, "select record from shelved where review = $1 order by made, record", review)
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
func (s *Store) Shelf(ctx context.Context, review int64) ([]ShelvedRecord, error) {
	rows, err := s.Query(ctx, `select r.id, r.body, s.note, s.tags, s.made from shelved s join record r on r.id = s.record
		where s.review = $1 order by s.made desc, s.record desc`, review)
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

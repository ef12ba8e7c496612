package library

import (
	"context"
	"encoding/json"
	"time"

	"tamiz/core/bib"
	"tamiz/store"
)

// Whether a source holds a key study.
const (
	Held    = "held"
	Near    = "near" // something like it, which a person has to decide on
	Absent  = "absent"
	Unknown = "unknown" // the source did not answer, or cannot be asked so
)

// A Holding is whether a source holds a key study, and what its record there is.
type Holding struct {
	KeyStudy int64      `json:"keyStudy"`
	Source   int64      `json:"source"`
	State    string     `json:"state"`
	How      string     `json:"how"`
	Record   *int64     `json:"record,omitempty"`
	At       time.Time  `json:"at"`
	Headings int        `json:"headings"`          // of its record there
	Changed  *time.Time `json:"changed,omitempty"` // when its record there was first seen to be another than before
}

// Holdings returns which sources hold the key studies of a review.
func (r *Rows) Holdings(ctx context.Context, review int64) ([]Holding, error) {
	return store.All[Holding](ctx, r.db, sql["Holdings"], review)
}

// A KeyRecord is the record that a source has of a key study, and the one that it had before.
type KeyRecord struct {
	KeyStudy int64
	Source   int64
	Body     []byte
	Was      []byte // nil where it was never another
}

// KeyRecords returns the records of the key studies of a review at the sources that hold them; of one study, where
// it is named.
func (r *Rows) KeyRecords(ctx context.Context, review, study int64) ([]KeyRecord, error) {
	return store.All[KeyRecord](ctx, r.db, sql["KeyRecords"], review, study)
}

// PutHolding keeps whether a source holds a key study, with its record there, nil where it has none. A record that
// is another than before is kept beside that one. That a source did not answer takes nothing back.
func (r *Rows) PutHolding(ctx context.Context, h Holding, record *bib.Record) error {
	var body []byte
	if record != nil {
		var err error
		if body, err = json.Marshal(record); err != nil {
			return err
		}
		h.Headings = len(record.Headings)
	}
	_, err := r.db.Write.Exec(ctx, sql["PutHolding"],
		h.KeyStudy, h.Source, h.State, h.How, h.Record, body, h.Headings)
	return err
}

// SettleHolding keeps what somebody said of a record that resembles a key study: that it is the study, or that it
// is not.
func (r *Rows) SettleHolding(ctx context.Context, h Holding) error {
	_, err := r.db.Write.Exec(ctx, sql["SettleHolding"], h.KeyStudy, h.Source, h.State)
	return err
}

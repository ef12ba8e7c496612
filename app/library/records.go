package library

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"

	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
	"tamiz/store"
)

// A StoredRecord is a record with the number it has in the store.
type StoredRecord struct {
	ID     int64
	Record *bib.Record
}

// SampleRecords returns the records of samples, each once, in the order of the samples and their files. seen is told
// of each as it is read.
func (r *Rows) SampleRecords(ctx context.Context, seen func(), samples ...int64) ([]StoredRecord, error) {
	return readRecords(ctx, r.db.Bulk, seen, sql["SampleRecords"], samples)
}

// SampleBytes returns about how many bytes the records of samples are as they are stored: as many of each as of
// some of its first.
func (r *Rows) SampleBytes(ctx context.Context, samples ...int64) (bytes int64, err error) {
	err = r.db.QueryRow(ctx, sql["SampleBytes"], samples).Scan(&bytes)
	return bytes, err
}

// SampleIDs returns the records of samples, each once, in the order of the samples and their files.
func (r *Rows) SampleIDs(ctx context.Context, samples ...int64) ([]int64, error) {
	rows, err := r.db.Bulk.Query(ctx, sql["SampleIDs"], samples)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[int64])
}

// RecordsByID returns records in the order of their numbers; those that are not there are left out.
func (r *Rows) RecordsByID(ctx context.Context, ids []int64) ([]StoredRecord, error) {
	return readRecords(ctx, r.db, func() {}, sql["RecordsByID"], ids)
}

// Record returns one record.
func (r *Rows) Record(ctx context.Context, id int64) (StoredRecord, error) {
	return oneRecord(ctx, r.db, id)
}

func oneRecord(ctx context.Context, q store.Asker, id int64) (StoredRecord, error) {
	found, err := readRecords(ctx, q, func() {}, sql["oneRecord"], id)
	if err == nil && len(found) == 0 {
		err = store.ErrNone
	}
	if err != nil {
		return StoredRecord{}, err
	}
	return found[0], nil
}

func readRecords(ctx context.Context, q store.Asker, seen func(), sql string, args ...any) ([]StoredRecord, error) {
	rows, err := q.Query(ctx, sql, args...)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, func(row pgx.CollectableRow) (StoredRecord, error) {
		seen()
		var id int64
		var body []byte
		if err := row.Scan(&id, &body); err != nil {
			return StoredRecord{}, err
		}
		r := &bib.Record{}
		if err := json.Unmarshal(body, r); err != nil {
			return StoredRecord{}, fmt.Errorf("record %d: %w", id, err)
		}
		return StoredRecord{id, r}, nil
	})
}

// digest shortens a key to a fixed length, since titles can be longer than an index can hold.
func digest(key string) []byte {
	if key == "" {
		return nil
	}
	sum := sha256.Sum256([]byte(key))
	return sum[:16]
}

// PutIn stores records that are not there yet and returns the numbers of all, in order. They go over
// as arrays: a table made for each batch would leave its traces in the catalogue.
func PutIn(ctx context.Context, tx pgx.Tx, source string, records []*bib.Record) ([]int64, error) {
	n := len(records)
	if n == 0 {
		return nil, nil
	}
	hashes, dois, works, bodies, years := make(
		[][]byte,
		n,
	), make(
		[][]byte,
		n,
	), make(
		[][]byte,
		n,
	), make(
		[][]byte,
		n,
	), make(
		[]int,
		n,
	)
	for i, r := range records {
		body, err := json.Marshal(r)
		if err != nil {
			return nil, err
		}
		hash := sha256.Sum256(body)
		hashes[i], bodies[i], years[i] = hash[:], body, r.Year
		dois[i], works[i] = digest(bib.DOIKey(r.DOI)), digest(r.WorkKey())
	}
	if _, err := tx.Exec(ctx, sql["PutIn insert record"], source, hashes, dois, works, years, bodies); err != nil {
		return nil, err
	}
	rows, err := tx.Query(ctx, sql["PutIn select unnest($2::bytea[]"], source, hashes)
	if err != nil {
		return nil, err
	}
	ids, err := pgx.CollectRows(rows, pgx.RowTo[int64])
	if err == nil && len(ids) != n {
		err = errors.New("some records were not stored")
	}
	return ids, err
}

// A self is what makes a record itself: text and headings, which are most of it, are passed over.
type self struct {
	Title, DOI, Accession, Journal, Volume, FirstPage string
	Authors                                           []bib.Person
	Year                                              int
}

// DrawnWorks calls visit with what makes each record of a draw itself.
func (r *Rows) DrawnWorks(ctx context.Context, draw int64, visit func(bib.Identity)) error {
	return r.works(ctx, visit, sql["DrawnWorks"], draw)
}

// SampleWorks calls visit with what makes each record of a sample itself.
func (r *Rows) SampleWorks(ctx context.Context, sample int64, visit func(bib.Identity)) error {
	return r.works(ctx, visit, sql["SampleWorks"], sample)
}

func (r *Rows) works(ctx context.Context, visit func(bib.Identity), sql string, of int64) error {
	rows, err := r.db.Bulk.Query(ctx, sql, of)
	if err != nil {
		return err
	}
	var body []byte
	_, err = pgx.ForEachRow(rows, []any{&body}, func() error {
		var r self
		if err := json.Unmarshal(body, &r); err != nil {
			return err
		}
		visit(
			bib.IdentityOf(
				&bib.Record{
					Title:     r.Title,
					DOI:       r.DOI,
					Accession: r.Accession,
					Journal:   r.Journal,
					Volume:    r.Volume,
					FirstPage: r.FirstPage,
					Authors:   r.Authors,
					Year:      r.Year,
				},
			),
		)
		return nil
	})
	return err
}

// HasIn reports whether there is such a record.
func HasIn(ctx context.Context, tx *store.Tx, record int64) (bool, error) {
	var has bool
	err := tx.QueryRow(ctx, sql["HasIn"], record).Scan(&has)
	return has, err
}

// Put stores records of a source that are not there yet and returns the numbers of all, in order.
func (r *Rows) Put(ctx context.Context, source string, records []*bib.Record) (ids []int64, err error) {
	err = r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		ids, err = PutIn(ctx, tx, source, records)
		return err
	})
	return ids, err
}

// RecordIn returns one record.
func RecordIn(ctx context.Context, tx *store.Tx, id int64) (StoredRecord, error) {
	return oneRecord(ctx, tx, id)
}

package store

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
)

// A Sample is a sample of a review, without its records.
type Sample struct {
	ID       int64           `json:"id"`
	Import   *int64          `json:"import,omitempty"` // the file it was read from
	Draw     *int64          `json:"draw,omitempty"`   // how it was drawn from a source
	Joined   *Joined         `json:"joined,omitempty"` // the two it was put together from
	Name     string          `json:"name"`
	FileName string          `json:"fileName"`
	Records  int             `json:"records"`
	Skipped  int             `json:"skipped"`
	Notices  int             `json:"notices"`
	Drawn    time.Time       `json:"drawn"`
	Years    json.RawMessage `json:"years"`
}

// Joined says of which two samples one is the union, the overlap or the difference.
type Joined struct {
	How string `json:"how"`
	A   string `json:"a"`
	B   string `json:"b"`
}

const sampleQuery = `select s.id, s.import, s.draw, s.joined, s.name, s.file_name, s.records, coalesce(i.skipped, 0) as skipped, coalesce(i.notices, 0) as notices, s.drawn, s.years
	from sample s left join import i on i.id = s.import where not s.deleted and not s.hidden and `

// Samples returns the samples of a review that are not deleted, newest first.
func (s *Store) Samples(ctx context.Context, review int64) ([]Sample, error) {
	return all[Sample](ctx, s, sampleQuery+"s.review = $1 order by s.id desc", review)
}

// A StoredRecord is a record with the number it has in the store.
type StoredRecord struct {
	ID     int64
	Record *bib.Record
}

// SampleRecords returns the records of samples, each once, in the order of the samples and their files. seen is told
// of each as it is read.
func (s *Store) SampleRecords(ctx context.Context, seen func(), samples ...int64) ([]StoredRecord, error) {
	return records(ctx, s.bulk, seen, `select r.id, r.body from
		(select record, min(array_position($1, sample)) as s, min(position) as p from sample_record where sample = any($1) group by record) x
		join record r on r.id = x.record order by x.s, x.p`, samples)
}

// SampleBytes returns about how many bytes the records of samples are as they are stored: as many of each as of some of its first.
func (s *Store) SampleBytes(ctx context.Context, samples ...int64) (bytes int64, err error) {
	err = s.QueryRow(ctx, `select coalesce(sum(n.records * m.mean), 0)::bigint from unnest($1::bigint[]) as u(id)
		cross join lateral (select count(*) as records from sample_record where sample = u.id) n
		cross join lateral (select coalesce(avg(octet_length(r.body::text)), 0) as mean from
			(select record from sample_record where sample = u.id limit 300) x join record r on r.id = x.record) m`, samples).Scan(&bytes)
	return bytes, err
}

// SampleIDs returns the records of samples, each once, in the order of the samples and their files.
func (s *Store) SampleIDs(ctx context.Context, samples ...int64) ([]int64, error) {
	rows, err := s.bulk.Query(ctx, `select record from
		(select record, min(array_position($1, sample)) as s, min(position) as p from sample_record where sample = any($1) group by record) x order by s, p`, samples)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[int64])
}

// RecordsByID returns records in the order of their numbers; those that are not there are left out.
func (s *Store) RecordsByID(ctx context.Context, ids []int64) ([]StoredRecord, error) {
	return records(ctx, s, func() {}, "select r.id, r.body from unnest($1::bigint[]) with ordinality as u(id, n) join record r on r.id = u.id order by u.n", ids)
}

// Record returns one record.
func (s *Store) Record(ctx context.Context, id int64) (StoredRecord, error) {
	return record(ctx, s, id)
}

func record(ctx context.Context, q asker, id int64) (StoredRecord, error) {
	found, err := records(ctx, q, func() {}, "select id, body from record where id = $1", id)
	if err == nil && len(found) == 0 {
		err = ErrNone
	}
	if err != nil {
		return StoredRecord{}, err
	}
	return found[0], nil
}

func records(ctx context.Context, q asker, seen func(), sql string, args ...any) ([]StoredRecord, error) {
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

// A StoredKey is a key study with its record.
type StoredKey struct {
	ID int64
	StoredRecord
}

// KeyStudies returns the key studies of a review in the order in which they came.
func (s *Store) KeyStudies(ctx context.Context, review int64) ([]StoredKey, error) {
	return keyStudies(ctx, s, review)
}

func keyStudies(ctx context.Context, q asker, review int64) ([]StoredKey, error) {
	rows, err := q.Query(ctx, `select k.id, r.id, r.body from key_study k join record r on r.id = k.record
		where k.review = $1 and not k.deleted order by k.id`, review)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, func(row pgx.CollectableRow) (k StoredKey, err error) {
		var body []byte
		if err := row.Scan(&k.ID, &k.StoredRecord.ID, &body); err != nil {
			return k, err
		}
		k.Record = &bib.Record{}
		return k, json.Unmarshal(body, k.Record)
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

// putRecords stores records that are not there yet and returns the numbers of all, in order. They go over
// as arrays: a table made for each batch would leave its traces in the catalogue.
func putRecords(ctx context.Context, tx pgx.Tx, source string, records []*bib.Record) ([]int64, error) {
	n := len(records)
	if n == 0 {
		return nil, nil
	}
	hashes, dois, works, bodies, years := make([][]byte, n), make([][]byte, n), make([][]byte, n), make([][]byte, n), make([]int, n)
	for i, r := range records {
		body, err := json.Marshal(r)
		if err != nil {
			return nil, err
		}
		hash := sha256.Sum256(body)
		hashes[i], bodies[i], years[i] = hash[:], body, r.Year
		dois[i], works[i] = digest(bib.DOIKey(r.DOI)), digest(r.WorkKey())
	}
	if _, err := tx.Exec(ctx, `insert into record (source, hash, doi, work, year, body)
		select distinct on (h) $1, h, d, w, y, b from unnest($2::bytea[], $3::bytea[], $4::bytea[], $5::int[], $6::bytea[]) as u(h, d, w, y, b) order by h
		on conflict (source, hash) do nothing`, source, hashes, dois, works, years, bodies); err != nil {
		return nil, err
	}
	rows, err := tx.Query(ctx, `select r.id from unnest($2::bytea[]) with ordinality as u(h, n) join record r on r.source = $1 and r.hash = u.h order by u.n`, source, hashes)
	if err != nil {
		return nil, err
	}
	ids, err := pgx.CollectRows(rows, pgx.RowTo[int64])
	if err == nil && len(ids) != n {
		err = errors.New("some records were not stored")
	}
	return ids, err
}

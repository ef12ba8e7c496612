package store

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// A Source is a literature source that can be asked.
type Source struct {
	ID         int64
	Name       string
	Address    string
	Version    string
	Map        json.RawMessage
	Described  json.RawMessage
	Vocabulary string
	Off        bool
	Made       time.Time
}

// Tied reports whether the records of the source carry headings of a vocabulary, by its name, whatever capitals it is written in.
func (s Source) Tied(vocabulary string) bool {
	return text.Label(s.Vocabulary) == text.Label(vocabulary)
}

const sourceColumns = "select id, name, address, version, map, described, vocabulary, off, made from source where not deleted "

// Sources returns the sources that are not deleted, in the order in which they came.
func (s *Store) Sources(ctx context.Context) ([]Source, error) {
	return all[Source](ctx, s, sourceColumns+"order by id")
}

// Source returns one source.
func (s *Store) Source(ctx context.Context, id int64) (Source, error) {
	return one[Source](ctx, s, sourceColumns+"and id = $1", id)
}

// PutSource keeps a source, a new one where it has no number, and returns the number.
func (s *Store) PutSource(ctx context.Context, x Source) (int64, error) {
	if x.ID == 0 {
		err := s.once(ctx, func(ctx context.Context, tx pgx.Tx) error {
			return tx.QueryRow(ctx, `insert into source (name, address, version, map, described, vocabulary, off) values ($1, $2, $3, $4, $5, $6, $7) returning id`,
				x.Name, x.Address, x.Version, x.Map, x.Described, x.Vocabulary, x.Off).Scan(&x.ID)
		})
		return x.ID, err
	}
	tag, err := s.write.Exec(ctx, `update source set name = $2, address = $3, version = $4, map = $5, described = $6, vocabulary = $7, off = $8 where id = $1 and not deleted`,
		x.ID, x.Name, x.Address, x.Version, x.Map, x.Described, x.Vocabulary, x.Off)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone
	}
	return x.ID, err
}

// DeleteSource takes a source away. What was drawn from it stays.
func (s *Store) DeleteSource(ctx context.Context, id int64) error {
	tag, err := s.write.Exec(ctx, "update source set deleted = true where id = $1 and not deleted", id)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone
	}
	return err
}

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
func (s *Store) Counts(ctx context.Context, source int64, cql []string) (map[string]Count, error) {
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
	rows, err := all[row](ctx, s, `select distinct on (hash) hash, records, exchange, at, day = current_date as today
		from count where source = $1 and hash = any($2) order by hash, day desc`, source, hashes)
	out := make(map[string]Count, len(rows))
	for _, r := range rows {
		out[byHash[string(r.Hash)]] = r.Count
	}
	return out, err
}

// PutCount keeps what a source said of a query today.
func (s *Store) PutCount(ctx context.Context, source int64, cql string, records int, exchange json.RawMessage) error {
	_, err := s.write.Exec(ctx, `insert into count (source, hash, records, exchange) values ($1, $2, $3, $4)
		on conflict (source, hash, day) do update set records = excluded.records, exchange = excluded.exchange, at = now()`,
		source, queryHash(cql), records, exchange)
	return err
}

// ForgetCounts makes today's counts of some queries be counted again.
func (s *Store) ForgetCounts(ctx context.Context, source int64, cql []string) error {
	hashes := make([][]byte, len(cql))
	for i, q := range cql {
		hashes[i] = queryHash(q)
	}
	_, err := s.write.Exec(ctx, "delete from count where source = $1 and hash = any($2) and day = current_date", source, hashes)
	return err
}

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
func (s *Store) Holdings(ctx context.Context, review int64) ([]Holding, error) {
	return all[Holding](ctx, s, `select h.key_study, h.source, h.state, h.how, h.record, h.at, h.headings, h.changed from holding h
		join key_study k on k.id = h.key_study join source s on s.id = h.source
		where k.review = $1 and not k.deleted and not s.deleted order by h.key_study, h.source`, review)
}

// A KeyRecord is the record that a source has of a key study, and the one that it had before.
type KeyRecord struct {
	KeyStudy int64
	Source   int64
	Body     []byte
	Was      []byte // nil where it was never another
}

// KeyRecords returns the records of the key studies of a review at the sources that hold them; of one study, where it is named.
func (s *Store) KeyRecords(ctx context.Context, review, study int64) ([]KeyRecord, error) {
	return all[KeyRecord](ctx, s, `select h.key_study, h.source, h.body, case when $2 = 0 then null else h.was end as was from holding h
		join key_study k on k.id = h.key_study join source s on s.id = h.source
		where k.review = $1 and ($2 = 0 or k.id = $2) and not k.deleted and not s.deleted and h.state = 'held' and h.body is not null order by h.key_study, h.source`, review, study)
}

// PutHolding keeps whether a source holds a key study, with its record there, nil where it has none. A record that is another than
// before is kept beside that one. That a source did not answer takes nothing back.
func (s *Store) PutHolding(ctx context.Context, h Holding, r *bib.Record) error {
	var body []byte
	if r != nil {
		var err error
		if body, err = json.Marshal(r); err != nil {
			return err
		}
		h.Headings = len(r.Headings)
	}
	_, err := s.write.Exec(ctx, `insert into holding (key_study, source, state, how, record, body, headings) values ($1, $2, $3, $4, $5, $6, $7)
		on conflict (key_study, source) do update set state = excluded.state, how = excluded.how, record = excluded.record, at = now(),
			body = excluded.body, headings = excluded.headings,
			was = case when holding.body is distinct from excluded.body and holding.body is not null then holding.body else holding.was end,
			changed = case when holding.body is distinct from excluded.body and holding.body is not null then now() else holding.changed end
		where excluded.state <> 'unknown' or holding.state = 'unknown'`,
		h.KeyStudy, h.Source, h.State, h.How, h.Record, body, h.Headings)
	return err
}

// SettleHolding keeps what somebody said of a record that resembles a key study: that it is the study, or that it is not.
func (s *Store) SettleHolding(ctx context.Context, h Holding) error {
	_, err := s.write.Exec(ctx, "update holding set state = $3, how = 'settled', at = now() where key_study = $1 and source = $2", h.KeyStudy, h.Source, h.State)
	return err
}

// PutRecords stores records of a source that are not there yet and returns the numbers of all, in order.
func (s *Store) PutRecords(ctx context.Context, source string, records []*bib.Record) (ids []int64, err error) {
	err = s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		ids, err = putRecords(ctx, tx, source, records)
		return err
	})
	return ids, err
}

// KeyStudies returns the key studies of the review.
func (w *Tx) KeyStudies(ctx context.Context) ([]StoredKey, error) {
	return keyStudies(ctx, w.tx, w.review)
}

// Record returns one record.
func (w *Tx) Record(ctx context.Context, id int64) (StoredRecord, error) {
	return record(ctx, w.tx, id)
}

// AddKeyRecords stores records as key studies, of a way and an origin, and returns the numbers of those studies.
func (w *Tx) AddKeyRecords(ctx context.Context, records []*bib.Record, way, origin string) ([]int64, error) {
	ids, err := putRecords(ctx, w.tx, "file", records)
	if err != nil {
		return nil, err
	}
	return w.AddKeys(ctx, ids, way, origin)
}

// AddKeys makes stored records key studies of the review, of a way and an origin, and returns the numbers of those studies.
func (w *Tx) AddKeys(ctx context.Context, records []int64, way, origin string) ([]int64, error) {
	rows, err := w.tx.Query(ctx, `insert into key_study (review, record, way, origin) select $1, x, $3, $4 from unnest($2::bigint[]) with ordinality as u(x, n)
		where exists (select from record where id = x) order by n returning id`, w.review, records, way, origin)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[int64])
}

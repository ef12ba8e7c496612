package store

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// An Import is a file that was brought in, and how far it has been read.
type Import struct {
	ID        int64
	Review    int64
	Kind      string
	Name      string
	State     string
	Bytes     int64
	BytesRead int64
	Hash      []byte
	Records   int
	Skipped   int
	Notices   int
	Sample    *int64
	Problem   json.RawMessage
	Made      time.Time
	Format    string
	Settings  json.RawMessage // what was answered about the file
	Asked     json.RawMessage // what has to be answered before it can be read
}

const importColumns = "select id, review, kind, name, state, bytes, bytes_read, hash, records, skipped, notices, sample, problem, made, format, settings, asked from import "

// Import returns one import.
func (s *Store) Import(ctx context.Context, id int64) (Import, error) {
	return one[Import](ctx, s, importColumns+"where id = $1", id)
}

// OpenImports returns the imports of a review that are not read yet, and those that failed in the last hour.
func (s *Store) OpenImports(ctx context.Context, review int64) ([]Import, error) {
	return all[Import](ctx, s, importColumns+`where review = $1 and
		(state in ('waiting', 'reading', 'asking') or state = 'failed' and made > now() - interval '1 hour') order by id`, review)
}

// SameFile returns the live sample of the review that came from a file of the same content.
func (s *Store) SameFile(ctx context.Context, review int64, hash []byte) (Sample, error) {
	return one[Sample](ctx, s, sampleQuery+"s.review = $1 and i.hash = $2 order by s.id limit 1", review, hash)
}

const chunkSize = 1 << 20 // bytes

// Receive lays down a file as it comes in, and calls then in the same transaction, with the number of
// the import: either all of the file is there and queued, or nothing.
func (s *Store) Receive(ctx context.Context, review int64, kind, name string, body io.Reader, sum func() []byte, then func(pgx.Tx, int64) error) (int64, error) {
	var id int64
	err := pgx.BeginFunc(ctx, s, func(tx pgx.Tx) error {
		if err := tx.QueryRow(ctx, "insert into import (review, kind, name, state) values ($1, $2, $3, 'waiting') returning id", review, kind, name).Scan(&id); err != nil {
			return err
		}
		buf, total := make([]byte, chunkSize), int64(0)
		for n := 0; ; n++ {
			got, err := io.ReadFull(body, buf)
			if got > 0 {
				total += int64(got)
				if _, err := tx.Exec(ctx, "insert into import_chunk (import, n, data) values ($1, $2, $3)", id, n, buf[:got]); err != nil {
					return err
				}
			}
			if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) && got < chunkSize && ended(body) {
				break
			}
			if err != nil {
				return err
			}
		}
		if _, err := tx.Exec(ctx, "update import set bytes = $2, hash = $3 where id = $1", id, total, sum()); err != nil {
			return err
		}
		return then(tx, id)
	})
	return id, err
}

// ended reports whether a reader has come to its end by itself: io.ReadFull says "unexpected" both
// of a last short piece and of a connection that broke.
func ended(r io.Reader) bool {
	var b [1]byte
	n, err := r.Read(b[:])
	return n == 0 && errors.Is(err, io.EOF)
}

// ImportFile returns the file of an import for reading.
func (s *Store) ImportFile(ctx context.Context, i Import) io.ReadSeeker {
	return &chunks{ctx: ctx, store: s, id: i.ID, size: i.Bytes, n: -1}
}

// chunks reads a file that lies in the database, one piece in memory at a time.
type chunks struct {
	ctx   context.Context
	store *Store
	id    int64
	size  int64
	at    int64
	n     int
	data  []byte
}

func (c *chunks) Read(p []byte) (int, error) {
	if c.at >= c.size {
		return 0, io.EOF
	}
	if n := int(c.at / chunkSize); n != c.n {
		if err := c.store.QueryRow(c.ctx, "select data from import_chunk where import = $1 and n = $2", c.id, n).Scan(&c.data); err != nil {
			return 0, fmt.Errorf("piece %d of the file: %w", n, err)
		}
		c.n = n
	}
	k := copy(p, c.data[c.at%chunkSize:])
	c.at += int64(k)
	return k, nil
}

func (c *chunks) Seek(offset int64, whence int) (int64, error) {
	switch whence {
	case io.SeekCurrent:
		offset += c.at
	case io.SeekEnd:
		offset += c.size
	}
	if offset < 0 {
		return 0, errors.New("before the beginning of the file")
	}
	c.at = offset
	return offset, nil
}

// ImportProgress keeps how far an import has come.
func (s *Store) ImportProgress(ctx context.Context, id, bytesRead int64, records, skipped int) error {
	_, err := s.Exec(ctx, "update import set state = 'reading', bytes_read = $2, records = $3, skipped = $4 where id = $1", id, bytesRead, records, skipped)
	return err
}

// FailImport keeps why an import came to nothing, and drops its file.
func (s *Store) FailImport(ctx context.Context, id int64, problem json.RawMessage) error {
	return pgx.BeginFunc(ctx, s, func(tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, "update import set state = 'failed', problem = $2 where id = $1", id, problem); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, "delete from import_chunk where import = $1", id)
		return err
	})
}

// AskImport keeps what has to be answered before a file can be read. The file stays.
func (s *Store) AskImport(ctx context.Context, id int64, format string, asked json.RawMessage) error {
	_, err := s.Exec(ctx, "update import set state = 'asking', format = $2, asked = $3, bytes_read = 0, records = 0, skipped = 0 where id = $1", id, format, asked)
	return err
}

// DropImport forgets a file that is asked about.
func (s *Store) DropImport(ctx context.Context, id int64) error {
	_, err := s.Exec(ctx, "delete from import where id = $1 and state = 'asking'", id)
	return err
}

// AnswerImport keeps an answer and calls then in the same transaction. It does nothing, and says so, where
// nothing is asked.
func (s *Store) AnswerImport(ctx context.Context, id int64, settings json.RawMessage, then func(pgx.Tx) error) (bool, error) {
	asked := false
	err := pgx.BeginFunc(ctx, s, func(tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, "update import set state = 'waiting', settings = $2, asked = null where id = $1 and state = 'asking'", id, settings)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		asked = true
		return then(tx)
	})
	return asked, err
}

// A Reading is how a kind of file is read, as someone said it.
type Reading struct {
	ID   int64           `json:"id"`
	Key  string          `json:"key"`
	Body json.RawMessage `json:"body"`
}

// KeepReading keeps how a kind of file is read; one of the same key is replaced.
func (s *Store) KeepReading(ctx context.Context, kind, key string, body json.RawMessage) error {
	_, err := s.Exec(ctx, "insert into reading (kind, key, body) values ($1, $2, $3) on conflict (kind, key) do update set body = excluded.body, made = now()", kind, key, body)
	return err
}

// Reading returns how a kind of file is read.
func (s *Store) Reading(ctx context.Context, kind, key string) (Reading, error) {
	return one[Reading](ctx, s, "select id, key, body from reading where kind = $1 and key = $2", kind, key)
}

// Readings returns how all kinds of files are read, by key.
func (s *Store) Readings(ctx context.Context, kind string) ([]Reading, error) {
	return all[Reading](ctx, s, "select id, key, body from reading where kind = $1 order by key", kind)
}

// DropReading forgets how a kind of file is read.
func (s *Store) DropReading(ctx context.Context, id int64) error {
	tag, err := s.Exec(ctx, "delete from reading where id = $1", id)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone
	}
	return err
}

// A Filing puts the records of an import into the store, all or nothing.
type Filing struct {
	*Work
	id      int64
	sample  int64
	n       int
	notices int
}

// File begins to put the records of an import into a review.
func (w *Work) File(id int64) *Filing { return &Filing{Work: w, id: id} }

// NewSample begins the sample that the records belong to.
func (f *Filing) NewSample(ctx context.Context, name, fileName string) (int64, error) {
	err := f.tx.QueryRow(ctx, "insert into sample (review, import, name, file_name, records, years) values ($1, $2, $3, $4, 0, '[]') returning id",
		f.review, f.id, name, fileName).Scan(&f.sample)
	return f.sample, err
}

// AddToSample stores records and puts them at the end of the sample.
func (f *Filing) AddToSample(ctx context.Context, records []*bib.Record) error {
	ids, err := putRecords(ctx, f.tx, "file", records)
	if err != nil {
		return err
	}
	_, err = f.tx.CopyFrom(ctx, pgx.Identifier{"sample_record"}, []string{"sample", "position", "record"},
		pgx.CopyFromSlice(len(ids), func(i int) ([]any, error) { return []any{f.sample, f.n + i, ids[i]}, nil }))
	f.n += len(ids)
	return err
}

// AddKeys stores records as key studies and returns the numbers of those studies.
func (f *Filing) AddKeys(ctx context.Context, records []*bib.Record) ([]int64, error) {
	ids, err := putRecords(ctx, f.tx, "file", records)
	if err != nil {
		return nil, err
	}
	rows, err := f.tx.Query(ctx, "insert into key_study (review, record) select $1, x from unnest($2::bigint[]) with ordinality as u(x, n) order by n returning id", f.review, ids)
	if err != nil {
		return nil, err
	}
	return pgx.CollectRows(rows, pgx.RowTo[int64])
}

// AddNotices keeps what the reader reported.
func (f *Filing) AddNotices(ctx context.Context, notices []exchange.Notice) error {
	_, err := f.tx.CopyFrom(ctx, pgx.Identifier{"notice"}, []string{"import", "n", "line", "record", "kind", "detail", "skipped"},
		pgx.CopyFromSlice(len(notices), func(i int) ([]any, error) {
			n := notices[i]
			return []any{f.id, f.notices + i, n.Line, n.Record, string(n.Kind), n.Detail, n.Skipped}, nil
		}))
	f.notices += len(notices)
	return err
}

// Done ends an import: its file is no longer needed. Its row is touched here alone: while the transaction
// goes on, the progress is told beside it.
func (f *Filing) Done(ctx context.Context, format string, records, skipped, notices int, years json.RawMessage) error {
	if f.sample > 0 {
		if _, err := f.tx.Exec(ctx, "update sample set records = $2, years = $3 where id = $1", f.sample, records, years); err != nil {
			return err
		}
	}
	var sample *int64
	if f.sample > 0 {
		sample = &f.sample
	}
	if _, err := f.tx.Exec(ctx, `update import set state = 'done', bytes_read = bytes, records = $2, skipped = $3, notices = $4, sample = $5, format = $6 where id = $1`,
		f.id, records, skipped, notices, sample, format); err != nil {
		return err
	}
	_, err := f.tx.Exec(ctx, "delete from import_chunk where import = $1", f.id)
	return err
}

// A Notice is one line of an import's report.
type Notice struct {
	Line    int    `json:"line"`
	Record  int    `json:"record"`
	Kind    string `json:"kind"`
	Detail  string `json:"detail"`
	Skipped bool   `json:"skipped"`
}

// Notices returns the report of an import.
func (s *Store) Notices(ctx context.Context, id int64) ([]Notice, error) {
	return all[Notice](ctx, s, "select line, record, kind, detail, skipped from notice where import = $1 order by n", id)
}

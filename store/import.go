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
	Waits     string          // review: whose other files it waits for
}

const importColumns = `select id, review, kind, name, state, bytes, bytes_read, hash, records, skipped, notices, sample, problem, made, format, settings, asked,
	coalesce((select waits from task where name = 'import ' || import.id), '') as waits from import `

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

// Receive lays down a file piece by piece as it comes in: between two pieces nothing is held. Whoever sends it
// ends with Received; what was begun and not ended is forgotten after a while.
func (s *Store) Receive(ctx context.Context, review int64, kind, name string, body io.Reader) (id, total int64, err error) {
	if err := s.write.QueryRow(ctx, "insert into import (review, kind, name, state) values ($1, $2, $3, 'receiving') returning id", review, kind, name).Scan(&id); err != nil {
		return 0, 0, err
	}
	buf := make([]byte, chunkSize)
	for n := 0; ; n++ {
		got, err := io.ReadFull(body, buf)
		if got > 0 {
			total += int64(got)
			if _, err := s.write.Exec(ctx, `with x as (update import set touched = now(), bytes = $4 where id = $1 returning id)
				insert into import_chunk (import, n, data) select id, $2, $3 from x`, id, n, buf[:got], total); err != nil {
				return id, total, err
			}
		}
		if errors.Is(err, io.EOF) || errors.Is(err, io.ErrUnexpectedEOF) && got < chunkSize && ended(body) {
			return id, total, nil
		}
		if err != nil {
			return id, total, err
		}
	}
}

// ImportTask is the task of reading a file.
func ImportTask(i Import) Task { return NewTask("import", i.ID, &i.Review, nil) }

// Received ends the receiving of a file: its reading is asked for, and then called in the same transaction.
func (s *Store) Received(ctx context.Context, i Import, hash []byte, then func(context.Context, pgx.Tx, Task) error) error {
	return s.once(ctx, func(ctx context.Context, tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, "update import set state = 'waiting', bytes = $2, hash = $3, touched = now() where id = $1 and state = 'receiving'", i.ID, i.Bytes, hash)
		if err == nil && tag.RowsAffected() == 0 {
			err = ErrNone
		}
		if err != nil {
			return err
		}
		t, err := askTask(ctx, tx, ImportTask(i))
		if err != nil {
			return err
		}
		return then(ctx, tx, t)
	})
}

// leftFor is after what time without a piece a file that is being received counts as left behind.
const leftFor = 10 * time.Minute

// SweepImports forgets what was left behind, a little at a time: files whose senders are gone, samples that were
// begun and never shown, and pieces of files that are read.
func (s *Store) SweepImports(ctx context.Context) error {
	for _, sql := range []string{
		"delete from import where id in (select id from import where state = 'receiving' and touched < now() - $1::interval limit 10)",
		`delete from sample where id in (select s.id from sample s where s.hidden and s.drawn < now() - $1::interval
			and not exists (select from task t where t.asked > t.done and (t.kind = 'import' and t.number = s.import or t.kind = 'draw' and t.number = s.draw)) limit 5)`,
	} {
		if _, err := s.bulk.Exec(ctx, sql, leftFor); err != nil {
			return err
		}
	}
	_, err := s.bulk.Exec(ctx, `delete from import_chunk where import in (select i.id from import i where i.state in ('done', 'failed')
		and exists (select from import_chunk c where c.import = i.id) limit 5)`)
	return err
}

// DropFile drops the file of an import that is read.
func (s *Store) DropFile(ctx context.Context, id int64) error {
	_, err := s.bulk.Exec(ctx, "delete from import_chunk where import = $1", id)
	return err
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
		if err := c.store.bulk.QueryRow(c.ctx, "select data from import_chunk where import = $1 and n = $2", c.id, n).Scan(&c.data); err != nil {
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
	_, err := s.bulk.Exec(ctx, "update import set state = 'reading', bytes_read = $2, records = $3, skipped = $4 where id = $1", id, bytesRead, records, skipped)
	return err
}

// FailImport keeps why an import came to nothing, and drops what was filed of it.
func (s *Store) FailImport(ctx context.Context, id int64, problem json.RawMessage) error {
	if err := s.dropFiled(ctx, id); err != nil {
		return err
	}
	_, err := s.bulk.Exec(ctx, "update import set state = 'failed', problem = $2, hash = null where id = $1", id, problem)
	return err
}

// dropFiled drops what was filed of an import that is not shown.
func (s *Store) dropFiled(ctx context.Context, id int64) error {
	return s.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, "delete from sample where import = $1 and hidden", id); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, "delete from notice where import = $1", id)
		return err
	})
}

// AskImport keeps what has to be answered before a file can be read. The file stays; what was filed of it does not.
func (s *Store) AskImport(ctx context.Context, id int64, format string, asked json.RawMessage) error {
	if err := s.dropFiled(ctx, id); err != nil {
		return err
	}
	_, err := s.bulk.Exec(ctx, "update import set state = 'asking', format = $2, asked = $3, bytes_read = 0, records = 0, skipped = 0 where id = $1", id, format, asked)
	return err
}

// DropImport forgets a file that is not read to its end, with all that was filed of it. It reports whether there was
// such a file.
func (s *Store) DropImport(ctx context.Context, id int64) (bool, error) {
	dropped := false
	err := s.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if _, err := tx.Exec(ctx, "delete from sample s using import i where s.import = $1 and s.hidden and i.id = s.import and i.state <> 'done'", id); err != nil {
			return err
		}
		tag, err := tx.Exec(ctx, "delete from import where id = $1 and state <> 'done'", id)
		if err != nil {
			return err
		}
		dropped = tag.RowsAffected() > 0
		_, err = tx.Exec(ctx, "update task set done = asked, holder = null where name = $1 and $2", ImportTask(Import{ID: id}).Name, dropped)
		return err
	})
	return dropped, err
}

// AnswerImport keeps an answer and what the file is brought in as, asks for the reading of the file and calls then in the same transaction. It does
// nothing, and says so, where nothing is asked.
func (s *Store) AnswerImport(ctx context.Context, i Import, settings json.RawMessage, then func(context.Context, pgx.Tx, Task) error) (bool, error) {
	asked := false
	err := s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, "update import set state = 'waiting', settings = $2, asked = null, kind = $3 where id = $1 and state = 'asking'", i.ID, settings, i.Kind)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		asked = true
		t, err := askTask(ctx, tx, ImportTask(i))
		if err != nil {
			return err
		}
		return then(ctx, tx, t)
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
	_, err := s.write.Exec(ctx, "insert into reading (kind, key, body) values ($1, $2, $3) on conflict (kind, key) do update set body = excluded.body, made = now()", kind, key, body)
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
	tag, err := s.write.Exec(ctx, "delete from reading where id = $1", id)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone
	}
	return err
}

// A Filing puts the records of an import into the store, batch by batch, each in a transaction of its own. Nobody
// sees them until Show does.
type Filing struct {
	store   *Store
	id      int64
	review  int64
	sample  int64
	n       int
	notices int
}

// File begins to put the records of an import into a review. What an earlier attempt left behind is dropped.
func (s *Store) File(ctx context.Context, i Import) (*Filing, error) {
	return &Filing{store: s, id: i.ID, review: i.Review}, s.dropFiled(ctx, i.ID)
}

// NewSample begins the sample that the records belong to.
func (f *Filing) NewSample(ctx context.Context, name, fileName string) (int64, error) {
	err := f.store.bulk.QueryRow(ctx, "insert into sample (review, import, name, file_name, records, years, hidden) values ($1, $2, $3, $4, 0, '[]', true) returning id",
		f.review, f.id, name, fileName).Scan(&f.sample)
	return f.sample, err
}

// AddToSample stores records and puts them at the end of the sample.
func (f *Filing) AddToSample(ctx context.Context, records []*bib.Record) error {
	return f.store.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		ids, err := putRecords(ctx, tx, "file", records)
		if err != nil {
			return err
		}
		_, err = tx.CopyFrom(ctx, pgx.Identifier{"sample_record"}, []string{"sample", "position", "record"},
			pgx.CopyFromSlice(len(ids), func(i int) ([]any, error) { return []any{f.sample, f.n + i, ids[i]}, nil }))
		if err == nil {
			f.n += len(ids)
		}
		return err
	})
}

// AddNotices keeps what the reader reported.
func (f *Filing) AddNotices(ctx context.Context, notices []exchange.Notice) error {
	if len(notices) == 0 {
		return nil
	}
	return f.store.bulk.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		_, err := tx.CopyFrom(ctx, pgx.Identifier{"notice"}, []string{"import", "n", "line", "record", "kind", "detail", "skipped"},
			pgx.CopyFromSlice(len(notices), func(i int) ([]any, error) {
				n := notices[i]
				return []any{f.id, f.notices + i, n.Line, n.Record, string(n.Kind), n.Detail, n.Skipped}, nil
			}))
		if err == nil {
			f.notices += len(notices)
		}
		return err
	})
}

// Show ends an import: its sample, where it has one, is seen from now on. Its file is no longer needed.
func (f *Filing) Show(ctx context.Context, w *Tx, format string, records, skipped, notices int, years json.RawMessage) error {
	var sample *int64
	if f.sample > 0 {
		sample = &f.sample
		if _, err := w.tx.Exec(ctx, "update sample set records = $2, years = $3, hidden = false, drawn = now() where id = $1", f.sample, records, years); err != nil {
			return err
		}
	}
	tag, err := w.tx.Exec(ctx, `update import set state = 'done', bytes_read = bytes, records = $2, skipped = $3, notices = $4, sample = $5, format = $6 where id = $1`,
		f.id, records, skipped, notices, sample, format)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone // it was given up meanwhile
	}
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

package intake

import (
	"context"
	_ "embed"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/reviews"
	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the files that were brought in of a database.
type Rows struct{ db *store.Store }

// NewRows returns the files that were brought in of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

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

// Import returns one import.
func (r *Rows) Import(ctx context.Context, id int64) (Import, error) {
	return store.One[Import](ctx, r.db, sql["Import"], id)
}

// Open returns the imports of a review that are not read yet, and those that failed in the last hour.
func (r *Rows) Open(ctx context.Context, review int64) ([]reviews.Import, error) {
	found, err := store.All[Import](ctx, r.db, sql["Open"], review)
	out := make([]reviews.Import, len(found))
	for i, f := range found {
		out[i] = told(f)
	}
	return out, err
}

const chunkSize = 1 << 20

// Receive lays down a file piece by piece as it comes in: between two pieces nothing is held. Whoever sends it
// ends with Received; what was begun and not ended is forgotten after a while.
func (r *Rows) Receive(
	ctx context.Context,
	review int64,
	kind, name string,
	body io.Reader,
) (id, total int64, err error) {
	if err := r.db.Write.QueryRow(ctx, sql["Receive insert import"], review, kind, name).Scan(&id); err != nil {
		return 0, 0, err
	}
	buf := make([]byte, chunkSize)
	for n := 0; ; n++ {
		got, err := io.ReadFull(body, buf)
		if got > 0 {
			total += int64(got)
			if _, err := r.db.Write.Exec(ctx, sql["Receive with x"], id, n, buf[:got], total); err != nil {
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
func ImportTask(i Import) jobs.Task { return jobs.NewTask("import", i.ID, &i.Review, nil) }

// Received ends the receiving of a file: its reading is asked for, and then called in the same transaction.
func (r *Rows) Received(
	ctx context.Context,
	i Import,
	hash []byte,
	then func(context.Context, pgx.Tx, jobs.Task) error,
) error {
	return r.db.Once(ctx, func(ctx context.Context, tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, sql["Received"], i.ID, i.Bytes, hash)
		if err == nil && tag.RowsAffected() == 0 {
			err = store.ErrNone
		}
		if err != nil {
			return err
		}
		t, err := jobs.AskIn(ctx, tx, ImportTask(i))
		if err != nil {
			return err
		}
		return then(ctx, tx, t)
	})
}

// leftFor is after what time without a piece a file that is being received counts as left behind.
const leftFor = 10 * time.Minute

// SweepImports forgets what was left behind, a little at a time: files whose senders are gone, and pieces of files
// that are read.
func (r *Rows) SweepImports(ctx context.Context) error {
	if _, err := r.db.Bulk.Exec(ctx, sql["SweepImports delete import"], leftFor); err != nil {
		return err
	}
	_, err := r.db.Bulk.Exec(ctx, sql["SweepImports delete import_chunk"])
	return err
}

// DropFile drops the file of an import that is read.
func (r *Rows) DropFile(ctx context.Context, id int64) error {
	_, err := r.db.Bulk.Exec(ctx, sql["DropFile"], id)
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
func (r *Rows) ImportFile(ctx context.Context, i Import) io.ReadSeeker {
	return &chunks{ctx: ctx, store: r.db, id: i.ID, size: i.Bytes, n: -1}
}

// chunks reads a file that lies in the database, one piece in memory at a time.
type chunks struct {
	ctx   context.Context
	store *store.Store
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
		if err := c.store.Bulk.QueryRow(c.ctx, sql["Read"], c.id, n).Scan(&c.data); err != nil {
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
func (r *Rows) ImportProgress(ctx context.Context, id, bytesRead int64, records, skipped int) error {
	_, err := r.db.Bulk.Exec(ctx, sql["ImportProgress"], id, bytesRead, records, skipped)
	return err
}

// FailImport keeps why an import came to nothing, and drops what was filed of it.
func (r *Rows) FailImport(ctx context.Context, id int64, problem json.RawMessage) error {
	if err := r.dropFiled(ctx, id); err != nil {
		return err
	}
	_, err := r.db.Bulk.Exec(ctx, sql["FailImport"], id, problem)
	return err
}

// dropFiled drops what was filed of an import that is not shown.
func (r *Rows) dropFiled(ctx context.Context, id int64) error {
	return r.db.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if err := library.DropHidden(ctx, tx, id); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, sql["dropFiled"], id)
		return err
	})
}

// AskImport keeps what has to be answered before a file can be read. The file stays; what was filed of it does not.
func (r *Rows) AskImport(ctx context.Context, id int64, format string, asked json.RawMessage) error {
	if err := r.dropFiled(ctx, id); err != nil {
		return err
	}
	_, err := r.db.Bulk.Exec(ctx, sql["AskImport"], id, format, asked)
	return err
}

// DropImport forgets a file that is not read to its end, with all that was filed of it. It reports whether there was
// such a file.
func (r *Rows) DropImport(ctx context.Context, id int64) (bool, error) {
	dropped := false
	err := r.db.Bulk.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		var there int64
		err := tx.QueryRow(ctx, sql["DropImport select"], id).Scan(&there)
		if errors.Is(err, pgx.ErrNoRows) {
			return nil
		}
		if err != nil {
			return err
		}
		if err := library.DropHidden(ctx, tx, id); err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, sql["DropImport delete"], id); err != nil {
			return err
		}
		dropped = true
		return jobs.DropIn(ctx, tx, ImportTask(Import{ID: id}).Name)
	})
	return dropped, err
}

// AnswerImport keeps an answer and what the file is brought in as, asks for the reading of the file and calls then
// in the same transaction. It does nothing, and says so, where nothing is asked.
func (r *Rows) AnswerImport(
	ctx context.Context,
	i Import,
	settings json.RawMessage,
	then func(context.Context, pgx.Tx, jobs.Task) error,
) (bool, error) {
	asked := false
	err := r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		tag, err := tx.Exec(ctx, sql["AnswerImport"], i.ID, settings, i.Kind)
		if err != nil || tag.RowsAffected() == 0 {
			return err
		}
		asked = true
		t, err := jobs.AskIn(ctx, tx, ImportTask(i))
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
func (r *Rows) KeepReading(ctx context.Context, kind, key string, body json.RawMessage) error {
	_, err := r.db.Write.Exec(ctx, sql["KeepReading"], kind, key, body)
	return err
}

// Reading returns how a kind of file is read.
func (r *Rows) Reading(ctx context.Context, kind, key string) (Reading, error) {
	return store.One[Reading](ctx, r.db, sql["Reading"], kind, key)
}

// Readings returns how all kinds of files are read, by key.
func (r *Rows) Readings(ctx context.Context, kind string) ([]Reading, error) {
	return store.All[Reading](ctx, r.db, sql["Readings"], kind)
}

// DropReading forgets how a kind of file is read.
func (r *Rows) DropReading(ctx context.Context, id int64) error {
	tag, err := r.db.Write.Exec(ctx, sql["DropReading"], id)
	if err == nil && tag.RowsAffected() == 0 {
		err = store.ErrNone
	}
	return err
}

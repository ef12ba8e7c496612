package app

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"path"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/riverqueue/river"

	"tamiz/exchange"
	"tamiz/store"
)

// Limits of what is brought in at once.
const (
	MaxUpload  = 1 << 30 // bytes
	maxKeys    = 2000    // key studies in one file
	maxNotices = 20_000  // lines of a report
	batch      = 500     // records stored at a time
	importTime = 30 * time.Minute
)

// An Import is a file that is being brought in.
type Import struct {
	ID        int64    `json:"id"`
	Kind      string   `json:"kind"`
	Name      string   `json:"name"`
	State     string   `json:"state"`
	Bytes     int64    `json:"bytes"`
	BytesRead int64    `json:"bytesRead"`
	Records   int      `json:"records"`
	Skipped   int      `json:"skipped"`
	Notices   int      `json:"notices"`
	Sample    *int64   `json:"sample,omitempty"`
	Format    string   `json:"format,omitempty"`
	Asks      string   `json:"asks,omitempty"`    // what has to be answered before the file can be read
	Doubles   int      `json:"doubles,omitempty"` // records of the same work that are asked about
	Error     *Problem `json:"error,omitempty"`
}

func importOf(i store.Import) Import {
	out := Import{ID: i.ID, Kind: i.Kind, Name: i.Name, State: i.State, Bytes: i.Bytes, BytesRead: i.BytesRead,
		Records: i.Records, Skipped: i.Skipped, Notices: i.Notices, Sample: i.Sample, Format: i.Format}
	var q struct { // the heads of the question alone
		What  string
		Total int
	}
	if i.Asked != nil && json.Unmarshal(i.Asked, &q) == nil {
		out.Asks, out.Doubles = q.What, q.Total
	}
	var p Problem
	if i.Problem != nil && json.Unmarshal(i.Problem, &p) == nil {
		out.Error = &p
	}
	return out
}

// Import tells how far a file has been brought in.
func (a *App) Import(ctx context.Context, id int64) (Import, error) {
	i, err := a.store.Import(ctx, id)
	return importOf(i), gone(err, "import")
}

// ImportFile takes in a file of records, as a sample or as key studies. It returns when all of the
// file has come over the wire; a job then reads it. A file that breaks off leaves nothing behind.
func (a *App) ImportFile(ctx context.Context, review int64, kind, name string, again bool, body io.Reader) (Import, error) {
	if _, err := a.Review(ctx, review); err != nil {
		return Import{}, err
	}
	name, err := goodName(path.Base(strings.ReplaceAll(name, `\`, "/")))
	if err != nil {
		return Import{}, err
	}
	sum := sha256.New()
	limited := &limitedReader{r: io.TeeReader(body, sum), left: MaxUpload}
	id, err := a.store.Receive(ctx, review, kind, name, limited, func() []byte { return sum.Sum(nil) }, func(tx pgx.Tx, id int64) error {
		if limited.left == MaxUpload {
			return &Problem{Type: "empty-file", Status: 422, Field: "file", Title: "The file is empty. Nothing was brought in."}
		}
		if kind == "sample" && !again {
			same, err := a.store.SameFile(ctx, review, sum.Sum(nil))
			if err == nil {
				return &Problem{Type: "same-file", Status: 409, Field: "file",
					Title:  fmt.Sprintf("The same file was brought in before, as %q. Nothing was brought in again.", same.Name),
					Params: map[string]string{"sample": same.Name}}
			}
			if !errors.Is(err, store.ErrNone) {
				return err
			}
		}
		_, err := a.jobs.InsertTx(ctx, tx, importArgs{Import: id}, nil)
		return err
	})
	switch {
	case errors.Is(err, errTooLarge):
		return Import{}, &Problem{Type: "too-large", Status: 413, Field: "file", Title: "The file is larger than 1 GB. Nothing was brought in; take it apart and bring in the parts."}
	case errors.Is(err, io.ErrUnexpectedEOF):
		return Import{}, &Problem{Type: "broken-off", Status: 400, Field: "file", Title: "The file broke off on its way. Nothing was brought in."}
	case err != nil:
		return Import{}, err
	}
	return a.Import(ctx, id)
}

var errTooLarge = errors.New("larger than what is taken")

// limitedReader ends with an error, not with a file cut short.
type limitedReader struct {
	r    io.Reader
	left int64
}

func (l *limitedReader) Read(p []byte) (int, error) {
	n, err := l.r.Read(p)
	if l.left -= int64(n); l.left < 0 {
		return 0, errTooLarge
	}
	return n, err
}

type importArgs struct {
	Import int64 `json:"import"`
}

func (importArgs) Kind() string { return "import" }

// importWorker reads a file that lies in the store. All of it is filed in one transaction, so that a
// worker that dies leaves nothing half done, and the next one begins anew.
type importWorker struct {
	river.WorkerDefaults[importArgs]
	app *App
}

func (w *importWorker) Work(ctx context.Context, job *river.Job[importArgs]) error {
	i, err := w.app.store.Import(ctx, job.Args.Import)
	if errors.Is(err, store.ErrNone) || err == nil && (i.State == "done" || i.State == "failed") {
		return nil
	}
	if err != nil {
		return err
	}
	err = w.app.read(ctx, i)
	var p *Problem
	var q *FileQuestion
	if errors.As(err, &q) {
		asked, err := json.Marshal(q)
		if err != nil {
			return err
		}
		if err := w.app.store.AskImport(ctx, i.ID, q.Format, asked); err != nil {
			return err
		}
		w.app.tell(ctx, i.Review, News{Kind: "import", Import: i.ID})
		return nil
	}
	if err != nil && !errors.As(err, &p) {
		if job.Attempt < job.MaxAttempts && (store.Unreachable(err) || ctx.Err() != nil) {
			return err // the job is tried again
		}
		w.app.log.Error("import failed", "import", i.ID, "error", err)
		p = &Problem{Type: "unreadable", Status: 422, Title: "The file could not be read to its end. Nothing was brought in.", Detail: err.Error()}
	}
	if p != nil {
		saying, err := json.Marshal(p)
		if err != nil {
			return err
		}
		if err := w.app.store.FailImport(ctx, i.ID, saying); err != nil {
			return err
		}
	}
	w.app.tell(ctx, i.Review, News{Kind: "import", Import: i.ID})
	if p == nil && i.Kind == "keys" {
		return w.app.FindHoldings(ctx, i.Review)
	}
	return nil
}

func (a *App) read(ctx context.Context, i store.Import) error {
	file := &meter{ReadSeeker: a.store.ImportFile(ctx, i)}
	settings, err := settingsOf(i)
	if err != nil {
		return err
	}
	return a.store.Work(ctx, i.Review, func(w *store.Work) error {
		f := &filer{app: a, i: i, Filing: w.File(i.ID), file: file, years: map[int]int{}, seen: map[[32]byte]string{}, settings: settings}
		if i.Kind == "vocabulary" {
			return f.vocabulary(ctx)
		}
		return f.all(ctx)
	})
}

type meter struct {
	io.ReadSeeker
	read int64
}

func (c *meter) Read(p []byte) (int, error) {
	n, err := c.ReadSeeker.Read(p)
	c.read += int64(n)
	return n, err
}

// Notice is one line of an import's report.
type Notice = store.Notice

// Notices returns what could not be read of a file as it stood.
func (a *App) Notices(ctx context.Context, id int64) ([]Notice, error) {
	if _, err := a.Import(ctx, id); err != nil {
		return nil, err
	}
	return a.store.Notices(ctx, id)
}

// NoticesText returns the same as lines of text, under a head that names the file.
func (a *App) NoticesText(ctx context.Context, id int64) (name, text string, err error) {
	i, err := a.Import(ctx, id)
	if err != nil {
		return "", "", err
	}
	notices, err := a.store.Notices(ctx, id)
	if err != nil {
		return "", "", err
	}
	var b strings.Builder
	fmt.Fprintf(&b, "%s: %d records brought in, %d skipped, %d remarks\n\n", i.Name, i.Records, i.Skipped, i.Notices)
	for _, n := range notices {
		fmt.Fprintln(&b, exchange.Notice{Line: n.Line, Record: n.Record, Kind: exchange.Kind(n.Kind), Detail: n.Detail, Skipped: n.Skipped})
	}
	if i.Notices > len(notices) {
		fmt.Fprintf(&b, "… and %d more\n", i.Notices-len(notices))
	}
	return i.Name, b.String(), nil
}

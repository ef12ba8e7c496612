package app

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"path"
	"slices"
	"strings"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/riverqueue/river"

	"tamiz/core/bib"
	"tamiz/core/thesaurus"
	"tamiz/exchange"
	"tamiz/exchange/ris"
	"tamiz/exchange/skos"
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
	Error     *Problem `json:"error,omitempty"`
}

func importOf(i store.Import) Import {
	out := Import{ID: i.ID, Kind: i.Kind, Name: i.Name, State: i.State, Bytes: i.Bytes, BytesRead: i.BytesRead,
		Records: i.Records, Skipped: i.Skipped, Notices: i.Notices, Sample: i.Sample}
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
	decoded, encoding, err := exchange.Decode(file)
	if err != nil {
		return err
	}
	file.read = 0
	return a.store.Work(ctx, i.Review, func(w *store.Work) error {
		f := &filer{app: a, i: i, Filing: w.File(i.ID), file: file, years: map[int]int{}, seen: map[[32]byte]string{}}
		if encoding == exchange.Windows1252 {
			f.notice(exchange.Notice{Kind: exchange.OtherEncoding, Detail: encoding})
		}
		if i.Kind == "vocabulary" {
			return f.vocabulary(ctx, decoded)
		}
		return f.all(ctx, ris.NewReader(decoded, ris.Auto, f.notice))
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

// filer puts the records of one file into the store, batch by batch.
type filer struct {
	*store.Filing
	app  *App
	i    store.Import
	file *meter

	waiting  []*bib.Record
	reports  []exchange.Notice
	records  int
	skipped  int
	notices  int
	years    map[int]int
	seen     map[[32]byte]string
	known    bib.Known
	already  bib.Known // key studies of the review, where key studies are brought in
	studies  []store.StoredKey
	ids      []string
	sample   int64
	keys     []int64
	lastTold time.Time
}

func (f *filer) notice(n exchange.Notice) {
	if n.Skipped {
		f.skipped++
	}
	if f.notices++; f.notices <= maxNotices {
		n.Detail = strings.ReplaceAll(n.Detail, "\x00", "")
		f.reports = append(f.reports, n)
	}
}

func (f *filer) all(ctx context.Context, records *ris.Reader) error {
	if f.i.Kind == "keys" {
		var err error
		if f.studies, err = f.app.store.KeyStudies(ctx, f.i.Review); err != nil {
			return err
		}
		for i, s := range f.studies {
			f.already.Add(s.Record, i)
		}
	}
	if f.i.Kind == "sample" {
		name := f.i.Name
		if n := strings.TrimSuffix(name, path.Ext(name)); n != "" {
			name = n
		}
		var err error
		if f.sample, err = f.NewSample(ctx, name, f.i.Name); err != nil {
			return err
		}
	}
	for {
		r, err := records.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return err
		}
		if err := f.add(ctx, r); err != nil {
			return err
		}
	}
	if err := f.flush(ctx); err != nil {
		return err
	}
	if f.records == 0 && len(f.seen) > 0 {
		return &Problem{Type: "nothing-new", Status: 422, Field: "file", Title: "All records of the file are key studies of this review already. Nothing was brought in."}
	}
	if f.records == 0 {
		return &Problem{Type: "no-records", Status: 422, Field: "file",
			Title: "The file holds no RIS record: no line begins with \"TY  - \". Nothing was brought in."}
	}
	years := []YearCount{}
	for y, n := range f.years {
		years = append(years, YearCount{y, n})
	}
	slices.SortFunc(years, func(a, b YearCount) int { return a.Year - b.Year })
	saved, err := json.Marshal(years)
	if err != nil {
		return err
	}
	if err := f.Done(ctx, f.records, f.skipped, f.notices, saved); err != nil {
		return err
	}
	return f.log(ctx)
}

// A YearCount is the records of one year; 0 is those without.
type YearCount struct {
	Year    int `json:"year"`
	Records int `json:"records"`
}

func (f *filer) add(ctx context.Context, r *bib.Record) error {
	body, err := json.Marshal(r)
	if err != nil {
		return err
	}
	hash := sha256.Sum256(body)
	if earlier, ok := f.seen[hash]; ok {
		f.notice(exchange.Notice{Kind: exchange.Twice, Detail: earlier, Skipped: true})
		return nil
	}
	f.seen[hash] = r.ID
	if k, ok := f.already.Find(r); ok {
		f.notice(exchange.Notice{Kind: exchange.Already, Detail: f.studies[k].Record.ID, Skipped: true})
		return nil
	}
	if n, ok := f.known.Find(r); ok {
		f.notice(exchange.Notice{Kind: exchange.Double, Detail: f.ids[n]})
	}
	f.known.Add(r, len(f.ids))
	f.ids = append(f.ids, r.ID)
	f.years[r.Year]++
	f.records++
	if f.i.Kind == "keys" && f.records > maxKeys {
		return &Problem{Type: "too-many-keys", Status: 422, Field: "file", Title: fmt.Sprintf("The file holds more than %d records: too many to be key studies. Nothing was brought in.", maxKeys)}
	}
	if f.waiting = append(f.waiting, r); len(f.waiting) < batch {
		return nil
	}
	return f.flush(ctx)
}

func (f *filer) flush(ctx context.Context) error {
	if len(f.waiting) > 0 {
		if f.i.Kind == "sample" {
			if err := f.AddToSample(ctx, f.waiting); err != nil {
				return err
			}
		} else {
			ids, err := f.AddKeys(ctx, f.waiting)
			if err != nil {
				return err
			}
			f.keys = append(f.keys, ids...)
		}
		f.waiting = f.waiting[:0]
	}
	if err := f.AddNotices(ctx, f.reports); err != nil {
		return err
	}
	f.reports = f.reports[:0]
	if time.Since(f.lastTold) < 300*time.Millisecond {
		return nil
	}
	f.lastTold = time.Now()
	// Beside the transaction, so that it can be seen before all is done. A progress that cannot be told
	// does not stop the work.
	if err := f.app.store.ImportProgress(ctx, f.i.ID, min(f.file.read, f.i.Bytes), f.records, f.skipped); err == nil {
		f.app.tell(ctx, f.i.Review, News{Kind: "import", Import: f.i.ID})
	}
	return nil
}

// log makes the import a change that can be undone.
func (f *filer) log(ctx context.Context) error {
	var before, after store.Facts
	what := What{Key: "import." + f.i.Kind, Params: map[string]string{"name": f.i.Name, "records": fmt.Sprint(f.records)}}
	if f.i.Kind == "sample" {
		sample, err := f.Sample(ctx, f.sample)
		if err != nil {
			return err
		}
		deleted := sample
		deleted.Deleted = true
		before.Samples, after.Samples = []store.FactSample{deleted}, []store.FactSample{sample}
	}
	for _, k := range f.keys {
		before.Keys = append(before.Keys, store.FactKeyStudy{ID: k, Deleted: true})
		after.Keys = append(after.Keys, store.FactKeyStudy{ID: k})
	}
	saying, err := json.Marshal(what)
	if err != nil {
		return err
	}
	if err := f.Log(ctx, saying, before, after); err != nil {
		return err
	}
	return f.Notify(ctx, News{Review: f.i.Review, Kind: "change"}.String())
}

// vocabulary reads a controlled vocabulary, which the review goes by from then on.
func (f *filer) vocabulary(ctx context.Context, file io.Reader) error {
	concepts, err := skos.Read(file, f.notice)
	if err != nil {
		return &Problem{Type: "no-vocabulary", Status: 422, Field: "file", Title: "The file could not be read as a vocabulary. Nothing was brought in.", Detail: err.Error()}
	}
	t, troubles := thesaurus.Build(concepts, "")
	for _, x := range troubles {
		f.notice(skos.Notice(x))
	}
	name := strings.TrimSuffix(f.i.Name, path.Ext(f.i.Name))
	id, err := f.AddVocabulary(ctx, name, t.Language, len(t.Headings), concepts)
	if err != nil {
		return err
	}
	if err := f.AddNotices(ctx, f.reports); err != nil {
		return err
	}
	if err := f.Done(ctx, len(t.Headings), f.skipped, f.notices, nil); err != nil {
		return err
	}
	current, err := f.Document(ctx, 0)
	if err != nil {
		return err
	}
	document, err := parse(current.Body)
	if err != nil {
		return err
	}
	document.Vocabulary = &id
	return f.edit(ctx, current.Revision, document, What{Key: "import.vocabulary", Params: map[string]string{"name": f.i.Name, "headings": fmt.Sprint(len(t.Headings))}})
}

// edit makes a document the newest revision, as a change that can be undone.
func (f *filer) edit(ctx context.Context, revision int, d Document, what What) error {
	body, err := d.saved()
	if err != nil {
		return err
	}
	before, after := store.Facts{Revision: revision}, store.Facts{Revision: revision + 1}
	if err := f.AddDocument(ctx, store.Document{Revision: after.Revision, Body: body}); err != nil {
		return err
	}
	saying, err := json.Marshal(what)
	if err != nil {
		return err
	}
	if err := f.Log(ctx, saying, before, after); err != nil {
		return err
	}
	return f.Notify(ctx, News{Review: f.i.Review, Kind: "change"}.String())
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

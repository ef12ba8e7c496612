package intake

import (
	"context"
	"crypto/sha256"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"net"
	"os"
	"path"
	"strings"
	"time"

	"tamiz/app/jobs"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/exchange"
	"tamiz/store"
)

// Limits of what is brought in at once.
const (
	MaxUpload  = 1 << 30 // bytes
	maxKeys    = 2000    // key studies in one file
	maxNotices = 20_000  // lines of a report
	batch      = 500     // records stored at a time
	ImportTime = 30 * time.Minute
)

// Import tells how far a file has been brought in.
func (a *Service) Import(ctx context.Context, id int64) (reviews.Import, error) {
	i, err := a.rows.Import(ctx, id)
	return told(i), problems.Gone(err, "import")
}

// ImportFile takes in a file of records, as a sample or as key studies. It returns when all of the
// file has come over the wire; a task then reads it. A file that breaks off leaves nothing behind.
func (a *Service) ImportFile(
	ctx context.Context,
	review int64,
	kind, name string,
	again bool,
	body io.Reader,
) (reviews.Import, error) {
	head, err := a.reviewRows.Head(ctx, review)
	if err == nil && head.Deleted {
		err = store.ErrNone
	}
	if err != nil {
		return reviews.Import{}, problems.Gone(err, "review")
	}
	if kind != "sample" && kind != "keys" && kind != "vocabulary" {
		return reviews.Import{}, problems.Invalid("kind", "A file is a sample, key studies or a vocabulary, not %q.", kind)
	}
	name, err = reviews.GoodName(path.Base(strings.ReplaceAll(name, `\`, "/")))
	if err != nil {
		return reviews.Import{}, err
	}
	sum := sha256.New()
	i := Import{Review: review}
	limited := &limitedReader{r: io.TeeReader(body, sum), left: MaxUpload}
	i.ID, i.Bytes, err = a.rows.Receive(ctx, review, kind, name, limited)
	if err == nil {
		err = a.received(ctx, kind, i, sum.Sum(nil), again)
	}
	if err == nil {
		return a.Import(ctx, i.ID)
	}
	if i.ID > 0 {
		// Whoever sent it may have left; what it left behind goes all the same.
		ending, cancel := context.WithTimeout(context.WithoutCancel(ctx), 10*time.Second)
		defer cancel()
		if _, dropped := a.rows.DropImport(ending, i.ID); dropped != nil {
			a.log.Warn("a broken-off file is left to be swept away", "import", i.ID, "error", dropped)
		}
	}
	if limited.err == nil {
		if store.Full(err) {
			err = problems.DiskFull()
		}
		return reviews.Import{}, err
	}
	// It is the sender who failed.
	var slow net.Error
	switch err := limited.err; {
	case errors.Is(err, errTooLarge):
		return reviews.Import{}, &problems.Problem{
			Type:   "too-large",
			Status: 413,
			Field:  "file",
			Title:  "The file is larger than 1 GB. Nothing was brought in; take it apart and bring in the parts.",
		}
	case errors.Is(err, os.ErrDeadlineExceeded), errors.As(err, &slow) && slow.Timeout():
		return reviews.Import{}, &problems.Problem{
			Type:   "too-slow",
			Status: 408,
			Field:  "file",
			Title:  "The file stopped coming. Nothing was brought in.",
		}
	}
	return reviews.Import{}, &problems.Problem{
		Type:   "broken-off",
		Status: 400,
		Field:  "file",
		Title:  "The file broke off on its way. Nothing was brought in.",
	}
}

// received looks at a file that has come whole, and has it read.
func (a *Service) received(ctx context.Context, kind string, i Import, hash []byte, again bool) error {
	if i.Bytes == 0 {
		return &problems.Problem{
			Type:   "empty-file",
			Status: 422,
			Field:  "file",
			Title:  "The file is empty. Nothing was brought in.",
		}
	}
	if kind == "sample" && !again {
		same, err := a.library.SameFile(ctx, i.Review, hash)
		if err == nil {
			return &problems.Problem{Type: "same-file", Status: 409, Field: "file",
				Title:  fmt.Sprintf("The same file was brought in before, as %q. Nothing was brought in again.", same.Name),
				Params: map[string]string{"sample": same.Name}}
		}
		if !errors.Is(err, store.ErrNone) {
			return err
		}
	}
	return problems.Gone(a.rows.Received(ctx, i, hash, a.jobs.Wake), "import")
}

var errTooLarge = errors.New("larger than what is taken")

// limitedReader ends with an error, not with a file cut short, and keeps it.
type limitedReader struct {
	r    io.Reader
	left int64
	err  error
}

func (l *limitedReader) Read(p []byte) (int, error) {
	n, err := l.r.Read(p)
	if l.left -= int64(n); l.left < 0 {
		n, err = 0, errTooLarge
	}
	if err != nil && !errors.Is(err, io.EOF) {
		l.err = err
	}
	return n, err
}

// ReadImport reads a file that lies in the store. Its records are filed batch by batch, and seen when all are
// there; who takes over from a process that died begins anew.
func (a *Service) ReadImport(ctx context.Context, t jobs.Task) error {
	i, err := a.rows.Import(ctx, t.Number)
	if errors.Is(err, store.ErrNone) || err == nil && (i.State == "done" || i.State == "failed") {
		return nil
	}
	if err != nil {
		return err
	}
	err = a.read(ctx, i)
	var q *FileQuestion
	if errors.As(err, &q) {
		asked, err := json.Marshal(q)
		if err != nil {
			return err
		}
		if err := a.rows.AskImport(ctx, i.ID, q.Format, asked); err != nil {
			return err
		}
		a.jobs.Tell(ctx, i.Review, jobs.News{Kind: "import", Import: i.ID})
		return nil
	}
	if err != nil {
		return err
	}
	a.jobs.Tell(ctx, i.Review, jobs.News{Kind: "import", Import: i.ID})
	if err := a.rows.DropFile(ctx, i.ID); err != nil {
		a.log.Warn("the file of an import is left to be swept away", "import", i.ID, "error", err)
	}
	if i.Kind == "keys" {
		return a.KeysCame(ctx, i.Review)
	}
	return nil
}

// DropImport drops a file whose reading was stopped.
func (a *Service) DropImport(ctx context.Context, t jobs.Task) error {
	_, err := a.rows.DropImport(ctx, t.Number)
	return err
}

// FailImport keeps why a file could not be read.
func (a *Service) FailImport(ctx context.Context, t jobs.Task, p *problems.Problem) error {
	saying, err := json.Marshal(p)
	if err != nil {
		return err
	}
	if err := a.rows.FailImport(ctx, t.Number, saying); err != nil {
		return err
	}
	a.jobs.Tell(ctx, *t.Review, jobs.News{Kind: "import", Import: t.Number})
	return nil
}

func (a *Service) read(ctx context.Context, i Import) error {
	settings, err := settingsOf(i)
	if err != nil {
		return err
	}
	filing, err := a.rows.File(ctx, i)
	if err != nil {
		return err
	}
	f := &filer{
		app:      a,
		i:        i,
		Filing:   filing,
		file:     &meter{ReadSeeker: a.rows.ImportFile(ctx, i)},
		years:    map[int]int{},
		seen:     map[[32]byte]string{},
		settings: settings,
	}
	if i.Kind == "vocabulary" {
		return f.vocabulary(ctx)
	}
	return f.all(ctx)
}

// meter tells how much of a file was read, and keeps why the store did not give the rest.
type meter struct {
	io.ReadSeeker
	read   int64
	failed error
}

func (c *meter) Read(p []byte) (int, error) {
	n, err := c.ReadSeeker.Read(p)
	c.read += int64(n)
	if err != nil && !errors.Is(err, io.EOF) {
		c.failed = err
	}
	return n, err
}

// blame returns why a file could not be read on: what the store said, or that the file itself is at fault.
func (c *meter) blame(err error) error {
	if c.failed != nil {
		return c.failed
	}
	return unreadable(err)
}

// Notice is one line of an import's report.

// Notices returns what could not be read of a file as it stood.
func (a *Service) Notices(ctx context.Context, id int64) ([]Notice, error) {
	if _, err := a.Import(ctx, id); err != nil {
		return nil, err
	}
	return a.rows.Notices(ctx, id)
}

// NoticesText returns the same as lines of text, under a head that names the file.
func (a *Service) NoticesText(ctx context.Context, id int64) (name, text string, err error) {
	i, err := a.Import(ctx, id)
	if err != nil {
		return "", "", err
	}
	notices, err := a.rows.Notices(ctx, id)
	if err != nil {
		return "", "", err
	}
	var b strings.Builder
	fmt.Fprintf(&b, "%s: %d records brought in, %d skipped, %d remarks\n\n", i.Name, i.Records, i.Skipped, i.Notices)
	for _, n := range notices {
		fmt.Fprintln(
			&b,
			exchange.Notice{Line: n.Line, Record: n.Record, Kind: exchange.Kind(n.Kind), Detail: n.Detail, Skipped: n.Skipped},
		)
	}
	if i.Notices > len(notices) {
		fmt.Fprintf(&b, "… and %d more\n", i.Notices-len(notices))
	}
	return i.Name, b.String(), nil
}

// told returns an import as it is told.
func told(i Import) reviews.Import {
	out := reviews.Import{ID: i.ID, Kind: i.Kind, Name: i.Name, State: i.State, Bytes: i.Bytes, BytesRead: i.BytesRead,
		Records: i.Records, Skipped: i.Skipped, Notices: i.Notices, Sample: i.Sample, Format: i.Format, Waits: i.Waits}
	var q struct { // the heads of the question alone
		What  string
		Total int
	}
	if i.Asked != nil && json.Unmarshal(i.Asked, &q) == nil {
		out.Asks, out.Doubles = q.What, q.Total
	}
	var p problems.Problem
	if i.Problem != nil && json.Unmarshal(i.Problem, &p) == nil {
		out.Error = &p
	}
	return out
}

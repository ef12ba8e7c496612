package intake

import (
	"bytes"
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

	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/app/vocabularies"
	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/records"
	"tamiz/exchange/skos"
	"tamiz/store"
)

// filer puts the records of one file into the store, batch by batch.
type filer struct {
	*Filing
	app  *Service
	i    Import
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
	studies  []library.Key
	ids      []string
	sample   int64
	keys     []*bib.Record // of key studies, which become some all at once
	lastTold time.Time

	firstNotice string
	settings    FileSettings
	places      []int // in the file, of the records in known
	doubles     []pairOfPlaces
	plan        plan // of records of the same work, where some are joined or left out
	place       int  // in the file, of the record that was read last
}

func (f *filer) notice(n exchange.Notice) {
	if n.Skipped {
		f.skipped++
	}
	if f.firstNotice == "" {
		f.firstNotice = n.String()
	}
	if f.notices++; f.notices <= maxNotices {
		n.Detail = store.Plain(n.Detail)
		f.reports = append(f.reports, n)
	}
}

// open begins to read the file.
func (f *filer) open(ctx context.Context, report func(exchange.Notice)) (records.Reader, records.Format, error) {
	if _, err := f.file.Seek(0, io.SeekStart); err != nil {
		return nil, "", err
	}
	o := records.Options{Columns: f.settings.Columns, Map: f.settings.Map, Report: report, Ask: true}
	r, format, err := records.Open(f.file, o)
	var q *records.Question
	if errors.As(err, &q) && q.Columns != nil { // someone may have said it of such a table before
		if known, ok := f.app.knownColumns(ctx, q.Columns); ok {
			f.settings.Columns, o.Columns = &known, &known
			if _, err := f.file.Seek(0, io.SeekStart); err != nil {
				return nil, "", err
			}
			r, format, err = records.Open(f.file, o)
		}
	}
	f.file.read = 0
	return r, format, err
}

func (f *filer) all(ctx context.Context) error {
	if f.settings.joins() {
		if err := f.planDoubles(ctx); err != nil {
			return err
		}
	}
	r, format, err := f.open(ctx, f.notice)
	if err != nil {
		return f.otherwise(f.file.blame(err))
	}
	if f.i.Kind == "keys" {
		var err error
		if f.studies, err = f.app.library.KeyStudies(ctx, f.i.Review); err != nil {
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
		rec, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return f.file.blame(err)
		}
		f.place++
		if err := f.add(ctx, rec); err != nil {
			return err
		}
	}
	if err := f.flush(ctx); err != nil {
		return err
	}
	if f.records == 0 && len(f.seen) > 0 {
		return nothingNew()
	}
	if f.records == 0 {
		return &problems.Problem{
			Type:   "no-records",
			Status: 422,
			Field:  "file",
			Title:  "The file holds no record that could be read. Nothing was brought in.",
			Detail: f.firstNotice,
			Params: map[string]string{"why": problems.Sentence("no record in it could be read: " + f.firstNotice)},
		}
	}
	if len(f.doubles) > 0 && f.settings.Doubles == "" {
		return f.askDoubles(ctx, format)
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
	// Only now are others kept from changing the review, and only for this step.
	return problems.Gone(
		f.app.store.InReview(
			ctx,
			f.i.Review,
			func(ctx context.Context, w *store.Tx) error { return f.show(ctx, w, string(format), saved) },
		),
		"review",
	)
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
	id := strings.Clone(r.ID) // a piece of it would keep the whole text of the record
	f.seen[hash] = id
	if k, ok := f.already.Find(r); ok {
		f.notice(exchange.Notice{Kind: exchange.Already, Detail: f.studies[k].Record.ID, Skipped: true})
		return nil
	}
	n, double := f.known.Find(r)
	what := f.settings.of(f.place)
	perhaps := false
	if !double {
		if n, perhaps = f.known.Perhaps(r); perhaps {
			if what = f.settings.ofPerhaps(f.place); what == Apart {
				f.doubles = append(f.doubles, pairOfPlaces{f.places[n], f.place, true})
			}
		}
	}
	if double || perhaps && what != Apart {
		kind := exchange.Double
		switch what {
		case Leave:
			kind = exchange.DoubleLeft
		case Join:
			kind = exchange.DoubleJoined
		default:
			f.doubles = append(f.doubles, pairOfPlaces{f.places[n], f.place, false})
		}
		f.notice(exchange.Notice{Record: f.place, Kind: kind, Detail: f.ids[n], Skipped: kind != exchange.Double})
		if kind != exchange.Double {
			return nil
		}
	}
	f.known.Add(r, len(f.ids))
	f.ids, f.places = append(f.ids, id), append(f.places, f.place)
	if more := f.plan[f.place]; len(more) > 0 {
		for _, m := range more {
			r = bib.Join(r, m)
		}
		r.ID = id
	}
	f.years[r.Year]++
	f.records++
	if f.i.Kind == "keys" && f.records > maxKeys {
		return &problems.Problem{
			Type:   "too-many-keys",
			Status: 422,
			Field:  "file",
			Title: fmt.Sprintf(
				"The file holds more than %d records: too many to be key studies. Nothing was brought in.",
				maxKeys,
			),
		}
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
			f.keys = append(f.keys, f.waiting...)
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
	// A progress that cannot be told does not stop the work.
	if err := f.app.rows.ImportProgress(ctx, f.i.ID, min(f.file.read, f.i.Bytes), f.records, f.skipped); err == nil {
		f.app.jobs.Tell(ctx, f.i.Review, jobs.News{Kind: "import", Import: f.i.ID})
	}
	return nil
}

// show makes what was filed be seen, as a change that can be undone.
func (f *filer) show(ctx context.Context, w *store.Tx, format string, years json.RawMessage) error {
	if f.i.Kind == "sample" {
		if err := f.Show(ctx, w, format, f.records, f.skipped, f.notices, years); err != nil {
			return err
		}
		_, err := reviews.LogSample(ctx, w, f.i.Review, f.sample, f.what(f.records))
		return err
	}
	// Since the file was begun someone may have added the same studies.
	studies, err := library.KeyStudiesIn(ctx, w)
	if err != nil {
		return err
	}
	var there bib.Known
	for i, s := range studies {
		there.Add(s.Record, i)
	}
	fresh := slices.DeleteFunc(slices.Clone(f.keys), func(r *bib.Record) bool {
		_, known := there.Find(r)
		return known
	})
	if len(fresh) == 0 {
		return nothingNew()
	}
	if err := f.Show(ctx, w, format, len(fresh), f.skipped+len(f.keys)-len(fresh), f.notices, years); err != nil {
		return err
	}
	ids, err := library.AddKeyRecords(ctx, w, fresh, "file", f.i.Name)
	if err != nil {
		return err
	}
	_, err = reviews.KeysAdded(ids).Log(ctx, w, f.i.Review, f.what(len(ids)))
	return err
}

func (f *filer) what(records int) reviews.What {
	return reviews.What{
		Key:    "import." + f.i.Kind,
		Params: map[string]string{"name": f.i.Name, "records": fmt.Sprint(records)},
	}
}

func nothingNew() *problems.Problem {
	return &problems.Problem{
		Type:   "nothing-new",
		Status: 422,
		Field:  "file",
		Title:  "All records of the file are key studies of this review already. Nothing was brought in.",
	}
}

// otherwise returns what is asked where the file is a vocabulary rather than records; else the error.
func (f *filer) otherwise(err error) error {
	if head, ok := f.beginning(); ok && skos.Looks(head) {
		return &FileQuestion{What: "kind", Format: "skos", Doubles: []Double{}}
	}
	return err
}

// beginning returns the beginning of the file as text.
func (f *filer) beginning() (string, bool) {
	if _, err := f.file.Seek(0, io.SeekStart); err != nil {
		return "", false
	}
	b, _, err := records.Beginning(f.file)
	if err != nil {
		return "", false
	}
	decoded, _, err := exchange.Decode(bytes.NewReader(b))
	if err != nil {
		return "", false
	}
	head, err := io.ReadAll(decoded)
	return string(head), err == nil
}

// vocabulary reads a controlled vocabulary, which the review goes by from then on.
func (f *filer) vocabulary(ctx context.Context) error {
	if head, ok := f.beginning(); ok && !skos.Looks(head) {
		if format, err := records.Detect(head); err == nil {
			return &FileQuestion{What: "kind", Format: string(format), Doubles: []Double{}}
		}
	}
	if _, err := f.file.Seek(0, io.SeekStart); err != nil {
		return err
	}
	f.file.failed = nil
	f.file.read = 0
	t, err := skos.Load(f.file, "", f.notice)
	if f.file.failed != nil {
		return f.file.failed
	}
	if err != nil {
		return &problems.Problem{
			Type:   "no-vocabulary",
			Status: 422,
			Field:  "file",
			Title:  "The file could not be read as a vocabulary. Nothing was brought in.",
			Detail: exchange.InWords(err),
		}
	}
	body, err := vocabularies.Pack(t)
	if err != nil {
		return err
	}
	name := strings.TrimSuffix(f.i.Name, ".gz")
	name = strings.TrimSuffix(name, path.Ext(name))
	if err := f.AddNotices(ctx, f.reports); err != nil {
		return err
	}
	return problems.Gone(f.app.store.InReview(ctx, f.i.Review, func(ctx context.Context, w *store.Tx) error {
		id, err := vocabularies.AddIn(ctx, w, f.i.ID, name, t, body)
		if err != nil {
			return err
		}
		if err := f.Show(ctx, w, "skos", t.Len(), f.skipped, f.notices, nil); err != nil {
			return err
		}
		current, now, err := reviews.DocumentOf(ctx, w, 0)
		if err != nil {
			return err
		}
		next := now
		next.Vocabulary = &id
		var d reviews.Done
		if err := d.Save(ctx, w, current, now, next); err != nil {
			return err
		}
		_, err = d.Log(
			ctx,
			w,
			f.i.Review,
			reviews.What{Key: "import.vocabulary", Params: map[string]string{"name": f.i.Name, "headings": fmt.Sprint(t.Len())}},
		)
		return err
	}), "review")
}

package intake

import (
	"bytes"
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"io"
	"strings"

	"tamiz/app/jobs"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/records"
	"tamiz/exchange/table"
	"tamiz/exchange/tagged"
)

// FileSettings are what was said of a file: how it is read, and what becomes of records of the same work.
type FileSettings struct {
	Columns *table.Columns `json:"columns,omitempty"`
	Map     *tagged.Map    `json:"map,omitempty"`
	Doubles string         `json:"doubles,omitempty"` // apart, join or leave
	Choices map[int]string `json:"choices,omitempty"` // by place in the file, where it is another
	Kind    string         `json:"kind,omitempty"`    // what the file is brought in as, where that was another thing
}

// A FileQuestion is what has to be answered before a file can be read. It is an error of reading.
type FileQuestion struct {
	What     string       `json:"what"` // columns, tags, doubles or kind: it is another thing than was expected
	Format   string       `json:"format"`
	Settings FileSettings `json:"settings"` // what is known or guessed so far
	Head     string       `json:"head"`     // the beginning of the file, for columns and tags
	Total    int          `json:"total"`    // of doubles
	Doubles  []Double     `json:"doubles"`
}

func (q *FileQuestion) Error() string { return "asked: " + q.What }

func settingsOf(i Import) (s FileSettings, err error) {
	if len(i.Settings) > 0 {
		err = json.Unmarshal(i.Settings, &s)
	}
	return s, err
}

// unreadable makes of an error of opening a file what is asked, or what is wrong with the file.
func unreadable(err error) error {
	var q *records.Question
	var p *problems.Problem
	switch {
	case errors.As(err, &q) && q.Format == records.Tagged:
		return &FileQuestion{What: "tags", Format: string(q.Format), Settings: FileSettings{Map: q.Map}}
	case errors.As(err, &q):
		return &FileQuestion{What: "columns", Format: string(q.Format), Settings: FileSettings{Columns: q.Columns}}
	case errors.As(err, &p), errors.Is(err, context.Canceled), errors.Is(err, context.DeadlineExceeded):
		return err
	}
	return &problems.Problem{
		Type:   "no-records",
		Status: 422,
		Field:  "file",
		Title:  "The file could not be read. Nothing was brought in.",
		Detail: exchange.InWords(err),
		Params: map[string]string{"why": problems.Sentence(exchange.InWords(err))},
	}
}

// knownColumns returns the mapping that was kept for tables with these heads.
func (a *Service) knownColumns(ctx context.Context, guess *table.Columns) (table.Columns, bool) {
	if !guess.Head {
		return table.Columns{}, false
	}
	kept, err := a.rows.Reading(ctx, "columns", headsKey(*guess))
	if err != nil {
		return table.Columns{}, false
	}
	var c table.Columns
	if json.Unmarshal(kept.Body, &c) != nil || c.Check() != nil {
		return table.Columns{}, false
	}
	c.Delimiter, c.Quote = guess.Delimiter, guess.Quote
	return c, true
}

func headsKey(c table.Columns) string { return strings.Join(c.Heads(), "\t") }

const headShown = 12_000 // characters of a file that are shown

// Asked returns what has to be answered of a file.
func (a *Service) Asked(ctx context.Context, id int64) (*FileQuestion, error) {
	i, err := a.asking(ctx, id)
	if err != nil {
		return nil, err
	}
	var q FileQuestion
	if err := json.Unmarshal(i.Asked, &q); err != nil {
		return nil, err
	}
	if q.What == "doubles" || q.What == "kind" {
		return &q, nil
	}
	head, _, err := a.head(ctx, i)
	if err != nil {
		return nil, err
	}
	q.Doubles = []Double{}
	q.Head = exchange.Cut(strings.ToValidUTF8(head, "\ufffd"), headShown)
	return &q, nil
}

func (a *Service) asking(ctx context.Context, id int64) (Import, error) {
	i, err := a.rows.Import(ctx, id)
	if err != nil {
		return i, problems.Gone(err, "import")
	}
	if i.State != "asking" {
		return i, &problems.Problem{Type: "not-asked", Status: 409, Title: "Nothing is to be answered of this file any more."}
	}
	return i, nil
}

// head returns the beginning of a file as text.
func (a *Service) head(ctx context.Context, i Import) (string, bool, error) {
	b, whole, err := records.Beginning(a.rows.ImportFile(ctx, i))
	if err != nil {
		return "", false, err
	}
	text, _, err := exchange.Decode(bytes.NewReader(b))
	if err != nil {
		return "", false, err
	}
	all, err := io.ReadAll(text)
	return string(all), whole, err
}

// A FilePreview is the first records of a file as they will be when it is read so.
type FilePreview struct {
	Records  []PreviewRecord `json:"records"`
	Notices  []string        `json:"notices"`
	Settings FileSettings    `json:"settings"` // with columns guessed anew where only the delimiter or quote was said
	Problem  string          `json:"problem"`  // why it cannot be read so; empty when it can
}

// A PreviewRecord is a record with its fields as they will be.
type PreviewRecord struct {
	Fields []PreviewField `json:"fields"`
}

// A PreviewField is a field of a record that will hold something.
type PreviewField struct {
	Field  string   `json:"field"` // of exchange.Targets, or the name under which it is kept
	Own    bool     `json:"own"`   // kept under its own name
	Values []string `json:"values"`
}

const previewed = 5 // records

// PreviewImport reads the first records of a file as the settings say. With refill, the columns are guessed
// anew.
func (a *Service) PreviewImport(ctx context.Context, id int64, s FileSettings, refill bool) (*FilePreview, error) {
	i, err := a.asking(ctx, id)
	if err != nil {
		return nil, err
	}
	head, whole, err := a.head(ctx, i)
	if err != nil {
		return nil, err
	}
	if refill && s.Columns != nil {
		c := s.Columns.Refill(head, whole)
		s.Columns = &c
	}
	out := &FilePreview{Records: []PreviewRecord{}, Notices: []string{}, Settings: s}
	if err := s.check(); err != nil {
		out.Problem = problems.Sentence(exchange.InWords(err))
		return out, nil
	}
	r, _, err := records.Open(
		strings.NewReader(head),
		records.Options{Columns: s.Columns, Map: s.Map, Report: func(n exchange.Notice) {
			if len(out.Notices) < 20 {
				out.Notices = append(out.Notices, n.String())
			}
		}},
	)
	if err != nil {
		out.Problem = problems.Sentence(exchange.InWords(err))
		return out, nil
	}
	for len(out.Records) < previewed {
		rec, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			out.Problem = problems.Sentence(exchange.InWords(err))
			break
		}
		out.Records = append(out.Records, previewOf(rec))
	}
	if len(out.Records) == 0 && out.Problem == "" {
		out.Problem = "No record is found so."
	}
	return out, nil
}

func previewOf(r *bib.Record) (p PreviewRecord) {
	for _, f := range r.Fields() {
		if len(f.Values) > 0 {
			values := []string{}
			for _, v := range f.Values[:min(len(f.Values), 50)] {
				values = append(values, exchange.Cut(v, 600))
			}
			p.Fields = append(p.Fields, PreviewField{Field: f.Name, Values: values})
		}
	}
	for _, e := range r.Extra[:min(len(r.Extra), 50)] {
		p.Fields = append(p.Fields, PreviewField{Field: e.Tag, Own: true, Values: []string{exchange.Cut(e.Value, 600)}})
	}
	return p
}

func (s FileSettings) check() error {
	if s.Columns != nil {
		if err := s.Columns.Check(); err != nil {
			return err
		}
	}
	if s.Map != nil {
		if err := s.Map.Check(); err != nil {
			return err
		}
	}
	for _, c := range s.Choices {
		if c != Apart && c != Join && c != Leave {
			return fmt.Errorf("records of the same work are kept apart, joined or left out, not %q", c)
		}
	}
	switch s.Kind {
	case "", "sample", "keys", "vocabulary":
	default:
		return fmt.Errorf("a file is a sample, key studies or a vocabulary, not %q", s.Kind)
	}
	switch s.Doubles {
	case "", Apart, Join, Leave:
		return nil
	}
	return fmt.Errorf("records of the same work are kept apart, joined or left out, not %q", s.Doubles)
}

// An FileAnswer is what was said of a file.
type FileAnswer struct {
	FileSettings
	// for other files of the kind: tables by their heads, tagged text by the name of the map
	Remember bool `json:"remember"`
}

// AnswerImport takes an answer; the file is then read on.
func (a *Service) AnswerImport(ctx context.Context, id int64, answer FileAnswer) (reviews.Import, error) {
	i, err := a.asking(ctx, id)
	if err != nil {
		return reviews.Import{}, err
	}
	if err := answer.check(); err != nil {
		return reviews.Import{}, &problems.Problem{
			Type:   "invalid",
			Status: 422,
			Field:  "settings",
			Title:  problems.Sentence(exchange.InWords(err)),
		}
	}
	before, err := settingsOf(i)
	if err != nil {
		return reviews.Import{}, err
	}
	var q FileQuestion
	if err := json.Unmarshal(i.Asked, &q); err != nil {
		return reviews.Import{}, err
	}
	// What was answered before still holds.
	s := answer.FileSettings
	if s.Columns == nil && q.What == "doubles" {
		s.Columns = first(before.Columns, q.Settings.Columns)
	}
	if s.Map == nil && q.What == "doubles" {
		s.Map = first(before.Map, q.Settings.Map)
	}
	if s.Columns == nil && s.Map == nil && q.What != "doubles" && q.What != "kind" ||
		q.What == "doubles" && s.Doubles == "" ||
		q.What == "kind" && s.Kind == "" {
		return reviews.Import{}, problems.Invalid("settings", "The answer does not say what was asked.")
	}
	if answer.Remember {
		if err := a.keepReading(ctx, answer.FileSettings); err != nil {
			return reviews.Import{}, err
		}
	}
	body, err := json.Marshal(s)
	if err != nil {
		return reviews.Import{}, err
	}
	if q.What == "kind" {
		i.Kind = s.Kind
	}
	asked, err := a.rows.AnswerImport(ctx, i, body, a.jobs.Wake)
	if err != nil {
		return reviews.Import{}, err
	}
	if !asked {
		return reviews.Import{}, &problems.Problem{
			Type:   "not-asked",
			Status: 409,
			Title:  "Nothing is to be answered of this file any more.",
		}
	}
	a.jobs.Tell(ctx, i.Review, jobs.News{Kind: "import", Import: id})
	return a.Import(ctx, id)
}

func first[T any](a, b *T) *T {
	if a != nil {
		return a
	}
	return b
}

// GiveUpImport drops a file that is not read to its end, whatever state it is in: nothing of it stays.
func (a *Service) GiveUpImport(ctx context.Context, id int64) error {
	i, err := a.rows.Import(ctx, id)
	if err != nil {
		return problems.Gone(err, "import")
	}
	dropped, err := a.rows.DropImport(ctx, id)
	if err != nil {
		return err
	}
	if !dropped {
		return &problems.Problem{
			Type:   "brought-in",
			Status: 409,
			Title:  "This file is brought in already. Its sample can be deleted.",
		}
	}
	a.jobs.Tell(ctx, i.Review, jobs.News{Kind: "import", Import: id})
	return nil
}

func (a *Service) keepReading(ctx context.Context, s FileSettings) error {
	kind, key := "columns", ""
	var body any
	switch {
	case s.Columns != nil && s.Columns.Head:
		key, body = headsKey(*s.Columns), s.Columns
	case s.Map != nil:
		name, err := reviews.GoodName(s.Map.Name)
		if err != nil {
			return err
		}
		kind, key, body = "tags", name, s.Map
	default:
		return nil
	}
	saying, err := json.Marshal(body)
	if err != nil {
		return err
	}
	return a.rows.KeepReading(ctx, kind, key, saying)
}

// A ReaderMap is a reader map that is kept.
type ReaderMap struct {
	ID  int64      `json:"id"`
	Map tagged.Map `json:"map"`
}

// ReaderMaps returns the reader maps that are kept, by name.
func (a *Service) ReaderMaps(ctx context.Context) ([]ReaderMap, error) {
	kept, err := a.rows.Readings(ctx, "tags")
	if err != nil {
		return nil, err
	}
	out := []ReaderMap{}
	for _, k := range kept {
		m := ReaderMap{ID: k.ID}
		if err := json.Unmarshal(k.Body, &m.Map); err == nil {
			out = append(out, m)
		}
	}
	return out, nil
}

// DropReaderMap forgets a reader map.
func (a *Service) DropReaderMap(ctx context.Context, id int64) error {
	return problems.Gone(a.rows.DropReading(ctx, id), "reader")
}

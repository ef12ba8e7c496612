// Package written is the written record of a search: put together of what was done, as it was done, and always up
// to date.
package written

import (
	"context"
	_ "embed"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"time"

	"tamiz/app/desk"
	"tamiz/app/dialects"
	"tamiz/app/draws"
	"tamiz/app/figures"
	"tamiz/app/peerreview"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/app/rounds"
	"tamiz/app/runs"
	"tamiz/app/sources"
	"tamiz/app/vocabularies"
	"tamiz/exchange"
	"tamiz/exchange/document"
)

// A Service writes records of searches.
type Service struct {
	reviews      *reviews.Service
	figures      *figures.Service
	sources      *sources.Service
	runs         *runs.Service
	draws        *draws.Service
	vocabularies *vocabularies.Service
	dialects     *dialects.Service
	checks       *peerreview.Service
	rounds       *rounds.Service
	desk         *desk.Service
	now          func() time.Time
}

// New returns the room that writes records.
func New(
	r *reviews.Service,
	f *figures.Service,
	o *sources.Service,
	asked *runs.Service,
	drawn *draws.Service,
	v *vocabularies.Service,
	d *dialects.Service,
	c *peerreview.Service,
	n *rounds.Service,
	k *desk.Service,
) *Service {
	return &Service{r, f, o, asked, drawn, v, d, c, n, k, time.Now}
}

// A Record is the written record of a search: to be read, to be checked item by item, and in numbers.
type Record struct {
	Document document.Document `json:"document"`
	Items    []Item            `json:"items"`
	Flow     Flow              `json:"flow"`
	Open     *Open             `json:"open,omitempty"`
	Methods  string            `json:"methods"` // for a paper
	Plain    string            `json:"plain"`   // for a lay reader

	revision int // of the document, that it is of; 0 for what holds now
}

// An Item is one that the trade's reporting checklist for searches asks for: what, which section fills it, and
// where it is filled where nothing does yet.
type Item struct {
	ID     string `json:"id"`
	Asks   string `json:"asks"`
	By     string `json:"by"`
	Filled bool   `json:"filled"`
	Says   string `json:"says,omitempty"` // what fills it, in short
	Fill   string `json:"fill"`
}

// A Flow is how many records there were at each step. How many are left when each work is counted once is known
// where records of every answer were fetched; what was found by hand counts among it where a file of it was brought
// in, else each record is left.
type Flow struct {
	Sources []FlowSource `json:"sources"`
	Found   int64        `json:"found"` // at all places
	ByHand  int64        `json:"byHand"`
	Removed *int64       `json:"removed,omitempty"` // records of works that another stands for
	Left    *int64       `json:"left,omitempty"`
	Exact   bool         `json:"exact"` // counted, not estimated
}

// A FlowSource is what one place brought.
type FlowSource struct {
	Place   string `json:"place"`
	Records int64  `json:"records"`
	Hand    bool   `json:"hand,omitempty"`
}

//go:embed items.json
var itemsFile []byte

// Schema is the JSON Schema of a record.
//
//go:embed record.schema.json
var Schema []byte

// facts is all that a record is written from.
type facts struct {
	review       *reviews.Review
	doc          desk.Document // of the version that the record is of
	revision     int           // its own; 0 for what holds now
	ran          []ran
	open         *Open
	counted      string // the source by whose records key studies are gone by; "" for none
	bench        *figures.Bench
	coverage     *figures.Coverage
	versions     []figures.Version
	changes      []string // what changed with each version but the first, in words
	everywhere   *runs.Everywhere
	runs         []runs.Run
	draws        []draws.Draw
	lines        []*sources.Written // as sources would be asked, where none was
	sources      []sources.Source
	vocabularies []vocabularies.Vocabulary
	kept         []figures.KeptBlock
	checks       []peerreview.Check
	said         *rounds.Said // by which ways key studies were found
}

const mostLines = 4 // sources whose lines are written out one under another

func (a *Service) facts(ctx context.Context, at desk.At) (f facts, err error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return f, err
	}
	if f.review, err = a.reviews.Review(ctx, at.Review); err != nil {
		return f, err
	}
	if f.everywhere, err = a.runs.Everywhere(ctx, at); err != nil {
		return f, err
	}
	if err = a.asRun(ctx, at, &f); err != nil {
		return f, err
	}
	if err = a.since(ctx, at, &f); err != nil {
		return f, err
	}
	of := at // the version that the record is of
	of.Revision = f.revision
	if f.bench, err = a.figures.Bench(ctx, at, desk.Proposal{Revision: of.Revision}); err != nil {
		return f, err
	}
	if f.coverage, err = a.figures.Coverage(ctx, of); err != nil {
		return f, err
	}
	if f.versions, err = a.figures.Versions(ctx, at); err != nil {
		return f, err
	}
	for i := 1; i < len(f.versions); i++ {
		c, err := a.figures.CompareVersions(ctx, at, f.versions[i-1].Revision, f.versions[i].Revision)
		switch {
		case ctx.Err() != nil:
			return f, ctx.Err()
		case err != nil:
			f.changes = append(f.changes, "cannot be compared any more: "+problems.Told(err))
		default:
			f.changes = append(f.changes, c.Words)
		}
	}
	if f.checks, err = a.checks.Checks(ctx, at.Review); err != nil {
		return f, err
	}
	if f.said, err = a.rounds.Says(ctx, of); err != nil {
		return f, err
	}
	if err = a.runs.EachRun(ctx, at.Review, false, func(r runs.Run) {
		if r.Holds() {
			f.runs = append(f.runs, r)
		}
	}); err != nil {
		return f, err
	}
	if f.draws, err = a.draws.Draws(ctx, at.Review); err != nil {
		return f, err
	}
	if f.sources, err = a.sources.Sources(ctx); err != nil {
		return f, err
	}
	if f.vocabularies, err = a.vocabularies.All(ctx); err != nil {
		return f, err
	}
	if f.kept, err = a.figures.EverKept(ctx); err != nil {
		return f, err
	}
	look, err := a.desk.Look(ctx, at)
	if err != nil {
		return f, err
	}
	for _, s := range f.sources {
		if look.Source != nil && s.ID == *look.Source {
			f.counted = s.Name
		}
	}
	for _, s := range f.everywhere.Sources {
		if s.Query == "" || s.Off || len(f.lines) == mostLines || len(f.ran) > 0 {
			continue
		}
		w, err := a.sources.Lines(ctx, at, &s.Source)
		if err != nil {
			return f, err
		}
		f.lines = append(f.lines, w)
	}
	return f, nil
}

// Record writes the record of a review as it is now.
func (a *Service) Record(ctx context.Context, at desk.At) (*Record, error) {
	f, err := a.facts(ctx, at)
	if err != nil {
		return nil, err
	}
	out := &Record{Flow: f.flow(), Open: f.open, Methods: f.methods(a.now()), Plain: f.plain(), revision: f.revision}
	out.Document = document.Document{
		Title:    f.review.Name,
		Under:    "Record of the search, as it stood on " + day(a.now()),
		Sections: f.sections(),
	}
	for i, s := range out.Document.Sections {
		if s.Parts == nil {
			out.Document.Sections[i].Parts = []document.Part{}
		}
	}
	if err := json.Unmarshal(itemsFile, &out.Items); err != nil {
		return nil, err
	}
	for i, item := range out.Items {
		k := slices.IndexFunc(out.Document.Sections, func(s document.Section) bool { return s.ID == item.By })
		if k >= 0 && len(out.Document.Sections[k].Parts) > 0 && (item.By != "lines" || f.complete()) { // just as it was run
			out.Items[i].Filled, out.Items[i].Says = true, short(out.Document.Sections[k])
		}
	}
	rows := [][]string{}
	for _, i := range out.Items {
		says := i.Says
		if !i.Filled {
			says = "not said"
		}
		rows = append(rows, []string{i.Asks, says})
	}
	out.Document.Sections = append(
		out.Document.Sections,
		document.Section{
			ID:    "methods",
			Title: "In short",
			Parts: []document.Part{document.Text("%s", out.Methods), {Title: "For a lay reader", Text: out.Plain}},
		},
		document.Section{
			ID:    "checklist",
			Title: "What a report of a search is to say",
			Parts: []document.Part{document.Rows("", []string{"It asks", "Filled by"}, rows)},
		},
	)
	return out, nil
}

// short says what fills an item: the first sentence of a section, or how many rows it lists.
func short(s document.Section) string {
	for _, p := range s.Parts {
		switch {
		case p.Text != "":
			text, _, _ := strings.Cut(p.Text, ". ")
			return s.Title + ": " + strings.TrimSuffix(text, ".")
		case p.Table != nil:
			return fmt.Sprintf("%s: a table of %d", s.Title, len(p.Table.Rows))
		case len(p.Items) > 0:
			return fmt.Sprintf("%s: %s", s.Title, strings.Join(p.Items[:min(3, len(p.Items))], "; "))
		}
	}
	return s.Title
}

// Formats are those that a record is written in as a file.
const (
	Markdown = "md"
	HTML     = "html"
	JSON     = "json"
	DOCX     = "docx"
)

// File writes the record of a review as a file.
func (a *Service) File(ctx context.Context, at desk.At, format string) (body []byte, name string, err error) {
	r, err := a.Record(ctx, at)
	if err != nil {
		return nil, "", err
	}
	body, err = r.as(format, a.now())
	return body, exchange.FileName(r.Document.Title+", record of the search") + "." + format, err
}

// as writes a record in one of its formats; made is when.
func (r *Record) as(format string, made time.Time) ([]byte, error) {
	if format == JSON {
		return json.MarshalIndent(r, "", "  ")
	}
	return written(r.Document, format, made)
}

// written writes a document to be read by people.
func written(d document.Document, format string, made time.Time) ([]byte, error) {
	switch format {
	case Markdown:
		return d.Markdown(), nil
	case HTML:
		return d.HTML()
	case DOCX:
		return d.DOCX(made)
	}
	return nil, problems.Invalid("format", "This is written as md, html or docx, a record as json too.")
}

func day(t time.Time) string { return t.Format("2 January 2006") }

// num writes a number as people read it.
func num[N int | int64](n N) string {
	s := fmt.Sprint(n)
	for i := len(s) - 3; i > 0 && s[i-1] != '-'; i -= 3 {
		s = s[:i] + "," + s[i:]
	}
	return s
}

func numOf[N int | int64](n *N) string {
	if n == nil {
		return ""
	}
	return num(*n)
}

func percent(x float64) string { return fmt.Sprintf("%.0f %%", 100*x) }

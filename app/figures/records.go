package figures

import (
	"context"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/set"
	"tamiz/core/tally"
	"tamiz/core/text"
)

// RecordsQuestion asks for some of the records behind a figure.
type RecordsQuestion struct {
	Of    desk.RecordSet `json:"of"`
	At    int            `json:"at"`
	Limit int            `json:"limit"`
}

// A RecordList is some of the records behind a figure.
type RecordList struct {
	Total   int               `json:"total"`
	Records []desk.RecordHead `json:"records"`
}

const recordPage = 500

// A MarkedRecord is a record with what the terms of the blocks match in it.
type MarkedRecord struct {
	ID         int64        `json:"id"`
	RecordID   string       `json:"recordId"`
	Title      []desk.Piece `json:"title"`
	Abstract   []desk.Piece `json:"abstract"`
	Authors    []string     `json:"authors"`
	Journal    string       `json:"journal"`
	Year       int          `json:"year"`
	Countries  []string     `json:"countries"`
	Substances []string     `json:"substances"`
	Keywords   []Chip       `json:"keywords"`
	Headings   []Chip       `json:"headings"`
	Types      []string     `json:"types"`
	Languages  []string     `json:"languages"`
	DOI        string       `json:"doi"`
	Others     []Other      `json:"others"` // title and abstract in other languages
	Key        bool         `json:"key"`
	Indexed    bool         `json:"indexed"`
	Cites      int          `json:"cites"`      // works, as its source says
	References []string     `json:"references"` // of them the first, as lines
	TimesCited *int         `json:"timesCited,omitempty"`
}

// mostReferences is how many references of a record are shown.
const mostReferences = 300

// An Other is the title and abstract of a record in another language.
type Other struct {
	Language string `json:"language"`
	Title    string `json:"title"`
	Abstract string `json:"abstract"`
}

// A Chip is a keyword or heading of a record.
type Chip struct {
	Label      string   `json:"label"`
	Key        string   `json:"key"` // by what it is decided on
	Central    bool     `json:"central,omitempty"`
	Qualifiers []string `json:"qualifiers,omitempty"`
	Blocks     []string `json:"blocks,omitempty"`
}

// ReadRecord returns one record with the words of the blocks marked, and those of an item besides.
func (a *Service) ReadRecord(
	ctx context.Context,
	at desk.At,
	record int64,
	f *tally.Facet,
	item *string,
) (*MarkedRecord, error) {
	r, err := a.library.Record(ctx, record)
	if err != nil {
		return nil, problems.Gone(err, "record")
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	var also []text.Pattern
	if f != nil && item != nil && desk.Textual(*f) {
		forms := []string{*item}
		if d.Pool != nil {
			if forms, err = d.Pool.Forms(ctx, d.Look, *f, *item, d.Keys); err != nil {
				return nil, err
			}
		}
		for _, form := range forms {
			if p, ok := literal(form); ok {
				also = append(also, p)
			}
		}
	}
	m, err := markedRecord(d, r, also, nil)
	return &m, err
}

func markedRecord(d *desk.Desk, s library.StoredRecord, also, nearly []text.Pattern) (MarkedRecord, error) {
	marker, err := coverage.NewMarker(d.Strategy, d.Keys.Set.Thesaurus, also...)
	if err != nil {
		return MarkedRecord{}, err
	}
	marker.Nearly(nearly)
	letters := func(blocks []int) (out []string) {
		for _, b := range blocks {
			out = append(out, d.Document.Blocks[b].Name)
		}
		return out
	}
	pieces := func(f bib.Field, value string) []desk.Piece {
		out := []desk.Piece{}
		for _, p := range marker.Value(f, value) {
			out = append(out, desk.Piece{Text: p.Text, Blocks: letters(p.Blocks), Candidate: p.Also, Near: p.Near})
		}
		return out
	}
	r := desk.Figured(d.Keys.Set.Thesaurus, s.Record)
	m := MarkedRecord{
		ID:       s.ID,
		RecordID: r.ID,
		Title:    pieces(bib.Title, r.Title),
		Abstract: pieces(bib.Abstract, r.Abstract),
		Authors:  []string{},
		Journal:  r.Journal,
		Year:     r.Year,
		Keywords: []Chip{},
		Headings: []Chip{},
		Types: append(
			[]string{},
			r.Types...),
		Languages:  append([]string{}, r.Languages...),
		Countries:  append([]string{}, r.Countries...),
		Substances: append([]string{}, r.Substances...),
		DOI:        r.DOI,
		Key:        d.Keys.Has(s.ID),
		Indexed:    r.Indexed(),
	}
	m.References, m.Cites, m.TimesCited = []string{}, len(r.References), r.TimesCited
	for _, f := range r.References[:min(len(r.References), mostReferences)] {
		m.References = append(m.References, f.Line())
	}
	m.Others = []Other{}
	for _, o := range r.Others {
		m.Others = append(m.Others, Other(o))
	}
	for _, p := range r.Authors {
		m.Authors = append(m.Authors, p.String())
	}
	for _, k := range r.Keywords {
		chip := Chip{Label: k, Key: desk.DecisionKey(tally.Keywords, k)}
		seen := map[string]bool{}
		for _, p := range pieces(bib.Keyword, k) {
			for _, b := range p.Blocks {
				if !seen[b] {
					seen[b] = true
					chip.Blocks = append(chip.Blocks, b)
				}
			}
		}
		m.Keywords = append(m.Keywords, chip)
	}
	seen := map[string]bool{}
	for _, h := range r.Headings {
		// A keyword that leads to a heading which stands there already tells nothing more.
		label := text.Label(h.Label)
		if seen[label] && !h.Central && len(h.Qualifiers) == 0 {
			continue
		}
		seen[label] = true
		m.Headings = append(
			m.Headings,
			Chip{h.Label, desk.DecisionKey(tally.Headings, h.Label), h.Central, h.Qualifiers, letters(marker.Heading(h))},
		)
	}
	return m, nil
}

// Records returns some of the records of a set, in its order: that of the sample, where they are of it.
func (a *Service) Records(ctx context.Context, at desk.At, q RecordsQuestion) (*RecordList, error) {
	if q.At < 0 || q.Limit < 1 || q.Limit > recordPage {
		return nil, problems.Invalid("limit", "1 to %d records are told at once.", recordPage)
	}
	if q.Of.Set == nil {
		return nil, problems.Invalid("of", "It is not said which records are meant.")
	}
	if err := q.Of.Check(); err != nil {
		return nil, desk.SetProblem(err)
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	out := &RecordList{Records: []desk.RecordHead{}}
	if kept, ok := q.Of.Set.(set.Stored); ok {
		ids, err := a.desk.Stored(ctx, at.Review, kept)
		if err != nil {
			return nil, err
		}
		out.Total = len(ids)
		from := min(q.At, len(ids))
		stored, err := a.library.RecordsByID(ctx, ids[from:min(from+q.Limit, len(ids))])
		for _, s := range stored {
			out.Records = append(out.Records, d.Head(s))
		}
		return out, err
	}
	if d.Pool == nil {
		return nil, desk.ErrNoSample
	}
	found, err := q.Of.Records(ctx, d.SetPool(a.desk))
	if err != nil {
		return nil, desk.SetProblem(err)
	}
	out.Total = int(found.GetCardinality())
	it := found.Iterator()
	for n := 0; it.HasNext() && len(out.Records) < q.Limit; n++ {
		if i := it.Next(); n >= q.At {
			out.Records = append(out.Records, d.Head(library.StoredRecord{ID: d.Pool.IDs[i], Record: d.Pool.Records[i]}))
		}
	}
	return out, nil
}

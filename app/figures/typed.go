package figures

import (
	"context"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/dialect"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/thesaurus"
)

// TypedStrategy is a strategy as somebody types it by hand.
type TypedStrategy struct {
	Dialect string      `json:"dialect"`
	Title   string      `json:"title"`
	ByLine  bool        `json:"byLine"` // typed line by line
	Lines   []TypedLine `json:"lines"`
	Whole   []string    `json:"whole"` // one query, or several whose records belong together
	Text    string      `json:"text"`  // all that is typed
	Notes   []TypedNote `json:"notes"` // of the whole
	Records *int        `json:"records,omitempty"`
	More    *int        `json:"more,omitempty"`  // records of the sample beyond what is meant
	Fewer   *int        `json:"fewer,omitempty"` // that are lost
	Carry   *Carry      `json:"carry,omitempty"` // where the dialect means headings of another vocabulary
}

// A TypedLine is one line, by its number in the strategy.
type TypedLine struct {
	Number  int         `json:"number"`
	Numbers []int       `json:"numbers"` // as it is typed
	Texts   []string    `json:"texts"`   // as many; none where it cannot be said
	Notes   []TypedNote `json:"notes"`
	Records *int        `json:"records,omitempty"` // of the sample, as it is typed
}

// A TypedNote says what a dialect cannot say, what is asked in its place, and what that costs over the sample.
type TypedNote struct {
	Kind    string `json:"kind"`
	Term    string `json:"term"`
	Instead string `json:"instead,omitempty"`
	More    *int   `json:"more,omitempty"`
	Fewer   *int   `json:"fewer,omitempty"`
}

// TypedIn writes the strategy of a review in a dialect.
func (a *Service) TypedIn(ctx context.Context, at desk.At, d *dialect.Dialect) (*TypedStrategy, error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, err
	}
	lay, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	w := writer{}
	var options dialect.Options
	if lay.Pool != nil {
		w.ix, w.d = lay.Pool.Index, lay
		options = dialect.OptionsOf(w.ix)
	}
	c, err := a.carrying(ctx, lay, d)
	if err != nil {
		return nil, err
	}
	s, v := lay.Strategy, thesaurusOf(lay)
	numbered, err := lay.Document.Numbered(v)
	if err != nil {
		return nil, notWritten(err)
	}
	own := numbered[len(numbered)-len(lay.Document.Lines):]
	manner := strategy.Manner{Dialect: d, Options: options}
	if c != nil {
		manner.Carry = &strategy.Carrying{Stands: c.Stands, Terms: c.Terms}
	}
	typed, err := s.Adapted(manner, v, own...)
	if err != nil {
		return nil, notWritten(err)
	}
	out := &TypedStrategy{
		Dialect: d.Name,
		Title:   d.Title,
		ByLine:  d.Typed == dialect.AsLines,
		Lines:   []TypedLine{},
		Whole:   typed.Whole.Queries,
		Text:    typed.Text(d),
		Notes:   w.notes(typed.Notes(d)),
	}
	if out.Whole == nil {
		out.Whole = []string{}
	}
	for _, l := range append(typed.Lines, typed.Own...) {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		line := TypedLine{Number: l.Of.Number, Numbers: l.Numbers, Texts: l.Texts, Notes: w.notes(l.Notes)}
		if c.counted(l.Of) {
			line.Records = w.records(l.Said)
		}
		if c.elsewhere() { // the sample knows only its own headings: what a wording costs beside theirs cannot be told
			for i := range line.Notes {
				if line.Notes[i].Kind == strategy.OwnWording {
					line.Notes[i].More, line.Notes[i].Fewer = nil, nil
				}
			}
		}
		if line.Texts == nil {
			line.Texts, line.Numbers = []string{}, []int{}
		}
		out.Lines = append(out.Lines, line)
	}
	if c != nil {
		out.Carry = &c.Carry
	}
	if whole, err := lay.Strategy.Query(thesaurusOf(lay)); err == nil && !c.elsewhere() {
		said := typed.Whole.Said
		out.Records = w.records(said)
		out.More, out.Fewer = w.cost(whole, said)
	}
	return out, nil
}

func notWritten(err error) error {
	return &problems.Problem{
		Type:   "not-written",
		Status: 409,
		Title:  "This strategy cannot be written.",
		Detail: err.Error(),
	}
}

func thesaurusOf(d *desk.Desk) *thesaurus.Thesaurus { return d.Keys.Set.Thesaurus }

// writer counts over the sample.
type writer struct {
	ix *index.Index
	d  *desk.Desk
}

func (w writer) notes(notes []dialect.Note) []TypedNote {
	out := []TypedNote{}
	for _, n := range notes {
		note := TypedNote{Kind: n.Code, Term: n.Term, Instead: n.Instead}
		if n.Countable() {
			note.More, note.Fewer = w.cost(n.Meant, n.Said)
		}
		out = append(out, note)
	}
	return out
}

// find returns the records of the sample that an expression finds.
func (w writer) find(q query.Expr) *roaring.Bitmap {
	return w.d.Pool.Set().Matched(q)
}

// records returns how many they are; nil without a sample.
func (w writer) records(q query.Expr) *int {
	if w.ix == nil || q == nil {
		return nil
	}
	return number(w.find(q))
}

func (w writer) cost(meant, said query.Expr) (more, fewer *int) {
	if w.ix == nil {
		return nil, nil
	}
	m, f := dialect.Between(meant, said, w.find)
	return &m, &f
}

const longestQuery = dialect.MaxText

// tooLong says that a pasted query is.
func tooLong(text string) error {
	if len(text) > longestQuery {
		return problems.Invalid("text", "A query has at most 1 MB. This one is longer; nothing was read.")
	}
	if strings.TrimSpace(text) == "" {
		return problems.Invalid("text", "There is nothing to read yet.")
	}
	return nil
}

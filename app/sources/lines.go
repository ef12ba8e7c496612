package sources

import (
	"context"
	"errors"
	"slices"
	"strconv"
	"strings"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/query"
	"tamiz/core/review"
	"tamiz/core/strategy"
	"tamiz/source"
)

// Written is a strategy as it is written for somebody: in CQL, or in the names of a source.
type Written struct {
	Source string        `json:"source,omitempty"` // whose names it is in; none for CQL as Tamiz writes it
	Lines  []WrittenLine `json:"lines"`
	Whole  string        `json:"whole"` // as one query; "" where it finds nothing
	Notes  []source.Note `json:"notes"` // what of the whole the source cannot be asked, and what stands in its place
}

// A WrittenLine is one numbered line.
type WrittenLine struct {
	Number   int    `json:"number"`
	Kind     string `json:"kind"`
	Block    string `json:"block,omitempty"`    // of a term or a block: its id
	Term     string `json:"term,omitempty"`     // its id
	Limit    string `json:"limit,omitempty"`    // its kind
	Line     string `json:"line,omitempty"`     // of one that is put together of others: its id
	Verbatim bool   `json:"verbatim,omitempty"` // it is a query that no term says, and not put together of others
	// a line of it is switched off or not there any more: it finds nothing
	Lacks bool          `json:"lacks,omitempty"`
	Parts []int         `json:"parts"`
	Join  string        `json:"join,omitempty"`
	Text  string        `json:"text"` // by itself; of a line that joins others, by their numbers
	Notes []source.Note `json:"notes"`
}

// ReadLine reads what somebody writes of the numbers of lines, as "2 AND (5 OR 6)"; before names the line that it is to
// stand in place of, "" for a new one.
func (a *Service) ReadLine(ctx context.Context, at desk.At, text, before string) (*review.LinePart, error) {
	d, err := a.desk.Proposed(ctx, at.Review, desk.Proposal{})
	if err != nil {
		return nil, err
	}
	v, err := a.desk.Pools.Thesaurus(ctx, d.Vocabulary)
	if err != nil {
		return nil, err
	}
	part, err := d.ReadLine(v, text, before)
	var where *review.LineFault
	if errors.As(err, &where) {
		p := problems.Invalid("text", "%s", where.Message)
		p.Params = map[string]string{"from": strconv.Itoa(where.From), "to": strconv.Itoa(where.To)}
		return nil, p
	}
	if err != nil {
		return nil, notWritten(err)
	}
	return &part, nil
}

func notWritten(err error) error {
	return &problems.Problem{
		Type:   "not-written",
		Status: 409,
		Title:  "This strategy cannot be written.",
		Detail: err.Error(),
	}
}

// Lines writes the strategy of a review as numbered lines, in the names of a source, or in CQL where none is named.
func (a *Service) Lines(ctx context.Context, at desk.At, of *int64) (*Written, error) {
	m, err := a.MeaningAt(ctx, at.Review, at.Revision)
	if err != nil {
		return nil, err
	}
	if of == nil {
		numbered, err := m.Doc.Numbered(m.Terms)
		if err != nil {
			return nil, notWritten(err)
		}
		out := &Written{Lines: []WrittenLine{}, Notes: []source.Note{}}
		for _, n := range numbered {
			out.Lines = append(out.Lines, lineOf(m.Doc, n, plainly))
		}
		if m.Query != nil {
			out.Whole = query.Write(m.Query)
		}
		return out, nil
	}
	s, err := a.Source(ctx, *of)
	if err != nil {
		return nil, err
	}
	as, err := a.Speech(ctx, s, m.Doc.Vocabulary)
	if err != nil {
		return nil, err
	}
	return as.written(s.Name, m)
}

// written writes what is meant as the source is asked it: lines and the whole of one adaptation.
func (s Speech) written(name string, m Meaning) (*Written, error) {
	numbered, err := m.Doc.Numbered(m.Terms)
	if err != nil {
		return nil, notWritten(err)
	}
	typed, err := s.Typed(m.Doc.Strategy(""), m.Terms, numbered[len(numbered)-len(m.Doc.Lines):]...)
	if err != nil {
		return nil, notWritten(err)
	}
	out := &Written{Source: name, Lines: []WrittenLine{}}
	said := slices.Concat(typed.Lines, typed.Own)
	for _, n := range numbered {
		out.Lines = append(out.Lines, lineOf(m.Doc, n, func(n strategy.Numbered) (string, []source.Note) {
			l := said[n.Number-1]
			return strings.Join(l.Texts, "\n"), noted(s.Notes(l.Notes))
		}))
	}
	out.Whole, out.Notes = s.Asked(typed.Whole)
	out.Notes = noted(out.Notes)
	return out, nil
}

// plainly writes a line in CQL as Tamiz writes it.
func plainly(n strategy.Numbered) (string, []source.Note) {
	if len(n.Parts) > 0 || n.Tree != nil && n.Tree.Query == nil {
		return n.Joined(), []source.Note{}
	}
	return query.Write(n.Expr), []source.Note{}
}

func lineOf(d desk.Document, n strategy.Numbered, as func(strategy.Numbered) (string, []source.Note)) WrittenLine {
	line := WrittenLine{Number: n.Number, Kind: n.Kind, Parts: n.Parts, Join: n.Join}
	line.Text, line.Notes = as(n)
	if n.Tree != nil {
		line.Line, line.Lacks, line.Verbatim = d.Lines[n.Own].ID, n.Expr == nil, n.Tree.Query != nil
		if line.Lacks {
			line.Text = n.Joined()
		}
	}
	if line.Parts == nil {
		line.Parts = []int{}
	}
	if n.Block >= 0 {
		line.Block = d.Blocks[n.Block].ID
	}
	if n.Term >= 0 {
		line.Term = d.Blocks[n.Block].Terms[n.Term].ID
	}
	if n.Limit >= 0 {
		line.Limit = d.Limits[n.Limit].Kind
	}
	return line
}

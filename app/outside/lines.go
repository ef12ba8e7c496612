package outside

import (
	"context"
	"errors"
	"strconv"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/query"
	"tamiz/core/review"
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
	Number   int           `json:"number"`
	Kind     string        `json:"kind"`
	Block    string        `json:"block,omitempty"`    // of a term or a block: its id
	Term     string        `json:"term,omitempty"`     // its id
	Limit    string        `json:"limit,omitempty"`    // its kind
	Line     string        `json:"line,omitempty"`     // of one that is put together of others: its id
	Verbatim bool          `json:"verbatim,omitempty"` // it is a query that no term says, and not put together of others
	Lacks    bool          `json:"lacks,omitempty"`    // a line of it is switched off or not there any more: it finds nothing
	Parts    []int         `json:"parts"`
	Join     string        `json:"join,omitempty"`
	Text     string        `json:"text"` // by itself; of a line that joins others, by their numbers
	Notes    []source.Note `json:"notes"`
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
	return &problems.Problem{Type: "not-written", Status: 409, Title: "This strategy cannot be written.", Detail: err.Error()}
}

// Lines writes the strategy of a review as numbered lines, in the names of a source, or in CQL where none is named.
func (a *Service) Lines(ctx context.Context, at desk.At, of *int64) (*Written, error) {
	d, err := a.desk.Proposed(ctx, at.Review, desk.Proposal{})
	if err != nil {
		return nil, err
	}
	v, err := a.desk.Pools.Thesaurus(ctx, d.Vocabulary)
	if err != nil {
		return nil, err
	}
	out := &Written{Lines: []WrittenLine{}, Notes: []source.Note{}}
	write := func(q query.Expr, _ bool) (string, []source.Note) { return query.Write(q), []source.Note{} }
	if of != nil {
		s, err := a.source(ctx, *of)
		if err != nil {
			return nil, err
		}
		out.Source = s.Name
		as, err := a.speech(ctx, s, d.Vocabulary)
		if err != nil {
			return nil, err
		}
		write = as.line
	}
	all := d.Strategy("")
	lines, err := d.Numbered(v)
	if err != nil {
		return nil, notWritten(err)
	}
	for _, n := range lines {
		line := WrittenLine{Number: n.Number, Kind: n.Kind, Parts: n.Parts, Join: n.Join, Notes: []source.Note{}}
		if n.Tree != nil {
			line.Line, line.Lacks, line.Parts, line.Text = d.Lines[n.Own].ID, n.Expr == nil, []int{}, n.Joined()
			if n.Tree.Query != nil {
				line.Verbatim = true
				line.Text, line.Notes = write(n.Expr, all.TakenAway(n))
			}
		} else if line.Parts == nil {
			line.Parts = []int{}
			line.Text, line.Notes = write(n.Expr, all.TakenAway(n))
		} else {
			line.Text = n.Joined()
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
		out.Lines = append(out.Lines, line)
	}
	if q, err := all.Query(v); err == nil {
		out.Whole, out.Notes = write(q, false)
	}
	return out, nil
}

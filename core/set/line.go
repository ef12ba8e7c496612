package set

import (
	"context"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/coverage"
	"tamiz/core/review"
	"tamiz/core/strategy"
)

func init() { kind[Line]("line") }

// A Line is what a line finds that somebody put together of others, by its id.
type Line struct {
	Line string `json:"line"`
}

var errNoLine = &Fault{Field: "line", Message: "There is no such line any more."}

// Check implements Set.
func (s *Line) Check() error {
	if s.Line == "" {
		return &Fault{Field: "line", Message: "It has to be said which line."}
	}
	return nil
}

// Records implements Set.
func (s *Line) Records(ctx context.Context, in Pool) (*roaring.Bitmap, error) {
	d := in.Document()
	i := d.Line(s.Line)
	if i < 0 {
		return nil, errNoLine
	}
	reach, err := in.Reach(ctx)
	if err != nil {
		return nil, err
	}
	found := LineRecords(d, reach, d.Lines[i].Of)
	if found == nil {
		return nil, &Fault{
			Field:   "line",
			Message: "This line is put together of one that is switched off or not there any more.",
		}
	}
	return found, nil
}

// LineRecords returns what lines find that are put together, by what the parts of the strategy find; nil where one
// of them is switched off, kept out of the search, or not there. The set may be that of others too: it is not to be
// changed.
func LineRecords(d review.Document, r *coverage.Reach, p review.LinePart) *roaring.Bitmap {
	switch {
	case p.Join != "":
		var out *roaring.Bitmap
		for i, x := range p.Parts {
			found := LineRecords(d, r, x)
			switch {
			case found == nil:
				return nil
			case i == 0:
				out = found.Clone()
			case p.Join == "and":
				out.And(found)
			case p.Join == "or":
				out.Or(found)
			default:
				out.AndNot(found)
			}
		}
		return out
	case p.Kind == strategy.TermLine:
		for i, b := range d.Blocks {
			if j := b.Term(p.ID); j >= 0 && b.Searched {
				return r.Terms[i][j] // nil where it is switched off
			}
		}
	case p.Kind == strategy.BlockLine:
		if i := d.Block(p.ID); i >= 0 && d.Blocks[i].Searched &&
			slices.ContainsFunc(d.Blocks[i].Terms, func(t review.Term) bool { return t.On }) {
			return r.Blocks[i]
		}
	case p.Kind == strategy.LimitLine:
		if i := slices.IndexFunc(d.Limits, func(l strategy.Limit) bool { return l.Kind == p.ID }); i >= 0 {
			return r.LimitFinds(i)
		}
	case p.Kind == strategy.WholeLine:
		return r.Whole
	case p.Kind == review.BeforeNot:
		return r.BeforeNot()
	case p.Kind == review.QueryLine:
		return r.Says(p.Query)
	case p.Kind == review.OwnLine:
		if i := d.Line(p.ID); i >= 0 {
			return LineRecords(d, r, d.Lines[i].Of)
		}
	}
	return nil
}

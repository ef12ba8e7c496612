package source

import (
	"context"
	"errors"
	"fmt"

	"github.com/RoaringBitmap/roaring/v2"
)

// TroubleKind is what went wrong with some positions of a draw.
type TroubleKind string

// What can go wrong with a position.
const (
	Missing    TroubleKind = "missing"     // the source gave nothing there
	NoRecord   TroubleKind = "no-record"   // what stood there is no record
	Unreadable TroubleKind = "unreadable"  // it cannot be read
	Unanswered TroubleKind = "unanswered"  // no answer came, however often it was asked
	Refused    TroubleKind = "refused"     // the source refuses to give it
	Repeated   TroubleKind = "repeated"    // the same work stood at another position; kept once
	TotalMoved TroubleKind = "total-moved" // the source's count changed between pages
)

// A draw is given up for now when so many of the last answers could not be read: what is left of a source whose
// answers are mostly garbage is not worth the hours it would take to find it.
const (
	lookedBack = 40
	maxUseless = 32
)

// maxInARow is how many pages may be refused or go without any answer before a draw is given up for now.
const maxInARow = 3

// A Trouble is what a draw could not get.
type Trouble struct {
	Part   int         `json:"part"`
	From   int         `json:"from"` // positions; 0 where it is about none
	To     int         `json:"to"`
	Kind   TroubleKind `json:"kind"`
	Detail string      `json:"detail,omitempty"`
}

func (t Trouble) String() string {
	where := ""
	switch {
	case t.From > 0 && t.From < t.To:
		where = fmt.Sprintf("positions %d to %d: ", t.From, t.To)
	case t.From > 0:
		where = fmt.Sprintf("position %d: ", t.From)
	}
	text := map[TroubleKind]string{Missing: "the source gave nothing there", NoRecord: "no record",
		Unreadable: "cannot be read", Unanswered: "no answer",
		Refused: "refused", Repeated: "the same work as an earlier one; kept once",
		TotalMoved: "the source's count changed"}[t.Kind]
	if t.Detail != "" {
		text += " (" + t.Detail + ")"
	}
	return where + text
}

// A Batch is what one page brought.
type Batch struct {
	Part     int
	Got      []Got // records alone
	Troubles []Trouble
}

// A Draw fetches what a plan asks for.
type Draw struct {
	Source Source
	Plan   Plan
	Page   int // records asked for at once
	// Done holds, for each part, the positions that need not be fetched again. It is added to.
	Done []*roaring.Bitmap
	// Keep takes what came, page by page. A draw that was cut off goes on from what was kept.
	Keep func(Batch) error

	want    []*roaring.Bitmap
	total   []int // of each part, as last said; 0 before the first page
	failing int
	useless []bool // the last answers: whether they could not be read
}

// errGivenUp ends a draw whose source has stopped answering.
var errGivenUp = errors.New("the source gives no more")

// errGarbage ends a draw whose source mostly answers with what cannot be read.
var errGarbage = fmt.Errorf(
	"%w: of its last %d answers at least %d could not be read",
	errGivenUp,
	lookedBack,
	maxUseless,
)

// told notes whether an answer could be read, and reports whether too many could not.
func (d *Draw) told(useless bool) bool {
	if d.useless = append(d.useless, useless); len(d.useless) > lookedBack {
		d.useless = d.useless[1:]
	}
	n := 0
	for _, u := range d.useless {
		if u {
			n++
		}
	}
	return n >= maxUseless
}

// Run fetches all that is missing. It returns nil when every position was fetched or has its trouble, and
// an error when the draw was stopped or the source no longer answers: the rest can be fetched later.
func (d *Draw) Run(ctx context.Context) error {
	d.total, d.want, d.failing, d.useless = make([]int, len(d.Plan.Parts)), nil, 0, nil
	for _, part := range d.Plan.Parts {
		want := roaring.New()
		for _, r := range part.Ranges {
			want.AddRange(uint64(r[0]), uint64(r[1])+1)
		}
		d.want = append(d.want, want)
	}
	for len(d.Done) < len(d.Plan.Parts) {
		d.Done = append(d.Done, roaring.New())
	}
	for i, part := range d.Plan.Parts {
		for _, r := range part.Ranges {
			// What is near each other is fetched together, even where not all of it is wanted.
			for at := r[0]; at <= r[1]; {
				if d.Done[i].Contains(uint32(at)) {
					at++
					continue
				}
				to := d.window(i, at)
				if err := d.fetch(ctx, i, at, to); err != nil {
					return err
				}
				at = to + 1
			}
		}
	}
	return nil
}

// window returns the last wanted position of a part that one page starting at a position can reach.
func (d *Draw) window(part, at int) int {
	last := at + d.Page - 1
	for last > at && !d.wanted(part, last) {
		last--
	}
	return last
}

// wanted reports whether a position is part of the plan and not there yet.
func (d *Draw) wanted(part, at int) bool {
	return d.want[part].Contains(uint32(at)) && !d.Done[part].Contains(uint32(at))
}

// fetch gets the positions from one to another. Where an answer cannot be read it is asked for in smaller
// pieces, until what is at fault stands alone.
func (d *Draw) fetch(ctx context.Context, part, from, to int) error {
	page, err := d.Source.Search(ctx, Search{Query: d.Plan.Parts[part].Query, Start: from, Max: to - from + 1})
	if ctx.Err() != nil {
		return ctx.Err()
	}
	b := Batch{Part: part}
	if page != nil {
		d.take(&b, page, from, to)
	}
	unreadable := errors.Is(err, ErrMalformed) || errors.Is(err, ErrTooLarge)
	if d.told(unreadable) && unreadable {
		d.give(&b, from, to, Unreadable, err)
		if err := d.keep(b); err != nil {
			return err
		}
		return errGarbage
	}
	var refused *Refusal
	switch {
	case err == nil && len(b.Got)+len(b.Troubles) == 0:
		d.failing++
	case err == nil:
		d.failing = 0
	case errors.As(err, &refused):
		// A source may give so many records of an answer and no more: it is not asked for all the rest.
		d.failing++
		d.give(&b, from, to, Refused, err)
	case unreadable:
		d.failing = 0
		if first, last, any := d.missing(part, from, to); any {
			if first == last && first == from && to == from {
				d.give(&b, from, to, Unreadable, err)
			} else {
				if kept := d.keep(b); kept != nil {
					return kept
				}
				half := first + (last-first)/2
				if err := d.fetch(ctx, part, first, half); err != nil {
					return err
				}
				if half < last {
					return d.fetch(ctx, part, half+1, last)
				}
				return nil
			}
		}
	default:
		d.give(&b, from, to, Unanswered, err)
		d.failing++
	}
	if err == nil {
		if first, last, any := d.missing(part, from, to); any {
			// A source may give fewer at once than it was asked for.
			if len(b.Got)+len(b.Troubles) > 0 && first > from {
				if kept := d.keep(b); kept != nil {
					return kept
				}
				return d.fetch(ctx, part, first, last)
			}
			d.give(&b, first, last, Missing, nil)
		}
	}
	if err := d.keep(b); err != nil {
		return err
	}
	if d.failing < maxInARow {
		return nil
	}
	if err == nil {
		return errGivenUp
	}
	return fmt.Errorf("%w: %w", errGivenUp, err)
}

// take puts what a page holds into a batch.
func (d *Draw) take(b *Batch, page *Page, from, to int) {
	if page.Total >= 0 {
		if before := d.total[b.Part]; before > 0 && before != page.Total {
			b.Troubles = append(
				b.Troubles,
				Trouble{Part: b.Part, Kind: TotalMoved, Detail: fmt.Sprintf("%d, then %d", before, page.Total)},
			)
		}
		d.total[b.Part] = page.Total
	}
	for _, g := range page.Records {
		if g.Position < from || g.Position > to || !d.wanted(b.Part, g.Position) {
			continue
		}
		d.Done[b.Part].Add(uint32(g.Position))
		if g.Record == nil {
			b.Troubles = append(
				b.Troubles,
				Trouble{Part: b.Part, From: g.Position, To: g.Position, Kind: NoRecord, Detail: g.Trouble},
			)
			continue
		}
		b.Got = append(b.Got, g)
	}
}

// missing returns the first and last wanted position of a range that are not there yet.
func (d *Draw) missing(part, from, to int) (first, last int, any bool) {
	for at := from; at <= to; at++ {
		if d.wanted(part, at) {
			if !any {
				first = at
			}
			last, any = at, true
		}
	}
	return first, last, any
}

// give gives up on what is still missing of a range, and says why.
func (d *Draw) give(b *Batch, from, to int, kind TroubleKind, err error) {
	t := Trouble{Part: b.Part, Kind: kind}
	if err != nil {
		t.Detail = err.Error()
	}
	for at := from; at <= to; at++ {
		if !d.wanted(b.Part, at) {
			continue
		}
		d.Done[b.Part].Add(uint32(at))
		if t.From > 0 && t.To == at-1 {
			t.To = at
			continue
		}
		if t.From > 0 {
			b.Troubles = append(b.Troubles, t)
		}
		t.From, t.To = at, at
	}
	if t.From > 0 {
		b.Troubles = append(b.Troubles, t)
	}
}

func (d *Draw) keep(b Batch) error {
	if len(b.Got)+len(b.Troubles) == 0 {
		return nil
	}
	return d.Keep(b)
}

// GivenUp reports whether a draw ended because its source has stopped answering.
func GivenUp(err error) bool { return errors.Is(err, errGivenUp) }

package rounds

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"
	"tamiz/store"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/source"
)

// A plan is a round that was asked for, laid out: what it begins from or, where nothing is to be asked, what it brings.
type plan struct {
	Asked
	RoundRow
	linked bool // one of its sources says who cites whom
	local  bool // nothing is asked
	start  []int64
	works  []WorkRow
}

// lay lays out what is peculiar to a way of looking.
type lay func(*Service, context.Context, desk.At, *plan, []RoundRow) error

// ways are how each way of looking is laid out.
var ways = map[string]lay{
	Backward: (*Service).alongLinks, Forward: (*Service).alongLinks, Both: (*Service).alongLinks,
	Author: (*Service).ofName, Journal: (*Service).ofName,
	Cited: (*Service).mostCited,
	Alike: (*Service).mostAlike,
}

// order checks what is asked for and lays it out.
func (a *Service) order(ctx context.Context, at desk.At, n Asked) (*plan, error) {
	all, err := a.rows.Rounds(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	if _, err := a.reviewRows.Head(ctx, at.Review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	if len(all) >= mostRounds {
		return nil, problems.Invalid("way", "A review has at most %d rounds.", mostRounds)
	}
	out := &plan{Asked: n, RoundRow: RoundRow{Review: at.Review, Way: n.Way, State: "waiting"}}
	if err := a.checkSources(ctx, out); err != nil {
		return nil, err
	}
	if out.Most == 0 {
		out.Most = 200
	}
	if out.Most < 1 || out.Most > mostNamed {
		return nil, problems.Invalid("most", "1 to %d works of each source are brought.", mostNamed)
	}
	lay, ok := ways[n.Way]
	if !ok {
		return nil, problems.Invalid("way", "There is no way of looking %q.", n.Way)
	}
	if err := lay(a, ctx, at, out, all); err != nil {
		return nil, err
	}
	if out.RoundRow.Sources = out.Asked.Sources; out.local || out.RoundRow.Sources == nil {
		out.RoundRow.Sources = []int64{}
	}
	out.RoundRow.Asked, err = json.Marshal(out.Asked)
	return out, err
}

// checkSources checks the sources of a plan: each is there, and there are some where any is asked.
func (a *Service) checkSources(ctx context.Context, o *plan) error {
	o.Asked.Sources = slices.Compact(slices.Sorted(slices.Values(o.Asked.Sources)))
	for _, id := range o.Asked.Sources {
		s, c, err := a.sources.Named(ctx, id)
		if err != nil {
			return err
		}
		o.linked = o.linked || source.CitingOf(c, s.Map) != nil
	}
	o.local = o.Asked.Way == Alike
	none := len(o.Asked.Sources) == 0 && !o.local && !o.ofSample()
	if none || len(o.Asked.Sources) > 20 {
		return problems.Invalid("sources", "1 to 20 sources are asked.")
	}
	return nil
}

// ofSample reports whether the most cited works are those of the sample, not of all that the strategy finds.
func (o *plan) ofSample() bool { return o.Asked.Way == Cited && o.From == "sample" }

// alongLinks lays out a round that follows references, or looks for citing works.
func (a *Service) alongLinks(ctx context.Context, at desk.At, o *plan, all []RoundRow) (err error) {
	if o.Asked.Way == Forward && !o.linked {
		return &problems.Problem{
			Type:   "no-links",
			Status: 422,
			Field:  "sources",
			Title:  "None of these sources says who cites whom.",
		}
	}
	if o.start, o.After, err = a.start(ctx, at, o.Asked, all); err != nil {
		return err
	}
	o.RoundRow.Name = startName(o.Asked, len(o.start))
	o.Of = nil // they are kept as what it begins from
	if o.Twice {
		o.More = 1
	}
	return nil
}

// ofName lays out a round that brings what a person wrote, or what a journal holds.
func (a *Service) ofName(ctx context.Context, at desk.At, o *plan, _ []RoundRow) error {
	name := strings.Join(strings.Fields(store.Plain(o.Asked.Name)), " ")
	if name == "" || len([]rune(name)) > 200 {
		return problems.Invalid("name", "A name has 1 to 200 characters.")
	}
	o.Asked.Name, o.Parted = name, nil
	if o.Asked.Way == Author {
		d, err := a.desk.Desk(ctx, at)
		if err != nil {
			return err
		}
		o.Parted = d.Document.Parted
	}
	if _, err := named(o.Asked); err != nil {
		return err
	}
	o.RoundRow.Name = name
	if len(o.Years) == 2 {
		o.RoundRow.Name += fmt.Sprintf(", %d to %d", o.Years[0], o.Years[1])
	}
	return nil
}

// mostCited lays out a round that brings what the works cite most that the strategy finds. Of a sample whose
// records bring their references nothing is asked.
func (a *Service) mostCited(ctx context.Context, at desk.At, o *plan, _ []RoundRow) (err error) {
	o.RoundRow.Name = "what the strategy finds"
	if !o.ofSample() {
		return nil
	}
	elsewhere := 0
	if o.works, elsewhere, o.start, err = a.citedInSample(ctx, at, o.Most); err != nil {
		return err
	}
	o.RoundRow.Name = "the sample"
	if elsewhere > 0 && len(o.Asked.Sources) > 0 {
		return nil
	}
	o.local, o.start, o.State = true, nil, "done"
	if elsewhere > 0 {
		o.RoundRow.Notes, err = json.Marshal([]Note{{Kind: "elsewhere", Total: elsewhere}})
	}
	return err
}

// mostAlike lays out a round that brings the works of the sample that are most like those that belong.
func (a *Service) mostAlike(ctx context.Context, at desk.At, o *plan, _ []RoundRow) (err error) {
	o.State, o.RoundRow.Name = "done", "the sample"
	o.works, err = a.alike(ctx, at, o.Most)
	return err
}

// beginnings are what a round begins from, one and several.
var beginnings = map[string][2]string{
	"keys":     {"key study", "key studies"},
	"relevant": {"work that belongs", "works that belong"},
	"shelf":    {"record of the shelf", "records of the shelf"},
	"last":     {"work of the round before", "works of the round before"},
	"reviews":  {"earlier review", "earlier reviews"},
	"records":  {"record", "records"},
}

func startName(n Asked, many int) string {
	what := beginnings[n.From]
	if many == 1 {
		return "1 " + what[0]
	}
	return fmt.Sprintf("%d %s", many, what[1])
}

package heading

import (
	"context"
	"slices"

	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// What can be wrong with the heading terms of a block.
const (
	Unknown   = "headingUnknown" // the vocabulary has no such heading
	Renamed   = "headingRenamed" // it has it under another label
	Retired   = "headingRetired" // it is given to records no more
	EntryTerm = "headingTerm"    // it is an entry term, not a label
	Within    = "headingWithin"  // another term of the block takes it with all below
	Flat      = "headingFlat"    // nothing stands below it
	Main      = "headingCentral" // main point only loses key studies
	Refused   = "headingRefused" // a qualifier that may be put behind neither it nor, with narrower, any below
	Before    = "headingBefore"  // another heading was used before it came in, which the block does not find
	Added     = "headingAdded"   // a later edition has headings below it that nobody decided on when others were left out
)

// A Fault is something to be said of a heading term, with the headings that it is about: those that may be meant, that
// are used now, that takes it, or that was used before.
type Fault struct {
	Kind     string
	Term     int      // by place
	Headings []string // of Refused, qualifiers
	Count             // that is lost or would be added
	Mend     strategy.Term
}

const mostLikely = 4 // headings that an unknown one may be meant for

// Check looks at the heading terms of a block that are switched on. Earlier are editions before that of the look, the
// latest first: a label that only they have is told by what became of it.
func (l Look) Check(ctx context.Context, block strategy.Block, earlier []*thesaurus.Thesaurus) ([]Fault, error) {
	v := l.Set.Thesaurus
	out := []Fault{}
	for i, t := range block.Terms {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if !t.On || t.Kind != strategy.HeadingTerm {
			continue
		}
		at, ok := v.Find(t.Heading)
		if !ok {
			out = append(out, missing(v, i, t, earlier))
			continue
		}
		say := func(kind string, mend strategy.Term, headings ...string) *Fault {
			mend.On = true
			out = append(out, Fault{Kind: kind, Term: i, Headings: headings, Mend: mend})
			return &out[len(out)-1]
		}
		as := func(change func(*strategy.Term)) strategy.Term {
			m := t
			change(&m)
			return m
		}
		if v.Retired(at) {
			for _, n := range v.History(at).After {
				say(Retired, as(func(m *strategy.Term) { m.Heading = v.Label(n) }), v.Label(n))
			}
			if len(v.History(at).After) == 0 {
				say(Retired, t)
			}
		}
		if refused := notAllowed(v, t, at); len(refused) > 0 {
			say(Refused, as(func(m *strategy.Term) {
				m.Qualifiers = slices.DeleteFunc(
					slices.Clone(t.Qualifiers),
					func(q string) bool { return slices.Contains(refused, q) },
				)
			}), refused...)
		}
		if t.Narrower && len(v.Narrower(at)) == 0 {
			say(Flat, as(func(m *strategy.Term) { m.Narrower, m.Without = false, nil }))
		}
		if j := taker(v, block, i, at); j >= 0 {
			say(Within, t, block.Terms[j].Heading)
		}
		if t.Central {
			with, err := l.find(t)
			if err != nil {
				return nil, err
			}
			all := as(func(m *strategy.Term) { m.Central = false })
			without, err := l.find(all)
			if err != nil {
				return nil, err
			}
			if lost := without.less(with); lost.Keys > 0 {
				say(Main, all).Count = lost
			}
		}
		if fresh := added(v, t, at, earlier); len(fresh) > 0 {
			say(Added, as(func(m *strategy.Term) { m.Without = append(slices.Clone(m.Without), fresh...) }), fresh...)
		}
		older, err := l.Older(at, block)
		if err != nil {
			return nil, err
		}
		for _, o := range older {
			if o.Records+o.Keys > 0 && !o.Taken {
				m := Of(o.Label, false)
				m.Until = o.Until
				say(Before, m, o.Label).Count = o.Count
			}
		}
	}
	return out, nil
}

// added returns the headings that a term with some below left out takes, and that the edition before did not have.
func added(v *thesaurus.Thesaurus, t strategy.Term, at int, earlier []*thesaurus.Thesaurus) (out []string) {
	if !t.Narrower || len(t.Without) == 0 || len(earlier) == 0 {
		return nil
	}
	var without []int
	for _, w := range t.Without {
		if h, ok := v.Find(w); ok {
			without = append(without, h)
		}
	}
	known := earlier[0].Addresses()
	for _, h := range v.BelowBut(at, without)[1:] {
		if !known[v.At(h).ID] {
			out = append(out, v.Label(h))
		}
	}
	return out
}

// notAllowed returns the qualifiers of a term that may be put behind none of the headings it takes; none where the
// vocabulary does not say what may.
func notAllowed(v *thesaurus.Thesaurus, t strategy.Term, at int) []string {
	taken := []int{at}
	if t.Narrower && len(t.Qualifiers) > 0 {
		taken = v.Below(at)
	}
	left := slices.Clone(t.Qualifiers)
	for _, h := range taken {
		allowed, said := v.Allows(h)
		if !said || len(left) == 0 {
			return nil
		}
		left = slices.DeleteFunc(left, func(q string) bool {
			return slices.ContainsFunc(allowed, func(a string) bool { return text.Label(a) == text.Label(q) })
		})
	}
	return left
}

// missing tells what became of a heading that the vocabulary does not have, or which may be meant.
func missing(v *thesaurus.Thesaurus, i int, t strategy.Term, earlier []*thesaurus.Thesaurus) Fault {
	as := func(label string) strategy.Term {
		m := t
		m.Heading, m.On = label, true
		return m
	}
	if h, ok := v.Term(t.Heading); ok {
		return Fault{Kind: EntryTerm, Term: i, Headings: []string{v.Label(h)}, Mend: as(v.Label(h))}
	}
	for _, e := range earlier {
		at, was := e.Find(t.Heading)
		if !was {
			continue
		}
		if now, ok := v.Same(e, at); ok {
			return Fault{Kind: Renamed, Term: i, Headings: []string{v.Label(now)}, Mend: as(v.Label(now))}
		}
		return Fault{Kind: Retired, Term: i, Headings: []string{}, Mend: t}
	}
	f := Fault{Kind: Unknown, Term: i, Headings: []string{}, Mend: t}
	for _, l := range v.Suggest(t.Heading, mostLikely) {
		if l.Via != thesaurus.Note {
			f.Headings = append(f.Headings, v.Label(l.Heading))
		}
	}
	if len(f.Headings) > 0 {
		f.Mend = as(f.Headings[0])
	}
	return f
}

// taker returns the term of a block, other than one, that takes a heading with all below another; -1 for none.
func taker(v *thesaurus.Thesaurus, block strategy.Block, i, at int) int {
	return slices.IndexFunc(block.Terms, func(o strategy.Term) bool {
		if o.Kind != strategy.HeadingTerm || !o.On || !o.Narrower || o.Central || len(o.Qualifiers)+len(o.Without) > 0 ||
			text.Label(o.Heading) == text.Label(block.Terms[i].Heading) {
			return false
		}
		top, ok := v.Find(o.Heading)
		return ok && slices.Contains(v.Below(top), at)
	})
}

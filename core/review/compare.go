package review

import (
	"fmt"
	"slices"
	"strings"

	"tamiz/core/strategy"
)

// The kinds of difference between two versions of a strategy.
const (
	Added      = "added"   // a line that was not there
	Gone       = "gone"    // one that is there no more
	Changed    = "changed" // one that says something else
	Moved      = "moved"   // one that stands in another block
	Off        = "off"     // one that was searched and is not any more
	On         = "on"      // one that was not and is
	BlockAdded = "blockAdded"
	BlockGone  = "blockGone"
	BlockOther = "blockChanged" // searched, kept out or kept off otherwise, or for another concept
	Limited    = "limited"      // a limit that was not there
	Unlimited  = "unlimited"    // one that is there no more
	LimitOther = "limitChanged"
)

// A LineChange is one difference between two versions of a strategy, as people read it.
type LineChange struct {
	Kind    string `json:"kind"`
	Block   string `json:"block,omitempty"` // the letter of the block it stands in: in the newer, where it is there
	Concept string `json:"concept,omitempty"`
	From    string `json:"from,omitempty"` // of a line that was moved: the letter of the block it stood in
	Was     string `json:"was,omitempty"`
	Now     string `json:"now,omitempty"`
}

// Compare returns what differs between two versions of what is searched, block by block in the order of the newer,
// what is gone behind it, limits last. What does not change what is found (order, notes, groups) is no difference.
// A version compared with itself has none, and turned round every addition is a loss.
func Compare(from, to Document) []LineChange {
	out := []LineChange{}
	was := map[string]placed{}
	for i, b := range from.Blocks {
		for _, t := range b.Terms {
			was[t.ID] = placed{i, t}
		}
	}
	now := map[string]bool{}
	for _, b := range to.Blocks {
		for _, t := range b.Terms {
			now[t.ID] = true
		}
	}
	for _, b := range to.Blocks {
		i := from.Block(b.ID)
		switch {
		case i < 0:
			out = append(out, LineChange{Kind: BlockAdded, Block: b.Name, Concept: b.Concept, Now: saidSearched(b)})
		case saidSearched(from.Blocks[i]) != saidSearched(b) || from.Blocks[i].Concept != b.Concept:
			before := from.Blocks[i]
			c := LineChange{Kind: BlockOther, Block: b.Name, Concept: b.Concept, Was: saidSearched(before), Now: saidSearched(b)}
			if before.Concept != b.Concept {
				c.Was, c.Now = strings.TrimSpace(before.Concept+" "+c.Was), strings.TrimSpace(b.Concept+" "+c.Now)
			}
			out = append(out, c)
		}
		var here, gone []LineChange
		for _, t := range b.Terms {
			before, ok := was[t.ID]
			if !ok {
				here = append(here, LineChange{Kind: Added, Block: b.Name, Concept: b.Concept, Now: LineText(t.Term)})
				continue
			}
			old := from.Blocks[before.block]
			c := LineChange{Block: b.Name, Concept: b.Concept, Was: LineText(before.term.Term), Now: LineText(t.Term)}
			switch {
			case old.ID != b.ID:
				c.Kind, c.From = Moved, old.Name
			case c.Was != c.Now:
				c.Kind = Changed
			case before.term.On && !t.On:
				c.Kind = Off
			case !before.term.On && t.On:
				c.Kind = On
			default:
				continue
			}
			here = append(here, c)
		}
		if i >= 0 {
			for _, t := range from.Blocks[i].Terms {
				if !now[t.ID] {
					gone = append(gone, LineChange{Kind: Gone, Block: b.Name, Concept: b.Concept, Was: LineText(t.Term)})
				}
			}
		}
		out = append(out, unpaired(here, gone)...)
	}
	for _, b := range from.Blocks {
		if to.Block(b.ID) >= 0 {
			continue
		}
		out = append(out, LineChange{Kind: BlockGone, Block: b.Name, Concept: b.Concept, Was: saidSearched(b)})
		for _, t := range b.Terms {
			if !now[t.ID] {
				out = append(out, LineChange{Kind: Gone, Block: b.Name, Concept: b.Concept, Was: LineText(t.Term)})
			}
		}
	}
	return append(out, limitsOf(from, to)...)
}

type placed struct {
	block int
	term  Term
}

// unpaired returns lines that are there and gone, less those that were taken out and put in again the same.
func unpaired(here, gone []LineChange) []LineChange {
	for i := 0; i < len(here); i++ {
		if here[i].Kind != Added {
			continue
		}
		k := slices.IndexFunc(gone, func(g LineChange) bool { return g.Was == here[i].Now })
		if k >= 0 {
			gone = slices.Delete(gone, k, k+1)
			here = slices.Delete(here, i, i+1)
			i--
		}
	}
	return append(here, gone...)
}

func limitsOf(from, to Document) (out []LineChange) {
	find := func(d Document, kind string) *strategy.Limit {
		if i := slices.IndexFunc(d.Limits, func(l strategy.Limit) bool { return l.Kind == kind }); i >= 0 {
			return &d.Limits[i]
		}
		return nil
	}
	for _, l := range to.Limits {
		before := find(from, l.Kind)
		switch now := SaidLimit(l); {
		case before == nil:
			out = append(out, LineChange{Kind: Limited, Now: now})
		case SaidLimit(*before) != now:
			out = append(out, LineChange{Kind: LimitOther, Was: SaidLimit(*before), Now: now})
		}
	}
	for _, l := range from.Limits {
		if find(to, l.Kind) == nil {
			out = append(out, LineChange{Kind: Unlimited, Was: SaidLimit(l)})
		}
	}
	return out
}

// LineText returns a term as people read it, with all that changes what it finds.
func LineText(t strategy.Term) string {
	out := t.String()
	if t.Kind == strategy.HeadingTerm {
		if len(t.Qualifiers) > 0 {
			out += " / " + strings.Join(t.Qualifiers, ", ")
		}
		if t.Central {
			out += " as a main point"
		}
		return out
	}
	if t.Field != "" && t.Field != "text" {
		out += " in " + t.Field
	}
	return out
}

// SaidLimit returns a limit as people read it.
func SaidLimit(l strategy.Limit) string {
	out := saidLimit(&l)
	if len(l.Titles) > 0 {
		out += fmt.Sprintf(", or title words: %s", strings.Join(l.Titles, ", "))
	}
	return out
}

func saidSearched(b Block) string {
	switch {
	case !b.Searched:
		return "not searched"
	case b.Negated:
		return "taken away"
	}
	return "searched"
}

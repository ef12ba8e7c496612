package strategy

import (
	"strings"

	"tamiz/core/text"
)

// A Carried is a heading of a strategy that stands for another in the vocabulary of a source; where To is "", its words do.
type Carried struct {
	Heading string
	To      string
}

// Carry returns the strategy with its headings in another vocabulary: each by what stands for it there (by its label, as
// text.Label writes it), or, where nothing does, by its own words. Terms keep their places. What was left out below a heading
// is of the old vocabulary, and is not carried.
func (s Strategy) Carry(counterparts map[string]string) (Strategy, []Carried) {
	out := s
	out.Blocks = make([]Block, len(s.Blocks))
	var all []Carried
	seen := map[string]bool{}
	for i, b := range s.Blocks {
		out.Blocks[i] = b
		out.Blocks[i].Terms = make([]Term, len(b.Terms))
		for j, t := range b.Terms {
			if t.Kind == HeadingTerm {
				key := text.Label(t.Heading)
				to := counterparts[key]
				if !seen[key] {
					seen[key] = true
					all = append(all, Carried{t.Heading, to})
				}
				t = carried(t, to)
			}
			out.Blocks[i].Terms[j] = t
		}
	}
	return out, all
}

func carried(t Term, to string) Term {
	if to != "" {
		t.Heading, t.Without = to, nil
		return t
	}
	words := strings.NewReplacer("*", " ", "?", " ").Replace(t.Heading)
	return Term{Kind: TextTerm, Text: words, Field: "text", On: t.On}
}

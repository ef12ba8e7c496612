package figures

import (
	"context"
	"slices"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/dialect"
	"tamiz/core/strategy"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Carry is the headings of a strategy in the vocabulary of another source: what was taken to stand for each, and
// what is proposed. Until something is taken its words stand in.
type Carry struct {
	Vocabulary string           `json:"vocabulary"` // of the source
	There      bool             `json:"there"`      // the program has it
	Headings   []CarriedHeading `json:"headings"`
}

// A CarriedHeading is one of them.
type CarriedHeading struct {
	Heading  string   `json:"heading"`
	Stands   []string `json:"stands"`   // any of these was taken to stand for it
	Declined bool     `json:"declined"` // nothing does, somebody said
	// of the sample that is looked at, that carry it or, where it is meant so, one below
	Records   *int             `json:"records,omitempty"`
	Proposals []CarryCandidate `json:"proposals"`
}

// A CarryCandidate is a heading that may stand for one, and what says so.
type CarryCandidate struct {
	Heading   string `json:"heading"`
	Via       string `json:"via"`
	Matched   string `json:"matched,omitempty"`
	ScopeNote string `json:"scopeNote,omitempty"`
}

// mostCandidates are proposed for one heading.
const mostCandidates = 5

type carrying struct {
	Carry
	*desk.Carrier
	from strategy.Strategy
}

// otherVocabulary returns what takes headings over to the vocabulary that a dialect means; nil where that is the
// review's own, or it means none.
func (a *Service) otherVocabulary(ctx context.Context, lay *desk.Desk, d *dialect.Dialect) (*desk.Carrier, error) {
	if d.Headings == nil {
		return nil, nil
	}
	return a.desk.Carrier(ctx, lay.Document.Vocabulary, d.Vocabulary)
}

// carrying carries a strategy's headings over to the vocabulary of a dialect; nil where that is the review's own,
// or the dialect means none.
func (a *Service) carrying(ctx context.Context, lay *desk.Desk, d *dialect.Dialect) (*carrying, error) {
	by, err := a.otherVocabulary(ctx, lay, d)
	if err != nil || by == nil {
		return nil, err
	}
	c := &carrying{
		Carry:   Carry{Vocabulary: d.Vocabulary, There: by.Terms != nil, Headings: []CarriedHeading{}},
		Carrier: by,
		from:    lay.Strategy,
	}
	_, carried := lay.Strategy.Carry(c.Stands)
	told := map[string]bool{}
	for _, h := range carried {
		if told[text.Label(h.Heading)] {
			continue // it lets in and takes away
		}
		told[text.Label(h.Heading)] = true
		row := CarriedHeading{
			Heading:   h.Heading,
			Stands:    append([]string{}, h.To...),
			Declined:  c.Said[text.Label(h.Heading)] && len(h.To) == 0,
			Proposals: []CarryCandidate{},
		}
		row.Proposals = append(row.Proposals, c.proposals(thesaurusOf(lay), h.Heading)...)
		if q, err := c.meant(h.Heading).QueryIn(thesaurusOf(lay)); err == nil && lay.Pool != nil {
			row.Records = writer{lay.Pool.Index, lay}.records(q)
		}
		c.Headings = append(c.Headings, row)
	}
	return c, nil
}

// meant returns the term of a heading that is carried over: the first that there is.
func (c *carrying) meant(heading string) strategy.Term {
	for _, b := range c.from.Blocks {
		for _, t := range b.Terms {
			if t.Kind == strategy.HeadingTerm && text.Label(t.Heading) == text.Label(heading) {
				return t
			}
		}
	}
	return strategy.Term{Kind: strategy.HeadingTerm, Heading: heading, Narrower: true} // a limit takes all below it
}

func (c *carrying) proposals(own *thesaurus.Thesaurus, heading string) (out []CarryCandidate) {
	if own == nil || c.Terms == nil {
		return nil
	}
	h, ok := own.Find(heading)
	if !ok {
		return nil
	}
	all := own.Counterparts(h, c.Terms)
	for _, p := range all[:min(len(all), mostCandidates)] {
		row := CarryCandidate{Heading: p.Heading, Via: string(p.Via), Matched: p.Matched}
		if to, ok := c.Terms.Find(p.Heading); ok {
			row.ScopeNote = c.Terms.ScopeNote(to)
		}
		out = append(out, row)
	}
	return out
}

// elsewhere reports whether some heading of another vocabulary is asked: the sample says nothing of what that finds.
func (c *carrying) elsewhere() bool {
	return c != nil && slices.ContainsFunc(c.Headings, func(h CarriedHeading) bool { return len(h.Stands) > 0 })
}

// counted reports whether the sample says what a line finds.
func (c *carrying) counted(n strategy.Numbered) bool {
	if c == nil {
		return true
	}
	if n.Kind == strategy.TermLine || n.Kind == strategy.LimitLine {
		return !slices.ContainsFunc(
			c.headings(n),
			func(t strategy.Term) bool { return len(c.Stands[text.Label(t.Heading)]) > 0 },
		)
	}
	return !c.elsewhere()
}

// headings returns the heading of a line that is a term, or those that a limit goes by.
func (c *carrying) headings(n strategy.Numbered) (out []strategy.Term) {
	switch n.Kind {
	case strategy.TermLine:
		if t := c.from.Blocks[n.Block].Terms[n.Term]; t.Kind == strategy.HeadingTerm {
			out = append(out, t)
		}
	case strategy.LimitLine:
		for _, h := range c.from.Limits[n.Limit].Headings() {
			out = append(out, strategy.Term{Kind: strategy.HeadingTerm, Heading: h, Narrower: true, On: true})
		}
	}
	return out
}

// A Counterpart is what somebody takes to stand for a heading in another vocabulary, besides what does already, or
// takes off again. Where it names nothing, nothing stands for it; where it forgets and names nothing, all is open
// again.
type Counterpart struct {
	Heading    string `json:"heading"`
	Vocabulary string `json:"vocabulary"` // the other, by name
	Stands     string `json:"stands,omitempty"`
	Forget     bool   `json:"forget,omitempty"`
}

// mostStanding is how many headings stand for one.
const mostStanding = 20

// TakeCounterpart remembers what stands for a heading of the review's vocabulary in another, for this and other
// reviews.
func (a *Service) TakeCounterpart(ctx context.Context, review int64, k Counterpart) error {
	doc, err := a.desk.Proposed(ctx, review, desk.Proposal{})
	if err != nil {
		return err
	}
	if doc.Vocabulary == nil {
		return problems.Invalid("heading", "This review goes by no vocabulary, so no heading of it can be carried over.")
	}
	own, err := a.vocabularyRows.One(ctx, *doc.Vocabulary)
	if err != nil {
		return problems.Gone(err, "vocabulary")
	}
	if text.Label(k.Heading) == "" || text.Label(k.Vocabulary) == "" {
		return problems.Invalid("heading", "A heading and a vocabulary are needed.")
	}
	full := false
	err = a.vocabularyRows.ChangeCounterpart(
		ctx,
		own.Name,
		text.Label(k.Heading),
		k.Vocabulary,
		func(now []string) []string {
			i := slices.IndexFunc(now, func(l string) bool { return text.Label(l) == text.Label(k.Stands) })
			switch {
			case k.Stands == "" && k.Forget:
				return nil
			case k.Stands == "":
				return []string{}
			case k.Forget && i >= 0:
				if now = slices.Delete(now, i, i+1); len(now) == 0 {
					return nil // that nothing stands for it was not said
				}
			case !k.Forget && i < 0:
				if full = len(now) >= mostStanding; !full {
					now = append(now, k.Stands)
				}
			}
			return now
		},
	)
	if err == nil && full {
		return problems.Invalid("stands", "At most %d headings stand for one; this one is not taken.", mostStanding)
	}
	return err
}

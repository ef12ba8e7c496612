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
	"tamiz/store"
)

// A Carry is the headings of a strategy in the vocabulary of another source: what was taken to stand for each, and what is
// proposed. Until something is taken its words stand in.
type Carry struct {
	Vocabulary string           `json:"vocabulary"` // of the source
	There      bool             `json:"there"`      // the program has it
	Headings   []CarriedHeading `json:"headings"`
}

// A CarriedHeading is one of them.
type CarriedHeading struct {
	Heading   string           `json:"heading"`
	Stands    string           `json:"stands,omitempty"` // what was taken to stand for it
	Declined  bool             `json:"declined"`         // nothing does, somebody said
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
	strategy strategy.Strategy
	other    *thesaurus.Thesaurus // nil where the program does not have it
	from     strategy.Strategy
	stands   map[string]string // by the heading, as text.Label writes it; "" where nothing was taken
}

// another is the vocabulary that a dialect means, where that is not the review's own.
type another struct {
	own   string               // the name of the review's
	terms *thesaurus.Thesaurus // nil where the program does not have it
}

// otherVocabulary returns the vocabulary that a dialect means; nil where that is the review's own, or it means none.
func (a *Service) otherVocabulary(ctx context.Context, lay *desk.Desk, d *dialect.Dialect) (*another, error) {
	if d.Vocabulary == "" || d.Headings == nil || lay.Document.Vocabulary == nil {
		return nil, nil
	}
	own, err := a.store.Vocabulary(ctx, *lay.Document.Vocabulary)
	if err != nil || text.Label(own.Name) == text.Label(d.Vocabulary) {
		return nil, err
	}
	all, err := a.store.Vocabularies(ctx)
	if err != nil {
		return nil, err
	}
	out := &another{own: own.Name}
	if i := slices.IndexFunc(all, func(v store.Vocabulary) bool { return text.Label(v.Name) == text.Label(d.Vocabulary) }); i >= 0 {
		out.terms, err = a.desk.Pools.Thesaurus(ctx, &all[i].ID)
	}
	return out, err
}

// carrying carries a strategy's headings over to the vocabulary of a dialect; nil where that is the review's own, or the
// dialect means none.
func (a *Service) carrying(ctx context.Context, lay *desk.Desk, d *dialect.Dialect) (*carrying, error) {
	o, err := a.otherVocabulary(ctx, lay, d)
	if err != nil || o == nil {
		return nil, err
	}
	c := &carrying{Carry: Carry{Vocabulary: d.Vocabulary, There: o.terms != nil, Headings: []CarriedHeading{}}, other: o.terms, from: lay.Strategy, stands: map[string]string{}}
	taken, err := a.store.Counterparts(ctx, o.own, d.Vocabulary)
	if err != nil {
		return nil, err
	}
	decided := map[string]string{}
	for _, t := range taken {
		decided[t.Heading] = t.Stands
		if c.other != nil && t.Stands != "" {
			if _, is := c.other.Find(t.Stands); !is {
				continue // a later edition has it no more
			}
		}
		c.stands[t.Heading] = t.Stands
	}
	var carried []strategy.Carried
	c.strategy, carried = lay.Strategy.Carry(c.stands)
	for _, h := range carried {
		stands, known := decided[text.Label(h.Heading)]
		row := CarriedHeading{Heading: h.Heading, Stands: h.To, Declined: known && stands == "", Proposals: []CarryCandidate{}}
		row.Proposals = append(row.Proposals, c.proposals(thesaurusOf(lay), h.Heading)...)
		c.Headings = append(c.Headings, row)
	}
	return c, nil
}

func (c *carrying) proposals(own *thesaurus.Thesaurus, heading string) (out []CarryCandidate) {
	if own == nil || c.other == nil {
		return nil
	}
	h, ok := own.Find(heading)
	if !ok {
		return nil
	}
	all := own.Counterparts(h, c.other)
	for _, p := range all[:min(len(all), mostCandidates)] {
		row := CarryCandidate{Heading: p.Heading, Via: string(p.Via), Matched: p.Matched}
		if to, ok := c.other.Find(p.Heading); ok {
			row.ScopeNote = c.other.ScopeNote(to)
		}
		out = append(out, row)
	}
	return out
}

// elsewhere reports whether some heading of another vocabulary is asked: the sample says nothing of what that finds.
func (c *carrying) elsewhere() bool {
	return c != nil && slices.ContainsFunc(c.Headings, func(h CarriedHeading) bool { return h.Stands != "" })
}

// counted reports whether the sample says what a line finds.
func (c *carrying) counted(n strategy.Numbered) bool {
	if c == nil {
		return true
	}
	if n.Kind == strategy.TermLine {
		t := c.from.Blocks[n.Block].Terms[n.Term]
		return t.Kind != strategy.HeadingTerm || c.stands[text.Label(t.Heading)] == ""
	}
	return n.Kind == strategy.LimitLine || !c.elsewhere()
}

// note says of a line of a heading what stands for it.
func (c *carrying) note(line *TypedLine, l strategy.TypedLine, w writer) {
	if c == nil || l.Of.Kind != strategy.TermLine {
		return
	}
	t := c.from.Blocks[l.Of.Block].Terms[l.Of.Term]
	if t.Kind != strategy.HeadingTerm {
		return
	}
	to := c.stands[text.Label(t.Heading)]
	n := TypedNote{Kind: "carried", Term: t.String(), Instead: to}
	if to == "" {
		n.Kind, n.Instead = "no-counterpart", c.strategy.Blocks[l.Of.Block].Terms[l.Of.Term].Text
		if meant, err := t.QueryIn(w.thesaurus()); err == nil {
			n.More, n.Fewer = w.cost(meant, l.Said)
		}
	}
	line.Notes = append([]TypedNote{n}, line.Notes...)
}

func (w writer) thesaurus() *thesaurus.Thesaurus {
	if w.d == nil {
		return nil
	}
	return thesaurusOf(w.d)
}

// A Counterpart is what somebody takes to stand for a heading in another vocabulary: nothing, where Stands is empty; the
// decision is forgotten, where Forget is set.
type Counterpart struct {
	Heading    string `json:"heading"`
	Vocabulary string `json:"vocabulary"` // the other, by name
	Stands     string `json:"stands,omitempty"`
	Forget     bool   `json:"forget,omitempty"`
}

// TakeCounterpart remembers what stands for a heading of the review's vocabulary in another, for this and other reviews.
func (a *Service) TakeCounterpart(ctx context.Context, review int64, k Counterpart) error {
	doc, err := a.desk.Proposed(ctx, review, desk.Proposal{})
	if err != nil {
		return err
	}
	if doc.Vocabulary == nil {
		return problems.Invalid("heading", "This review goes by no vocabulary, so no heading of it can be carried over.")
	}
	own, err := a.store.Vocabulary(ctx, *doc.Vocabulary)
	if err != nil {
		return problems.Gone(err, "vocabulary")
	}
	if text.Label(k.Heading) == "" || text.Label(k.Vocabulary) == "" {
		return problems.Invalid("heading", "A heading and a vocabulary are needed.")
	}
	stands := &k.Stands
	if k.Forget {
		stands = nil
	}
	return a.store.PutCounterpart(ctx, own.Name, text.Label(k.Heading), k.Vocabulary, stands)
}

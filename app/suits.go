package app

import (
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// Suits is which block each item of a tally suits, and which blocks find it already; of items of which
// neither is so nothing is said.
type Suits struct {
	Items []Suit `json:"items"`
}

// A Suit is what is said of one item.
type Suit struct {
	Item   string   `json:"item"`
	Block  string   `json:"block,omitempty"`  // that it suits best by far
	Fit    float64  `json:"fit,omitempty"`    // how well: the cosine of the company that both keep
	Inside []string `json:"inside,omitempty"` // blocks whose terms match all its forms
	Missed int      `json:"missed,omitempty"` // key studies with it that the strategy misses
}

// Suits tells of the items of a facet which block they suit, and which find them already, by the document as
// it is saved. Words and keywords keep company; a heading keeps that of its label or, where that is no word of
// the records, of its entry terms.
func (a *App) Suits(ctx context.Context, at At, f tally.Facet) (*Suits, error) {
	if err := checkFacet(f); err != nil {
		return nil, err
	}
	if err := a.heavy.take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk(ctx, at)
	if err != nil {
		return nil, err
	}
	if d.pool == nil {
		return nil, errNoSample
	}
	// What else the document says changes nothing here.
	said, err := json.Marshal(d.strategy)
	if err != nil {
		return nil, err
	}
	key := fmt.Sprint(f, d.look.key, " ", d.keys.key, " ", string(said))
	return cached(ctx, d.pool.suited, key, func(ctx context.Context) (*Suits, int64, error) {
		out := &Suits{Items: []Suit{}}
		missed, err := d.missed(ctx)
		if err != nil {
			return nil, 0, err
		}
		switch {
		case textual(f):
			err = d.suitWords(ctx, out, f, missed)
		case f == tally.Headings:
			err = d.suitHeadings(ctx, out, missed)
		}
		return out, 1, err
	})
}

// missed returns the key studies that words may be mined from and that the strategy misses.
func (d *desk) missed(ctx context.Context) ([]*bib.Record, error) {
	reach, err := coverage.Find(ctx, d.keys.minedSet(), d.strategy)
	if err != nil {
		return nil, err
	}
	within := d.keys.minedSet().Within
	var out []*bib.Record
	for i, r := range d.keys.set.Records {
		if n := uint32(i); !reach.Whole.Contains(n) && (within == nil || within.Contains(n)) {
			out = append(out, r)
		}
	}
	return out, nil
}

// holding returns how many of some records hold any of some forms of an item.
func holding(f tally.Facet, records []*bib.Record) func(forms []string) int {
	held := make([]map[string]bool, len(records))
	for i, r := range records {
		held[i] = tally.Held(f, r)
	}
	return func(forms []string) (n int) {
		for _, has := range held {
			if slices.ContainsFunc(forms, func(form string) bool { return has[itemKey(f, form, nil)] }) {
				n++
			}
		}
		return n
	}
}

func (d *desk) suitWords(ctx context.Context, out *Suits, f tally.Facet, missed []*bib.Record) error {
	inside, err := d.inside(f)
	if err != nil {
		return err
	}
	proposed, err := d.proposed(ctx)
	if err != nil {
		return err
	}
	inMissed := holding(f, missed)
	put := func(item string, forms []string) {
		s := Suit{Item: item, Missed: inMissed(forms), Inside: inside(forms)}
		proposed(&s, forms) // the first is that which labels it
		if s.Block != "" || len(s.Inside) > 0 || s.Missed > 0 {
			out.Items = append(out.Items, s)
		}
	}
	t, err := d.pool.tally(ctx, d.look, f, d.keys)
	if err != nil {
		return err
	}
	if f != tally.Words {
		for _, r := range t.Rows {
			put(r.Item, []string{r.Item})
		}
		return nil
	}
	for i := range t.families {
		forms := make([]string, len(t.families[i].Forms))
		for k, form := range t.families[i].Forms {
			forms[k] = form.Item
		}
		put(t.families[i].Item, forms)
	}
	return nil
}

// proposed returns what sets the block that an item suits best, by the first of its forms that suits one.
func (d *desk) proposed(ctx context.Context) (func(s *Suit, forms []string), error) {
	befriended, err := d.pool.befriended(ctx)
	if err != nil {
		return nil, err
	}
	fits, err := befriended.Fits(ctx, d.strategy)
	if err != nil {
		return nil, err
	}
	byItem := make(map[string]*company.Fit, len(fits))
	for i := range fits {
		if fits[i].Proposed >= 0 {
			byItem[fits[i].Item] = &fits[i]
		}
	}
	return func(s *Suit, forms []string) {
		for _, form := range forms {
			if fit := byItem[text.Key(form)]; fit != nil {
				s.Block, s.Fit = d.document.Blocks[fit.Proposed].ID, fit.Fits[fit.Proposed]
				return
			}
		}
	}, nil
}

// inside returns what tells which blocks find all forms of an item already, by their ids.
func (d *desk) inside(f tally.Facet) (func(forms []string) []string, error) {
	if f == tally.Headings {
		found := map[string][]string{} // blocks by the key of a heading
		for i, b := range d.strategy.Blocks {
			for _, t := range b.Terms {
				if !t.On || t.Kind != strategy.HeadingTerm || t.Central || len(t.Qualifiers) > 0 {
					continue
				}
				for _, label := range below(d.pool.Thesaurus, t) {
					if id := d.document.Blocks[i].ID; !slices.Contains(found[label], id) {
						found[label] = append(found[label], id)
					}
				}
			}
		}
		return func(forms []string) []string { return found[itemKey(f, forms[0], nil)] }, nil
	}
	blocks := make([]coverage.Taken, len(d.strategy.Blocks))
	for i, b := range d.strategy.Blocks {
		var err error
		if blocks[i], err = coverage.TakenBy(strategy.Strategy{Blocks: []strategy.Block{b}}, d.pool.Thesaurus); err != nil {
			return nil, err
		}
	}
	return func(forms []string) (in []string) {
		tokens := make([][]string, len(forms))
		for i, form := range forms {
			tokens[i] = text.Tokens(form)
		}
		for i, taken := range blocks {
			if !slices.ContainsFunc(tokens, func(form []string) bool { return !taken.Text(form) }) {
				in = append(in, d.document.Blocks[i].ID)
			}
		}
		return in
	}, nil
}

func (d *desk) suitHeadings(ctx context.Context, out *Suits, missed []*bib.Record) error {
	inMissed := holding(tally.Headings, missed)
	inside, err := d.inside(tally.Headings)
	if err != nil {
		return err
	}
	proposed, err := d.proposed(ctx)
	if err != nil {
		return err
	}
	counted, err := d.pool.tally(ctx, d.look, tally.Headings, d.keys)
	if err != nil {
		return err
	}
	for _, r := range counted.Rows {
		forms := []string{r.Item}
		s := Suit{Item: r.Item, Inside: inside(forms), Missed: inMissed(forms)}
		if v := d.pool.Thesaurus; v != nil {
			if h, ok := v.Find(r.Item); ok {
				forms = append(forms, v.Headings[h].EntryTerms...)
			}
		}
		proposed(&s, forms)
		if s.Block != "" || len(s.Inside) > 0 || s.Missed > 0 {
			out.Items = append(out.Items, s)
		}
	}
	return nil
}

// below returns the keys of the headings that a heading term finds.
func below(v *thesaurus.Thesaurus, t strategy.Term) []string {
	key := text.Label(t.Heading)
	if v == nil || !t.Narrower {
		return []string{key}
	}
	return v.BelowLabels(key)
}

// AlikeQuestion asks for words used like those of a term, of a block, or like an item.
type AlikeQuestion struct {
	Item  string  `json:"item,omitempty"`
	Term  *Term   `json:"term,omitempty"`
	Block *string `json:"block,omitempty"`
}

// Alikes is words used like others; Kept says whether the others keep any company at all.
type Alikes struct {
	Kept  bool    `json:"kept"`
	Words []Alike `json:"words"`
}

// An Alike is a word or phrase that keeps the same company, how closely, and in how many records of sample
// and contrast it stands, alone and together.
type Alike struct {
	Item     string  `json:"item"`
	Alike    float64 `json:"alike"`
	Together int     `json:"together"`
	Records  int     `json:"records"`
}

const alikeWords = 40

// Alike finds words used alike, by the company that they keep over sample and contrast together.
func (a *App) Alike(ctx context.Context, at At, q AlikeQuestion) (*Alikes, error) {
	if err := a.heavy.take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk(ctx, at)
	if err != nil {
		return nil, err
	}
	if d.pool == nil {
		return nil, errNoSample
	}
	befriended, err := d.pool.befriended(ctx)
	if err != nil {
		return nil, err
	}
	out := &Alikes{Words: []Alike{}}
	var found []company.Alike
	switch {
	case q.Term != nil:
		t := q.Term.Term
		t.On = true
		found, err = befriended.AlikeTo(ctx, []strategy.Term{t}, alikeWords)
		out.Kept = len(found) > 0
	case q.Block != nil:
		i := d.document.Block(*q.Block)
		if i < 0 {
			return nil, invalid("block", "There is no such block.")
		}
		found, err = befriended.AlikeTo(ctx, d.strategy.Blocks[i].Terms, alikeWords)
		out.Kept = len(found) > 0
	case strings.TrimSpace(q.Item) != "":
		found, out.Kept = befriended.Alike(q.Item, alikeWords)
	default:
		return nil, invalid("item", "It is not said what the words are to be like.")
	}
	if err != nil {
		r := refusal(err)
		return nil, &Problem{Type: "refused", Status: 422, Field: "term", Title: sentence(r.Message), Detail: r.Reason}
	}
	for _, w := range found {
		out.Words = append(out.Words, Alike(w))
	}
	return out, nil
}

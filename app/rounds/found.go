package rounds

import (
	"cmp"
	"context"
	"math"
	"slices"
	"strings"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/text"
)

// A Work is a work that rounds brought, as it is shown.
type Work struct {
	Record     desk.RecordHead `json:"record"`
	Records    []int64         `json:"records"` // all records of it
	Rounds     []int           `json:"rounds"`  // their numbers
	Leads      int             `json:"leads"`   // works that belong which cite it, or which it cites
	Shared     int             `json:"shared"`  // works that it cites and works that belong cite too
	Together   int             `json:"together"`
	Worth      float64         `json:"worth"` // by what works are ordered: see cite.Graph.Worth
	TimesCited *int            `json:"timesCited,omitempty"`
	// how much it is like what belongs; absent where too little is known
	Score     *float64 `json:"score,omitempty"`
	Caught    bool     `json:"caught"`
	MissedBy  []string `json:"missedBy"`
	Verdict   string   `json:"verdict,omitempty"` // key, relevant, not or unsure
	Shelved   bool     `json:"shelved,omitempty"`
	Retracted bool     `json:"retracted,omitempty"`
	Corrected bool     `json:"corrected,omitempty"`
	Later     bool     `json:"later,omitempty"` // it cites, or is cited by, a work of a year that cannot be
}

// Found is a window of the works that rounds brought.
type Found struct {
	Total  int    `json:"total"` // of those that are asked for
	Works  []Work `json:"works"`
	Counts Counts `json:"counts"`
	Cut    int    `json:"cut"` // records of early rounds that are left out, since there are too many
}

// Counts are how many works there are of each kind.
type Counts struct {
	All     int `json:"all"`
	Open    int `json:"open"`
	Missed  int `json:"missed"` // of the open, those that the strategy misses
	Keys    int `json:"keys"`
	Belongs int `json:"belongs"` // judged relevant, no key study
	Not     int `json:"not"`
	Unsure  int `json:"unsure"`
}

// A Window says which works are asked for, and in which order.
type Window struct {
	Show  string // open, missed, keys, belongs, not, unsure or all
	Round int    // by its number; 0 for any
	Order string // ties, cited, alike, year, title or random
	From  int
	Most  int
}

const mostWindow = 500

// check completes a window.
func (w *Window) check() error {
	w.Show, w.Order = cmp.Or(w.Show, "open"), cmp.Or(w.Order, "ties")
	if w.Most == 0 {
		w.Most = 100
	}
	switch {
	case !slices.Contains([]string{"open", "missed", "keys", "belongs", "not", "unsure", "all"}, w.Show):
		return problems.Invalid("show", "There are no works of the kind %q.", w.Show)
	case !slices.Contains([]string{"ties", "cited", "alike", "year", "title", "random"}, w.Order):
		return problems.Invalid("order", "Works are not ordered by %q.", w.Order)
	case w.From < 0 || w.Most < 1 || w.Most > mostWindow || w.Round < 0:
		return problems.Invalid("from", "A window holds 1 to %d works.", mostWindow)
	}
	return nil
}

// Found returns the works that rounds brought, the likeliest first.
func (a *Service) Found(ctx context.Context, at desk.At, w Window) (*Found, error) {
	if err := w.check(); err != nil {
		return nil, err
	}
	v, err := a.view(ctx, at)
	if err != nil {
		return nil, err
	}
	out := &Found{Works: []Work{}, Cut: v.cut}
	var shown []Work
	for _, x := range v.shown {
		if w.Round > 0 && !slices.Contains(x.Rounds, w.Round) {
			continue
		}
		out.Counts.count(x)
		if shows(w.Show, x) {
			shown = append(shown, x)
		}
	}
	order(shown, w.Order, at.Review)
	out.Total = len(shown)
	if w.From < len(shown) {
		out.Works = append(out.Works, shown[w.From:min(len(shown), w.From+w.Most)]...)
	}
	return out, nil
}

func (c *Counts) count(w Work) {
	c.All++
	switch w.Verdict {
	case isKey:
		c.Keys++
	case relevant:
		c.Belongs++
	case isNot:
		c.Not++
	case unsure:
		c.Unsure++
	default:
		c.Open++
		if !w.Caught {
			c.Missed++
		}
	}
}

func shows(what string, w Work) bool {
	switch what {
	case "open":
		return w.Verdict == ""
	case "missed":
		return w.Verdict == "" && !w.Caught
	case "keys":
		return w.Verdict == isKey
	case "belongs":
		return w.Verdict == relevant
	case "not", "unsure":
		return w.Verdict == what
	}
	return true
}

// order sorts works; those alike in that by likeness to what belongs.
func order(works []Work, by string, review int64) {
	if by == "random" {
		atRandom(works, review)
		return
	}
	score := func(w Work) float64 {
		if w.Score == nil {
			return math.Inf(-1)
		}
		return *w.Score
	}
	times := func(w Work) int {
		if w.TimesCited == nil {
			return -1
		}
		return *w.TimesCited
	}
	slices.SortStableFunc(works, func(a, b Work) int {
		first := 0
		switch by {
		case "ties":
			first = cmp.Compare(b.Worth, a.Worth)
		case "cited":
			first = cmp.Compare(times(b), times(a))
		case "alike":
			first = cmp.Compare(score(b), score(a))
		case "year":
			first = cmp.Compare(b.Record.Year, a.Record.Year)
		}
		if first = cmp.Or(first, cmp.Compare(score(b), score(a))); first != 0 {
			return first // titles are compared where nothing else tells them apart
		}
		return cmp.Or(
			strings.Compare(text.Key(a.Record.Title), text.Key(b.Record.Title)),
			cmp.Compare(a.Record.ID, b.Record.ID),
		)
	})
}

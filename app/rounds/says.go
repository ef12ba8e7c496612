package rounds

import (
	"cmp"
	"context"
	"slices"
	"time"

	"tamiz/app/desk"
	"tamiz/core/bib"
	"tamiz/core/cite"
	"tamiz/core/coverage"
	"tamiz/store"
)

// Said is what the ways by which key studies were found say of the search.
type Said struct {
	Origins  []Origin  `json:"origins"`
	Studies  []Came    `json:"studies"` // in the order of the key studies
	Draft    bool      `json:"draft"`   // all come from the draft search itself: what it catches of them flatters it
	Rounds   []Brought `json:"rounds"`
	Next     *Next     `json:"next,omitempty"`
	Captures *Captures `json:"captures,omitempty"`
}

// An Origin is a way by which key studies were found, with what the strategy catches of them.
type Origin struct {
	Way    string  `json:"way"`
	Keys   int     `json:"keys"`
	Caught int     `json:"caught"`
	Low    float64 `json:"low"` // of the share that is caught, the 95 % interval
	High   float64 `json:"high"`
}

// Came is where a key study came from: the way by which it was taken in, and the rounds that lead to it.
type Came struct {
	ID     int64  `json:"id"`
	Way    string `json:"way"`
	Origin string `json:"origin,omitempty"`
	Rounds []int  `json:"rounds"`
	Caught bool   `json:"caught"`
}

// Brought is what a round brought, step by step: all works, those known before, the new ones, what was said of those.
type Brought struct {
	Number  int       `json:"number"`
	Way     string    `json:"way"`
	Name    string    `json:"name"`
	All     int       `json:"all"`
	Known   int       `json:"known"` // brought by a round before, or a key study when it began
	New     int       `json:"new"`
	Judged  int       `json:"judged"`
	Belongs int       `json:"belongs"` // of them key studies and relevant ones
	Keys    int       `json:"keys"`
	Missed  int       `json:"missed"` // of those that belong, the strategy misses
	Share   *Share    `json:"share,omitempty"`
	Who     string    `json:"who,omitempty"`
	At      time.Time `json:"at"`
}

// Share is a figure with its 95 % interval.
type Share struct {
	Value float64 `json:"value"`
	Low   float64 `json:"low"`
	High  float64 `json:"high"`
}

// Next is how many works that belong further rounds are likely to bring, where each brings the same part of the one before it.
type Next struct {
	Round float64 `json:"round"`
	All   float64 `json:"all"`
}

// Captures is how many works that belong there may be in all: by those that the search by words finds, those that citations lead
// to, and those that are in both.
type Captures struct {
	Words     int     `json:"words"`
	Citations int     `json:"citations"`
	Both      int     `json:"both"`
	Neither   int     `json:"neither"` // known from elsewhere
	Total     float64 `json:"total"`
	Low       float64 `json:"low"`
	High      float64 `json:"high"`
	Few       bool    `json:"few"` // so few in both that the figure says little
}

// fewBoth is from how many works in both ways the estimate is nearly without bias (Seber 1982).
const fewBoth = 7

// Says returns what the ways of finding say of the search.
func (a *Service) Says(ctx context.Context, at desk.At) (*Said, error) {
	works, _, err := a.all(ctx, at)
	if err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	checked, err := coverage.CheckKeys(ctx, d.Keys.Set, d.Strategy)
	if err != nil {
		return nil, err
	}
	rounds, err := a.store.Rounds(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	origins, err := a.store.KeyOrigins(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	rows, err := a.store.RoundWorks(ctx, at.Review, mostWorks)
	if err != nil {
		return nil, err
	}
	out := &Said{Origins: []Origin{}, Studies: []Came{}, Rounds: brought(rounds, works, takenFromRounds(d.Keys.Studies, origins))}
	linked, err := a.ledTo(ctx, rounds, rows, d.Keys.Studies)
	if err != nil {
		return nil, err
	}
	byWay := map[string]*Origin{}
	for i, s := range d.Keys.Studies {
		n := slices.IndexFunc(origins, func(o store.KeyOrigin) bool { return o.ID == s.ID })
		c := Came{ID: s.ID, Rounds: linked[i], Caught: checked.Studies[i].Caught && d.Keys.Here(i)}
		if n >= 0 {
			c.Way, c.Origin = origins[n].Way, origins[n].Origin
		}
		out.Studies = append(out.Studies, c)
		o := byWay[c.Way]
		if o == nil {
			o = &Origin{Way: c.Way}
			byWay[c.Way] = o
		}
		if o.Keys++; c.Caught {
			o.Caught++
		}
	}
	for _, o := range byWay {
		o.Low, o.High = coverage.Wilson(o.Caught, o.Keys)
		out.Origins = append(out.Origins, *o)
	}
	slices.SortFunc(out.Origins, func(a, b Origin) int { return cmp.Or(cmp.Compare(b.Keys, a.Keys), cmp.Compare(a.Way, b.Way)) })
	out.Draft = len(out.Studies) > 0 && !slices.ContainsFunc(out.Studies, func(c Came) bool { return c.Way != "judged" && c.Way != "new" })
	out.Next = next(out.Rounds)
	out.Captures = captures(works, out.Studies, linked)
	return out, nil
}

// brought tells of each round what it brought. A work is new in the first round that brought it, unless it was a key study.
func brought(rounds []store.Round, works []Work, taken map[int64]bool) []Brought {
	out := []Brought{}
	for i, r := range rounds {
		b := Brought{Number: i + 1, Way: r.Way, Name: r.Name, Who: r.Who, At: r.At}
		for _, w := range works {
			if !slices.Contains(w.Rounds, b.Number) {
				continue
			}
			b.All++
			if slices.Min(w.Rounds) < b.Number || w.Verdict == isKey && !slices.ContainsFunc(w.Records, func(id int64) bool { return taken[id] }) {
				b.Known++
				continue
			}
			b.New++
			if w.Verdict == "" || w.Verdict == unsure {
				continue
			}
			b.Judged++
			if w.Verdict == isKey || w.Verdict == relevant {
				b.Belongs++
				if !w.Caught {
					b.Missed++
				}
			}
			if w.Verdict == isKey {
				b.Keys++
			}
		}
		if s, ok := (cite.Round{New: b.New, Judged: b.Judged, Belongs: b.Belongs}).Yield(); ok {
			b.Share = &Share{s.Value, s.Low, s.High}
		}
		out = append(out, b)
	}
	return out
}

// takenFromRounds returns the records that became key studies because a round brought them.
func takenFromRounds(keys []store.StoredKey, origins []store.KeyOrigin) map[int64]bool {
	out := map[int64]bool{}
	for _, k := range keys {
		if slices.ContainsFunc(origins, func(o store.KeyOrigin) bool { return o.ID == k.ID && o.Way == "round" }) {
			out[k.StoredRecord.ID] = true
		}
	}
	return out
}

// next looks at the last chain of rounds along citations, of which each followed the one before.
func next(rounds []Brought) *Next {
	var chain []cite.Round
	for _, b := range rounds {
		if b.Way == Backward || b.Way == Forward || b.Way == Both {
			chain = append(chain, cite.Round{New: b.New, Judged: b.Judged, Belongs: b.Belongs})
		}
	}
	round, all, ok := cite.Next(chain)
	if !ok {
		return nil
	}
	return &Next{round, all}
}

// ledTo returns of each key study the numbers of the rounds along citations that another work leads to it in, or that otherwise
// brought it.
func (a *Service) ledTo(ctx context.Context, rounds []store.Round, rows []store.RoundWork, keys []store.StoredKey) ([][]int, error) {
	var known bib.Known
	for i, s := range keys {
		known.Add(s.Record, i)
	}
	number := map[int64]int{}
	for i, r := range rounds {
		number[r.ID] = i + 1
	}
	in := map[int64][]int{} // rounds, by record
	ids := []int64{}
	for _, r := range rows {
		in[r.Record] = append(in[r.Record], number[r.Round])
		ids = append(ids, r.Record)
	}
	out := make([][]int, len(keys))
	for i := range out {
		out[i] = []int{}
	}
	err := a.each(ctx, ids, func(s store.StoredRecord) {
		if n, ok := known.Find(s.Record); ok {
			out[n] = append(out[n], in[s.ID]...)
		}
	})
	for i := range out {
		slices.Sort(out[i])
		out[i] = slices.Compact(out[i])
	}
	return out, err
}

// captures estimates how many works that belong there are: the search by words and the citations are the two ways. Nil without
// a work in either.
func captures(works []Work, studies []Came, linked [][]int) *Captures {
	c := &Captures{}
	add := func(byWords, byCitations bool) {
		switch {
		case byWords && byCitations:
			c.Words, c.Citations, c.Both = c.Words+1, c.Citations+1, c.Both+1
		case byWords:
			c.Words++
		case byCitations:
			c.Citations++
		default:
			c.Neither++
		}
	}
	for i, s := range studies {
		add(s.Caught, len(linked[i]) > 0)
	}
	for _, w := range works {
		if w.Verdict == relevant {
			add(w.Caught, true)
		}
	}
	if c.Words == 0 || c.Citations == 0 {
		return nil
	}
	e := coverage.Chapman(c.Words, c.Citations, c.Both)
	c.Total, c.Low, c.High, c.Few = e.Total, max(e.Low, float64(c.Words+c.Citations-c.Both+c.Neither)), e.High, c.Both < fewBoth
	return c
}

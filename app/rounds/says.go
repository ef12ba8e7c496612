package rounds

import (
	"cmp"
	"context"
	"encoding/json"
	"slices"
	"time"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/core/cite"
	"tamiz/core/coverage"
)

// Said is what the ways by which key studies were found say of the search.
type Said struct {
	Origins  []Origin  `json:"origins"`
	Studies  []Came    `json:"studies"` // in the order of the key studies
	Draft    bool      `json:"draft"`   // all come from the draft search itself: what it catches of them flatters it
	Rounds   []Brought `json:"rounds"`
	Next     *Next     `json:"next,omitempty"`
	Captures *Captures `json:"captures,omitempty"`
	Left     *Left     `json:"left,omitempty"`

	Journals []ReadByHand `json:"journals"`
}

// An Origin is a way by which key studies were found, with what the strategy catches of them.
type Origin struct {
	Way    string  `json:"way"`
	Keys   int     `json:"keys"` // that the source holds whose counts are shown; all, where there is none
	Away   int     `json:"away"` // that it does not hold: no misses
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

// Next is how many works that belong further rounds are likely to bring, where each brings the same part of the one
// before it.
type Next struct {
	Round float64 `json:"round"`
	All   float64 `json:"all"`
}

// Captures is how many works that belong there may be in all: by those that the search by words finds, those that
// citations lead to, and those that are in both.
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

// Says returns what the ways of finding say of the search.
func (a *Service) Says(ctx context.Context, at desk.At) (*Said, error) {
	v, err := a.view(ctx, at)
	if err != nil {
		return nil, err
	}
	origins, err := a.library.KeyOrigins(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	caught, err := v.caught(ctx)
	if err != nil {
		return nil, err
	}
	studies := v.desk.Keys.Studies
	taken := takenFromRounds(studies, origins)
	out := &Said{Origins: []Origin{}, Studies: []Came{}, Rounds: v.brought(taken), Left: v.left(at.Review, taken)}
	byWay := map[string]*Origin{}
	for i, s := range studies {
		c := Came{ID: s.ID, Rounds: v.ledTo(i), Caught: caught[i]}
		if n := slices.IndexFunc(origins, func(o library.KeyOrigin) bool { return o.ID == s.ID }); n >= 0 {
			c.Way, c.Origin = origins[n].Way, origins[n].Origin
		}
		out.Studies = append(out.Studies, c)
		o := byWay[c.Way]
		if o == nil {
			o = &Origin{Way: c.Way}
			byWay[c.Way] = o
		}
		switch {
		case !v.desk.Keys.Here(i): // no strategy for that source can catch it
			o.Away++
		case c.Caught:
			o.Caught++
			fallthrough
		default:
			o.Keys++
		}
	}
	for _, o := range byWay {
		if o.Keys > 0 {
			o.Low, o.High = coverage.Wilson(o.Caught, o.Keys)
		}
		out.Origins = append(out.Origins, *o)
	}
	slices.SortFunc(
		out.Origins,
		func(a, b Origin) int { return cmp.Or(cmp.Compare(b.Keys, a.Keys), cmp.Compare(a.Way, b.Way)) },
	)
	out.Draft = len(out.Studies) > 0 &&
		!slices.ContainsFunc(out.Studies, func(c Came) bool { return c.Way != "judged" && c.Way != "new" })
	if out.Next, err = v.next(out.Rounds); err != nil {
		return nil, err
	}
	out.Captures = v.captures(out.Studies)
	out.Journals, err = v.byHand()
	return out, err
}

// caught tells of each key study whether the strategy catches it where counts are shown.
func (v *view) caught(ctx context.Context) ([]bool, error) {
	keys := v.desk.Keys
	checked, err := coverage.CheckKeys(ctx, keys.Set, v.desk.Strategy)
	if err != nil {
		return nil, err
	}
	out := make([]bool, len(checked.Studies))
	for i, s := range checked.Studies {
		out[i] = s.Caught && keys.Here(i)
	}
	return out, nil
}

// ledTo returns the numbers of the rounds that brought a key study: other works lead to it.
func (v *view) ledTo(study int) []int {
	if n := v.number[study]; n < len(v.shown) {
		return v.shown[n].Rounds
	}
	return []int{}
}

// along reports whether any of some rounds, by their numbers, went along citations.
func (v *view) along(rounds []int) bool {
	return slices.ContainsFunc(rounds, func(n int) bool { return alongCitations(v.rounds[n-1].Way) })
}

func alongCitations(way string) bool { return way == Backward || way == Forward || way == Both }

// brought tells of each round what it brought. A work is new in the first round that brought it, unless it was a
// key study.
func (v *view) brought(taken map[int64]bool) []Brought {
	out := []Brought{}
	for i, r := range v.rounds {
		b := Brought{Number: i + 1, Way: r.Way, Name: r.Name, Who: r.Who, At: r.At}
		for _, w := range v.shown {
			if !slices.Contains(w.Rounds, b.Number) {
				continue
			}
			b.All++
			if slices.Min(w.Rounds) < b.Number || v.before(w, taken) {
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

// before reports whether a work was a key study before rounds brought it.
func (v *view) before(w Work, taken map[int64]bool) bool {
	return w.Verdict == isKey && !slices.ContainsFunc(w.Records, func(id int64) bool { return taken[id] })
}

// takenFromRounds returns the records that became key studies because a round brought them.
func takenFromRounds(keys []library.Key, origins []library.KeyOrigin) map[int64]bool {
	out := map[int64]bool{}
	for _, k := range keys {
		if slices.ContainsFunc(origins, func(o library.KeyOrigin) bool { return o.ID == k.ID && o.Way == "round" }) {
			out[k.StoredRecord.ID] = true
		}
	}
	return out
}

// next looks at the last rounds along citations of which each began from what the one before it brought, or from
// what belonged of it.
func (v *view) next(all []Brought) (*Next, error) {
	var chain []cite.Round
	for i, b := range all {
		if !alongCitations(b.Way) {
			continue
		}
		var asked Asked
		if err := json.Unmarshal(v.rounds[i].Asked, &asked); err != nil {
			return nil, err
		}
		if asked.From != "last" && asked.From != "relevant" {
			chain = nil
		}
		chain = append(chain, cite.Round{New: b.New, Judged: b.Judged, Belongs: b.Belongs})
	}
	round, rest, ok := cite.Next(chain)
	if !ok {
		return nil, nil
	}
	return &Next{round, rest}, nil
}

// captures sets what the search by words finds of what belongs against what citations lead to. What other ways
// brought was found in neither by that.
func (v *view) captures(studies []Came) *Captures {
	var works []cite.Found
	for _, s := range studies {
		works = append(works, cite.Found{Words: s.Caught, Citations: v.along(s.Rounds)})
	}
	for _, w := range v.shown {
		if w.Verdict == relevant {
			works = append(works, cite.Found{Words: w.Caught, Citations: v.along(w.Rounds)})
		}
	}
	c, ok := cite.Capture(works)
	if !ok {
		return nil
	}
	return &Captures{
		Words:     c.Words,
		Citations: c.Citations,
		Both:      c.Both,
		Neither:   c.Neither,
		Total:     c.Total,
		Low:       c.Low,
		High:      c.High,
		Few:       c.Few,
	}
}

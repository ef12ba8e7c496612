package rounds

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/core/cite"
	"tamiz/core/coverage"
	"tamiz/core/likeness"
	"tamiz/core/text"
	"tamiz/store"
)

// mostWorks is how many records that rounds brought are set against the strategy: those of the last rounds.
const mostWorks = 20_000

// laid is what the rounds of a review brought, work by work, set against the strategy. It stays as it is while nothing of that
// changes; what people say of the works is looked up each time.
type laid struct {
	works  []laidWork
	graph  *cite.Graph // of works, then of key studies that are none of them
	keys   []*bib.Record
	number []int // of each key study in the graph
	cut    int   // records left out
}

// laidWork is a work that rounds brought: in one record or several.
type laidWork struct {
	records []int64
	record  *bib.Record // that says most
	self    bib.Identity
	head    desk.RecordHead
	rounds  []int64 // that brought it, the first first
	leads   []int64 // records that lead to it, of all rounds
	caught  bool
	missed  []string // ids of blocks, and names of limits, that hold it back
}

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
	Score      *float64        `json:"score,omitempty"` // how much it is like what belongs; absent where too little is known
	Caught     bool            `json:"caught"`
	MissedBy   []string        `json:"missedBy"`
	Verdict    string          `json:"verdict,omitempty"` // key, relevant, not or unsure
	Shelved    bool            `json:"shelved,omitempty"`
	Retracted  bool            `json:"retracted,omitempty"`
	Corrected  bool            `json:"corrected,omitempty"`
	Later      bool            `json:"later,omitempty"` // it cites, or is cited by, a work of a year that cannot be
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
	Order string // ties, cited, alike, year or title
	From  int
	Most  int
}

const (
	mostWindow = 500
	fewNot     = 10 // works that do not belong, below which likeness says nothing
)

// check completes a window.
func (w *Window) check() error {
	w.Show, w.Order = cmp.Or(w.Show, "open"), cmp.Or(w.Order, "ties")
	if w.Most == 0 {
		w.Most = 100
	}
	switch {
	case !slices.Contains([]string{"open", "missed", "keys", "belongs", "not", "unsure", "all"}, w.Show):
		return problems.Invalid("show", "There are no works of the kind %q.", w.Show)
	case !slices.Contains([]string{"ties", "cited", "alike", "year", "title"}, w.Order):
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
	all, cutOff, err := a.all(ctx, at)
	if err != nil {
		return nil, err
	}
	out := &Found{Works: []Work{}, Cut: cutOff}
	var shown []Work
	for _, x := range all {
		if w.Round > 0 && !slices.Contains(x.Rounds, w.Round) {
			continue
		}
		out.Counts.count(x)
		if shows(w.Show, x) {
			shown = append(shown, x)
		}
	}
	order(shown, w.Order)
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
func order(works []Work, by string) {
	score := func(w Work) float64 {
		if w.Score == nil {
			return 0
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
		return cmp.Or(strings.Compare(text.Key(a.Record.Title), text.Key(b.Record.Title)), cmp.Compare(a.Record.ID, b.Record.ID))
	})
}

// all returns the works that rounds brought with what is said of them now.
func (a *Service) all(ctx context.Context, at desk.At) ([]Work, int, error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, 0, err
	}
	l, err := a.layOut(ctx, at)
	if err != nil {
		return nil, 0, err
	}
	k, err := a.known(ctx, at.Review)
	if err != nil {
		return nil, 0, err
	}
	rounds, err := a.store.Rounds(ctx, at.Review)
	if err != nil {
		return nil, 0, err
	}
	numbers := map[int64]int{}
	for i, r := range rounds {
		numbers[r.ID] = i + 1
	}
	// Ties are to what belongs as it is known now.
	belongs := slices.Clone(l.number)
	verdicts := make([]string, len(l.works))
	for i, w := range l.works {
		if verdicts[i] = k.verdictOf(w.self); verdicts[i] == isKey || verdicts[i] == relevant {
			belongs = append(belongs, i)
		}
	}
	ties := l.graph.Ties(belongs)
	later := map[int]bool{}
	for _, p := range l.graph.Later() {
		later[p[0]], later[p[1]] = true, true
	}
	var model *likeness.Model
	// What nobody judged cannot stand for what does not belong: most of what rounds bring is about the question.
	if len(k.belong) >= 3 && len(k.not) >= fewNot {
		model = likeness.Of(k.belong, k.not)
	}
	out := make([]Work, 0, len(l.works))
	for i, w := range l.works {
		r := w.record
		x := Work{Record: w.head, Records: w.records, Rounds: []int{}, Leads: ties[i].Leads, Shared: ties[i].Shared, Together: ties[i].Together,
			TimesCited: r.TimesCited, Caught: w.caught, MissedBy: w.missed, Verdict: verdicts[i], Retracted: r.Retracted(), Corrected: r.Corrected(), Later: later[i]}
		x.Record.Key = x.Verdict == isKey
		_, x.Shelved = k.shelf.Get(w.self)
		for _, id := range w.rounds {
			x.Rounds = append(x.Rounds, numbers[id])
		}
		cited := 0
		if r.TimesCited != nil {
			cited = *r.TimesCited
		}
		x.Worth = l.graph.Worth(i, ties[i], cited)
		if model != nil {
			s := model.Score(r)
			x.Score = &s
		}
		out = append(out, x)
	}
	return out, l.cut, ctx.Err()
}

// layOut puts the records that rounds brought together by work, and sets them against the strategy.
func (a *Service) layOut(ctx context.Context, at desk.At) (*laid, error) {
	if _, err := a.store.Review(ctx, at.Review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	rows, err := a.store.RoundWorks(ctx, at.Review, mostWorks+1)
	if err != nil {
		return nil, err
	}
	l := &laid{}
	if len(rows) > mostWorks {
		works, _, err := a.store.RoundsBrought(ctx, at.Review)
		if err != nil {
			return nil, err
		}
		for _, n := range works {
			l.cut += n
		}
		l.cut -= mostWorks
		rows = rows[:mostWorks]
	}
	slices.SortStableFunc(rows, func(a, b store.RoundWork) int { return cmp.Compare(a.Round, b.Round) })
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	leads := 0
	for _, r := range rows {
		leads += len(r.Leads)
	}
	last := int64(0)
	if len(rows) > 0 {
		last = rows[len(rows)-1].Round
	}
	body, err := json.Marshal(d.Strategy)
	if err != nil {
		return nil, err
	}
	key := fmt.Sprintf("%d %d %d %d %x %s", at.Review, len(rows), leads, last, sha256.Sum256(body), d.Keys.Key)
	if kept, ok := a.laid.Get(key); ok {
		return kept, nil
	}
	ids := []int64{}
	for _, r := range rows {
		ids = append(ids, r.Record)
		ids = append(ids, r.Leads...)
	}
	records := map[int64]*bib.Record{}
	if err := a.each(ctx, ids, func(s store.StoredRecord) { records[s.ID] = s.Record }); err != nil {
		return nil, err
	}
	var numbering bib.Works
	byWork := map[int]int{}
	for _, row := range rows {
		r := records[row.Record]
		if r == nil {
			continue
		}
		n := numbering.Number(bib.IdentityOf(r))
		i, ok := byWork[n]
		if !ok {
			i = len(l.works)
			byWork[n] = i
			l.works = append(l.works, laidWork{record: r, missed: []string{}})
		}
		w := &l.works[i]
		if !slices.Contains(w.records, row.Record) {
			w.records = append(w.records, row.Record)
		}
		if len(r.Abstract) > len(w.record.Abstract) || len(w.record.References) == 0 && len(r.References) > 0 {
			w.record = bib.Join(r, w.record)
		} else if w.record != r {
			w.record = bib.Join(w.record, r)
		}
		if !slices.Contains(w.rounds, row.Round) {
			w.rounds = append(w.rounds, row.Round)
		}
		for _, x := range row.Leads {
			if !slices.Contains(w.leads, x) {
				w.leads = append(w.leads, x)
			}
		}
	}
	for i := range l.works {
		w := &l.works[i]
		w.self, w.head = bib.IdentityOf(w.record), headOf(store.StoredRecord{ID: w.records[0], Record: w.record})
	}
	if err := l.check(ctx, d); err != nil {
		return nil, err
	}
	l.link(d, records)
	a.laid.Add(key, l)
	return l, ctx.Err()
}

// check tells of each work whether the strategy finds it, and what holds it back.
func (l *laid) check(ctx context.Context, d *desk.Desk) error {
	figured := make([]*bib.Record, len(l.works))
	for i, w := range l.works {
		figured[i] = desk.Figured(d.Keys.Set.Thesaurus, w.record)
	}
	set := coverage.NewSet(figured)
	set.Thesaurus = d.Keys.Set.Thesaurus
	checked, err := coverage.CheckKeys(ctx, set, d.Strategy)
	if err != nil {
		return err
	}
	byName := map[string]string{}
	for _, b := range d.Document.Blocks {
		byName[b.Name] = b.ID
	}
	for i, s := range checked.Studies {
		l.works[i].caught = s.Caught
		for _, h := range s.HeldBackBy {
			l.works[i].missed = append(l.works[i].missed, cmp.Or(byName[h], h))
		}
	}
	return nil
}

// link makes the graph of the works and of the key studies that are none of them. What a source said of citations counts as if
// the records did.
func (l *laid) link(d *desk.Desk, records map[int64]*bib.Record) {
	var all []*bib.Record
	var known bib.Known
	for i, w := range l.works {
		all = append(all, w.record)
		known.Add(w.record, i)
	}
	for _, s := range d.Keys.Studies {
		n, ok := known.Find(s.Record)
		if !ok {
			n = len(all)
			known.Add(s.Record, n)
			all = append(all, s.Record)
		}
		l.number = append(l.number, n)
		l.keys = append(l.keys, s.Record)
	}
	plain := cite.Of(all, nil)
	var besides []cite.Link
	for i, w := range l.works {
		for _, id := range w.leads {
			r := records[id]
			if r == nil {
				continue
			}
			n, ok := known.Find(r)
			if !ok || n == i || slices.Contains(plain.Cites(n), i) || slices.Contains(plain.Cites(i), n) {
				continue
			}
			from, to := n, i // who cites whom is told by their years, where nothing else tells it
			if all[i].Year > all[n].Year {
				from, to = i, n
			}
			besides = append(besides, cite.Link{From: from, To: to})
		}
	}
	l.graph = plain
	if len(besides) > 0 {
		l.graph = cite.Of(all, besides)
	}
}

package rounds

import (
	"cmp"
	"context"
	"crypto/sha256"
	"encoding/json"
	"fmt"
	"slices"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/core/bib"
	"tamiz/core/cite"
	"tamiz/core/coverage"
)

// mostWorks is how many records that rounds brought are set against the strategy: those of the last rounds.
const mostWorks = 20_000

// laid is what the rounds of a review brought, work by work, set against the strategy. It stays as it is while
// nothing of that changes; what people say of the works is looked up each time.
type laid struct {
	works  []laidWork
	graph  *cite.Graph // of works, then of key studies that are none of them
	nodes  int
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

	likeness *float64 // to what belongs, as a round told it
}

// layOut puts the records that rounds brought together by work, and sets them against the strategy of a review as
// it is laid out.
func (a *Service) layOut(ctx context.Context, review int64, d *desk.Desk) (*laid, error) {
	rows, err := a.rows.RoundWorks(ctx, review, mostWorks+1)
	if err != nil {
		return nil, err
	}
	cut := 0
	if len(rows) > mostWorks {
		works, _, err := a.rows.RoundsBrought(ctx, review)
		if err != nil {
			return nil, err
		}
		for _, n := range works {
			cut += n
		}
		cut -= mostWorks
		rows = rows[:mostWorks]
	}
	slices.SortStableFunc(rows, func(a, b WorkRow) int { return cmp.Compare(a.Round, b.Round) })
	forms, err := a.rows.RoundForms(ctx, review)
	if err != nil {
		return nil, err
	}
	// Rounds only add: how many rows, what leads to them, and the last of them tell that nothing was added.
	leads, last := 0, int64(0)
	for _, r := range rows {
		leads += len(r.Leads)
		last = r.Round
	}
	body, err := json.Marshal(d.Strategy)
	if err != nil {
		return nil, err
	}
	key := fmt.Sprintf("%d %d %d %d %d %x %s", review, len(rows), leads, len(forms), last, sha256.Sum256(body), d.Keys.Key)
	return desk.Beside(ctx, a.desk.Pools, key, func(ctx context.Context) (*laid, []*bib.Record, error) {
		l := &laid{cut: cut}
		records := map[int64]*bib.Record{}
		ids := slices.Clone(forms)
		for _, r := range rows {
			ids = append(append(ids, r.Record), r.Leads...)
		}
		if err := a.each(ctx, ids, func(s library.StoredRecord) { records[s.ID] = s.Record }); err != nil {
			return nil, nil, err
		}
		l.put(rows, records)
		if err := l.check(ctx, d); err != nil {
			return nil, nil, err
		}
		held := &forming{}
		for _, id := range forms {
			if r := records[id]; r != nil {
				held.add(r)
			}
		}
		l.link(d, records, held)
		kept := make([]*bib.Record, len(l.works))
		for i, w := range l.works {
			kept[i] = w.record
		}
		return l, kept, ctx.Err()
	})
}

// put puts records together by work, the first round that brought one first.
func (l *laid) put(rows []WorkRow, records map[int64]*bib.Record) {
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
		w.records, w.rounds = with(w.records, row.Record), with(w.rounds, row.Round)
		if len(r.Abstract) > len(w.record.Abstract) {
			w.record = bib.Join(r, w.record)
		} else if w.record != r {
			w.record = bib.Join(w.record, r)
		}
		for _, x := range row.Leads {
			w.leads = with(w.leads, x)
		}
		if row.Likeness != nil {
			w.likeness = row.Likeness
		}
	}
	for i := range l.works {
		w := &l.works[i]
		w.self, w.head = bib.IdentityOf(w.record), headOf(library.StoredRecord{ID: w.records[0], Record: w.record})
	}
}

// with adds a number to some, once.
func with(all []int64, n int64) []int64 {
	if slices.Contains(all, n) {
		return all
	}
	return append(all, n)
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

// forming is the records that sources hold of works that rounds began from: a key study from a file says nothing of
// what it cites, and these do.
type forming struct {
	known   bib.Known
	records []*bib.Record
}

func (f *forming) add(r *bib.Record) {
	if len(r.References) > 0 {
		f.known.Add(r, len(f.records))
		f.records = append(f.records, r)
	}
}

// whole returns a record with what a source says that it cites, where the record does not say it itself.
func (f *forming) whole(r *bib.Record) *bib.Record {
	if len(r.References) > 0 {
		return r
	}
	if n, ok := f.known.Find(r); ok {
		return bib.Join(r, f.records[n])
	}
	return r
}

// link makes the graph of the works and of the key studies that are none of them. What a source said of citations
// counts as if the records did.
func (l *laid) link(d *desk.Desk, records map[int64]*bib.Record, held *forming) {
	var all []*bib.Record
	var known bib.Known
	for i, w := range l.works {
		all = append(all, held.whole(w.record))
		known.Add(w.record, i)
	}
	for _, s := range d.Keys.Studies {
		n, ok := known.Find(s.Record)
		if !ok {
			n = len(all)
			known.Add(s.Record, n)
			all = append(all, held.whole(s.Record))
		}
		l.number = append(l.number, n)
	}
	l.nodes = len(all)
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

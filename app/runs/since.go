package runs

import (
	"cmp"
	"context"
	"maps"
	"slices"
	"time"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/logbook"
	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/core/likeness"
	"tamiz/core/text"
)

// Since is what came of running a search again: by identity, not by date alone.
type Since struct {
	Sources []SinceSource `json:"sources"`
	Records []NewRecord   `json:"records"` // the new, the likeliest first
	More    int           `json:"more"`    // new ones beyond those that are told of
	Right   *Right        `json:"right,omitempty"`
}

// SinceSource is what is new at one source.
type SinceSource struct {
	Source int64     `json:"source"`
	Name   string    `json:"name"`
	From   time.Time `json:"from"`
	To     time.Time `json:"to"`
	Other  bool      `json:"other"` // it was run with another strategy than before: what is new may be new by that
	// its count changed while one of them was fetched: a work may be new or gone by that alone
	Moved   bool `json:"moved"`
	New     int  `json:"new"`     // works that it did not find before
	Gone    int  `json:"gone"`    // that it does not find any more
	Changed int  `json:"changed"` // that stand otherwise in it
	Indexed int  `json:"indexed"` // of those, that carry headings now and did not before
}

// A NewRecord is one that a source did not find before.
type NewRecord struct {
	Record desk.RecordHead `json:"record"`
	From   string          `json:"from"`
	Score  float64         `json:"score"` // how much it is like what belongs
	Likely bool            `json:"likely"`
}

// Right is how right the order is on what is known.
type Right struct {
	Share   float64 `json:"share"`
	Low     float64 `json:"low"`
	High    float64 `json:"high"`
	Belong  int     `json:"belong"`  // records it learned from
	Aside   int     `json:"aside"`   // others
	Assumed bool    `json:"assumed"` // few were judged: others are a part of what was there before
}

const (
	mostNew  = 500 // records that are told of
	fewAside = 20  // judged records below which others stand for what does not belong
	mostSeen = 400 // of those
)

// Since returns what is new since the last but one run of a review, at each source whose answers were fetched whole
// both times.
func (a *Service) Since(ctx context.Context, review int64) (*Since, error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, err
	}
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	runs, err := a.logbook.TwoRuns(ctx, review)
	if err != nil {
		return nil, err
	}
	dismissed, err := a.dismissedWorks(ctx, review)
	if err != nil {
		return nil, err
	}
	out := &Since{Sources: []SinceSource{}, Records: []NewRecord{}}
	var before bib.Known // what any of them found before: a work that is new at one source alone is not new
	var pairs [][2]side
	for i := 0; i+1 < len(runs); i++ {
		if *runs[i].Source != *runs[i+1].Source {
			continue
		}
		var p [2]side
		for k := range p {
			if p[k], err = a.side(ctx, runs[i+k]); err != nil {
				return nil, err
			}
		}
		for n, id := range p[1].ids {
			before.Put(p[1].works[n], int(id))
		}
		pairs = append(pairs, p)
	}
	var all bib.Known
	var fresh []int64
	from := map[int64]string{}
	for _, p := range pairs {
		now, was := p[0], p[1]
		row := SinceSource{
			Source: *now.run.Source,
			Name:   now.run.Place,
			From:   was.run.At,
			To:     now.run.At,
			Other:  now.run.Query != was.run.Query,
			Moved:  now.moved || was.moved,
		}
		var changed [][2]int64 // as it was, and as it is
		for n, id := range now.ids {
			old, known := was.known.Get(now.works[n])
			switch {
			case !known:
				if _, elsewhere := before.Get(now.works[n]); elsewhere {
					continue
				}
				row.New++
				_, twice := all.Get(now.works[n])
				_, aside := dismissed.Get(now.works[n])
				if !twice && !aside {
					all.Put(now.works[n], n)
					fresh = append(fresh, id)
					from[id] = now.run.Place
				}
			case int64(old) != id:
				changed = append(changed, [2]int64{int64(old), id})
			}
		}
		row.Changed = len(changed)
		if row.Indexed, err = a.newlyIndexed(ctx, changed); err != nil {
			return nil, err
		}
		for n := range was.ids {
			if _, still := now.known.Get(was.works[n]); !still {
				row.Gone++
			}
		}
		out.Sources = append(out.Sources, row)
	}
	return out, a.order(ctx, review, out, fresh, from, pairs)
}

// dismissedWorks returns the works that were dismissed: whatever source tells of one again, it is not told of.
func (a *Service) dismissedWorks(ctx context.Context, review int64) (*bib.Known, error) {
	dismissed, err := a.rows.Dismissed(ctx, review)
	if err != nil {
		return nil, err
	}
	stored, err := a.library.RecordsByID(ctx, slices.Sorted(maps.Keys(dismissed)))
	var out bib.Known
	for i, s := range stored {
		out.Add(s.Record, i)
	}
	return &out, err
}

// A side is what one run found.
type side struct {
	run   logbook.Run
	ids   []int64
	works []bib.Identity
	known bib.Known
	moved bool // the source's count changed meanwhile
}

func (a *Service) side(ctx context.Context, r logbook.Run) (s side, err error) {
	s.run = r
	if r.Draw == nil { // it found nothing
		return s, nil
	}
	d, err := a.library.Draw(ctx, *r.Draw)
	if err != nil {
		return s, err
	}
	s.moved = d.Moved
	if s.ids, err = a.library.DrawnIDs(ctx, *r.Draw); err != nil {
		return s, err
	}
	err = a.library.DrawnWorks(ctx, *r.Draw, func(id bib.Identity) { s.works = append(s.works, id) })
	n := min(len(s.ids), len(s.works))
	s.ids, s.works = s.ids[:n], s.works[:n]
	for i, id := range s.ids {
		s.known.Put(s.works[i], int(id))
	}
	return s, err
}

// newlyIndexed returns how many records carry headings now that carried none before.
func (a *Service) newlyIndexed(ctx context.Context, changed [][2]int64) (n int, err error) {
	for part := range slices.Chunk(changed, fetchedAtOnce) {
		var ids []int64
		for _, c := range part {
			ids = append(ids, c[0], c[1])
		}
		stored, err := a.library.RecordsByID(ctx, ids)
		if err != nil {
			return 0, err
		}
		indexed := map[int64]bool{}
		for _, s := range stored {
			indexed[s.ID] = s.Record.Indexed()
		}
		for _, c := range part {
			if !indexed[c[0]] && indexed[c[1]] {
				n++
			}
		}
	}
	return n, nil
}

// order puts the new records in the order of how likely they are to belong.
func (a *Service) order(
	ctx context.Context,
	review int64,
	out *Since,
	fresh []int64,
	from map[int64]string,
	pairs [][2]side,
) error {
	if len(fresh) == 0 {
		return nil
	}
	belong, aside, assumed, err := a.judged(ctx, review, pairs)
	if err != nil {
		return err
	}
	m := likeness.Of(belong, aside)
	if share, low, high, ok := m.Right(); ok {
		out.Right = &Right{share, low, high, len(belong), len(aside), assumed}
	}
	for part := range slices.Chunk(fresh, fetchedAtOnce) {
		stored, err := a.library.RecordsByID(ctx, part)
		if err != nil {
			return err
		}
		for _, s := range stored {
			r := s.Record
			score := 0.0
			if len(belong) > 0 {
				score = m.Score(r)
			}
			out.Records = append(out.Records, NewRecord{From: from[s.ID], Score: score, Likely: score > 0,
				Record: desk.RecordHead{
					ID:      s.ID,
					Title:   r.Title,
					Byline:  desk.Byline(r),
					Year:    r.Year,
					Journal: r.Journal,
					Indexed: r.Indexed(),
				}})
		}
		if ctx.Err() != nil {
			return ctx.Err()
		}
	}
	slices.SortStableFunc(out.Records, func(a, b NewRecord) int {
		return cmp.Or(cmp.Compare(b.Score, a.Score), cmp.Compare(text.Key(a.Record.Title), text.Key(b.Record.Title)))
	})
	if len(out.Records) > mostNew {
		out.More = len(out.Records) - mostNew
		out.Records = out.Records[:mostNew]
	}
	return nil
}

// judged returns what is known to belong (key studies, and what was judged relevant) and what does not: what was
// judged so or dismissed; where that is little, a part of what was found before stands for it.
func (a *Service) judged(
	ctx context.Context,
	review int64,
	pairs [][2]side,
) (belong, aside []*bib.Record, assumed bool, err error) {
	keys, err := a.library.KeyStudies(ctx, review)
	if err != nil {
		return nil, nil, false, err
	}
	for _, k := range keys {
		belong = append(belong, k.Record)
	}
	verdicts, err := a.library.Judgements(ctx, review)
	if err != nil {
		return nil, nil, false, err
	}
	var yes, no []int64
	for _, v := range verdicts {
		switch v.Verdict {
		case "relevant":
			yes = append(yes, v.Record)
		case "not":
			no = append(no, v.Record)
		}
	}
	dismissed, err := a.rows.Dismissed(ctx, review)
	if err != nil {
		return nil, nil, false, err
	}
	for id := range dismissed {
		no = append(no, id)
	}
	if assumed = len(no) < fewAside; assumed {
		for _, p := range pairs {
			step := max(1, len(p[1].ids)*len(pairs)/mostSeen)
			for i := 0; i < len(p[1].ids); i += step {
				no = append(no, p[1].ids[i])
			}
		}
	}
	slices.Sort(no)
	for _, side := range []struct {
		ids []int64
		to  *[]*bib.Record
	}{{yes, &belong}, {slices.Compact(no), &aside}} {
		stored, err := a.library.RecordsByID(ctx, side.ids)
		if err != nil {
			return nil, nil, false, err
		}
		var known bib.Known
		for i, k := range belong {
			known.Add(k, i)
		}
		for _, s := range stored {
			if _, twice := known.Find(s.Record); !twice {
				*side.to = append(*side.to, s.Record)
			}
		}
	}
	return belong, aside, assumed, nil
}

// Dismiss says of records that were new that they do not belong, so that they are not told of again; or takes that
// back.
func (a *Service) Dismiss(ctx context.Context, review int64, records []int64, on bool) error {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return problems.Gone(err, "review")
	}
	if len(records) == 0 || len(records) > mostNew {
		return problems.Invalid("records", "1 to %d records are dismissed at once.", mostNew)
	}
	err := a.rows.Dismiss(ctx, review, records, on)
	a.jobs.Tell(ctx, review, jobs.News{Kind: "runs"})
	return err
}

package runs

import (
	"context"
	"errors"
	"math"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/sources"
	"tamiz/core/overlap"
	"tamiz/source"
	"tamiz/store"
)

// Everywhere is the strategy of a review at all sources: as each would be asked it now, what it said the last time,
// and how the answers stand to each other.
type Everywhere struct {
	Sources []SourceRun  `json:"sources"`
	Keys    int          `json:"keys"`
	ByHand  []HandAnswer `json:"byHand"`  // what was found by hand, where a file of it was brought in
	Records int64        `json:"records"` // of all answers, each counted for itself
	// of those that are set against each other: of others nothing was fetched
	Among    int64          `json:"among"`
	Together *OverlapFigure `json:"together,omitempty"` // works of those, each once
	Pairs    []Pair         `json:"pairs"`
	Exact    bool           `json:"exact"` // all records of those were fetched
}

// A HandAnswer is what a search brought that somebody made by hand, as far as its records were brought in.
type HandAnswer struct {
	Run     int64          `json:"run"`
	Place   string         `json:"place"`
	Records int64          `json:"records"` // that were found
	Fetched int            `json:"fetched"` // of the file
	Sample  int64          `json:"sample"`
	Only    *OverlapFigure `json:"only,omitempty"` // works that nothing else brings
}

// A SourceRun is what one source said the last time.
type SourceRun struct {
	Source  int64         `json:"source"`
	Name    string        `json:"name"`
	Off     bool          `json:"off"`
	Query   string        `json:"query"` // as it would be asked now; "" where it cannot be
	Notes   []source.Note `json:"notes"`
	Waiting bool          `json:"waiting"` // it is being asked
	Run     *Run          `json:"run,omitempty"`
	Stale   bool          `json:"stale"` // the strategy has changed since
	Fetch   string        `json:"fetch,omitempty"`
	Trouble string        `json:"trouble,omitempty"` // why not all that was wanted was fetched
	Fetched int           `json:"fetched"`           // records of the answer that were
	Wanted  int           `json:"wanted"`            // of those that were to be
	Held    int           `json:"held"`              // key studies that it holds, as far as is known
	// of those, what the strategy catches that was run there, else that holds now
	Caught int            `json:"caught"`
	Open   int            `json:"open,omitempty"` // key studies of which somebody has to say whether it holds them
	Only   *OverlapFigure `json:"only,omitempty"` // works that no other brings
}

// An OverlapFigure is a number of works with its 95 % interval; the ends are equal where they were counted.
type OverlapFigure struct {
	Works int `json:"works"`
	Low   int `json:"low"`
	High  int `json:"high"`
}

// A Pair is how many works two sources share.
type Pair struct {
	A     int64         `json:"a"`
	B     int64         `json:"b"`
	Works OverlapFigure `json:"works"`
}

func rounded(f overlap.Figure) OverlapFigure {
	return OverlapFigure{int(math.Round(f.Works)), int(math.Floor(f.Low)), int(math.Ceil(f.High))}
}

// Everywhere returns what all sources said of the strategy.
func (a *Service) Everywhere(ctx context.Context, at desk.At) (*Everywhere, error) {
	lay, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	all, err := a.sources.Sources(ctx)
	if err != nil {
		return nil, err
	}
	// What is waited for is looked at first: what ends in between is then waited for once more, not taken for what was
	// never asked.
	waiting, err := a.stillAsked(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	last, err := a.logbook.LastRuns(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	byHolder, undecided, err := a.heldBy(ctx, at.Review, lay)
	if err != nil {
		return nil, err
	}
	// What sources are asked is the strategy itself, through whichever vocabulary it is looked at.
	now := sources.Meaning{Doc: lay.Document}
	if now.Terms, err = a.desk.Pools.Thesaurus(ctx, lay.Document.Vocabulary); err != nil {
		return nil, err
	}
	var draws []int64
	for _, r := range last {
		if r.Draw != nil {
			draws = append(draws, *r.Draw)
		}
	}
	drawn, err := a.library.DrawsByID(ctx, draws)
	if err != nil {
		return nil, err
	}
	out := &Everywhere{Sources: []SourceRun{}, ByHand: []HandAnswer{}, Pairs: []Pair{}, Keys: len(lay.Keys.Studies)}
	var fetched []fetchedAnswer // those that are set against each other
	_, none := now.Doc.Strategy("").Query(now.Terms)
	for _, s := range all {
		row := SourceRun{Source: s.ID, Name: s.Name, Off: s.Off, Waiting: waiting[s.ID], Notes: []source.Note{}}
		if none == nil {
			as, err := a.sources.Speech(ctx, s, lay.Document.Vocabulary)
			if err != nil {
				return nil, err
			}
			row.Query, row.Notes = as.Whole(now.Doc.Strategy(""), now.Terms)
		}
		held := byHolder[s.ID]
		if held == nil {
			held = roaring.New()
		}
		of := now // what was run there, else what holds now
		row.Held, row.Open = int(held.GetCardinality()), undecided[s.ID]
		if i := slices.IndexFunc(last, func(r logbook.Run) bool { return r.Source != nil && *r.Source == s.ID }); i >= 0 {
			r, err := runOf(last[i])
			if err != nil {
				return nil, err
			}
			row.Run, row.Stale = &r, r.Query != row.Query
			if of, err = a.sources.MeaningAt(ctx, at.Review, r.Revision); err != nil {
				return nil, err
			}
			if r.Records != nil {
				out.Records += *r.Records
			}
			if last[i].Draw != nil {
				d := drawn[*last[i].Draw]
				row.Fetch, row.Fetched, row.Wanted, row.Trouble = d.State, d.Got, d.Wanted, d.Problem
				// What was stopped half way is the beginning of a draw, not a part of it at random.
				if d.State == "done" {
					out.Among += *r.Records
					fetched = append(fetched, fetchedAnswer{draw: d, row: len(out.Sources)})
				}
			} else if r.Records != nil && *r.Records == 0 {
				fetched = append(fetched, fetchedAnswer{row: len(out.Sources)})
			}
		}
		caught, err := a.caughtAt(ctx, at.Review, s, of)
		if err != nil {
			return nil, err
		}
		row.Caught = int(held.AndCardinality(caught))
		out.Sources = append(out.Sources, row)
	}
	if err := a.byHand(ctx, at.Review, out, &fetched); err != nil {
		return nil, err
	}
	if len(fetched) > 1 {
		return out, a.overlapping(ctx, out, fetched)
	}
	return out, nil
}

// stillAsked returns the sources at which the last order is still waited for.
func (a *Service) stillAsked(ctx context.Context, review int64) (map[int64]bool, error) {
	asking, err := a.logbook.LastAsking(ctx, review)
	if errors.Is(err, store.ErrNone) {
		return nil, nil
	}
	if err != nil {
		return nil, err
	}
	done, err := a.logbook.RunsOf(ctx, asking.ID)
	out := map[int64]bool{}
	for _, id := range asking.Sources {
		out[id] = !slices.ContainsFunc(done, func(r logbook.Run) bool { return r.Source != nil && *r.Source == id })
	}
	return out, err
}

// heldBy returns which key studies each source holds, by their places, and of how many somebody has to say whether
// it does.
func (a *Service) heldBy(
	ctx context.Context,
	review int64,
	lay *desk.Desk,
) (map[int64]*roaring.Bitmap, map[int64]int, error) {
	holdings, err := a.library.Holdings(ctx, review)
	if err != nil {
		return nil, nil, err
	}
	undecided := map[int64]int{}
	place := map[int64]int{}
	for i, k := range lay.Keys.Studies {
		place[k.ID] = i
	}
	out := map[int64]*roaring.Bitmap{}
	for _, h := range holdings {
		i, ok := place[h.KeyStudy]
		if ok && h.State == library.Near {
			undecided[h.Source]++
		}
		if !ok || h.State != library.Held {
			continue
		}
		if out[h.Source] == nil {
			out[h.Source] = roaring.New()
		}
		out[h.Source].Add(uint32(i))
	}
	return out, undecided, nil
}

// caughtAt returns which key studies a strategy catches at a source, by their places: by its records there, as it
// is asked there.
func (a *Service) caughtAt(
	ctx context.Context,
	review int64,
	s sources.Source,
	m sources.Meaning,
) (*roaring.Bitmap, error) {
	as, err := a.sources.Speech(ctx, s, m.Doc.Vocabulary)
	if err != nil {
		return nil, err
	}
	typed, err := as.Typed(m.Doc.Strategy(""), m.Terms)
	if err != nil || typed.Whole.Said == nil {
		return roaring.New(), nil // it finds nothing there
	}
	keys, err := a.desk.KeysAt(ctx, review, as.Vocabulary, s.ID)
	if err != nil {
		return nil, err
	}
	return typed.Whole.Said.Match(keys.Set.Index), ctx.Err()
}

package runs

import (
	"context"
	"errors"
	"slices"
	"time"

	"tamiz/app/jobs"
	"tamiz/app/problems"
	"tamiz/app/sources"
	"tamiz/store"
)

// A Watch says how the search of a review is run again by itself.
type Watch struct {
	On      bool       `json:"on"`
	Sources []int64    `json:"sources"`
	Every   string     `json:"every"` // week, month or once
	Next    *time.Time `json:"next,omitempty"`
	Missed  int        `json:"missed"` // times that passed while no program ran, of which one was made up for
	Who     string     `json:"who,omitempty"`
}

// watchRecords is how many records of an answer are fetched when it is run again: what is new is told of answers
// that were fetched whole.
const watchRecords = 20_000

// Watched returns how the search of a review is run again.
func (a *Service) Watched(ctx context.Context, review int64) (*Watch, error) {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	w, err := a.rows.Watch(ctx, review)
	if errors.Is(err, store.ErrNone) {
		return &Watch{Sources: []int64{}, Every: "month"}, nil
	}
	if err != nil {
		return nil, err
	}
	return &Watch{On: w.Next != nil, Sources: w.Sources, Every: w.Every, Next: w.Next, Missed: w.Missed, Who: w.Who}, nil
}

// SetWatch says how the search of a review is run again: from a day on, or not any more.
func (a *Service) SetWatch(ctx context.Context, review int64, w Watch) error {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return problems.Gone(err, "review")
	}
	defer a.jobs.Tell(ctx, review, jobs.News{Kind: "runs"})
	if !w.On {
		return a.rows.DropWatch(ctx, review)
	}
	if !slices.Contains([]string{"week", "month", "once"}, w.Every) {
		return problems.Invalid("every", "A search is run again each week, each month, or once.")
	}
	if w.Next == nil || w.Next.Before(a.now().Add(-24*time.Hour)) || w.Next.After(a.now().AddDate(10, 0, 0)) {
		return problems.Invalid("next", "The next time is a day within the next ten years.")
	}
	if len(w.Sources) == 0 || len(w.Sources) > sources.MaxSources {
		return problems.Invalid("sources", "A search is run again at 1 to %d sources.", sources.MaxSources)
	}
	w.Sources = slices.Compact(slices.Sorted(slices.Values(w.Sources)))
	for _, id := range w.Sources {
		if _, err := a.sources.Source(ctx, id); err != nil {
			return err
		}
	}
	return a.rows.PutWatch(
		ctx,
		WatchRow{Review: review, Sources: w.Sources, Every: w.Every, Records: watchRecords, Next: w.Next},
	)
}

// After returns when a search that was due is due again, and how many times passed by without it: those are made up
// for by one. The days are counted from when it was due, so that they stay the same, whenever the program runs.
func After(every string, due, now time.Time) (next *time.Time, missed int) {
	if every == "once" {
		return nil, 0
	}
	at := func(n int) time.Time {
		if every == "week" {
			return due.AddDate(0, 0, 7*n)
		}
		// The last day of a month stays the last: 31 January is followed by 28 February.
		first := time.Date(
			due.Year(),
			due.Month()+time.Month(n),
			1,
			due.Hour(),
			due.Minute(),
			due.Second(),
			0,
			due.Location(),
		)
		return first.AddDate(0, 0, min(due.Day(), first.AddDate(0, 1, -1).Day())-1)
	}
	n := 1
	for !at(n).After(now) {
		n++
	}
	t := at(n)
	return &t, n - 1
}

// RunDue runs what is due now (see DueEvery). Of several programs on one database each search is run by one.
func (a *Service) RunDue(ctx context.Context) error {
	now := a.now()
	reviews, err := a.rows.DueWatches(
		ctx,
		now,
		func(w WatchRow) (*time.Time, int) { return After(w.Every, *w.Next, now) },
		a.jobs.Wake,
	)
	for _, id := range reviews {
		a.jobs.Tell(ctx, id, jobs.News{Kind: "runs"})
	}
	return err
}

// DueEvery is how often it is looked whether something is due.
const DueEvery = 30 * time.Second

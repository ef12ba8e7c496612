package reviews

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"tamiz/app/library"
	"tamiz/store"
)

// Facts are what a change touches, as it was before or is after it.
type Facts struct {
	Revision  int                   `json:"revision,omitempty"`
	Decisions []FactDecision        `json:"decisions,omitempty"`
	Samples   []library.SampleState `json:"samples,omitempty"`
	Keys      []library.KeyState    `json:"keys,omitempty"`
	Shelf     []library.ShelfState  `json:"shelf,omitempty"`
}

// A FactDecision is the state of a candidate; open where nothing is decided. What is decided now has no time yet.
type FactDecision struct {
	Facet  string     `json:"facet"`
	Item   string     `json:"item"`
	State  string     `json:"state"`
	Reason string     `json:"reason,omitempty"`
	At     *time.Time `json:"at,omitempty"`
	Who    string     `json:"who,omitempty"`
	Sample *int64     `json:"sample,omitempty"`
}

// A LoggedChange is a change that can be undone or made again.
type LoggedChange struct {
	Number        int
	What          json.RawMessage
	Before, After Facts
}

// decisionIn returns what is decided about a candidate.
func decisionIn(ctx context.Context, tx *store.Tx, facet, item string) (FactDecision, error) {
	d, err := store.One[FactDecision](ctx, tx, sql["decisionIn"], tx.Review, facet, item)
	if errors.Is(err, store.ErrNone) {
		return FactDecision{Facet: facet, Item: item, State: "open"}, nil
	}
	return d, err
}

// apply makes decisions, samples, key studies and the shelf be as the facts say; the revision is not looked at.
func apply(ctx context.Context, tx *store.Tx, f Facts) error {
	for _, d := range f.Decisions {
		var err error
		if d.State == "open" {
			_, err = tx.Exec(ctx, sql["apply delete decision"], tx.Review, d.Facet, d.Item)
		} else {
			_, err = tx.Exec(ctx, sql["apply insert decision"],
				tx.Review, d.Facet, d.Item, d.State, d.Reason, d.At, d.Who, d.Sample)
		}
		if err != nil {
			return err
		}
	}
	for _, s := range f.Samples {
		if err := library.SetSample(ctx, tx, s); err != nil {
			return err
		}
	}
	for _, k := range f.Keys {
		if err := library.SetKey(ctx, tx, k); err != nil {
			return err
		}
	}
	for _, r := range f.Shelf {
		if err := library.Shelve(ctx, tx, r); err != nil {
			return err
		}
	}
	return nil
}

// nextNumber gives what is done to the review a number of its own.
func nextNumber(ctx context.Context, tx *store.Tx) (number int64, err error) {
	err = tx.QueryRow(ctx, sql["nextNumber"], tx.Review).Scan(&number)
	return number, err
}

// logChange keeps a change so that its author can take it back. What they took back before it can no longer be made
// again.
func logChange(ctx context.Context, tx *store.Tx, what json.RawMessage, before, after Facts) error {
	author := store.AuthorOf(ctx).Self
	if _, err := tx.Exec(ctx, sql["logChange delete change"], tx.Review, author); err != nil {
		return err
	}
	_, err := tx.Exec(ctx, sql["logChange insert change"], tx.Review, author, what, before, after)
	return err
}

// lastChange returns the change that its author takes back next or, with undone, makes again.
func lastChange(ctx context.Context, tx *store.Tx, undone bool) (LoggedChange, error) {
	statement := sql["lastChange done"]
	if undone {
		statement = sql["lastChange undone"]
	}
	return store.One[LoggedChange](ctx, tx, statement, tx.Review, store.AuthorOf(ctx).Self)
}

// markUndone says whether a change is undone.
func markUndone(ctx context.Context, tx *store.Tx, number int, undone bool) error {
	_, err := tx.Exec(ctx, sql["markUndone"], tx.Review, number, undone)
	return err
}

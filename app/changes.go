package app

import (
	"context"
	"encoding/json"
	"errors"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"tamiz/core/tally"
	"tamiz/store"
)

// A Change is one step of work: it is made as a whole and undone as a whole.
type Change struct {
	What       What          `json:"what"`
	Document   *Document     `json:"document,omitempty"`
	Decisions  []NewDecision `json:"decisions,omitempty"`
	Samples    []SamplePatch `json:"samples,omitempty"`
	KeyStudies []KeyPatch    `json:"keyStudies,omitempty"`
	Shelf      []ShelfPatch  `json:"shelf,omitempty"`
}

// A NewDecision is what is decided about a candidate.
type NewDecision struct {
	Facet  tally.Facet `json:"facet"`
	Item   string      `json:"item"`
	State  string      `json:"state"`
	Reason string      `json:"reason,omitempty"`
	Sample *int64      `json:"sample,omitempty"` // that is looked at
}

// A SamplePatch renames a sample, deletes it, or takes it back.
type SamplePatch struct {
	ID      int64   `json:"id"`
	Name    *string `json:"name,omitempty"`
	Deleted *bool   `json:"deleted,omitempty"`
}

// A KeyPatch deletes a key study or takes it back.
type KeyPatch struct {
	ID      int64 `json:"id"`
	Deleted bool  `json:"deleted"`
}

const maxDecisions = 5000 // of one change

// Change makes a change that was thought out on a revision of the document. Where another was made
// meanwhile, the two are put together; where both touched one block, nothing is changed and the
// Problem names the blocks.
func (a *App) Change(ctx context.Context, review int64, revision int, c Change) (State, error) {
	if err := c.check(); err != nil {
		return State{}, err
	}
	if c.Document != nil {
		if err := a.owns(ctx, review, *c.Document); err != nil {
			return State{}, err
		}
	}
	merged := false
	err := a.store.Work(ctx, review, func(ctx context.Context, w *store.Work) error {
		var before, after store.Facts
		var err error
		if c.Document != nil {
			if merged, err = replace(ctx, w, revision, *c.Document, &before, &after); err != nil {
				return err
			}
		}
		if err := c.facts(ctx, w, &before, &after); err != nil {
			return err
		}
		if reflect.DeepEqual(before, after) {
			return nil
		}
		if err := w.Apply(ctx, after); err != nil {
			return err
		}
		return logged(ctx, w, review, c.What, before, after)
	})
	if err != nil {
		return State{}, gone(err, "review")
	}
	s, err := a.state(ctx, review)
	s.Merged = merged
	return s, err
}

// logged makes what was done a change that can be undone, and tells everyone of it.
func logged(ctx context.Context, w *store.Work, review int64, what What, before, after store.Facts) error {
	what.Who = who(ctx)
	saying, err := json.Marshal(what)
	if err != nil {
		return err
	}
	if err := w.Log(ctx, saying, before, after); err != nil {
		return err
	}
	return w.Notify(ctx, News{Review: review, Kind: "change"}.String())
}

// owns says when a document goes by a vocabulary that is not the review's.
func (a *App) owns(ctx context.Context, review int64, d Document) error {
	if d.Vocabulary == nil {
		return nil
	}
	_, err := a.store.Vocabulary(ctx, review, *d.Vocabulary)
	return gone(err, "vocabulary")
}

func (c Change) check() error {
	if c.What.Key == "" || len(c.What.Key) > 60 || len(c.What.Params) > 10 {
		return invalid("what", "A change has to say what it does.")
	}
	for k, v := range c.What.Params {
		if len(k) > 40 || len(v) > 4000 {
			return invalid("what", "What a change says of itself is too long.")
		}
		c.What.Params[k] = strings.ReplaceAll(v, "\x00", "")
	}
	if len(c.Decisions) > maxDecisions {
		return invalid("decisions", "At most %d candidates are decided at once; this change has %d.", maxDecisions, len(c.Decisions))
	}
	for _, d := range c.Decisions {
		switch {
		case !slices.Contains(tally.Facets, d.Facet):
			return invalid("facet", "There is no facet %q.", d.Facet)
		case d.State != "open" && d.State != "parked" && d.State != "dropped":
			return invalid("state", "A candidate is open, parked or dropped, not %q.", d.State)
		case d.Item == "" || utf8.RuneCountInString(d.Item) > 2000 || strings.Contains(d.Item, "\x00"):
			return invalid("item", "A candidate has 1 to 2,000 characters.")
		case len(d.Reason) > 200:
			return invalid("reason", "A reason has at most 200 characters.")
		}
	}
	if len(c.Shelf) > maxShelfStep {
		return invalid("shelf", "At most %d records are put on the shelf at once; this change has %d.", maxShelfStep, len(c.Shelf))
	}
	for _, s := range c.Shelf {
		if err := s.check(); err != nil {
			return err
		}
	}
	if c.Document != nil {
		return c.Document.check()
	}
	return nil
}

// replace makes a document the newest revision.
func replace(ctx context.Context, w *store.Work, revision int, mine Document, before, after *store.Facts) (merged bool, err error) {
	current, err := w.Document(ctx, 0)
	if err != nil {
		return false, err
	}
	theirs, err := parse(current.Body)
	if err != nil {
		return false, err
	}
	mine = mine.filled()
	if revision != current.Revision {
		saved, err := w.Document(ctx, revision)
		if errors.Is(err, store.ErrNone) {
			return false, conflict(nil)
		}
		if err != nil {
			return false, err
		}
		base, err := parse(saved.Body)
		if err != nil {
			return false, err
		}
		var blocks []string
		if mine, blocks = merge(base, mine, theirs); len(blocks) > 0 {
			return false, conflict(blocks)
		}
		if err := mine.check(); err != nil {
			return false, err
		}
		merged = true
	}
	if reflect.DeepEqual(mine.filled(), theirs) {
		return merged, nil
	}
	body, err := mine.saved()
	if err != nil {
		return false, err
	}
	before.Revision, after.Revision = current.Revision, current.Revision+1
	return merged, w.AddDocument(ctx, store.Document{Revision: after.Revision, Body: body, Who: who(ctx)})
}

func conflict(blocks []string) *Problem {
	return &Problem{Type: "conflict", Status: 409, Field: "document",
		Title:  "Someone else changed the same block meanwhile. Nothing of yours is lost, and nothing was overwritten.",
		Params: map[string]string{"blocks": strings.Join(blocks, ", ")}}
}

// facts collects what the rest of a change touches.
func (c Change) facts(ctx context.Context, w *store.Work, before, after *store.Facts) error {
	for _, d := range c.Decisions {
		now, err := w.Decision(ctx, string(d.Facet), d.Item)
		if err != nil {
			return err
		}
		before.Decisions = append(before.Decisions, now)
		after.Decisions = append(after.Decisions, store.FactDecision{Facet: string(d.Facet), Item: d.Item, State: d.State, Reason: d.Reason, Who: who(ctx), Sample: d.Sample})
	}
	for _, p := range c.Samples {
		now, err := w.Sample(ctx, p.ID)
		if err != nil {
			return gone(err, "sample")
		}
		then := now
		if p.Name != nil {
			if then.Name, err = goodName(*p.Name); err != nil {
				return err
			}
		}
		if p.Deleted != nil {
			then.Deleted = *p.Deleted
		}
		before.Samples, after.Samples = append(before.Samples, now), append(after.Samples, then)
	}
	for _, p := range c.KeyStudies {
		now, err := w.KeyStudy(ctx, p.ID)
		if err != nil {
			return gone(err, "study")
		}
		before.Keys = append(before.Keys, now)
		after.Keys = append(after.Keys, store.FactKeyStudy{ID: p.ID, Deleted: p.Deleted})
	}
	return c.shelf(ctx, w, before, after)
}

// Undo takes back the last change; Redo makes the last undone one again. Where there is none, nothing
// happens and nothing is said.
func (a *App) Undo(ctx context.Context, review int64) (State, error) {
	return a.step(ctx, review, false)
}

// Redo makes the last undone change again.
func (a *App) Redo(ctx context.Context, review int64) (State, error) {
	return a.step(ctx, review, true)
}

func (a *App) step(ctx context.Context, review int64, again bool) (State, error) {
	var done *What
	err := a.store.Work(ctx, review, func(ctx context.Context, w *store.Work) error {
		c, err := w.LastChange(ctx, again)
		if errors.Is(err, store.ErrNone) {
			return nil
		}
		if err != nil {
			return err
		}
		facts := c.Before
		if again {
			facts = c.After
		}
		if facts.Revision > 0 {
			// The content of that revision becomes the newest: revisions only ever go forward.
			old, err := w.Document(ctx, facts.Revision)
			if err != nil {
				return err
			}
			current, err := w.Document(ctx, 0)
			if err != nil {
				return err
			}
			if err := w.AddDocument(ctx, store.Document{Revision: current.Revision + 1, Body: old.Body, Who: who(ctx)}); err != nil {
				return err
			}
		}
		if err := w.Apply(ctx, facts); err != nil {
			return err
		}
		if err := w.MarkUndone(ctx, c.Number, !again); err != nil {
			return err
		}
		done = what(c.What)
		return w.Notify(ctx, News{Review: review, Kind: "change"}.String())
	})
	if err != nil {
		return State{}, gone(err, "review")
	}
	s, err := a.state(ctx, review)
	s.What = done
	return s, err
}

// Revision reads the number of a revision from an If-Match header.
func Revision(header string) (int, error) {
	n, err := strconv.Atoi(strings.Trim(strings.TrimPrefix(header, "W/"), `"`))
	if err != nil || n < 1 {
		return 0, invalid("If-Match", "If-Match has to name the revision that the change was made on, not %q.", header)
	}
	return n, nil
}

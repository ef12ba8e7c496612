package reviews

import (
	"context"
	"errors"
	"reflect"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/core/review"
	"tamiz/store"
)

// Undo takes back the last change of who asks for it; Redo makes the last again that they took back. Where there is
// none, nothing happens and nothing is said. Where others have built on that very thing meanwhile, nothing is changed
// and the Problem says what stands in the way.
func (a *Service) Undo(ctx context.Context, review int64) (Step, error) {
	return a.step(ctx, review, false)
}

// Redo makes the last change again that who asks for it took back.
func (a *Service) Redo(ctx context.Context, review int64) (Step, error) {
	return a.step(ctx, review, true)
}

func (a *Service) step(ctx context.Context, id int64, again bool) (Step, error) {
	var step Step
	err := a.store.InReview(ctx, id, func(ctx context.Context, w *store.Tx) error {
		c, err := lastChange(ctx, w, again)
		if errors.Is(err, store.ErrNone) {
			return nil
		}
		if err != nil {
			return err
		}
		from, to := c.After, c.Before
		if again {
			from, to = c.Before, c.After
		}
		d := Done{Before: from, After: to}
		clashes, err := stands(ctx, w, from, to)
		if err != nil {
			return err
		}
		if to.Revision > 0 {
			more, err := d.turn(ctx, w, from.Revision, to.Revision)
			if err != nil {
				return err
			}
			clashes = append(more, clashes...)
		}
		if len(clashes) > 0 {
			return &problems.Problem{Type: "built-on", Status: 409, Clashes: clashes,
				Title: "Others have changed the same thing since. It was not taken back, and nothing was overwritten."}
		}
		if err := apply(ctx, w, to); err != nil {
			return err
		}
		if err := markUndone(ctx, w, c.Number, !again); err != nil {
			return err
		}
		step, err = d.Tell(ctx, w, id, what(c.What))
		return err
	})
	return a.Told(ctx, id, step, err)
}

// turn makes the document what it is now, less what was done between two revisions (or with it again): revisions only
// ever go forward.
func (d *Done) turn(ctx context.Context, w *store.Tx, from, to int) ([]desk.Clash, error) {
	_, base, err := DocumentOf(ctx, w, from)
	if err != nil {
		return nil, err
	}
	_, mine, err := DocumentOf(ctx, w, to)
	if err != nil {
		return nil, err
	}
	current, theirs, err := DocumentOf(ctx, w, 0)
	if err != nil {
		return nil, err
	}
	merged, clashes := review.Merge(base, mine, theirs)
	if len(clashes) > 0 {
		return clashes, nil
	}
	d.Before.Revision, d.After.Revision = 0, 0
	return nil, d.Save(ctx, w, current, theirs, merged)
}

// stands tells what of some facts is not any more as a change left it, nor as it is to be: what others built on it.
func stands(ctx context.Context, w *store.Tx, from, to Facts) (out []desk.Clash, err error) {
	for i, d := range from.Decisions {
		now, err := decisionIn(ctx, w, d.Facet, d.Item)
		if err != nil {
			return nil, err
		}
		if !sameDecision(now, d) && !sameDecision(now, to.Decisions[i]) {
			out = append(out, desk.Clash{What: "decision", Name: d.Item, Mine: to.Decisions[i].State, Theirs: now.State})
		}
	}
	for i, s := range from.Samples {
		now, err := library.SampleStateIn(ctx, w, s.ID)
		if err != nil {
			return nil, problems.Gone(err, "sample")
		}
		if now != s && now != to.Samples[i] {
			out = append(out, desk.Clash{What: "sample", Name: now.Name, Mine: to.Samples[i].Name, Theirs: now.Name})
		}
	}
	for i, s := range from.Shelf {
		now, err := library.ShelvedIn(ctx, w, s.Record)
		if err != nil {
			return nil, err
		}
		if !reflect.DeepEqual(now, s) && !reflect.DeepEqual(now, to.Shelf[i]) {
			out = append(out, desk.Clash{What: "shelf", Mine: to.Shelf[i].Note, Theirs: now.Note})
		}
	}
	return out, nil
}

func sameDecision(a, b FactDecision) bool { return a.State == b.State && a.Reason == b.Reason }

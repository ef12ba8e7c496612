package reviews

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"reflect"
	"slices"
	"strconv"
	"strings"
	"unicode/utf8"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/core/review"
	"tamiz/core/tally"
	"tamiz/store"
)

// A Change is one step of work: it is made as a whole and taken back as a whole.
type Change struct {
	What       What          `json:"what"`
	Edits      desk.Edits    `json:"edits,omitempty"`
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

// A Step is something that was done to a review, as it is told to who did it and to who looks on: what knows the number
// before it has all that it needs to come to this one.
type Step struct {
	Number    int64                `json:"number"`
	Revision  int                  `json:"revision"` // of the document with it
	Edits     desk.Edits           `json:"edits"`    // that make it of the revision before
	Decisions []FactDecision       `json:"decisions"`
	Shelf     []library.ShelfState `json:"shelf"`
	Whole     bool                 `json:"whole"` // more changed than is told here: it is to be asked for anew
	Who       string               `json:"who,omitempty"`
	Self      string               `json:"self,omitempty"` // the browser that did it
	What      *What                `json:"what,omitempty"`

	// To who did it alone:
	Undo   *What `json:"undo,omitempty"`
	Redo   *What `json:"redo,omitempty"`
	Merged bool  `json:"merged"` // it was put together with what was changed meanwhile
}

const (
	maxDecisions = 5000 // of one change
	maxTold      = 7000 // bytes of a step that are passed on; the database passes on 8,000
)

// Change makes a change that was thought out on a revision of the document. Where another was made
// meanwhile, the two are put together, term by term; where both changed the same thing, nothing is changed and the
// Problem names it.
func (a *Service) Change(ctx context.Context, review int64, revision int, c Change) (Step, error) {
	if err := c.check(); err != nil {
		return Step{}, err
	}
	if err := a.desk.Owns(ctx, c.Edits); err != nil {
		return Step{}, err
	}
	var step Step
	err := a.store.InReview(ctx, review, func(ctx context.Context, w *store.Tx) error {
		var d Done
		if len(c.Edits) > 0 {
			if err := d.edit(ctx, w, revision, c.Edits); err != nil {
				return err
			}
		}
		if err := c.facts(ctx, w, &d.Before, &d.After); err != nil {
			return err
		}
		if reflect.DeepEqual(d.Before, d.After) {
			return nil
		}
		if err := apply(ctx, w, d.After); err != nil {
			return err
		}
		if err := d.keepBefore(ctx, w, c.What.Key); err != nil {
			return err
		}
		var err error
		step, err = d.Log(ctx, w, review, c.What)
		return err
	})
	return a.Told(ctx, review, step, err)
}

// A Done is what a change does, while it is made.
type Done struct {
	Before, After Facts
	edits         desk.Edits
	merged        bool
	Whole         bool // it does more than its facts tell
}

// edit makes the document with some edits of a revision of it the newest.
func (d *Done) edit(ctx context.Context, w *store.Tx, revision int, edits desk.Edits) error {
	current, theirs, err := DocumentOf(ctx, w, 0)
	if err != nil {
		return err
	}
	base := theirs
	if revision != current {
		if _, base, err = DocumentOf(ctx, w, revision); errors.Is(err, store.ErrNone) {
			return conflict([]desk.Clash{{What: "revision"}})
		} else if err != nil {
			return err
		}
	}
	mine, idle := review.Apply(base, edits)
	if len(idle) > 0 {
		return conflict(goneOf(idle))
	}
	if revision != current {
		var clashes []desk.Clash
		if mine, clashes = review.Merge(base, mine, theirs); len(clashes) > 0 {
			return conflict(clashes)
		}
		d.merged = true
	}
	return d.Save(ctx, w, current, theirs, mine)
}

// Save makes a document the newest revision, where it differs from the one that is.
func (d *Done) Save(ctx context.Context, w *store.Tx, revision int, from, to desk.Document) error {
	if err := desk.Checked(to); err != nil {
		return err
	}
	if reflect.DeepEqual(from, to) {
		return nil
	}
	body, err := to.Saved()
	if err != nil {
		return err
	}
	d.edits = review.Diff(from, to)
	d.Before.Revision, d.After.Revision = revision, revision+1
	return desk.AddDocument(ctx, w, w.Review, desk.Saved{Revision: revision + 1, Body: body, Who: who(ctx)})
}

// DocumentOf returns a revision of the document, the newest for 0.
func DocumentOf(ctx context.Context, w *store.Tx, revision int) (int, desk.Document, error) {
	saved, err := desk.DocumentIn(ctx, w, revision)
	if err != nil {
		return 0, desk.Document{}, err
	}
	doc, err := review.Parse(saved.Body)
	return saved.Revision, doc, err
}

// Log makes what was done a change that can be taken back, and tells everyone of it.
func (d *Done) Log(ctx context.Context, w *store.Tx, review int64, what What) (Step, error) {
	what.Who = who(ctx)
	saying, err := json.Marshal(what)
	if err != nil {
		return Step{}, err
	}
	if err := logChange(ctx, w, saying, d.Before, d.After); err != nil {
		return Step{}, err
	}
	return d.Tell(ctx, w, review, &what)
}

// Tell gives what was done a number, and tells everyone of it.
func (d *Done) Tell(ctx context.Context, w *store.Tx, id int64, what *What) (Step, error) {
	revision := d.After.Revision
	if revision == 0 {
		current, err := desk.DocumentIn(ctx, w, 0)
		if err != nil {
			return Step{}, err
		}
		revision = current.Revision
	}
	number, err := nextNumber(ctx, w)
	if err != nil {
		return Step{}, err
	}
	s := Step{Number: number, Revision: revision, Edits: d.edits, Decisions: d.After.Decisions, Shelf: d.After.Shelf,
		Whole: d.Whole || len(d.After.Samples) > 0 || len(d.After.Keys) > 0 || slices.ContainsFunc(d.edits, isVocabulary),
		Who:   who(ctx), Self: self(ctx), What: what, Merged: d.merged}
	s.fill()
	return s, w.Notify(ctx, jobs.News{Review: id, Kind: "change", Step: s.short()}.String())
}

func (s *Step) fill() {
	if s.Edits == nil {
		s.Edits = desk.Edits{}
	}
	if s.Decisions == nil {
		s.Decisions = []FactDecision{}
	}
	if s.Shelf == nil {
		s.Shelf = []library.ShelfState{}
	}
}

// short returns the step as it is passed on: where it is too long for that, everyone asks anew.
func (s Step) short() *Step {
	if body, err := json.Marshal(s); err == nil && len(body) <= maxTold {
		return &s
	}
	out := Step{Number: s.Number, Revision: s.Revision, Whole: true, Who: s.Who, Self: s.Self}
	out.fill()
	return &out
}

func isVocabulary(e review.Edit) bool {
	_, ok := e.(*review.SetVocabulary)
	return ok
}

// Told returns a step with what its author can take back next. One that was done before, because it is asked for again
// under the same request, or that changed nothing, is that everything is to be asked for anew.
func (a *Service) Told(ctx context.Context, review int64, s Step, err error) (Step, error) {
	if err != nil {
		return Step{}, problems.Gone(err, "review")
	}
	if s.Number == 0 {
		s.Whole = true
		s.fill()
		saved, err := a.documents.Document(ctx, review, 0)
		if err == nil {
			s.Revision = saved.Revision
			s.Number, err = a.rows.Number(ctx, review)
		}
		if err != nil { // it may well have been done before
			return Step{}, fmt.Errorf("%w: %w", store.ErrUnknown, err)
		}
	}
	undo, redo, err := a.rows.Steps(ctx, review)
	if err != nil {
		s.Whole = true // it is done: that the rest cannot be told just now is no reason to say otherwise
	}
	s.Undo, s.Redo = what(undo), what(redo)
	return s, nil
}

func (c Change) check() error {
	if c.What.Key == "" || len(c.What.Key) > 60 || len(c.What.Params) > 10 {
		return problems.Invalid("what", "A change has to say what it does.")
	}
	for k, v := range c.What.Params {
		if len(k) > 40 || len(v) > 4000 {
			return problems.Invalid("what", "What a change says of itself is too long.")
		}
		c.What.Params[k] = store.Plain(v)
	}
	if len(c.Edits) > desk.MaxEdits {
		return problems.Invalid(
			"edits",
			"At most %d edits are made at once; this change has %d.",
			desk.MaxEdits,
			len(c.Edits),
		)
	}
	if len(c.Decisions) > maxDecisions {
		return problems.Invalid(
			"decisions",
			"At most %d candidates are decided at once; this change has %d.",
			maxDecisions,
			len(c.Decisions),
		)
	}
	for _, d := range c.Decisions {
		switch {
		case !slices.Contains(tally.Facets, d.Facet):
			return problems.Invalid("facet", "There is no facet %q.", d.Facet)
		case d.State != "open" && d.State != "parked" && d.State != "dropped":
			return problems.Invalid("state", "A candidate is open, parked or dropped, not %q.", d.State)
		case d.Item == "" || utf8.RuneCountInString(d.Item) > 2000 || strings.Contains(d.Item, "\x00"):
			return problems.Invalid("item", "A candidate has 1 to 2,000 characters.")
		case len(d.Reason) > 200:
			return problems.Invalid("reason", "A reason has at most 200 characters.")
		}
	}
	if len(c.Shelf) > maxShelfStep {
		return problems.Invalid(
			"shelf",
			"At most %d records are put on the shelf at once; this change has %d.",
			maxShelfStep,
			len(c.Shelf),
		)
	}
	for _, s := range c.Shelf {
		if err := s.check(); err != nil {
			return err
		}
	}
	return nil
}

func conflict(clashes []desk.Clash) *problems.Problem {
	return &problems.Problem{Type: "conflict", Status: 409, Field: "edits", Clashes: clashes,
		Title: "Someone else changed the same thing meanwhile. Nothing of yours is lost, and nothing was overwritten."}
}

// goneOf tells of edits that were about something which is there no more.
func goneOf(idle desk.Edits) (out []desk.Clash) {
	for _, e := range idle {
		c := desk.Clash{What: "gone"}
		switch e := e.(type) {
		case *review.AddTerm:
			c.ID, c.Name, c.Mine = e.Term.ID, e.Term.String(), e.Term.String()
		case *review.PatchTerm:
			c.ID, c.Mine = e.ID, string(e.Patch)
		case *review.PatchBlock:
			c.ID, c.Mine = e.ID, string(e.Patch)
		}
		out = append(out, c)
	}
	return out
}

// facts collects what the rest of a change touches.
func (c Change) facts(ctx context.Context, w *store.Tx, before, after *Facts) error {
	for _, d := range c.Decisions {
		if d.Facet == tally.Headings { // they are named by their labels where they are proposed; of all else the key is sent
			d.Item = desk.DecisionKey(d.Facet, d.Item)
		}
		now, err := decisionIn(ctx, w, string(d.Facet), d.Item)
		if err != nil {
			return err
		}
		before.Decisions = append(before.Decisions, now)
		after.Decisions = append(
			after.Decisions,
			FactDecision{
				Facet:  string(d.Facet),
				Item:   d.Item,
				State:  d.State,
				Reason: d.Reason,
				Who:    who(ctx),
				Sample: d.Sample,
			},
		)
	}
	for _, p := range c.Samples {
		now, err := library.SampleStateIn(ctx, w, p.ID)
		if err != nil {
			return problems.Gone(err, "sample")
		}
		then := now
		if p.Name != nil {
			if then.Name, err = GoodName(*p.Name); err != nil {
				return err
			}
		}
		if p.Deleted != nil {
			then.Deleted = *p.Deleted
		}
		before.Samples, after.Samples = append(before.Samples, now), append(after.Samples, then)
	}
	for _, p := range c.KeyStudies {
		now, err := library.KeyStateIn(ctx, w, p.ID)
		if err != nil {
			return problems.Gone(err, "study")
		}
		before.Keys = append(before.Keys, now)
		after.Keys = append(after.Keys, library.KeyState{ID: p.ID, Deleted: p.Deleted})
	}
	return c.shelf(ctx, w, before, after)
}

// Revision reads the number of a revision from an If-Match header.
func Revision(header string) (int, error) {
	n, err := strconv.Atoi(strings.Trim(strings.TrimPrefix(header, "W/"), `"`))
	if err != nil || n < 1 {
		return 0, problems.Invalid(
			"If-Match",
			"If-Match has to name the revision that the change was made on, not %q.",
			header,
		)
	}
	return n, nil
}

// LogSample makes a new sample a change that can be undone.
func LogSample(ctx context.Context, w *store.Tx, review, id int64, what What) (Step, error) {
	sample, err := library.SampleStateIn(ctx, w, id)
	if err != nil {
		return Step{}, err
	}
	deleted := sample
	deleted.Deleted = true
	return (&Done{Before: Facts{Samples: []library.SampleState{deleted}},
		After: Facts{Samples: []library.SampleState{sample}}}).Log(
		ctx,
		w,
		review,
		what,
	)
}

// KeysAdded is that key studies were added.
func KeysAdded(ids []int64) *Done {
	var d Done
	for _, k := range ids {
		d.Before.Keys = append(d.Before.Keys, library.KeyState{ID: k, Deleted: true})
		d.After.Keys = append(d.After.Keys, library.KeyState{ID: k})
	}
	return &d
}

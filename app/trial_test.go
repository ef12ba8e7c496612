package app_test

import (
	"context"
	"encoding/json"
	"io"
	"sync"

	"tamiz/app"
	"tamiz/core/review"
	"tamiz/core/set"
	"tamiz/core/tally"
)

// A trial is the application as the tests use it: what is changed is said as what the document is to be, and what comes
// of it is the whole state.
type trial struct {
	*app.App
	mu     sync.Mutex
	docs   map[[2]int64]app.Document // by review and revision
	choice map[int64]app.NewLook
}

type change struct {
	What       app.What
	Document   *app.Document
	Decisions  []app.NewDecision
	Samples    []app.SamplePatch
	KeyStudies []app.KeyPatch
	Shelf      []app.ShelfPatch
}

// An after is a review after something was done to it.
type after struct {
	app.State
	Merged bool
	What   *app.What
}

// Change makes the edits that lead to a document from a revision of it.
func (a *trial) Change(ctx context.Context, id int64, revision int, c change) (after, error) {
	made := app.Change{What: c.What, Decisions: c.Decisions, Samples: c.Samples, KeyStudies: c.KeyStudies, Shelf: c.Shelf}
	if c.Document != nil {
		a.mu.Lock()
		base := a.docs[[2]int64{id, int64(revision)}]
		a.mu.Unlock()
		if now, err := a.Review(ctx, id); err == nil && now.Revision == revision {
			base = now.Document
		}
		made.Edits = review.Diff(base, *c.Document)
	}
	step, err := a.App.Change(ctx, id, revision, made)
	return a.then(ctx, id, step, err)
}

// proposal is what a document would be.
func (a *trial) proposal(ctx context.Context, id int64, d app.Document) app.Proposal {
	now, err := a.Review(ctx, id)
	if err != nil {
		return app.Proposal{}
	}
	return app.Proposal{Revision: now.Revision, Edits: review.Diff(now.Document, d)}
}

func (a *trial) Undo(ctx context.Context, id int64) (after, error) {
	step, err := a.App.Undo(ctx, id)
	return a.then(ctx, id, step, err)
}

func (a *trial) Redo(ctx context.Context, id int64) (after, error) {
	step, err := a.App.Redo(ctx, id)
	return a.then(ctx, id, step, err)
}

func (a *trial) Split(ctx context.Context, id int64, split bool) (after, error) {
	step, err := a.App.Split(ctx, id, split)
	return a.then(ctx, id, step, err)
}

func (a *trial) Join(ctx context.Context, id int64, j app.Joining) (after, error) {
	step, err := a.App.Join(ctx, id, j)
	return a.then(ctx, id, step, err)
}

func (a *trial) AddKeyStudies(ctx context.Context, id int64, records []int64) (after, error) {
	step, err := a.App.AddKeyStudies(ctx, id, records)
	return a.then(ctx, id, step, err)
}

func (a *trial) then(ctx context.Context, id int64, step app.Step, err error) (after, error) {
	if err != nil {
		return after{}, err
	}
	r, err := a.Review(ctx, id)
	if err != nil {
		return after{}, err
	}
	a.mu.Lock()
	defer a.mu.Unlock()
	a.docs[[2]int64{id, int64(r.Revision)}] = r.Document.Filled()
	return after{r.State, step.Merged, step.What}, nil
}

// SetView chooses what all figures are asked of from now on; like a window, it looks again when the review has changed.
func (a *trial) SetView(ctx context.Context, id int64, n app.NewLook) (app.Look, error) {
	l, err := a.MakeLook(ctx, id, n)
	if err == nil {
		n.Revision = l.Revision
		a.choice[id] = n
	}
	return l, err
}

func (a *trial) at(ctx context.Context, id int64) app.At {
	n, chosen := a.choice[id]
	if !chosen {
		return app.At{Review: id}
	}
	l, err := a.MakeLook(ctx, id, n)
	if err != nil {
		return app.At{Review: id}
	}
	return app.At{Review: id, Look: l.Name}
}

func (a *trial) Tally(ctx context.Context, id int64, f tally.Facet) (*app.Tally, error) {
	return a.App.Tally(ctx, a.at(ctx, id), f)
}

func (a *trial) Teams(ctx context.Context, id int64) (*app.Teams, error) {
	return a.App.Teams(ctx, a.at(ctx, id))
}

func (a *trial) Shelf(ctx context.Context, id int64) ([]app.ShelfEntry, error) {
	return a.App.Shelf(ctx, a.at(ctx, id))
}

func (a *trial) TallyFile(ctx context.Context, id int64, f tally.Facet, format string, called string, asIs bool) (io.ReadCloser, string, error) {
	return a.App.TallyFile(ctx, a.at(ctx, id), f, format, called, asIs)
}

func (a *trial) Suits(ctx context.Context, id int64, f tally.Facet) (*app.Suits, error) {
	return a.App.Suits(ctx, a.at(ctx, id), f)
}

func (a *trial) Alike(ctx context.Context, id int64, q app.AlikeQuestion) (*app.Alikes, error) {
	return a.App.Alike(ctx, a.at(ctx, id), q)
}

func (a *trial) Item(ctx context.Context, id int64, f tally.Facet, item string) (*app.Item, error) {
	return a.App.Item(ctx, a.at(ctx, id), f, item)
}

func (a *trial) HeadingTree(ctx context.Context, id int64) (*app.HeadingTree, error) {
	return a.App.HeadingTree(ctx, a.at(ctx, id))
}

func (a *trial) Coverage(ctx context.Context, id int64) (*app.Coverage, error) {
	return a.App.Coverage(ctx, a.at(ctx, id))
}

func (a *trial) Plan(ctx context.Context, id int64) (*app.Plan, error) {
	return a.App.Plan(ctx, a.at(ctx, id))
}

func (a *trial) Rescue(ctx context.Context, id int64, study int64) (*app.StudyRescue, error) {
	return a.App.Rescue(ctx, a.at(ctx, id), study)
}

func (a *trial) BlindSpot(ctx context.Context, id int64, block string) (*app.BlindSpot, error) {
	return a.App.BlindSpot(ctx, a.at(ctx, id), block)
}

func (a *trial) TryTerm(ctx context.Context, id int64, t app.Typed) (*app.TriedTerm, error) {
	return a.App.TryTerm(ctx, a.at(ctx, id), t)
}

func (a *trial) Export(ctx context.Context, id int64, e app.Export) (io.ReadCloser, string, error) {
	return a.App.Export(ctx, a.at(ctx, id), e)
}

func (a *trial) Making(ctx context.Context, id int64) (*app.Making, error) {
	return a.App.Making(ctx, a.at(ctx, id))
}

func (a *trial) Records(ctx context.Context, id int64, q app.RecordsQuestion) (*app.RecordList, error) {
	return a.App.Records(ctx, a.at(ctx, id), q)
}

func (a *trial) ReadRecord(ctx context.Context, id int64, record int64, f *tally.Facet, item *string) (*app.MarkedRecord, error) {
	return a.App.ReadRecord(ctx, a.at(ctx, id), record, f, item)
}

func (a *trial) Counts(ctx context.Context, id int64, again bool) (*app.SourceCounts, error) {
	return a.App.Counts(ctx, a.at(ctx, id), again)
}

func (a *trial) CountWhole(ctx context.Context, id int64, p app.Proposal) (*app.SourceCount, error) {
	return a.App.CountWhole(ctx, a.at(ctx, id), p)
}

func (a *trial) Bench(ctx context.Context, id int64, p app.Proposal) (*app.Bench, error) {
	return a.App.Bench(ctx, a.at(ctx, id), p)
}

// of returns a set as it is written.
func of(written string) app.RecordSet {
	var s app.RecordSet
	if err := json.Unmarshal([]byte(written), &s); err != nil {
		panic(err)
	}
	return s
}

func itemSet(f tally.Facet, name string) app.RecordSet {
	return app.RecordSet{Set: &set.Item{Facet: f, Item: name}}
}

package app_test

import (
	"context"
	"encoding/json"
	"io"
	"sync"

	"tamiz/app"
	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/holdings"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/core/review"
	"tamiz/core/set"
	"tamiz/core/tally"
)

// A trial is the application as the tests use it: what is changed is said as what the document is to be, and what comes
// of it is the whole state.
type trial struct {
	*app.App
	url    string // of its database
	mu     sync.Mutex
	docs   map[[2]int64]desk.Document // by review and revision
	choice map[int64]desk.NewLook
}

type change struct {
	What       reviews.What
	Document   *desk.Document
	Decisions  []reviews.NewDecision
	Samples    []reviews.SamplePatch
	KeyStudies []reviews.KeyPatch
	Shelf      []reviews.ShelfPatch
}

// An after is a review after something was done to it.
type after struct {
	reviews.State
	Merged bool
	What   *reviews.What
}

// Change makes the edits that lead to a document from a revision of it.
func (a *trial) Change(ctx context.Context, id int64, revision int, c change) (after, error) {
	made := reviews.Change{
		What:       c.What,
		Decisions:  c.Decisions,
		Samples:    c.Samples,
		KeyStudies: c.KeyStudies,
		Shelf:      c.Shelf,
	}
	if c.Document != nil {
		a.mu.Lock()
		base := a.docs[[2]int64{id, int64(revision)}]
		a.mu.Unlock()
		if now, err := a.Reviews.Review(ctx, id); err == nil && now.Revision == revision {
			base = now.Document
		}
		made.Edits = review.Diff(base, *c.Document)
	}
	step, err := a.App.Reviews.Change(ctx, id, revision, made)
	return a.then(ctx, id, step, err)
}

// proposal is what a document would be.
func (a *trial) proposal(ctx context.Context, id int64, d desk.Document) desk.Proposal {
	now, err := a.Reviews.Review(ctx, id)
	if err != nil {
		return desk.Proposal{}
	}
	return desk.Proposal{Revision: now.Revision, Edits: review.Diff(now.Document, d)}
}

func (a *trial) Undo(ctx context.Context, id int64) (after, error) {
	step, err := a.App.Reviews.Undo(ctx, id)
	return a.then(ctx, id, step, err)
}

func (a *trial) Redo(ctx context.Context, id int64) (after, error) {
	step, err := a.App.Reviews.Redo(ctx, id)
	return a.then(ctx, id, step, err)
}

func (a *trial) Split(ctx context.Context, id int64, split bool) (after, error) {
	step, err := a.App.Reviews.Split(ctx, id, split)
	return a.then(ctx, id, step, err)
}

func (a *trial) Join(ctx context.Context, id int64, j reviews.Joining) (after, error) {
	step, err := a.App.Reviews.Join(ctx, id, j)
	return a.then(ctx, id, step, err)
}

func (a *trial) AddKeyStudies(ctx context.Context, id int64, records []int64) (after, error) {
	step, err := a.App.Holdings.AddKeyStudies(ctx, id, holdings.Chosen{Records: records})
	return a.then(ctx, id, step, err)
}

func (a *trial) then(ctx context.Context, id int64, step reviews.Step, err error) (after, error) {
	if err != nil {
		return after{}, err
	}
	r, err := a.Reviews.Review(ctx, id)
	if err != nil {
		return after{}, err
	}
	a.mu.Lock()
	defer a.mu.Unlock()
	a.docs[[2]int64{id, int64(r.Revision)}] = r.Document.Filled()
	return after{r.State, step.Merged, step.What}, nil
}

// SetView chooses what all figures are asked of from now on; like a window, it looks again when the review has changed.
func (a *trial) SetView(ctx context.Context, id int64, n desk.NewLook) (desk.Look, error) {
	l, err := a.Desk.MakeLook(ctx, id, n)
	if err == nil {
		n.Revision = l.Revision
		a.choice[id] = n
	}
	return l, err
}

func (a *trial) at(ctx context.Context, id int64) desk.At {
	n, chosen := a.choice[id]
	if !chosen {
		return desk.At{Review: id}
	}
	l, err := a.Desk.MakeLook(ctx, id, n)
	if err != nil {
		return desk.At{Review: id}
	}
	return desk.At{Review: id, Look: l.Name}
}

func (a *trial) Tally(ctx context.Context, id int64, f tally.Facet) (*figures.Tally, error) {
	return a.App.Figures.Tally(ctx, a.at(ctx, id), f)
}

func (a *trial) Teams(ctx context.Context, id int64) (*figures.Teams, error) {
	return a.App.Figures.Teams(ctx, a.at(ctx, id))
}

func (a *trial) Shelf(ctx context.Context, id int64) ([]figures.ShelfEntry, error) {
	return a.App.Figures.Shelf(ctx, a.at(ctx, id))
}

func (a *trial) TallyFile(
	ctx context.Context,
	id int64,
	f tally.Facet,
	format string,
	called string,
	asIs bool,
) (io.ReadCloser, string, error) {
	return a.App.Figures.TallyFile(ctx, a.at(ctx, id), f, format, called, asIs)
}

func (a *trial) Suits(ctx context.Context, id int64, f tally.Facet) (*figures.Suits, error) {
	return a.App.Figures.Suits(ctx, a.at(ctx, id), f)
}

func (a *trial) Alike(ctx context.Context, id int64, q figures.AlikeQuestion) (*figures.Alikes, error) {
	return a.App.Figures.Alike(ctx, a.at(ctx, id), q)
}

func (a *trial) Item(ctx context.Context, id int64, f tally.Facet, item string) (*figures.Item, error) {
	return a.App.Figures.Item(ctx, a.at(ctx, id), f, item)
}

func (a *trial) HeadingTree(ctx context.Context, id int64) (*figures.HeadingTree, error) {
	return a.App.Figures.HeadingTree(ctx, a.at(ctx, id))
}

func (a *trial) Coverage(ctx context.Context, id int64) (*figures.Coverage, error) {
	return a.App.Figures.Coverage(ctx, a.at(ctx, id))
}

func (a *trial) Plan(ctx context.Context, id int64) (*figures.Plan, error) {
	return a.App.Figures.Plan(ctx, a.at(ctx, id))
}

func (a *trial) Rescue(ctx context.Context, id int64, study int64) (*figures.StudyRescue, error) {
	return a.App.Figures.Rescue(ctx, a.at(ctx, id), study)
}

func (a *trial) BlindSpot(ctx context.Context, id int64, block string) (*figures.BlindSpot, error) {
	return a.App.Figures.BlindSpot(ctx, a.at(ctx, id), block)
}

func (a *trial) TryTerm(ctx context.Context, id int64, t figures.Typed) (*figures.TriedTerm, error) {
	return a.App.Figures.TryTerm(ctx, a.at(ctx, id), t)
}

func (a *trial) Export(ctx context.Context, id int64, e figures.Export) (io.ReadCloser, string, error) {
	return a.App.Figures.Export(ctx, a.at(ctx, id), e)
}

func (a *trial) Making(ctx context.Context, id int64) (*desk.Making, error) {
	return a.App.Desk.Making(ctx, a.at(ctx, id))
}

func (a *trial) Records(ctx context.Context, id int64, q figures.RecordsQuestion) (*figures.RecordList, error) {
	return a.App.Figures.Records(ctx, a.at(ctx, id), q)
}

func (a *trial) ReadRecord(
	ctx context.Context,
	id int64,
	record int64,
	f *tally.Facet,
	item *string,
) (*figures.MarkedRecord, error) {
	return a.App.Figures.ReadRecord(ctx, a.at(ctx, id), record, f, item)
}

func (a *trial) Counts(ctx context.Context, id int64, again bool) (*sources.SourceCounts, error) {
	return a.App.Sources.Counts(ctx, a.at(ctx, id), again)
}

func (a *trial) CountWhole(ctx context.Context, id int64, p desk.Proposal) (*sources.SourceCount, error) {
	return a.App.Sources.CountWhole(ctx, a.at(ctx, id), p)
}

func (a *trial) Bench(ctx context.Context, id int64, p desk.Proposal) (*figures.Bench, error) {
	return a.App.Figures.Bench(ctx, a.at(ctx, id), p)
}

// of returns a set as it is written.
func of(written string) desk.RecordSet {
	var s desk.RecordSet
	if err := json.Unmarshal([]byte(written), &s); err != nil {
		panic(err)
	}
	return s
}

func itemSet(f tally.Facet, name string) desk.RecordSet {
	return desk.RecordSet{Set: &set.Item{Facet: f, Item: name}}
}

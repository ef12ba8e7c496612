package main

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"time"

	"tamiz/app"
	"tamiz/core/bib"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/exchange/skos"
	"tamiz/store"
)

// fillDemo lays out the demo review in an empty database, by the ways a person would take.
func fillDemo(ctx context.Context, a *app.App, db *store.Store) error {
	if reviews, err := a.Reviews(ctx); err != nil || len(reviews) > 0 {
		return err
	}
	world, plan := demo.NewWorld(demo.Seed, demo.Size), demo.NewReview()
	if _, err := a.CreateReview(ctx, app.NewReview{Name: "An empty review, to begin from nothing"}); err != nil {
		return err
	}
	review, err := a.CreateReview(ctx, app.NewReview{Name: plan.Name})
	if err != nil {
		return err
	}
	bring := func(kind, name string, records []*bib.Record) (*int64, error) {
		return bringIn(ctx, a, review.ID, kind, name, records)
	}
	if _, err := bring("keys", "key studies.ris", world.Keys); err != nil {
		return err
	}
	rough, err := bring("sample", "farm crews, rough.ris", world.RoughSample())
	if err != nil {
		return err
	}
	if _, err := bring("sample", "anything in Almagre.ris", world.RandomSample(demo.Seed, demo.Size*2/3)); err != nil {
		return err
	}
	var headings bytes.Buffer
	if err := skos.Write(&headings, demo.Headings()); err != nil {
		return err
	}
	if _, err := bringFile(ctx, a, review.ID, "vocabulary", "Almagre Headings.nt", &headings); err != nil {
		return err
	}
	if _, err := a.SetView(ctx, review.ID, app.View{Sample: rough, Rest: true}); err != nil {
		return err
	}
	now, err := a.Review(ctx, review.ID)
	if err != nil {
		return err
	}
	change := demoChange(plan, rough)
	change.Document.Vocabulary = now.Document.Vocabulary
	if _, err := a.Change(ctx, review.ID, now.Revision, change); err != nil {
		return err
	}
	return db.ForgetChanges(ctx, review.ID)
}

func demoChange(plan demo.Review, sample *int64) app.Change {
	doc := app.Document{Question: plan.Question, Frame: plan.Frame, Limits: plan.Limits}
	for i, c := range plan.Concepts {
		b := app.Block{ID: fmt.Sprintf("demo-%d", i), Name: c.Block.Name, Concept: c.Block.Concept, Part: c.Part, Seeds: c.Seeds,
			Searched: c.Block.Searched, Reason: c.Reason}
		for j, t := range c.Block.Terms {
			term := app.Term{ID: fmt.Sprintf("demo-%d-%d", i, j), Term: t}
			b.Terms = append(b.Terms, term)
		}
		doc.Blocks = append(doc.Blocks, b)
	}
	change := app.Change{What: app.What{Key: "demo", Params: map[string]string{}}, Document: &doc}
	for _, d := range plan.Decisions {
		item := d.Item
		if tally.Facet(d.Facet) == tally.Headings {
			item = text.Label(item)
		}
		change.Decisions = append(change.Decisions, app.NewDecision{Facet: tally.Facet(d.Facet), Item: item, State: d.State, Reason: d.Reason})
	}
	return change
}

func bringIn(ctx context.Context, a *app.App, review int64, kind, name string, records []*bib.Record) (*int64, error) {
	var file bytes.Buffer
	for _, r := range records {
		if err := ris.Write(&file, r); err != nil {
			return nil, err
		}
	}
	return bringFile(ctx, a, review, kind, name, &file)
}

// bringFile brings in a file and waits until it has been read.
func bringFile(ctx context.Context, a *app.App, review int64, kind, name string, file io.Reader) (*int64, error) {
	i, err := a.ImportFile(ctx, review, kind, name, false, file)
	for err == nil && i.State != "done" {
		if i.State == "failed" {
			return nil, fmt.Errorf("%s: %w", name, i.Error)
		}
		select {
		case <-ctx.Done():
			return nil, ctx.Err()
		case <-time.After(50 * time.Millisecond):
		}
		i, err = a.Import(ctx, i.ID)
	}
	return i.Sample, err
}

// Package scenario lays out the demo review in an empty database, by the ways that people take: months of work on one
// question in a minute.
package scenario

import (
	"bytes"
	"context"
	"maps"
	"slices"
	"time"

	"tamiz/app"
	"tamiz/app/desk"
	"tamiz/app/draws"
	"tamiz/app/reviews"
	"tamiz/app/runs"
	"tamiz/app/vocabularies"
	"tamiz/core/thesaurus"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/exchange/skos"
	"tamiz/source"
	"tamiz/source/standin"
	"tamiz/store"
)

// A World is the invented literature, and where its sources listen.
type World struct {
	Literature  *demo.Literature
	Collections []*standin.Collection
	Address     func(*standin.Collection) string
}

// A scene is the demo review while it is laid out.
type scene struct {
	app     *app.App
	db      *store.Store
	world   World
	plan    demo.Review
	review  int64
	sources map[string]int64 // by their names
	arrive  func()           // lets the works come that are not there yet
}

func (sc *scene) almagre() int64 { return sc.sources["almagre"] }

func (sc *scene) all() []int64 { return slices.Sorted(maps.Values(sc.sources)) }

// Play lays out the demo review. Where there are reviews already, only the sources are made known.
func Play(ctx context.Context, a *app.App, db *store.Store, world World) error {
	sc := &scene{app: a, db: db, world: world, plan: demo.NewReview(), sources: map[string]int64{}}
	if err := sc.makeKnown(ctx); err != nil {
		return err
	}
	if there, err := a.Reviews.Reviews(ctx); err != nil || len(there) > 0 {
		return err
	}
	for _, act := range []func(context.Context) error{
		sc.begin, sc.bringFiles, sc.addVocabulary, sc.drawSamples, sc.work, sc.shelve, sc.settle,
		sc.tell, sc.searchAgain, sc.check, sc.watch, sc.runEverywhere, sc.follow, sc.forget,
	} {
		if err := act(ctx); err != nil {
			return err
		}
	}
	return nil
}

// begin makes two reviews, of which one stays empty.
func (sc *scene) begin(ctx context.Context) error {
	const empty = "An empty review, to begin from nothing"
	if _, err := sc.app.Reviews.CreateReview(ctx, reviews.NewReview{Name: empty}); err != nil {
		return err
	}
	r, err := sc.app.Reviews.CreateReview(ctx, reviews.NewReview{Name: sc.plan.Name})
	if err == nil {
		sc.review = r.ID
	}
	return err
}

// bringFiles brings in the key studies and the vocabulary of the review.
func (sc *scene) bringFiles(ctx context.Context) error {
	var keys, headings bytes.Buffer
	for _, r := range sc.world.Literature.Keys {
		if err := ris.Write(&keys, r); err != nil {
			return err
		}
	}
	if _, err := sc.bringFile(ctx, "keys", "key studies.ris", &keys); err != nil {
		return err
	}
	if err := skos.Write(&headings, demo.Headings()); err != nil {
		return err
	}
	_, err := sc.bringFile(ctx, "vocabulary", "Almagre Headings.nt", &headings)
	return err
}

// addVocabulary adds the other vocabulary, which belongs to the program alone until a review goes by it.
func (sc *scene) addVocabulary(ctx context.Context) error {
	surco, _ := thesaurus.Build(demo.SurcoTerms(), "") // that it has no troubles is a test of the vocabulary
	body, err := vocabularies.Pack(surco)
	if err != nil {
		return err
	}
	_, err = vocabularies.NewRows(sc.db).Add(ctx, "Surco Thesaurus", surco, body)
	return err
}

// drawSamples draws the samples, and looks at them. The key studies are looked up where counts are shown.
func (sc *scene) drawSamples(ctx context.Context) error {
	almagre := sc.almagre()
	view := desk.NewLook{Rest: true, Source: &almagre}
	for _, sample := range sc.plan.Samples {
		id, err := sc.drawSample(ctx, draws.NewDraw{
			Name:     sample.Name,
			Sources:  []int64{sc.sources[sample.Source]},
			Concepts: roughConcepts(sample.Words),
			How:      source.How(sample.How),
			AtMost:   sample.AtMost,
			Seed:     demo.Seed % 1000,
		})
		if err != nil {
			return err
		}
		switch sample.Use {
		case "sample":
			view.Sample = id
		case "contrast":
			view.Against = id
		}
	}
	_, err := sc.app.Desk.MakeLook(ctx, sc.review, view)
	return err
}

// work changes the strategy in some stages, and runs it at all sources after each. Some works are not there yet.
func (sc *scene) work(ctx context.Context) error {
	var err error
	if sc.arrive, err = sc.notYet(); err != nil {
		return err
	}
	for _, stage := range sc.plan.Stages {
		now, err := sc.app.Reviews.Review(ctx, sc.review)
		if err != nil {
			return err
		}
		if _, err := sc.app.Reviews.Change(ctx, sc.review, now.Revision, sc.change(stage, now.Document)); err != nil {
			return err
		}
		kept := reviews.VersionEdit{Name: stage.Name, Note: stage.Note}
		if err := sc.app.Reviews.Keep(ctx, sc.review, kept); err != nil {
			return err
		}
		if err := sc.app.Runs.Run(ctx, sc.review, runs.NewRuns{Sources: sc.all()}); err != nil {
			return err
		}
		if err := sc.fetched(ctx, sc.all()); err != nil {
			return err
		}
		if err := sc.moveBack(ctx, stage.Days); err != nil {
			return err
		}
	}
	return nil
}

// settle waits until the key studies were looked up and the terms counted.
func (sc *scene) settle(ctx context.Context) error {
	if err := until(ctx, func() (bool, error) {
		list, err := sc.app.Holdings.Holdings(ctx, sc.review)
		return len(list) == len(sc.world.Literature.Keys)*len(sc.sources), err
	}); err != nil {
		return err
	}
	return until(ctx, func() (bool, error) {
		counts, err := sc.app.Sources.Counts(ctx, desk.At{Review: sc.review}, false)
		return err == nil && (counts.Waiting == 0 || counts.Problem != nil), err
	})
}

// tell has somebody be told by mail of what is new.
func (sc *scene) tell(ctx context.Context) error {
	return sc.app.Alerts.TellTo(ctx, sc.review, demo.ToldAddress)
}

// searchAgain runs the search again twice, by itself and by hand. Some works come between.
func (sc *scene) searchAgain(ctx context.Context) error {
	for n := range 2 {
		if err := sc.runAgain(ctx); err != nil {
			return err
		}
		if err := sc.byHand(ctx, n); err != nil {
			return err
		}
		if n > 0 {
			break
		}
		if err := sc.moveBack(ctx, demo.DaysToNextRun); err != nil {
			return err
		}
		sc.arrive()
	}
	return sc.moveBack(ctx, demo.DaysToCheck)
}

// check has a version be checked by a colleague.
func (sc *scene) check(ctx context.Context) error {
	if err := sc.handOver(ctx); err != nil {
		return err
	}
	return sc.moveBack(ctx, demo.DaysToRounds)
}

// watch says when the search is run again by itself.
func (sc *scene) watch(ctx context.Context) error {
	next := time.Now().AddDate(0, 1, -demo.DaysToCheck-demo.DaysToRounds)
	return sc.monthly(ctx, next)
}

// monthly has the search be run again by itself every month, from a day on.
func (sc *scene) monthly(ctx context.Context, next time.Time) error {
	w := runs.Watch{On: true, Sources: []int64{sc.almagre()}, Every: "month", Next: &next}
	return sc.app.Runs.SetWatch(ctx, sc.review, w)
}

// moveBack makes all that was done so far earlier by some days.
func (sc *scene) moveBack(ctx context.Context, days int) error {
	return app.MoveBack(ctx, sc.db, sc.review, days)
}

// forget makes what the review is now its beginning: nothing of all this can be undone.
func (sc *scene) forget(ctx context.Context) error {
	return reviews.NewRows(sc.db).ForgetChanges(ctx, sc.review)
}

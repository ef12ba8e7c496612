// Package app is what a person can do with Tamiz: one file for each screen's use cases. It brings
// together the store and the core, and holds no state that another process could not rebuild.
package app

import (
	"context"
	"log/slog"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverpgxv5"

	"tamiz/source/sru"
	"tamiz/store"
)

// An App is the application on a database.
type App struct {
	store   *store.Store
	pools   *pools
	jobs    *river.Client[pgx.Tx]
	kinds   map[string]kind // of tasks
	heavy   *turns          // requests that take a while
	quick   *turns          // and those that take a moment
	sources *sru.Settings
	news    *news
	now     func() time.Time
	log     *slog.Logger
}

// New returns the application; guard says which private addresses may be asked as sources. Start has to be
// called before files can be brought in.
func New(s *store.Store, guard sru.Guard, log *slog.Logger) (*App, error) {
	a := &App{store: s, pools: newPools(s), heavy: newTurns(cores()), quick: newTurns(2 * cores()), news: newNews(), now: time.Now, log: log, sources: &sru.Settings{Guard: guard}}
	a.kinds = a.kindsOfTasks()
	workers := river.NewWorkers()
	river.AddWorker(workers, &taskWorker{app: a})
	queues := map[string]river.QueueConfig{}
	for name, k := range a.kinds {
		queues[name] = river.QueueConfig{MaxWorkers: k.workers}
	}
	var err error
	a.jobs, err = river.NewClient(riverpgxv5.New(s.Jobs()), &river.Config{
		Queues:               queues,
		Workers:              workers,
		JobTimeout:           drawTime,
		RescueStuckJobsAfter: drawTime + time.Minute, // tasks are taken over long before: see sweepTasks
		FetchPollInterval:    500 * time.Millisecond,
		FetchCooldown:        100 * time.Millisecond,
		Logger:               slog.New(slog.DiscardHandler),
	})
	return a, err
}

// Start begins to work on tasks and to pass on news, until the context ends.
func (a *App) Start(ctx context.Context) error {
	go a.news.listen(ctx, a.store, a.log)
	if err := a.jobs.Start(ctx); err != nil {
		return err
	}
	go a.sweepTasks(ctx)
	return nil
}

// Stop lets running jobs end; those that do not are taken up again later.
func (a *App) Stop(ctx context.Context) error { return a.jobs.StopAndCancel(ctx) }

// Health tells whether the database answers.
func (a *App) Health(ctx context.Context) (Health, error) {
	if err := a.store.Ping(ctx); err != nil {
		return Health{Status: "waiting", Database: "unreachable"}, err
	}
	return Health{Status: "ok", Database: "ok"}, nil
}

// Health is whether the program and its database answer.
type Health struct {
	Status   string `json:"status"`
	Database string `json:"database"`
}

func (a *App) kindsOfTasks() map[string]kind {
	return map[string]kind{
		"import":  {workers: 4, most: store.Most{OfReview: 2}, time: importTime, work: a.readImport, stop: a.dropImport, fail: a.failImport},
		"draw":    {workers: 24, most: store.Most{OfSource: 3, OfReview: 8}, time: drawTime, work: a.fetch, stop: a.stopDrawn, fail: a.failDraw},
		"count":   {workers: 8, most: store.Most{OfSource: 3}, time: time.Hour, work: a.countAll, fail: a.failCounts},
		"holding": {workers: 6, time: time.Hour, work: a.findHoldings, fail: a.failHoldings},
	}
}

// Package app is what a person can do with Tamiz: one file for each screen's use cases. It brings
// together the store and the core, and holds no state that another process could not rebuild.
package app

import (
	"context"
	"errors"
	"log/slog"
	"sync"
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
	sources *sru.Settings
	news    *news
	now     func() time.Time
	log     *slog.Logger

	countMu       sync.Mutex
	countTroubles map[int64]*Problem // why counting at a source ended early, by review
	queued        map[string]bool    // jobs that wait to be begun
}

// New returns the application; guard says which private addresses may be asked as sources. Start has to be
// called before files can be brought in.
func New(s *store.Store, guard sru.Guard, log *slog.Logger) (*App, error) {
	a := &App{store: s, pools: newPools(s), news: newNews(), now: time.Now, log: log, sources: &sru.Settings{Guard: guard}, countTroubles: map[int64]*Problem{}, queued: map[string]bool{}}
	workers := river.NewWorkers()
	river.AddWorker(workers, &importWorker{app: a})
	river.AddWorker(workers, &drawWorker{app: a})
	river.AddWorker(workers, &countWorker{app: a})
	river.AddWorker(workers, &holdingWorker{app: a})
	var err error
	a.jobs, err = river.NewClient(riverpgxv5.New(s.Pool), &river.Config{
		Queues:               map[string]river.QueueConfig{river.QueueDefault: {MaxWorkers: maxJobs}},
		Workers:              workers,
		JobTimeout:           importTime,
		RescueStuckJobsAfter: importTime + time.Minute,
		FetchPollInterval:    500 * time.Millisecond,
		FetchCooldown:        100 * time.Millisecond,
		Logger:               slog.New(slog.DiscardHandler),
	})
	return a, err
}

// maxJobs is how many jobs one process works on at once.
const maxJobs = 6

// orphans is how often draws are looked for whose process died.
const orphans = 15 * time.Second

// Start begins to work on jobs and to pass on news, until the context ends. Draws that were cut off are
// gone on with.
func (a *App) Start(ctx context.Context) error {
	go a.news.listen(ctx, a.store, a.log)
	if err := a.jobs.Start(ctx); err != nil {
		return err
	}
	a.goOnWith(ctx)
	go func() {
		tick := time.NewTicker(orphans)
		defer tick.Stop()
		for {
			select {
			case <-ctx.Done():
				return
			case <-tick.C:
				a.goOnWith(ctx)
			}
		}
	}()
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

// gone turns a missing row into a problem that says what is missing.
func gone(err error, what string) error {
	if errors.Is(err, store.ErrNone) {
		return &Problem{Type: what + "-gone", Status: 404, Title: "This " + what + " is not there, or was deleted."}
	}
	return err
}

// queue inserts a job unless one like it waits already in this process. A job calls begun when it begins:
// what is asked for from then on is another job's.
func (a *App) queue(ctx context.Context, name string, args river.JobArgs) error {
	a.countMu.Lock()
	waits := a.queued[name]
	a.queued[name] = true
	a.countMu.Unlock()
	if waits {
		return nil
	}
	_, err := a.jobs.Insert(ctx, args, nil)
	if err != nil {
		a.begun(name)
	}
	return err
}

func (a *App) begun(name string) {
	a.countMu.Lock()
	defer a.countMu.Unlock()
	delete(a.queued, name)
}

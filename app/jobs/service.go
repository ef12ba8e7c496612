// Package jobs is what goes on beside what people do: tasks, done by whichever process comes to them, and news of what
// happened, passed on to all who look on.
package jobs

import (
	"context"
	"log/slog"
	"time"

	"github.com/jackc/pgx/v5"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/riverdriver/riverpgxv5"

	"tamiz/store"
)

// A Service does tasks and passes on news.
type Service struct {
	store *store.Store
	rows  ownRows
	jobs  *river.Client[pgx.Tx]
	kinds map[string]Kind // of tasks
	hub   *hub
	log   *slog.Logger
}

// New returns the work of a database. Tasks can be asked for once their kinds are known.
func New(s *store.Store, log *slog.Logger) *Service {
	return &Service{store: s, rows: NewRows(s), hub: newHub(), log: log}
}

// Know makes the kinds of task known, by their names.
func (a *Service) Know(kinds map[string]Kind) error {
	a.kinds = kinds
	workers := river.NewWorkers()
	river.AddWorker(workers, &taskWorker{work: a})
	queues := map[string]river.QueueConfig{}
	longest := time.Duration(0)
	for name, k := range kinds {
		queues[name] = river.QueueConfig{MaxWorkers: k.Workers}
		longest = max(longest, k.Time)
	}
	var err error
	a.jobs, err = river.NewClient(riverpgxv5.New(a.store.Jobs()), &river.Config{
		Queues:               queues,
		Workers:              workers,
		JobTimeout:           longest,
		RescueStuckJobsAfter: longest + time.Minute, // tasks are taken over long before: see sweepTasks
		FetchPollInterval:    500 * time.Millisecond,
		FetchCooldown:        100 * time.Millisecond,
		Logger:               slog.New(slog.DiscardHandler),
	})
	return err
}

// Start begins to work on tasks and to pass on news, until the context ends.
func (a *Service) Start(ctx context.Context) error {
	go a.hub.listen(ctx, a.store, a.log)
	if err := a.jobs.Start(ctx); err != nil {
		return err
	}
	go a.sweepTasks(ctx)
	return nil
}

// Stop lets running jobs end; those that do not are taken up again later.
func (a *Service) Stop(ctx context.Context) error { return a.jobs.StopAndCancel(ctx) }

// Every does something again and again beside what people do, until the context ends. What could not be done is
// logged, and done the next time; it has as long as the time between.
func (a *Service) Every(ctx context.Context, what string, period time.Duration, do func(context.Context) error) {
	go func() {
		tick := time.NewTicker(period)
		defer tick.Stop()
		for {
			doing, done := context.WithTimeout(ctx, period)
			if err := do(doing); err != nil && ctx.Err() == nil && !store.Unreachable(err) {
				a.log.Warn(what+" not looked after", "error", err)
			}
			done()
			select {
			case <-ctx.Done():
				return
			case <-tick.C:
			}
		}
	}()
}

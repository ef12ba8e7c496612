package jobs

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"runtime/debug"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"
	"github.com/riverqueue/river"
	"github.com/riverqueue/river/rivertype"

	"tamiz/app/problems"
	"tamiz/store"
)

// A kind of task: each has a queue of its own, so that none keeps another waiting.
type Kind struct {
	Workers int // tasks of the kind that one process is at
	Most    Most
	Time    time.Duration // that one may take
	Work    func(context.Context, Task) error
	Stop    func(context.Context, Task) error                    // brings what was stopped to rest
	Fail    func(context.Context, Task, *problems.Problem) error // keeps why it came to nothing
}

const (
	beat      = time.Second     // how often who is at a task says so, and hears whether to stop
	sweep     = 2 * time.Second // how often tasks are looked for whose process died
	turn      = time.Second     // how often a task that waits for others asks for its turn
	manyTimes = 1 << 14         // attempts: a database that is away comes back some time
)

// taskArgs name a task, and which asking or taking over of it this is.
type taskArgs struct {
	Name  string `json:"name"`
	Asked int64  `json:"asked"`
	Take  int    `json:"take"`
}

func (taskArgs) Kind() string { return "task" }

func (taskArgs) InsertOpts() river.InsertOpts {
	return river.InsertOpts{
		MaxAttempts: manyTimes,
		UniqueOpts: river.UniqueOpts{ByArgs: true, ByState: []rivertype.JobState{
			rivertype.JobStateAvailable, rivertype.JobStatePending, rivertype.JobStateRunning, rivertype.JobStateRetryable,
			rivertype.JobStateScheduled}},
	}
}

// Wake has someone look at a task that was just asked for.
func (a *Service) Wake(ctx context.Context, tx pgx.Tx, t Task) error {
	if !t.Fresh {
		return nil // whoever is at it or waits to be sees that it is asked for again
	}
	_, err := a.jobs.InsertTx(ctx, tx, taskArgs{t.Name, t.Asked, t.Takes}, &river.InsertOpts{Queue: t.Kind})
	return err
}

// Ask has a task be done (again).
func (a *Service) Ask(ctx context.Context, t Task) error {
	return a.rows.Ask(ctx, t, a.Wake)
}

type taskWorker struct {
	river.WorkerDefaults[taskArgs]
	work *Service
}

// Timeout implements river.Worker.
func (w *taskWorker) Timeout(job *river.Job[taskArgs]) time.Duration {
	return w.work.kinds[job.Queue].Time
}

// NextRetry implements river.Worker: what failed because the database was away is soon tried again.
func (w *taskWorker) NextRetry(job *river.Job[taskArgs]) time.Time {
	return time.Now().Add(time.Duration(min(job.Attempt, 5)) * 2 * time.Second)
}

// Work does a task until all that was asked of it is done.
func (w *taskWorker) Work(ctx context.Context, job *river.Job[taskArgs]) error {
	k := w.work.kinds[job.Queue]
	for {
		holder := uuid.New()
		t, err := w.work.rows.Claim(ctx, job.Args.Name, holder, k.Most)
		switch {
		case errors.Is(err, store.ErrNone):
			return nil
		case err != nil:
			return err
		case t.Waits != "":
			return river.JobSnooze(turn)
		}
		again, err := w.work.perform(ctx, k, t, holder)
		if err != nil || !again {
			return err
		}
	}
}

// errStopped ends work that someone asked to stop.
var errStopped = errors.New("stopped")

// perform does a task that was claimed. It returns an error only where the task is to be tried again later.
func (a *Service) perform(ctx context.Context, k Kind, t Task, holder uuid.UUID) (again bool, err error) {
	ctx = store.By(ctx, store.Author{Name: t.Who, Self: t.Author})
	working, cancel := context.WithCancelCause(ctx)
	defer cancel(nil)
	go a.beats(working, t, holder, cancel)
	err = guarded(store.Fenced(working, HeldBy(t.Name, holder)), k.Work, t)
	// What follows has its own time: the work may have ended because it was out of it.
	ending, done := context.WithTimeout(context.WithoutCancel(ctx), time.Minute)
	defer done()
	fenced := store.Fenced(ending, HeldBy(t.Name, holder))
	cause := context.Cause(working)
	if errors.Is(err, store.ErrTakenOver) {
		return false, nil
	}
	if err != nil && cause == nil {
		if _, beaten := a.rows.Beat(ending, t.Name, holder); errors.Is(beaten, store.ErrTakenOver) {
			cause = beaten
		}
	}
	switch {
	case errors.Is(cause, store.ErrTakenOver):
		return false, nil
	case errors.Is(cause, errStopped) && k.Stop != nil:
		err = k.Stop(fenced, t)
	case ctx.Err() != nil && !errors.Is(ctx.Err(), context.DeadlineExceeded), err != nil && passing(err):
		return false, errors.Join(err, a.rows.Leave(ending, t.Name, holder))
	}
	var problem json.RawMessage
	if err != nil {
		p := a.problemOf(t, err)
		if err := k.Fail(fenced, t, p); err != nil {
			return false, err
		}
		if problem, err = json.Marshal(p); err != nil {
			return false, err
		}
	}
	return a.rows.End(ending, t, holder, problem)
}

// passing reports whether an error may be gone later. A full disk is not: whoever waits is told.
func passing(err error) bool { return !store.Full(err) && (store.Unreachable(err) || store.Busy(err)) }

// problemOf says why a task came to nothing, and logs what people cannot mend.
func (a *Service) problemOf(t Task, err error) *problems.Problem {
	var p *problems.Problem
	if errors.As(err, &p) {
		a.log.Info("task came to nothing", "task", t.Name, "review", t.Review, "source", t.Source, "why", p.Title)
		return p
	}
	a.log.Error("task failed", "task", t.Name, "review", t.Review, "source", t.Source, "error", err)
	if errors.Is(err, context.DeadlineExceeded) {
		return &problems.Problem{Type: "too-long", Status: 422, Title: "This took too long and was given up."}
	}
	if store.Full(err) {
		return problems.DiskFull()
	}
	return &problems.Problem{
		Type:   "internal",
		Status: 500,
		Title:  "Something went wrong in Tamiz itself. What was there before is untouched.",
	}
}

// guarded turns a panic into an error: it would otherwise be taken up again for ever.
func guarded(ctx context.Context, work func(context.Context, Task) error, t Task) (err error) {
	defer func() {
		if r := recover(); r != nil {
			err = fmt.Errorf("panic: %v\n%s", r, debug.Stack())
		}
	}()
	return work(ctx, t)
}

// beats says every second that a process is at a task, until the context ends; it ends the work where it is to
// stop, or where another has taken over.
func (a *Service) beats(ctx context.Context, t Task, holder uuid.UUID, cancel context.CancelCauseFunc) {
	tick := time.NewTicker(beat)
	defer tick.Stop()
	last := time.Now()
	for {
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
		asking, done := context.WithTimeout(ctx, Silent/2)
		stop, err := a.rows.Beat(asking, t.Name, holder)
		done()
		switch {
		case errors.Is(err, store.ErrTakenOver):
			cancel(err)
		case err == nil && stop:
			cancel(errStopped)
		case err == nil:
			last = time.Now()
		case time.Since(last) > Silent:
			cancel(store.ErrTakenOver) // by now another is free to
		}
	}
}

// StopTask stops a task within two seconds, whoever is at it, or brings it to rest itself where nobody is.
func (a *Service) StopTask(ctx context.Context, t Task) error {
	for {
		running, err := a.rows.Stop(ctx, t.Name)
		if err != nil || running {
			return err
		}
		holder := uuid.New()
		claimed, err := a.rows.Claim(ctx, t.Name, holder, Most{})
		if errors.Is(err, store.ErrNone) {
			now, err := a.rows.Task(ctx, t.Name)
			if errors.Is(err, store.ErrNone) || err == nil && !now.Wanted {
				return nil
			}
			if err != nil {
				return err
			}
			continue // someone began meanwhile
		}
		if err != nil {
			return err
		}
		stopping := store.Fenced(
			store.By(ctx, store.Author{Name: claimed.Who, Self: claimed.Author}),
			HeldBy(claimed.Name, holder),
		)
		if err := a.kinds[t.Kind].Stop(stopping, claimed); err != nil {
			return err
		}
		_, err = a.rows.End(ctx, claimed, holder, nil)
		return err
	}
}

// sweepTasks has tasks be taken over whose process died, until the context ends.
func (a *Service) sweepTasks(ctx context.Context) {
	tick := time.NewTicker(sweep)
	defer tick.Stop()
	for {
		orphans, err := a.rows.Orphans(ctx)
		for _, t := range orphans {
			if err == nil {
				_, err = a.jobs.Insert(ctx, taskArgs{t.Name, t.Asked, t.Takes}, &river.InsertOpts{Queue: t.Kind})
			}
		}
		if err != nil && ctx.Err() == nil && !store.Unreachable(err) {
			a.log.Warn("tasks not looked after", "error", err)
		}
		select {
		case <-ctx.Done():
			return
		case <-tick.C:
		}
	}
}

// Package app puts the rooms of the application together: what people can do with Tamiz is in them. It holds no rule
// and no SQL, and nothing that another process could not rebuild.
package app

import (
	"context"
	"log/slog"
	"time"

	"tamiz/app/alerts"
	"tamiz/app/desk"
	"tamiz/app/dialects"
	"tamiz/app/draws"
	"tamiz/app/figures"
	"tamiz/app/holdings"
	"tamiz/app/intake"
	"tamiz/app/jobs"
	"tamiz/app/peerreview"
	"tamiz/app/reviews"
	"tamiz/app/rounds"
	"tamiz/app/runs"
	"tamiz/app/sources"
	"tamiz/app/vocabularies"
	"tamiz/app/written"
	"tamiz/source/sru"
	"tamiz/store"
)

// An App is the application on a database: its rooms. Each uses those below it only: written and alerts stand on
// rounds, runs and figures, those on draws and holdings, those on sources, those on reviews and the desk, all on jobs.
type App struct {
	Figures      *figures.Service
	Intake       *intake.Service
	Sources      *sources.Service
	Draws        *draws.Service
	Holdings     *holdings.Service
	Runs         *runs.Service
	Rounds       *rounds.Service
	Reviews      *reviews.Service
	Desk         *desk.Service
	Jobs         *jobs.Service
	Vocabularies *vocabularies.Service
	Dialects     *dialects.Service
	PeerReview   *peerreview.Service
	Alerts       *alerts.Service
	Written      *written.Service
	store        *store.Store
}

// New returns the application; guard says which private addresses may be asked as sources, post by which server
// mail goes (none, where it is nil). Start has to be called before files can be brought in.
func New(s *store.Store, guard sru.Guard, post *alerts.Post, log *slog.Logger) (*App, error) {
	a := &App{Desk: desk.New(s), Jobs: jobs.New(s, log), store: s}
	a.Reviews = reviews.New(s, a.Desk, intake.NewRows(s))
	a.Vocabularies = vocabularies.New(s, a.Desk.Pools)
	a.Dialects = dialects.New(s)
	a.Figures = figures.New(s, a.Desk)
	a.PeerReview = peerreview.New(s, a.Figures)
	a.Sources = sources.New(s, a.Desk, a.Jobs, guard)
	a.Draws = draws.New(s, a.Sources, a.Jobs)
	a.Holdings = holdings.New(s, a.Reviews, a.Sources, a.Jobs)
	a.Runs = runs.New(s, a.Desk, a.Sources, a.Draws, a.Jobs)
	a.Rounds = rounds.New(s, a.Desk, a.Sources, a.Holdings, a.Jobs)
	a.Alerts = alerts.New(s, a.Runs, a.Jobs, post, log)
	a.Written = written.New(
		a.Reviews,
		a.Figures,
		a.Sources,
		a.Runs,
		a.Draws,
		a.Vocabularies,
		a.Dialects,
		a.PeerReview,
		a.Rounds,
		a.Desk,
	)
	a.Intake = intake.New(s, a.Jobs, log, a.Holdings.FindHoldings)
	return a, a.Jobs.Know(map[string]jobs.Kind{
		"import": {
			Workers: 4,
			Most:    jobs.Most{OfReview: 2},
			Time:    intake.ImportTime,
			Work:    a.Intake.ReadImport,
			Stop:    a.Intake.DropImport,
			Fail:    a.Intake.FailImport,
		},
		"draw": {
			Workers: 24,
			Most:    jobs.Most{OfSource: 3, OfReview: 8},
			Time:    draws.DrawTime,
			Work:    a.Draws.Fetch,
			Stop:    a.Draws.StopDrawn,
			Fail:    a.Draws.FailDraw,
		},
		"count": {
			Workers: 8,
			Most:    jobs.Most{OfSource: 3},
			Time:    time.Hour,
			Work:    a.Sources.CountAll,
			Fail:    a.Sources.FailCounts,
		},
		"run": {
			Workers: 12,
			Most:    jobs.Most{OfSource: 3},
			Time:    10 * time.Minute,
			Work:    a.Runs.RunAt,
			Fail:    a.Runs.FailRun,
		},
		"round": {
			Workers: 6,
			Most:    jobs.Most{OfReview: 1},
			Time:    rounds.RoundTime,
			Work:    a.Rounds.Make,
			Stop:    a.Rounds.Stopped,
			Fail:    a.Rounds.Failed,
		},
		"holding": {Workers: 6, Time: time.Hour, Work: a.Holdings.HoldingsFound, Fail: a.Holdings.FailHoldings},
	})
}

// Judge keeps what a person says of a record, and tells others who look on.
func (a *App) Judge(ctx context.Context, review, record int64, verdict string) error {
	err := a.Figures.Judge(ctx, review, record, verdict)
	if err == nil {
		a.Jobs.Tell(ctx, review, jobs.News{Kind: "judged"})
	}
	return err
}

// tidy is how often what was left behind is cleared away.
const tidy = time.Minute

// Start begins to work on tasks and to pass on news, until the context ends.
func (a *App) Start(ctx context.Context) error {
	if err := a.Jobs.Start(ctx); err != nil {
		return err
	}
	a.Jobs.Every(ctx, "searches that are due", runs.DueEvery, a.Runs.RunDue)
	a.Jobs.Every(ctx, "what is new", alerts.TellEvery, a.Alerts.Tell)
	a.Jobs.Every(ctx, "files left behind", tidy, a.Intake.Sweep)
	a.Jobs.Every(ctx, "requests of long ago", tidy, a.store.ForgetRequests)
	a.Jobs.Every(ctx, "mail", alerts.SendEvery, a.Alerts.Send)
	return nil
}

// Stop lets running jobs end; those that do not are taken up again later.
func (a *App) Stop(ctx context.Context) error { return a.Jobs.Stop(ctx) }

// AnswerOf returns what the request of a context was answered before, where it made something; else store.ErrNone.
func (a *App) AnswerOf(ctx context.Context) (store.Made, error) { return a.store.AnswerOf(ctx) }

// KeepAnswer keeps what the request of a context was answered, where it made something.
func (a *App) KeepAnswer(ctx context.Context, m store.Made) error { return a.store.KeepAnswer(ctx, m) }

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

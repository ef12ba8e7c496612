// Package peerreview is what people say to each other about a search: notes on anything, and a colleague's check of
// a version before it is run.
package peerreview

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"
	"time"
	"unicode/utf8"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/jobs"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/core/review"
	"tamiz/store"
)

const (
	mostChecks      = 100 // that are told of
	mostSuggestions = 500 // of one check
	longestWords    = 4000
)

// A Service keeps notes and checks.
type Service struct {
	store      *store.Store
	rows       ownRows
	documents  documentRows
	reviewRows headRows
	figures    *figures.Service
}

// New returns the notes and checks of a database.
func New(s *store.Store, f *figures.Service) *Service {
	return &Service{s, NewRows(s), desk.NewRows(s), reviews.NewRows(s), f}
}

// A Check is a version that was handed to a colleague, with what was said of it.
type Check struct {
	ID       int64      `json:"id"`
	Revision int        `json:"revision"`
	Name     string     `json:"name"` // of the version
	Checker  string     `json:"checker"`
	Note     string     `json:"note,omitempty"`
	Who      string     `json:"who,omitempty"`
	At       time.Time  `json:"at"`
	Done     *time.Time `json:"done,omitempty"`
	DoneBy   string     `json:"doneBy,omitempty"`
	// a finished one that does not count any more, and stays to be read
	Withdrawn   *time.Time   `json:"withdrawn,omitempty"`
	WithdrawnBy string       `json:"withdrawnBy,omitempty"`
	Answers     []Answer     `json:"answers"`
	Suggestions []Suggestion `json:"suggestions"`
}

// An Answer is what is said to one of the questions.
type Answer struct {
	Question string    `json:"question"`
	Verdict  string    `json:"verdict"` // fine, revise or suggest
	Words    string    `json:"words"`
	Who      string    `json:"who,omitempty"`
	At       time.Time `json:"at"`
}

// A Suggestion is what should be otherwise: in words, and where there are edits as a change that can be taken.
type Suggestion struct {
	ID        int64        `json:"id"`
	Line      string       `json:"line"`
	Words     string       `json:"words"`
	Edits     review.Edits `json:"edits,omitempty"`
	Says      string       `json:"says,omitempty"`
	State     string       `json:"state"` // open, taken or declined
	Who       string       `json:"who,omitempty"`
	At        time.Time    `json:"at"`
	DecidedBy string       `json:"decidedBy,omitempty"`
	Decided   *time.Time   `json:"decided,omitempty"`
}

// A NewCheck hands a version to somebody.
type NewCheck struct {
	Version int64  `json:"version"`
	Checker string `json:"checker"`
	Note    string `json:"note,omitempty"`
}

// Checks returns the checks of a review, the newest first.
func (a *Service) Checks(ctx context.Context, review int64) ([]Check, error) {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	list, err := a.rows.Checks(ctx, review, mostChecks)
	if err != nil {
		return nil, err
	}
	answers, err := a.rows.Answers(ctx, review)
	if err != nil {
		return nil, err
	}
	suggestions, err := a.rows.Suggestions(ctx, review)
	if err != nil {
		return nil, err
	}
	out := []Check{}
	for _, c := range list {
		row := Check{
			ID:          c.ID,
			Revision:    c.Revision,
			Name:        c.Name,
			Checker:     c.Checker,
			Note:        c.Note,
			Who:         c.Who,
			At:          c.At,
			Done:        c.Done,
			DoneBy:      c.DoneBy,
			Withdrawn:   c.Withdrawn,
			WithdrawnBy: c.WithdrawnBy,
			Answers:     []Answer{},
			Suggestions: []Suggestion{},
		}
		for _, q := range figures.Questions {
			for _, x := range answers {
				if x.Checked == c.ID && x.Question == q {
					row.Answers = append(row.Answers, Answer{x.Question, x.Verdict, x.Words, x.Who, x.At})
				}
			}
		}
		for _, x := range suggestions {
			if x.Checked != c.ID {
				continue
			}
			s := Suggestion{
				ID:        x.ID,
				Line:      x.Line,
				Words:     x.Words,
				Says:      x.Says,
				State:     x.State,
				Who:       x.Who,
				At:        x.At,
				DecidedBy: x.DecidedBy,
				Decided:   x.Decided,
			}
			if x.Edits != nil {
				if err := json.Unmarshal(x.Edits, &s.Edits); err != nil {
					return nil, fmt.Errorf("suggestion %d: %w", x.ID, err)
				}
			}
			row.Suggestions = append(row.Suggestions, s)
		}
		out = append(out, row)
	}
	return out, nil
}

// HandOver hands a version to a colleague.
func (a *Service) HandOver(ctx context.Context, review int64, n NewCheck) error {
	var err error
	if n.Checker, err = words("checker", n.Checker, 80, true); err != nil {
		return err
	}
	if n.Note, err = words("note", n.Note, longestWords, false); err != nil {
		return err
	}
	return a.work(ctx, review, "checks", func(ctx context.Context, w *store.Tx) error {
		v, err := reviews.VersionIn(ctx, w, n.Version)
		if err != nil {
			return problems.Gone(err, "version")
		}
		name := v.Name
		if name == "" {
			name = v.At.Format("2 Jan 2006, 15:04")
		}
		_, err = putCheck(ctx, w, CheckRow{Revision: v.Revision, Name: name, Checker: n.Checker, Note: n.Note})
		return err
	})
}

// Sheet returns the version that is checked, line by line, with what Tamiz itself found in it.
func (a *Service) Sheet(ctx context.Context, at desk.At, id int64) (*figures.CheckSheet, error) {
	c, err := a.rows.Check(ctx, at.Review, id)
	if err != nil {
		return nil, problems.Gone(err, "check")
	}
	saved, err := a.documents.Document(ctx, at.Review, c.Revision)
	if err != nil {
		return nil, problems.Gone(err, "revision")
	}
	doc, err := desk.Parse(saved.Body)
	if err != nil {
		return nil, err
	}
	return a.figures.CheckSheet(ctx, at, doc)
}

// Say keeps what a colleague says to a question, while the check goes on.
func (a *Service) Say(ctx context.Context, review, id int64, question string, x Answer) error {
	if !slices.Contains(figures.Questions, question) {
		return problems.Invalid("question", "There is no question %q in a check.", question)
	}
	if !slices.Contains([]string{"fine", "revise", "suggest"}, x.Verdict) {
		return problems.Invalid("verdict", "An answer is that it is fine, has to be revised, or that something is suggested.")
	}
	said, err := words("words", x.Words, longestWords, x.Verdict != "fine")
	if err != nil {
		return err
	}
	return a.open(ctx, review, id, func(ctx context.Context, w *store.Tx, _ CheckRow) error {
		return putAnswer(ctx, w, AnswerRow{Checked: id, Question: question, Verdict: x.Verdict, Words: said})
	})
}

// Suggest keeps what a colleague would have otherwise. Edits have to be of the version that is checked.
func (a *Service) Suggest(ctx context.Context, reviewID, id int64, x Suggestion) error {
	said, err := words("words", x.Words, longestWords, len(x.Edits) == 0)
	if err != nil {
		return err
	}
	if x.Line, err = words("line", x.Line, 2000, false); err != nil {
		return err
	}
	if x.Says, err = words("says", x.Says, 2000, false); err != nil {
		return err
	}
	return a.open(ctx, reviewID, id, func(ctx context.Context, w *store.Tx, c CheckRow) error {
		s := SuggestionRow{Checked: id, Line: x.Line, Words: said, Says: x.Says}
		if len(x.Edits) > 0 {
			_, doc, err := reviews.DocumentOf(ctx, w, c.Revision)
			if err != nil {
				return err
			}
			changed, idle := review.Apply(doc, x.Edits)
			if len(idle) > 0 {
				return problems.Invalid("edits", "What is suggested is of a line that this version does not have.")
			}
			if err := changed.Validate(); err != nil {
				return problems.Invalid("edits", "%s", problems.Sentence(err.Error()))
			}
			if s.Edits, err = json.Marshal(x.Edits); err != nil {
				return err
			}
		}
		many, err := putSuggestion(ctx, w, s)
		if err == nil && many > mostSuggestions {
			return problems.Invalid("words", "A check has at most %d suggestions. This one was not kept.", mostSuggestions)
		}
		return err
	})
}

// Decide says what became of a suggestion: the one who takes it makes its edits.
func (a *Service) Decide(ctx context.Context, review, id, suggestion int64, state string) error {
	if !slices.Contains([]string{"open", "taken", "declined"}, state) {
		return problems.Invalid("state", "A suggestion is open, taken or declined.")
	}
	return a.work(ctx, review, "checks", func(ctx context.Context, w *store.Tx) error {
		return problems.Gone(decideSuggestion(ctx, w, id, suggestion, state), "suggestion")
	})
}

// Finish says that a check is done, once each question has an answer; or that it goes on.
func (a *Service) Finish(ctx context.Context, review, id int64, done bool) error {
	if done {
		answers, err := a.rows.Answers(ctx, review)
		if err != nil {
			return err
		}
		left := slices.DeleteFunc(slices.Clone(figures.Questions), func(q string) bool {
			return slices.ContainsFunc(answers, func(x AnswerRow) bool { return x.Checked == id && x.Question == q })
		})
		if len(left) > 0 {
			return problems.Invalid("done", "%d of the %d questions are not answered yet.", len(left), len(figures.Questions))
		}
	}
	return a.work(ctx, review, "checks", func(ctx context.Context, w *store.Tx) error {
		return problems.Gone(finishCheck(ctx, w, id, done), "check")
	})
}

// By returns who answered a check or finished it, each once, in the order of the questions; "" where nobody says
// who they are.
func (c Check) By() string {
	var names []string
	add := func(who string) {
		if who != "" && !slices.Contains(names, who) {
			names = append(names, who)
		}
	}
	for _, x := range c.Answers {
		add(x.Who)
	}
	add(c.DoneBy)
	return strings.Join(names, " and ")
}

// Drop takes a check away, or puts it back; one that is finished is withdrawn, and stays to be read.
func (a *Service) Drop(ctx context.Context, review, id int64, gone bool) error {
	return a.work(ctx, review, "checks", func(ctx context.Context, w *store.Tx) error {
		return problems.Gone(dropCheck(ctx, w, id, gone), "check")
	})
}

func (a *Service) open(
	ctx context.Context,
	review, id int64,
	do func(context.Context, *store.Tx, CheckRow) error,
) error {
	return a.work(ctx, review, "checks", func(ctx context.Context, w *store.Tx) error {
		c, err := openCheck(ctx, w, id)
		if errors.Is(err, store.ErrNone) {
			return &problems.Problem{
				Type:   "check-closed",
				Status: 409,
				Title:  "This check is finished, or was taken away. Nothing was kept.",
			}
		}
		if err != nil {
			return err
		}
		return do(ctx, w, c)
	})
}

func (a *Service) work(
	ctx context.Context,
	review int64,
	news string,
	do func(context.Context, *store.Tx) error,
) error {
	return problems.Gone(a.store.InReview(ctx, review, func(ctx context.Context, w *store.Tx) error {
		if err := do(ctx, w); err != nil {
			return err
		}
		return w.Notify(ctx, jobs.News{Review: review, Kind: news}.String())
	}), "review")
}

// words returns what somebody wrote without what no database can hold, or says what is wrong with it.
func words(field, s string, most int, needed bool) (string, error) {
	s = strings.TrimSpace(store.Plain(s))
	if n := utf8.RuneCountInString(s); n > most {
		return "", problems.Invalid(field, "This text has %d characters; at most %d are kept.", n, most)
	}
	if needed && s == "" {
		return "", problems.Invalid(field, "A word has to be said here.")
	}
	return s, nil
}

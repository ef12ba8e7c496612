package store

import (
	"context"
	"time"
)

// A Check is a version that was handed to a colleague.
type Check struct {
	ID       int64
	Revision int
	Name     string
	Checker  string
	Note     string
	Who      string
	At       time.Time
	Done     *time.Time
	DoneBy   string // who finished it

	Withdrawn   *time.Time // a finished one, which stays to be read
	WithdrawnBy string
}

// An Answer is what a colleague says to one question of a check.
type Answer struct {
	Checked  int64
	Question string
	Verdict  string
	Words    string
	Who      string
	At       time.Time
}

// A Suggestion is what a colleague would have otherwise. Edits is JSON, nil where it is words alone.
type Suggestion struct {
	ID        int64
	Checked   int64
	Line      string
	Words     string
	Edits     []byte
	Says      string
	State     string
	Who       string
	At        time.Time
	DecidedBy string
	Decided   *time.Time
}

const checkColumns = "select id, revision, name, checker, note, who, at, done, done_by, withdrawn, withdrawn_by from review_check where review = $1 and not gone "

// Checks returns the checks of a review, the newest first, at most so many.
func (s *Store) Checks(ctx context.Context, review int64, most int) ([]Check, error) {
	return all[Check](ctx, s, checkColumns+"order by id desc limit $2", review, most)
}

// Check returns one.
func (s *Store) Check(ctx context.Context, review, id int64) (Check, error) {
	return one[Check](ctx, s, checkColumns+"and id = $2", review, id)
}

// Answers returns what was said in the checks of a review.
func (s *Store) Answers(ctx context.Context, review int64) ([]Answer, error) {
	return all[Answer](ctx, s, `select a.checked, a.question, a.verdict, a.words, a.who, a.at from check_answer a join review_check c on c.id = a.checked
		where c.review = $1 and not c.gone`, review)
}

// Suggestions returns what was suggested in the checks of a review, in the order it was.
func (s *Store) Suggestions(ctx context.Context, review int64) ([]Suggestion, error) {
	return all[Suggestion](ctx, s, `select g.id, g.checked, g.line, g.words, g.edits, g.says, g.state, g.who, g.at, g.decided_by, g.decided
		from check_suggestion g join review_check c on c.id = g.checked where c.review = $1 and not c.gone order by g.id`, review)
}

// PutCheck hands a version to somebody.
func (w *Tx) PutCheck(ctx context.Context, c Check) (id int64, err error) {
	err = w.tx.QueryRow(ctx, "insert into review_check (review, revision, name, checker, note, who) values ($1, $2, $3, $4, $5, $6) returning id",
		w.review, c.Revision, c.Name, c.Checker, c.Note, AuthorOf(ctx).Name).Scan(&id)
	return id, err
}

// OpenCheck returns a check that is not finished, and keeps it from being finished until the work is done.
func (w *Tx) OpenCheck(ctx context.Context, id int64) (Check, error) {
	return one[Check](ctx, w.tx, checkColumns+"and id = $2 and done is null for update", w.review, id)
}

// FinishCheck says that a check is finished, or that it goes on.
func (w *Tx) FinishCheck(ctx context.Context, id int64, done bool) error {
	return touched(w.tx.Exec(ctx, `update review_check set done = case when $3 then coalesce(done, now()) end, done_by = case when $3 then $4 else '' end, withdrawn = null, withdrawn_by = ''
		where review = $1 and id = $2 and not gone`, w.review, id, done, AuthorOf(ctx).Name))
}

// DropCheck takes a check away, or puts it back. One that is finished is withdrawn, and stays to be read.
func (w *Tx) DropCheck(ctx context.Context, id int64, gone bool) error {
	return touched(w.tx.Exec(ctx, `update review_check set gone = $3 and done is null,
		withdrawn = case when $3 and done is not null then now() end, withdrawn_by = case when $3 and done is not null then $4 else '' end
		where review = $1 and id = $2`, w.review, id, gone, AuthorOf(ctx).Name))
}

// PutAnswer keeps what is said to a question: the last counts.
func (w *Tx) PutAnswer(ctx context.Context, a Answer) error {
	_, err := w.tx.Exec(ctx, `insert into check_answer (checked, question, verdict, words, who) values ($1, $2, $3, $4, $5)
		on conflict (checked, question) do update set verdict = excluded.verdict, words = excluded.words, who = excluded.who, at = now()`,
		a.Checked, a.Question, a.Verdict, a.Words, AuthorOf(ctx).Name)
	return err
}

// PutSuggestion keeps what is suggested, and says how many there are of the check now.
func (w *Tx) PutSuggestion(ctx context.Context, s Suggestion) (many int, err error) {
	_, err = w.tx.Exec(ctx, "insert into check_suggestion (checked, line, words, edits, says, who) values ($1, $2, $3, $4, $5, $6)",
		s.Checked, s.Line, s.Words, s.Edits, s.Says, AuthorOf(ctx).Name)
	if err != nil {
		return 0, err
	}
	err = w.tx.QueryRow(ctx, "select count(*) from check_suggestion where checked = $1", s.Checked).Scan(&many)
	return many, err
}

// DecideSuggestion says what became of a suggestion.
func (w *Tx) DecideSuggestion(ctx context.Context, check, id int64, state string) error {
	return touched(w.tx.Exec(ctx, `update check_suggestion g set state = $4, decided_by = case when $4 = 'open' then '' else $5 end, decided = case when $4 = 'open' then null else now() end
		from review_check c where g.id = $3 and g.checked = $2 and c.id = g.checked and c.review = $1 and not c.gone`, w.review, check, id, state, AuthorOf(ctx).Name))
}

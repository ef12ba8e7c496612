package peerreview

import (
	"context"
	_ "embed"
	"time"

	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the peer reviews and comments of a database.
type Rows struct{ db *store.Store }

// NewRows returns the peer reviews and comments of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// A CheckRow is a version that was handed to a colleague.
type CheckRow struct {
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

// An AnswerRow is what a colleague says to one question of a check.
type AnswerRow struct {
	Checked  int64
	Question string
	Verdict  string
	Words    string
	Who      string
	At       time.Time
}

// A SuggestionRow is what a colleague would have otherwise. Edits is JSON, nil where it is words alone.
type SuggestionRow struct {
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

// Checks returns the checks of a review, the newest first, at most so many.
func (r *Rows) Checks(ctx context.Context, review int64, most int) ([]CheckRow, error) {
	return store.All[CheckRow](ctx, r.db, sql["Checks"], review, most)
}

// Check returns one.
func (r *Rows) Check(ctx context.Context, review, id int64) (CheckRow, error) {
	return store.One[CheckRow](ctx, r.db, sql["Check"], review, id)
}

// Answers returns what was said in the checks of a review.
func (r *Rows) Answers(ctx context.Context, review int64) ([]AnswerRow, error) {
	return store.All[AnswerRow](ctx, r.db, sql["Answers"], review)
}

// Suggestions returns what was suggested in the checks of a review, in the order it was.
func (r *Rows) Suggestions(ctx context.Context, review int64) ([]SuggestionRow, error) {
	return store.All[SuggestionRow](ctx, r.db, sql["Suggestions"], review)
}

// putCheck hands a version to somebody.
func putCheck(ctx context.Context, tx *store.Tx, c CheckRow) (id int64, err error) {
	err = tx.QueryRow(ctx, sql["putCheck"],
		tx.Review, c.Revision, c.Name, c.Checker, c.Note, store.AuthorOf(ctx).Name).Scan(&id)
	return id, err
}

// openCheck returns a check that is not finished, and keeps it from being finished until the work is done.
func openCheck(ctx context.Context, tx *store.Tx, id int64) (CheckRow, error) {
	return store.One[CheckRow](ctx, tx, sql["openCheck"], tx.Review, id)
}

// finishCheck says that a check is finished, or that it goes on.
func finishCheck(ctx context.Context, tx *store.Tx, id int64, done bool) error {
	return store.Touched(tx.Exec(ctx, sql["finishCheck"], tx.Review, id, done, store.AuthorOf(ctx).Name))
}

// dropCheck takes a check away, or puts it back. One that is finished is withdrawn, and stays to be read.
func dropCheck(ctx context.Context, tx *store.Tx, id int64, gone bool) error {
	return store.Touched(tx.Exec(ctx, sql["dropCheck"], tx.Review, id, gone, store.AuthorOf(ctx).Name))
}

// putAnswer keeps what is said to a question: the last counts.
func putAnswer(ctx context.Context, tx *store.Tx, a AnswerRow) error {
	_, err := tx.Exec(ctx, sql["putAnswer"],
		a.Checked, a.Question, a.Verdict, a.Words, store.AuthorOf(ctx).Name)
	return err
}

// putSuggestion keeps what is suggested, and says how many there are of the check now.
func putSuggestion(ctx context.Context, tx *store.Tx, s SuggestionRow) (many int, err error) {
	_, err = tx.Exec(ctx, sql["putSuggestion insert check_suggestion"],
		s.Checked, s.Line, s.Words, s.Edits, s.Says, store.AuthorOf(ctx).Name)
	if err != nil {
		return 0, err
	}
	err = tx.QueryRow(ctx, sql["putSuggestion select check_suggestion"], s.Checked).Scan(&many)
	return many, err
}

// decideSuggestion says what became of a suggestion.
func decideSuggestion(ctx context.Context, tx *store.Tx, check, id int64, state string) error {
	return store.Touched(tx.Exec(ctx, sql["decideSuggestion"], tx.Review, check, id, state, store.AuthorOf(ctx).Name))
}

// A NoteRow is what somebody noted on something of a review.
type NoteRow struct {
	ID        int64
	Kind      string // what it is on
	About     string // its id
	Name      string // what it was called
	Words     string
	Who       string
	At        time.Time
	Settled   *time.Time
	SettledBy string
}

// Notes returns the notes of a review, the newest first, at most so many.
func (r *Rows) Notes(ctx context.Context, review int64, most int) ([]NoteRow, error) {
	return store.All[NoteRow](ctx, r.db, sql["Notes"], review, most)
}

// putNote keeps a note, and says how many there are now.
func putNote(ctx context.Context, tx *store.Tx, n NoteRow) (many int, err error) {
	_, err = tx.Exec(
		ctx,
		sql["putNote insert note"],
		tx.Review,
		n.Kind,
		n.About,
		n.Name,
		n.Words,
		store.AuthorOf(ctx).Name,
	)
	if err != nil {
		return 0, err
	}
	err = tx.QueryRow(ctx, sql["putNote select note"], tx.Review).Scan(&many)
	return many, err
}

// settleNote says that a note is settled, or open again.
func settleNote(ctx context.Context, tx *store.Tx, id int64, settled bool) error {
	return store.Touched(tx.Exec(ctx, sql["settleNote"], tx.Review, id, settled, store.AuthorOf(ctx).Name))
}

// dropNote takes a note away, or puts it back.
func dropNote(ctx context.Context, tx *store.Tx, id int64, gone bool) error {
	return store.Touched(tx.Exec(ctx, sql["dropNote"], tx.Review, id, gone))
}

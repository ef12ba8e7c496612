package peerreview

import (
	"context"
	"slices"
	"time"

	"tamiz/app/problems"
	"tamiz/store"
)

const mostNotes = 2000 // of a review

// noted are what a note can be on.
var noted = []string{"line", "term", "heading", "study", "limit", "version", "block", "question"}

// A Note is what somebody noted on something, open until it is settled.
type Note struct {
	ID        int64      `json:"id"`
	Kind      string     `json:"kind"`  // line, term, heading, study, limit, version, block, question
	About     string     `json:"about"` // what it is on: its id
	Name      string     `json:"name"`  // what that was called
	Words     string     `json:"words"`
	Who       string     `json:"who,omitempty"`
	At        time.Time  `json:"at"`
	Settled   *time.Time `json:"settled,omitempty"`
	SettledBy string     `json:"settledBy,omitempty"`
}

// Notes returns the notes of a review, the newest first.
func (a *Service) Notes(ctx context.Context, review int64) ([]Note, error) {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	list, err := a.rows.Notes(ctx, review, mostNotes)
	out := []Note{}
	for _, n := range list {
		out = append(out, Note(n))
	}
	return out, err
}

// Note keeps a note.
func (a *Service) Note(ctx context.Context, review int64, n Note) error {
	if !slices.Contains(noted, n.Kind) || len(n.About) > 200 {
		return problems.Invalid(
			"kind",
			"A note is on a line, a term, a heading, a study, a limit, a version, a block or the question.",
		)
	}
	var err error
	if n.Words, err = words("words", n.Words, longestWords, true); err != nil {
		return err
	}
	if n.Name, err = words("name", n.Name, 2000, false); err != nil {
		return err
	}
	return a.work(ctx, review, "notes", func(ctx context.Context, w *store.Tx) error {
		many, err := putNote(ctx, w, NoteRow{Kind: n.Kind, About: n.About, Name: n.Name, Words: n.Words})
		if err == nil && many > mostNotes {
			return problems.Invalid("words", "A review has at most %d notes. This one was not kept.", mostNotes)
		}
		return err
	})
}

// Settle says that a note is settled, or open again.
func (a *Service) Settle(ctx context.Context, review, id int64, settled bool) error {
	return a.work(ctx, review, "notes", func(ctx context.Context, w *store.Tx) error {
		return problems.Gone(settleNote(ctx, w, id, settled), "note")
	})
}

// DropNote takes a note away, or puts it back.
func (a *Service) DropNote(ctx context.Context, review, id int64, gone bool) error {
	return a.work(ctx, review, "notes", func(ctx context.Context, w *store.Tx) error {
		return problems.Gone(dropNote(ctx, w, id, gone), "note")
	})
}

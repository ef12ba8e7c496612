package store

import (
	"context"
	"encoding/json"
	"errors"
	"time"

	"github.com/jackc/pgx/v5"
)

// A ReviewHead is a review as it stands in the list.
type ReviewHead struct {
	ID         int64     `json:"id"`
	Name       string    `json:"name"`
	Touched    time.Time `json:"touched"`
	Samples    int       `json:"samples"`
	KeyStudies int       `json:"keyStudies"`
	Deleted    bool      `json:"deleted"`
}

const headColumns = `id, name, touched, deleted,
	(select count(*) from sample s where s.review = r.id and not s.deleted and not s.hidden)::int as samples,
	(select count(*) from key_study k where k.review = r.id and not k.deleted)::int as key_studies`

// Reviews returns the reviews that are not deleted, last touched first.
func (s *Store) Reviews(ctx context.Context) ([]ReviewHead, error) {
	return all[ReviewHead](ctx, s, "select "+headColumns+" from review r where not deleted order by touched desc, id desc")
}

// Review returns one review, deleted or not.
func (s *Store) Review(ctx context.Context, id int64) (ReviewHead, error) {
	return one[ReviewHead](ctx, s, "select "+headColumns+" from review r where id = $1", id)
}

// NewReview begins a review with its first document.
func (s *Store) NewReview(ctx context.Context, name string, document []byte) (id int64, err error) {
	err = s.once(ctx, func(ctx context.Context, tx pgx.Tx) error {
		if err := tx.QueryRow(ctx, "insert into review (name) values ($1) returning id", name).Scan(&id); err != nil {
			return err
		}
		_, err := tx.Exec(ctx, "insert into document (review, revision, body) values ($1, 1, $2)", id, document)
		return err
	})
	return id, err
}

// PatchReview renames a review, deletes it or takes it back; nil leaves as it is.
func (s *Store) PatchReview(ctx context.Context, id int64, name *string, deleted *bool) error {
	tag, err := s.write.Exec(ctx, "update review set name = coalesce($2, name), deleted = coalesce($3, deleted), touched = now() where id = $1", id, name, deleted)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone
	}
	return err
}

// A Document is the saved state of a review's question, blocks and limits.
type Document struct {
	Revision int
	Body     []byte
	Who      string // made it, as they call themselves
}

// Document returns a revision of the document, or the newest for 0.
func (s *Store) Document(ctx context.Context, review int64, revision int) (Document, error) {
	return documentOf(ctx, s, review, revision)
}

func documentOf(ctx context.Context, q asker, review int64, revision int) (Document, error) {
	return one[Document](ctx, q, `select revision, body, who from document where review = $1 and ($2 = 0 or revision = $2)
		order by revision desc limit 1`, review, revision)
}

// A Decision is what was decided about a candidate: parked or dropped.
type Decision struct {
	Facet  string    `json:"facet"`
	Item   string    `json:"item"`
	State  string    `json:"state"`
	Reason string    `json:"reason"`
	At     time.Time `json:"at"`
	Who    string    `json:"who,omitempty"`    // made it, as they call themselves
	Sample *int64    `json:"sample,omitempty"` // that was looked at
}

// Decisions returns the decisions of a review.
func (s *Store) Decisions(ctx context.Context, review int64) ([]Decision, error) {
	return all[Decision](ctx, s, "select facet, item, state, reason, made as at, who, sample from decision where review = $1 order by facet, item", review)
}

// Facts are what a change touches, as it was before or is after it.
type Facts struct {
	Revision  int            `json:"revision,omitempty"`
	Decisions []FactDecision `json:"decisions,omitempty"`
	Samples   []FactSample   `json:"samples,omitempty"`
	Keys      []FactKeyStudy `json:"keys,omitempty"`
	Shelf     []FactShelved  `json:"shelf,omitempty"`
}

// A FactDecision is the state of a candidate; open where nothing is decided. What is decided now has no time yet.
type FactDecision struct {
	Facet  string     `json:"facet"`
	Item   string     `json:"item"`
	State  string     `json:"state"`
	Reason string     `json:"reason,omitempty"`
	At     *time.Time `json:"at,omitempty"`
	Who    string     `json:"who,omitempty"`
	Sample *int64     `json:"sample,omitempty"`
}

// A FactSample is the name of a sample, and whether it is deleted.
type FactSample struct {
	ID      int64  `json:"id"`
	Name    string `json:"name"`
	Deleted bool   `json:"deleted"`
}

// A FactKeyStudy is whether a key study is deleted.
type FactKeyStudy struct {
	ID      int64 `json:"id"`
	Deleted bool  `json:"deleted"`
}

// A LoggedChange is a change that can be undone or made again.
type LoggedChange struct {
	Number        int
	What          json.RawMessage
	Before, After Facts
}

// A Tx is a transaction in which a review is changed; no other change of it runs beside it.
type Tx struct {
	tx     pgx.Tx
	review int64
}

// InReview runs do in a transaction that has the review for itself: other changes of it wait, records that come in
// for it do not. A request that was done before (see AsRequest) is not done again. What do needs of the database
// it gets from the InReview: with the context that it is given it cannot ask for another connection.
func (s *Store) InReview(ctx context.Context, review int64, do func(context.Context, *Tx) error) error {
	return s.write.tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		var deleted bool
		err := tx.QueryRow(ctx, "select deleted from review where id = $1 for no key update", review).Scan(&deleted)
		if errors.Is(err, pgx.ErrNoRows) || err == nil && deleted {
			return ErrNone
		}
		if err != nil {
			return err
		}
		if _, err := tx.Exec(ctx, "update review set touched = now() where id = $1", review); err != nil {
			return err
		}
		if again, err := repeated(ctx, tx, review); again || err != nil {
			return err
		}
		return do(ctx, &Tx{tx, review})
	})
}

// Document returns a revision of the document, or the newest for 0.
func (w *Tx) Document(ctx context.Context, revision int) (Document, error) {
	return documentOf(ctx, w.tx, w.review, revision)
}

// AddDocument keeps a new revision of the document.
func (w *Tx) AddDocument(ctx context.Context, d Document) error {
	_, err := w.tx.Exec(ctx, "insert into document (review, revision, body, who) values ($1, $2, $3, $4)", w.review, d.Revision, d.Body, d.Who)
	return err
}

// Decision returns what is decided about a candidate.
func (w *Tx) Decision(ctx context.Context, facet, item string) (FactDecision, error) {
	d, err := one[FactDecision](ctx, w.tx, "select facet, item, state, reason, made as at, who, sample from decision where review = $1 and facet = $2 and item = $3", w.review, facet, item)
	if errors.Is(err, ErrNone) {
		return FactDecision{Facet: facet, Item: item, State: "open"}, nil
	}
	return d, err
}

// Sample returns the name of a sample of the review, and whether it is deleted.
func (w *Tx) Sample(ctx context.Context, id int64) (FactSample, error) {
	return one[FactSample](ctx, w.tx, "select id, name, deleted from sample where review = $1 and id = $2 and not hidden", w.review, id)
}

// KeyStudy returns whether a key study of the review is deleted.
func (w *Tx) KeyStudy(ctx context.Context, id int64) (FactKeyStudy, error) {
	return one[FactKeyStudy](ctx, w.tx, "select id, deleted from key_study where review = $1 and id = $2", w.review, id)
}

// Apply makes decisions, samples, key studies and the shelf be as the facts say; the revision is not looked at.
func (w *Tx) Apply(ctx context.Context, f Facts) error {
	for _, d := range f.Decisions {
		var err error
		if d.State == "open" {
			_, err = w.tx.Exec(ctx, "delete from decision where review = $1 and facet = $2 and item = $3", w.review, d.Facet, d.Item)
		} else {
			_, err = w.tx.Exec(ctx, `insert into decision (review, facet, item, state, reason, made, who, sample) values ($1, $2, $3, $4, $5, coalesce($6, now()), $7, $8)
				on conflict (review, facet, item) do update set state = excluded.state, reason = excluded.reason, made = excluded.made, who = excluded.who, sample = excluded.sample`,
				w.review, d.Facet, d.Item, d.State, d.Reason, d.At, d.Who, d.Sample)
		}
		if err != nil {
			return err
		}
	}
	for _, s := range f.Samples {
		if _, err := w.tx.Exec(ctx, "update sample set name = $3, deleted = $4 where review = $1 and id = $2", w.review, s.ID, s.Name, s.Deleted); err != nil {
			return err
		}
	}
	for _, k := range f.Keys {
		if _, err := w.tx.Exec(ctx, "update key_study set deleted = $3 where review = $1 and id = $2", w.review, k.ID, k.Deleted); err != nil {
			return err
		}
	}
	return w.shelve(ctx, f.Shelf)
}

// Next gives what is done to the review a number of its own.
func (w *Tx) Next(ctx context.Context) (number int64, err error) {
	err = w.tx.QueryRow(ctx, "update review set number = number + 1 where id = $1 returning number", w.review).Scan(&number)
	return number, err
}

// Log keeps a change so that its author can take it back. What they took back before it can no longer be made again.
func (w *Tx) Log(ctx context.Context, what json.RawMessage, before, after Facts) error {
	author := AuthorOf(ctx).Self
	if _, err := w.tx.Exec(ctx, "delete from change where review = $1 and undone and author = $2", w.review, author); err != nil {
		return err
	}
	_, err := w.tx.Exec(ctx, `insert into change (review, number, author, what, before, after)
		select $1, coalesce(max(number), 0) + 1, $2, $3, $4, $5 from change where review = $1`, w.review, author, what, before, after)
	return err
}

// theirs are the changes of an author; those of calls that name none are of whoever names none.
const theirs = "review = $1 and author = $2"

// LastChange returns the change that its author takes back next or, with undone, makes again.
func (w *Tx) LastChange(ctx context.Context, undone bool) (LoggedChange, error) {
	order := "desc"
	if undone {
		order = "asc"
	}
	return one[LoggedChange](ctx, w.tx, "select number, what, before, after from change where "+theirs+" and undone = $3 order by number "+order+" limit 1", w.review, AuthorOf(ctx).Self, undone)
}

// MarkUndone says whether a change is undone.
func (w *Tx) MarkUndone(ctx context.Context, number int, undone bool) error {
	_, err := w.tx.Exec(ctx, "update change set undone = $3 where review = $1 and number = $2", w.review, number, undone)
	return err
}

// Notify tells all processes, when the transaction is done, that something happened.
func (w *Tx) Notify(ctx context.Context, payload string) error { return notify(ctx, w.tx, payload) }

// Steps returns what the author of a context can undo and what they can make again, nil where nothing can be.
func (s *Store) Steps(ctx context.Context, review int64) (undo, redo json.RawMessage, err error) {
	err = s.QueryRow(ctx, `select
		(select what from change where `+theirs+` and not undone order by number desc limit 1),
		(select what from change where `+theirs+` and undone order by number limit 1)`, review, AuthorOf(ctx).Self).Scan(&undo, &redo)
	return undo, redo, err
}

// Number returns the number of the last that was done to a review.
func (s *Store) Number(ctx context.Context, review int64) (number int64, err error) {
	err = s.QueryRow(ctx, "select number from review where id = $1", review).Scan(&number)
	if errors.Is(err, pgx.ErrNoRows) {
		err = ErrNone
	}
	return number, err
}

// ForgetChanges makes what a review is now its beginning: nothing before it can be undone.
func (s *Store) ForgetChanges(ctx context.Context, review int64) error {
	_, err := s.write.Exec(ctx, "delete from change where review = $1", review)
	return err
}

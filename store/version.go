package store

import (
	"context"
	"time"
)

// A Version is a revision of the document that was kept.
type Version struct {
	ID       int64
	Revision int
	Name     string
	Note     string
	Why      string // the step before which it was kept by itself; "" where somebody did
	Who      string
	At       time.Time
}

const versionColumns = "select id, revision, name, note, why, who, at from version where review = $1 and not gone "

// Versions returns the versions of a review, the oldest first, at most so many of the newest.
func (s *Store) Versions(ctx context.Context, review int64, most int) ([]Version, error) {
	return all[Version](ctx, s, "select * from ("+versionColumns+"order by revision desc limit $2) x order by revision", review, most)
}

// Version returns one version.
func (w *Tx) Version(ctx context.Context, id int64) (Version, error) {
	return one[Version](ctx, w.tx, versionColumns+"and id = $2", w.review, id)
}

// KeepVersion keeps a revision. One that was kept by itself becomes somebody's where they keep it; one that somebody kept
// stays as it is where it would be kept by itself.
func (w *Tx) KeepVersion(ctx context.Context, v Version) error {
	_, err := w.tx.Exec(ctx, `insert into version (review, revision, name, note, why, who) values ($1, $2, $3, $4, $5, $6)
		on conflict (review, revision) do update set name = excluded.name, note = excluded.note, why = excluded.why, who = excluded.who, gone = false
		where excluded.why = '' or version.gone`,
		w.review, v.Revision, v.Name, v.Note, v.Why, AuthorOf(ctx).Name)
	return err
}

// NameVersion changes what a version is called and what is noted of it.
func (w *Tx) NameVersion(ctx context.Context, id int64, name, note string) error {
	tag, err := w.tx.Exec(ctx, "update version set name = $3, note = $4 where review = $1 and id = $2", w.review, id, name, note)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone
	}
	return err
}

// ForgetVersion keeps a revision as a version no more, or again; the revision stays.
func (w *Tx) ForgetVersion(ctx context.Context, id int64, gone bool) error {
	tag, err := w.tx.Exec(ctx, "update version set gone = $3 where review = $1 and id = $2 and gone <> $3", w.review, id, gone)
	if err == nil && tag.RowsAffected() == 0 {
		err = ErrNone
	}
	return err
}

package reviews

import (
	"context"
	"time"

	"tamiz/store"
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

// Versions returns the versions of a review, the oldest first, at most so many of the newest.
func (r *Rows) Versions(ctx context.Context, review int64, most int) ([]Version, error) {
	return store.All[Version](ctx, r.db, sql["Versions"], review, most)
}

// VersionIn returns one version.
func VersionIn(ctx context.Context, tx *store.Tx, id int64) (Version, error) {
	return store.One[Version](ctx, tx, sql["VersionIn"], tx.Review, id)
}

// keepVersion keeps a revision. One that was kept by itself becomes somebody's where they keep it; one that
// somebody kept stays as it is where it would be kept by itself.
func keepVersion(ctx context.Context, tx *store.Tx, v Version) error {
	_, err := tx.Exec(ctx, sql["keepVersion"],
		tx.Review, v.Revision, v.Name, v.Note, v.Why, store.AuthorOf(ctx).Name)
	return err
}

// nameVersion changes what a version is called and what is noted of it.
func nameVersion(ctx context.Context, tx *store.Tx, id int64, name, note string) error {
	tag, err := tx.Exec(ctx, sql["nameVersion"], tx.Review, id, name, note)
	if err == nil && tag.RowsAffected() == 0 {
		err = store.ErrNone
	}
	return err
}

// forgetVersion keeps a revision as a version no more, or again; the revision stays.
func forgetVersion(ctx context.Context, tx *store.Tx, id int64, gone bool) error {
	tag, err := tx.Exec(ctx, sql["forgetVersion"], tx.Review, id, gone)
	if err == nil && tag.RowsAffected() == 0 {
		err = store.ErrNone
	}
	return err
}

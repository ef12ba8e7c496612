package app

import (
	"context"
	"time"
)

// A ShelfEntry is a record that is kept on the shelf.
type ShelfEntry struct {
	RecordHead
	Note string    `json:"note"`
	Tags []string  `json:"tags"`
	Made time.Time `json:"made"`
}

// Shelf returns the records on the shelf of a review, last added first.
func (a *App) Shelf(ctx context.Context, at At) ([]ShelfEntry, error) {
	d, err := a.desk(ctx, at)
	if err != nil {
		return nil, err
	}
	all, err := a.store.Shelf(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	out := []ShelfEntry{}
	for _, s := range all {
		out = append(out, ShelfEntry{d.head(s.StoredRecord), s.Note, s.Tags, s.Made})
	}
	return out, nil
}

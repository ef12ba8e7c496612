package figures

import (
	"context"
	"time"

	"tamiz/app/desk"
)

// A ShelfEntry is a record that is kept on the shelf.
type ShelfEntry struct {
	desk.RecordHead
	Note string    `json:"note"`
	Tags []string  `json:"tags"`
	Made time.Time `json:"made"`
}

// Shelf returns the records on the shelf of a review, last added first.
func (a *Service) Shelf(ctx context.Context, at desk.At) ([]ShelfEntry, error) {
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	all, err := a.library.Shelf(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	out := []ShelfEntry{}
	for _, s := range all {
		out = append(out, ShelfEntry{d.Head(s.StoredRecord), s.Note, s.Tags, s.Made})
	}
	return out, nil
}

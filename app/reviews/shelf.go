package reviews

import (
	"context"
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/store"
)

// Limits of the shelf.
const (
	maxShelved   = 10_000 // records of a review
	maxShelfStep = 5000   // records of one change
	maxNote      = 4000   // characters
	maxTags      = 20     // of one record
	maxTag       = 60     // characters
)

// A ShelfPatch puts a record on the shelf, changes what is noted of it, or takes it off.
type ShelfPatch struct {
	Record int64     `json:"record"`
	On     bool      `json:"on"`
	Note   *string   `json:"note,omitempty"`
	Tags   *[]string `json:"tags,omitempty"`
}

// check looks at what is noted.
func (p ShelfPatch) check() error {
	if p.Note != nil && utf8.RuneCountInString(*p.Note) > maxNote {
		return problems.Invalid("note", "A note has at most %d characters.", maxNote)
	}
	if p.Tags != nil && len(*p.Tags) > maxTags {
		return problems.Invalid("tags", "A record has at most %d tags.", maxTags)
	}
	if p.Tags != nil {
		for _, t := range *p.Tags {
			if n := utf8.RuneCountInString(t); n < 1 || n > maxTag || strings.TrimSpace(t) == "" ||
				strings.ContainsAny(t, "\x00,;") {
				return problems.Invalid("tags", "A tag has 1 to %d characters, and no comma or semicolon.", maxTag)
			}
		}
	}
	return nil
}

// shelf collects what a change does to the shelf.
func (c Change) shelf(ctx context.Context, w *store.Tx, before, after *Facts) error {
	more := 0
	for _, p := range c.Shelf {
		now, err := library.ShelvedIn(ctx, w, p.Record)
		if err != nil {
			return err
		}
		if p.On && !now.On {
			more++
			has, err := library.HasIn(ctx, w, p.Record)
			if err != nil {
				return err
			}
			if !has {
				return problems.Gone(store.ErrNone, "record")
			}
		}
		then := library.ShelfState{Record: p.Record, On: p.On}
		if p.On {
			then.Note, then.Tags = now.Note, now.Tags
			if p.Note != nil {
				then.Note = strings.TrimSpace(store.Plain(*p.Note))
			}
			if p.Tags != nil {
				then.Tags = nil
				for _, t := range *p.Tags {
					if t = strings.Join(strings.Fields(t), " "); !slices.Contains(then.Tags, t) {
						then.Tags = append(then.Tags, t)
					}
				}
			}
		}
		before.Shelf, after.Shelf = append(before.Shelf, now), append(after.Shelf, then)
	}
	if more > 0 {
		n, err := library.ShelfSize(ctx, w)
		if err != nil {
			return err
		}
		if n+more > maxShelved {
			return problems.Invalid("shelf", "A shelf holds at most %d records.", maxShelved)
		}
	}
	return nil
}

package peerreview

import (
	"context"

	"tamiz/app/desk"
	"tamiz/app/reviews"
)

// documentRows are the calls by which this room asks of documents.
type documentRows interface {
	Document(ctx context.Context, review int64, revision int) (desk.Saved, error)
}

// headRows are the calls by which this room asks of reviews.
type headRows interface {
	Head(ctx context.Context, id int64) (reviews.Head, error)
}

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	Answers(ctx context.Context, review int64) ([]AnswerRow, error)
	Check(ctx context.Context, review int64, id int64) (CheckRow, error)
	Checks(ctx context.Context, review int64, most int) ([]CheckRow, error)
	Notes(ctx context.Context, review int64, most int) ([]NoteRow, error)
	Suggestions(ctx context.Context, review int64) ([]SuggestionRow, error)
}

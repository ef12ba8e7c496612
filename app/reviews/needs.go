package reviews

import (
	"context"
	"encoding/json"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/vocabularies"
)

// documentRows are the calls by which this room asks of documents.
type documentRows interface {
	Document(ctx context.Context, review int64, revision int) (desk.Saved, error)
}

// libraryRows are the calls by which this room asks of what is held of records.
type libraryRows interface {
	FillJoined(
		ctx context.Context,
		review int64,
		name string,
		joined json.RawMessage,
		records []int64,
	) (sample int64, err error)
	KeyStudies(ctx context.Context, review int64) ([]library.Key, error)
	Samples(ctx context.Context, review int64) ([]library.Sample, error)
	ShelvedIDs(ctx context.Context, review int64) ([]int64, error)
}

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	Decisions(ctx context.Context, review int64) ([]Decision, error)
	Head(ctx context.Context, id int64) (Head, error)
	Heads(ctx context.Context) ([]Head, error)
	New(ctx context.Context, name string, document []byte) (id int64, err error)
	Number(ctx context.Context, review int64) (number int64, err error)
	Patch(ctx context.Context, id int64, name *string, deleted *bool) error
	Steps(ctx context.Context, review int64) (undo json.RawMessage, redo json.RawMessage, err error)
}

// vocabularyRows are the calls by which this room asks of vocabularies.
type vocabularyRows interface {
	One(ctx context.Context, id int64) (vocabularies.Vocabulary, error)
}

package figures

import (
	"context"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/reviews"
	"tamiz/app/vocabularies"
)

// documentRows are the calls by which this room asks of documents.
type documentRows interface {
	Document(ctx context.Context, review int64, revision int) (desk.Saved, error)
}

// headRows are the calls by which this room asks of reviews.
type headRows interface {
	Decisions(ctx context.Context, review int64) ([]reviews.Decision, error)
	Head(ctx context.Context, id int64) (reviews.Head, error)
	Versions(ctx context.Context, review int64, most int) ([]reviews.Version, error)
}

// libraryRows are the calls by which this room asks of what is held of records.
type libraryRows interface {
	Holdings(ctx context.Context, review int64) ([]library.Holding, error)
	Judge(ctx context.Context, review int64, record int64, verdict string, who string) error
	Judgements(ctx context.Context, review int64) ([]library.Judgement, error)
	KeyRecords(ctx context.Context, review int64, study int64) ([]library.KeyRecord, error)
	KeyStudies(ctx context.Context, review int64) ([]library.Key, error)
	Record(ctx context.Context, id int64) (library.StoredRecord, error)
	RecordsByID(ctx context.Context, ids []int64) ([]library.StoredRecord, error)
	Shelf(ctx context.Context, review int64) ([]library.ShelvedRecord, error)
	Sources(ctx context.Context) ([]library.Source, error)
}

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	ForgetBlock(ctx context.Context, name string, gone bool) error
	KeepBlock(ctx context.Context, b KeptBlockRow) (kept KeptBlockRow, err error)
	KeptBlocks(ctx context.Context, most int) ([]KeptBlockRow, error)
}

// runRows are the calls by which this room asks of runs.
type runRows interface {
	Counted(ctx context.Context, review int64, revisions []int, most int) ([]logbook.Run, error)
}

// vocabularyRows are the calls by which this room asks of vocabularies.
type vocabularyRows interface {
	All(ctx context.Context) ([]vocabularies.Vocabulary, error)
	ChangeCounterpart(
		ctx context.Context,
		vocabulary string,
		heading string,
		other string,
		change func(now []string) []string,
	) error
	One(ctx context.Context, id int64) (vocabularies.Vocabulary, error)
}

package desk

import (
	"context"

	"tamiz/app/library"
	"tamiz/app/vocabularies"
	"tamiz/core/thesaurus"
)

// libraryRows are the calls by which this room asks of what is held of records.
type libraryRows interface {
	Draws(ctx context.Context, review int64) ([]library.Draw, error)
	Holdings(ctx context.Context, review int64) ([]library.Holding, error)
	KeyRecords(ctx context.Context, review int64, study int64) ([]library.KeyRecord, error)
	KeyStudies(ctx context.Context, review int64) ([]library.Key, error)
	Origins(ctx context.Context, review int64) ([]library.Origin, error)
	PartIDs(ctx context.Context, draw int64) (map[int][]int64, error)
	SampleBytes(ctx context.Context, samples ...int64) (bytes int64, err error)
	SampleIDs(ctx context.Context, samples ...int64) ([]int64, error)
	SampleRecords(ctx context.Context, seen func(), samples ...int64) ([]library.StoredRecord, error)
	Samples(ctx context.Context, review int64) ([]library.Sample, error)
	ShelvedIDs(ctx context.Context, review int64) ([]int64, error)
	Source(ctx context.Context, id int64) (library.Source, error)
	Sources(ctx context.Context) ([]library.Source, error)
}

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	Document(ctx context.Context, review int64, revision int) (Saved, error)
	Look(ctx context.Context, review int64, name string) (body []byte, err error)
	PutLook(ctx context.Context, review int64, name string, body []byte, last bool) error
}

// vocabularyRows are the calls by which this room asks of vocabularies.
type vocabularyRows interface {
	All(ctx context.Context) ([]vocabularies.Vocabulary, error)
	Counterparts(ctx context.Context, vocabulary string, other string) ([]vocabularies.Counterpart, error)
	One(ctx context.Context, id int64) (vocabularies.Vocabulary, error)
	Thesaurus(ctx context.Context, id int64) (*thesaurus.Thesaurus, error)
}

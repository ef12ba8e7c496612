package rounds

import (
	"context"
	"encoding/json"

	"tamiz/app/desk"
	"tamiz/app/holdings"
	"tamiz/app/library"
	"tamiz/app/logbook"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/source"
	"tamiz/source/sru"
)

// documentRows are the calls by which this room asks of documents.
type documentRows interface {
	Document(ctx context.Context, review int64, revision int) (desk.Saved, error)
}

// headRows are the calls by which this room asks of reviews.
type headRows interface {
	Head(ctx context.Context, id int64) (reviews.Head, error)
}

// libraryRows are the calls by which this room asks of what is held of records.
type libraryRows interface {
	Judgements(ctx context.Context, review int64) ([]library.Judgement, error)
	KeyOrigins(ctx context.Context, review int64) ([]library.KeyOrigin, error)
	KeyStudies(ctx context.Context, review int64) ([]library.Key, error)
	Put(ctx context.Context, source string, records []*bib.Record) (ids []int64, err error)
	RecordsByID(ctx context.Context, ids []int64) ([]library.StoredRecord, error)
	ShelvedIDs(ctx context.Context, review int64) ([]int64, error)
}

// ownRows are the calls by which this room asks of its own rows.
type ownRows interface {
	EndRound(ctx context.Context, id int64, entry logbook.Run, next *Begin, then waker) error
	NewRound(ctx context.Context, b Begin, then waker) error
	PutRoundStep(ctx context.Context, id int64, step StepRow) (brought []int64, err error)
	RestRound(ctx context.Context, id int64, state string, problem json.RawMessage) error
	ResumeRound(ctx context.Context, round RoundRow, then waker) error
	Round(ctx context.Context, id int64) (RoundRow, error)
	RoundForms(ctx context.Context, review int64) ([]int64, error)
	RoundLosts(ctx context.Context, round int64, most int) ([]LostRow, error)
	RoundStarts(ctx context.Context, round int64) ([]StartRow, error)
	RoundWorks(ctx context.Context, review int64, most int) ([]WorkRow, error)
	Rounds(ctx context.Context, review int64) ([]RoundRow, error)
	RoundsBrought(ctx context.Context, review int64) (works map[int64]int, lost map[int64]int, err error)
	WorksOfRound(ctx context.Context, round int64) ([]WorkRow, error)
}

// watchRows are the calls by which this room asks of the news of a search.
type watchRows interface {
	Dismissed(ctx context.Context, review int64) (map[int64]bool, error)
}

// sourceRoom are the calls by which this room asks sources.
type sourceRoom interface {
	AskedNow(ctx context.Context, review int64, s sources.Source) (cql string, notes []source.Note, err error)
	Names(ctx context.Context) (map[int64]string, error)
	Named(ctx context.Context, id int64) (sources.Source, *sru.Client, error)
	Sources(ctx context.Context) ([]sources.Source, error)
}

// holdingRoom is the call by which this room asks whether a source holds a work.
type holdingRoom interface {
	Matches(ctx context.Context, c source.Source, s sources.Source, r *bib.Record) ([]holdings.Match, error)
}

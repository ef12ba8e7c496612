package store

import (
	"bytes"
	"compress/gzip"
	"context"
	"encoding/json"
	"errors"
	"io"

	"github.com/jackc/pgx/v5"

	"tamiz/core/thesaurus"
)

// A Vocabulary is a controlled vocabulary of a review, by what it is called.
type Vocabulary struct {
	ID       int64  `json:"id"`
	Import   int64  `json:"import"`
	Name     string `json:"name"`
	Language string `json:"language"`
	Headings int    `json:"headings"`
	Notices  int    `json:"notices"`
}

// Vocabulary returns one vocabulary of a review.
func (s *Store) Vocabulary(ctx context.Context, review, id int64) (Vocabulary, error) {
	return one[Vocabulary](ctx, s, `select v.id, v.import, v.name, v.language, v.headings, i.notices
		from vocabulary v join import i on i.id = v.import where v.review = $1 and v.id = $2`, review, id)
}

// Concepts returns what a vocabulary is made of.
func (s *Store) Concepts(ctx context.Context, id int64) ([]thesaurus.Concept, error) {
	var body []byte
	err := s.QueryRow(ctx, "select body from vocabulary where id = $1", id).Scan(&body)
	if errors.Is(err, pgx.ErrNoRows) {
		err = ErrNone
	}
	if err != nil {
		return nil, err
	}
	unpacked, err := gzip.NewReader(bytes.NewReader(body))
	if err != nil {
		return nil, err
	}
	var concepts []thesaurus.Concept
	if err := json.NewDecoder(unpacked).Decode(&concepts); err != nil && err != io.EOF {
		return nil, err
	}
	return concepts, nil
}

// AddVocabulary keeps a vocabulary and returns its number.
func (w *Work) AddVocabulary(ctx context.Context, of int64, name, language string, headings int, concepts []thesaurus.Concept) (id int64, err error) {
	var body bytes.Buffer
	packed := gzip.NewWriter(&body)
	if err := json.NewEncoder(packed).Encode(concepts); err != nil {
		return 0, err
	}
	if err := packed.Close(); err != nil {
		return 0, err
	}
	err = w.tx.QueryRow(ctx, "insert into vocabulary (review, import, name, language, headings, body) values ($1, $2, $3, $4, $5, $6) returning id",
		w.review, of, name, language, headings, body.Bytes()).Scan(&id)
	return id, err
}

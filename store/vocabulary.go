package store

import (
	"bytes"
	"compress/gzip"
	"context"
	"encoding/json"
	"errors"
	"io"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/thesaurus"
)

// A Vocabulary is a controlled vocabulary, by what it is called.
type Vocabulary struct {
	ID        int64     `json:"id"`
	Import    *int64    `json:"import,omitempty"` // that brought it in, where a review's did
	Name      string    `json:"name"`
	Language  string    `json:"language"`  // that its headings go by
	Languages []string  `json:"languages"` // of all its labels and entry terms
	Headings  int       `json:"headings"`
	Notices   int       `json:"notices"`
	Earlier   *int64    `json:"earlier,omitempty"` // the edition before
	Later     *int64    `json:"later,omitempty"`   // the one after it, where there is one
	Made      time.Time `json:"made"`
}

const vocabularyColumns = `select v.id, v.import, v.name, v.language, v.languages, v.headings, coalesce(i.notices, 0) as notices, v.earlier,
	(select max(l.id) from vocabulary l where l.earlier = v.id and not l.gone) as later, v.made
	from vocabulary v left join import i on i.id = v.import `

// Vocabularies returns the vocabularies of the program, by name, of one name the latest first.
func (s *Store) Vocabularies(ctx context.Context) ([]Vocabulary, error) {
	return all[Vocabulary](ctx, s, vocabularyColumns+"where not v.gone order by lower(v.name), v.id desc")
}

// Vocabulary returns one vocabulary, also one that was taken away.
func (s *Store) Vocabulary(ctx context.Context, id int64) (Vocabulary, error) {
	return one[Vocabulary](ctx, s, vocabularyColumns+"where v.id = $1", id)
}

// Thesaurus returns a vocabulary with all that is in it.
func (s *Store) Thesaurus(ctx context.Context, id int64) (*thesaurus.Thesaurus, error) {
	var body []byte
	var packed bool
	err := s.QueryRow(ctx, "select body, packed from vocabulary where id = $1", id).Scan(&body, &packed)
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
	if packed {
		return thesaurus.Read(unpacked)
	}
	var concepts []thesaurus.Concept
	if err := json.NewDecoder(unpacked).Decode(&concepts); err != nil && err != io.EOF {
		return nil, err
	}
	t, _ := thesaurus.Build(concepts, "")
	return t, nil
}

// Pack returns a vocabulary as the store keeps it.
func Pack(t *thesaurus.Thesaurus) ([]byte, error) {
	var body bytes.Buffer
	packed, err := gzip.NewWriterLevel(&body, gzip.BestSpeed)
	if err != nil {
		return nil, err
	}
	if err := t.Write(packed); err != nil {
		return nil, err
	}
	err = packed.Close()
	return body.Bytes(), err
}

const addVocabulary = `insert into vocabulary (review, import, name, language, languages, headings, body, earlier)
	values ($1, $2, $3, $4, $5, $6, $7, (select max(id) from vocabulary where lower(name) = lower($3) and not gone)) returning id`

// AddVocabulary keeps a vocabulary, packed, that an import of a review brought in, and returns its number. It is the
// next edition of the one of its name.
func (w *Tx) AddVocabulary(ctx context.Context, of int64, name string, t *thesaurus.Thesaurus, body []byte) (id int64, err error) {
	err = w.tx.QueryRow(ctx, addVocabulary, w.review, of, name, t.Language, t.Spoken(), t.Len(), body).Scan(&id)
	return id, err
}

// AddVocabulary keeps a vocabulary, packed, that belongs to no review, and returns its number.
func (s *Store) AddVocabulary(ctx context.Context, name string, t *thesaurus.Thesaurus, body []byte) (id int64, err error) {
	err = s.write.QueryRow(ctx, addVocabulary, nil, nil, name, t.Language, t.Spoken(), t.Len(), body).Scan(&id)
	return id, err
}

// ErrInUse is the answer where something is to be taken away that something else needs.
var ErrInUse = errors.New("it is in use")

// DeleteVocabulary takes a vocabulary away, unless a review that is not deleted goes by it: ErrInUse.
func (s *Store) DeleteVocabulary(ctx context.Context, id int64) error {
	var there, used, gone bool
	err := s.write.QueryRow(ctx, `with used as (select exists (select from review r join lateral (select body from document where review = r.id order by revision desc limit 1) d on true
			where not r.deleted and (d.body ->> 'vocabulary')::bigint = $1) as yes),
		gone as (update vocabulary set gone = true where id = $1 and not gone and not (select yes from used) returning id)
		select exists (select from vocabulary where id = $1 and not gone), (select yes from used), exists (select from gone)`, id).Scan(&there, &used, &gone)
	switch {
	case err != nil:
		return err
	case !there:
		return ErrNone
	case used:
		return ErrInUse
	}
	return nil
}

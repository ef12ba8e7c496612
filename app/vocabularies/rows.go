package vocabularies

import (
	"bytes"
	"compress/gzip"
	"context"
	_ "embed"
	"encoding/json"
	"errors"
	"io"
	"time"

	"github.com/jackc/pgx/v5"

	"tamiz/core/text"
	"tamiz/core/thesaurus"
	"tamiz/store"
)

//go:embed rows.sql
var rowsSQL string

var sql = store.Statements(rowsSQL)

// Rows are the vocabularies of a database.
type Rows struct{ db *store.Store }

// NewRows returns the vocabularies of a database.
func NewRows(db *store.Store) *Rows { return &Rows{db} }

// A Counterpart is what somebody took to stand for a heading in another vocabulary: any of some headings, or none.
type Counterpart struct {
	Heading string
	Stands  []string
}

// Counterparts returns those of a vocabulary in another, by their names, whatever their capitals.
func (r *Rows) Counterparts(ctx context.Context, vocabulary, other string) ([]Counterpart, error) {
	vocabulary, other = text.Label(vocabulary), text.Label(other)
	return store.All[Counterpart](ctx, r.db, sql["Counterparts"], vocabulary, other)
}

// ChangeCounterpart changes what stands for a heading in another vocabulary; change is given what does now, nil
// where nobody said, and returns what will, nil where that is forgotten.
func (r *Rows) ChangeCounterpart(
	ctx context.Context,
	vocabulary, heading, other string,
	change func(now []string) []string,
) error {
	vocabulary, other = text.Label(vocabulary), text.Label(other)
	return r.db.Write.Tx(ctx, func(ctx context.Context, tx pgx.Tx) error {
		// Who comes second waits for the first, whether the row is there yet or not.
		if _, err := tx.Exec(ctx, sql["ChangeCounterpart select"], vocabulary, heading, other); err != nil {
			return err
		}
		var now []string
		err := tx.QueryRow(ctx, sql["ChangeCounterpart select counterpart"], vocabulary, heading, other).Scan(&now)
		if err != nil && !errors.Is(err, pgx.ErrNoRows) {
			return err
		}
		stands := change(now)
		if stands == nil {
			_, err := tx.Exec(ctx, sql["ChangeCounterpart delete counterpart"], vocabulary, heading, other)
			return err
		}
		_, err = tx.Exec(ctx, sql["ChangeCounterpart insert counterpart"], vocabulary, heading, other, stands)
		return err
	})
}

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

// All returns the vocabularies of the program, by name, of one name the latest first.
func (r *Rows) All(ctx context.Context) ([]Vocabulary, error) {
	return store.All[Vocabulary](ctx, r.db, sql["All"])
}

// One returns one vocabulary, also one that was taken away.
func (r *Rows) One(ctx context.Context, id int64) (Vocabulary, error) {
	return store.One[Vocabulary](ctx, r.db, sql["One"], id)
}

// Thesaurus returns a vocabulary with all that is in it.
func (r *Rows) Thesaurus(ctx context.Context, id int64) (*thesaurus.Thesaurus, error) {
	var body []byte
	var packed bool
	err := r.db.QueryRow(ctx, sql["Thesaurus"], id).Scan(&body, &packed)
	if errors.Is(err, pgx.ErrNoRows) {
		err = store.ErrNone
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

// AddIn keeps a vocabulary, packed, that an import of a review brought in, and returns its number. It is the
// next edition of the one of its name.
func AddIn(
	ctx context.Context,
	tx *store.Tx,
	of int64,
	name string,
	t *thesaurus.Thesaurus,
	body []byte,
) (id int64, err error) {
	err = tx.QueryRow(ctx, sql["AddIn"], tx.Review, of, name, t.Language, t.Spoken(), t.Len(), body).Scan(&id)
	return id, err
}

// Add keeps a vocabulary, packed, that belongs to no review, and returns its number.
func (r *Rows) Add(ctx context.Context, name string, t *thesaurus.Thesaurus, body []byte) (id int64, err error) {
	err = r.db.Write.QueryRow(ctx, sql["Add"], nil, nil, name, t.Language, t.Spoken(), t.Len(), body).Scan(&id)
	return id, err
}

// Delete takes a vocabulary away, unless a review that is not deleted goes by it: ErrInUse.
func (r *Rows) Delete(ctx context.Context, id int64) error {
	var there, used, gone bool
	err := r.db.Write.QueryRow(ctx, sql["Delete"], id).Scan(&there, &used, &gone)
	switch {
	case err != nil:
		return err
	case !there:
		return store.ErrNone
	case used:
		return store.ErrInUse
	}
	return nil
}

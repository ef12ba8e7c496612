package reviews

import (
	"context"
	"encoding/json"
	"strings"
	"unicode/utf8"

	"tamiz/app/desk"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/app/vocabularies"
	"tamiz/store"
)

// NewReview is what a review begins with.
type NewReview struct {
	Name string `json:"name"`
}

// ReviewPatch is what changes about a review itself.
type ReviewPatch struct {
	Name    *string `json:"name,omitempty"`
	Deleted *bool   `json:"deleted,omitempty"`
}

// A KeyStudy is a paper known to belong.
type KeyStudy struct {
	ID      int64  `json:"id"`
	Record  int64  `json:"record"`
	Title   string `json:"title"`
	Byline  string `json:"byline"`
	Year    int    `json:"year"`
	Indexed bool   `json:"indexed"`
}

// What says what a change did, as the name of a sentence and what fills it.
type What struct {
	Key    string            `json:"key"`
	Params map[string]string `json:"params"`
	Who    string            `json:"who,omitempty"` // did it, as they call themselves
}

// A Review is a review with all that is decided in it.
type Review struct {
	ID   int64  `json:"id"`
	Name string `json:"name"`
	State
	Look    desk.Look `json:"look"` // that whoever has none begins with
	Imports []Import  `json:"imports"`
}

// A State is the part of a review that changes can touch.
type State struct {
	Number     int64                    `json:"number"` // of the last that was done to it
	Revision   int                      `json:"revision"`
	Document   desk.Document            `json:"document"`
	Samples    []library.Sample         `json:"samples"`
	KeyStudies []KeyStudy               `json:"keyStudies"`
	Vocabulary *vocabularies.Vocabulary `json:"vocabulary,omitempty"`
	Decisions  []Decision               `json:"decisions"`
	Shelf      []int64                  `json:"shelf"` // the records on the shelf
	Undo       *What                    `json:"undo,omitempty"`
	Redo       *What                    `json:"redo,omitempty"`
}

// Reviews returns the reviews, last touched first.
func (a *Service) Reviews(ctx context.Context) ([]Head, error) { return a.rows.Heads(ctx) }

// CreateReview begins a review.
func (a *Service) CreateReview(ctx context.Context, n NewReview) (Head, error) {
	name, err := GoodName(n.Name)
	if err != nil {
		return Head{}, err
	}
	body, err := desk.Document{}.Saved()
	if err != nil {
		return Head{}, err
	}
	id, err := a.rows.New(ctx, name, body)
	if err != nil {
		return Head{}, err
	}
	return a.rows.Head(ctx, id)
}

// PatchReview renames a review, deletes it, or takes it back.
func (a *Service) PatchReview(ctx context.Context, id int64, p ReviewPatch) (Head, error) {
	if p.Name != nil {
		name, err := GoodName(*p.Name)
		if err != nil {
			return Head{}, err
		}
		p.Name = &name
	}
	if err := a.rows.Patch(ctx, id, p.Name, p.Deleted); err != nil {
		return Head{}, problems.Gone(err, "review")
	}
	return a.rows.Head(ctx, id)
}

// GoodName returns a name without what no name has, or says what is wrong with it.
func GoodName(name string) (string, error) {
	name = strings.Join(strings.Fields(store.Plain(name)), " ")
	if n := utf8.RuneCountInString(name); n < 1 || n > 200 {
		return "", problems.Invalid("name", "A name has 1 to 200 characters; this one has %d.", n)
	}
	return name, nil
}

// Review returns a review with all that is decided in it.
func (a *Service) Review(ctx context.Context, id int64) (*Review, error) {
	head, err := a.rows.Head(ctx, id)
	if err == nil && head.Deleted {
		err = store.ErrNone
	}
	if err != nil {
		return nil, problems.Gone(err, "review")
	}
	r := &Review{ID: id, Name: head.Name}
	if r.State, err = a.state(ctx, id); err != nil {
		return nil, err
	}
	if r.Look, err = a.desk.Look(ctx, desk.At{Review: id}); err != nil {
		return nil, err
	}
	if r.Imports, err = a.imports.Open(ctx, id); err != nil {
		return nil, err
	}
	return r, nil
}

func (a *Service) state(ctx context.Context, id int64) (s State, err error) {
	if s.Number, err = a.rows.Number(ctx, id); err != nil { // before all that may be newer
		return s, problems.Gone(err, "review")
	}
	saved, err := a.documents.Document(ctx, id, 0)
	if err != nil {
		return s, problems.Gone(err, "review")
	}
	s.Revision = saved.Revision
	if s.Document, err = desk.Parse(saved.Body); err != nil {
		return s, err
	}
	if s.Samples, err = a.library.Samples(ctx, id); err != nil {
		return s, err
	}
	if s.Decisions, err = a.rows.Decisions(ctx, id); err != nil {
		return s, err
	}
	if s.Shelf, err = a.library.ShelvedIDs(ctx, id); err != nil {
		return s, err
	}
	if s.Document.Vocabulary != nil {
		v, err := a.vocabularyRows.One(ctx, *s.Document.Vocabulary)
		if err != nil {
			return s, problems.Gone(err, "vocabulary")
		}
		s.Vocabulary = &v
	}
	keys, err := a.desk.Pools.Keys(ctx, id, s.Document.Vocabulary, desk.KeysBy{})
	if err != nil {
		return s, err
	}
	s.KeyStudies = []KeyStudy{}
	for i, k := range keys.Studies {
		r := keys.Set.Records[i]
		s.KeyStudies = append(
			s.KeyStudies,
			KeyStudy{
				ID:      k.ID,
				Record:  k.StoredRecord.ID,
				Title:   r.Title,
				Byline:  desk.Byline(r),
				Year:    r.Year,
				Indexed: r.Indexed(),
			},
		)
	}
	undo, redo, err := a.rows.Steps(ctx, id)
	if err != nil {
		return s, err
	}
	s.Undo, s.Redo = what(undo), what(redo)
	return s, nil
}

func what(saved json.RawMessage) *What {
	var w What
	if saved == nil || json.Unmarshal(saved, &w) != nil {
		return nil
	}
	return &w
}

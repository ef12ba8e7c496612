// Package dialects is how sources want queries typed: the dialects that ship, and those that somebody wrote.
package dialects

import (
	"context"
	"slices"

	lru "github.com/hashicorp/golang-lru/v2"

	"tamiz/app/problems"
	"tamiz/core/dialect"
	"tamiz/store"
)

const (
	mostOwn     = 200
	longestFile = 100_000 // bytes
)

// A Service keeps dialects.
type Service struct {
	rows ownRows
	// by their files: reading one proves it, which takes longer than it should at every key press
	read *lru.Cache[string, *dialect.Dialect]
}

// New returns the dialects of a database.
func New(s *store.Store) *Service {
	read, _ := lru.New[string, *dialect.Dialect](mostOwn) // fails for a size below one
	return &Service{NewRows(s), read}
}

// parse reads a dialect's file, once.
func (a *Service) parse(body string) (*dialect.Dialect, error) {
	if d, ok := a.read.Get(body); ok {
		return d, nil
	}
	d, err := dialect.Parse([]byte(body))
	if err == nil {
		a.read.Add(body, d)
	}
	return d, err
}

// A Head names a dialect. Body is its file.
type Head struct {
	Name       string `json:"name"`
	Title      string `json:"title"`
	About      string `json:"about"`
	Typed      string `json:"typed"`
	Vocabulary string `json:"vocabulary,omitempty"`
	Own        bool   `json:"own"` // somebody wrote it
	Body       string `json:"body"`
	Broken     string `json:"broken,omitempty"` // why it cannot be used, where it cannot
}

func headOf(d *dialect.Dialect, body string, own bool) Head {
	return Head{
		Name:       d.Name,
		Title:      d.Title,
		About:      d.About,
		Typed:      d.Typed,
		Vocabulary: d.Vocabulary,
		Own:        own,
		Body:       body,
	}
}

// All returns the dialects there are: those that ship, then those that somebody wrote.
func (a *Service) All(ctx context.Context) ([]Head, error) {
	var out []Head
	for _, d := range dialect.Known() {
		body, err := dialect.Source(d.Name)
		if err != nil {
			return nil, err
		}
		out = append(out, headOf(d, string(body), false))
	}
	own, err := a.rows.Dialects(ctx)
	for _, o := range own {
		d, err := a.parse(o.Body)
		if err != nil { // written for an earlier form of the program
			out = append(out, Head{Name: o.Name, Title: o.Name, Own: true, Body: o.Body, Broken: err.Error()})
			continue
		}
		out = append(out, headOf(d, o.Body, true))
	}
	return out, err
}

// Find returns a dialect by its name, or the one that a file holds.
func (a *Service) Find(ctx context.Context, name, body string) (*dialect.Dialect, error) {
	if body != "" {
		return a.parsed(body)
	}
	if d, ok := dialect.Named(name); ok {
		return d, nil
	}
	own, err := a.rows.Dialects(ctx)
	if err != nil {
		return nil, err
	}
	i := slices.IndexFunc(own, func(o Dialect) bool { return o.Name == name })
	if i < 0 {
		return nil, problems.Gone(store.ErrNone, "dialect")
	}
	return a.parsed(own[i].Body)
}

// Choice returns the dialects that a text may be written in: one where it is named, else all.
func (a *Service) Choice(ctx context.Context, name string) ([]*dialect.Dialect, error) {
	if name != "" {
		d, err := a.Find(ctx, name, "")
		return []*dialect.Dialect{d}, err
	}
	out := slices.Clone(dialect.Known())
	own, err := a.rows.Dialects(ctx)
	for _, o := range own {
		if d, err := a.parse(o.Body); err == nil {
			out = append(out, d)
		}
	}
	return out, err
}

func (a *Service) parsed(body string) (*dialect.Dialect, error) {
	if len(body) > longestFile {
		return nil, problems.Invalid("body", "A dialect has at most %d bytes; this one has %d.", longestFile, len(body))
	}
	d, err := a.parse(body)
	if err != nil {
		return nil, problems.Invalid("body", "%s", problems.Sentence(err.Error()))
	}
	return d, nil
}

// Save keeps a dialect that somebody wrote. One that ships cannot be written over.
func (a *Service) Save(ctx context.Context, body string) (*Head, error) {
	d, err := a.parsed(body)
	if err != nil {
		return nil, err
	}
	if _, ships := dialect.Named(d.Name); ships {
		return nil, problems.Invalid(
			"body",
			"The dialect %s ships with Tamiz and stays as it is. Give this one another name.",
			d.Name,
		)
	}
	own, err := a.rows.Dialects(ctx)
	if err != nil {
		return nil, err
	}
	if len(own) >= mostOwn && !slices.ContainsFunc(own, func(o Dialect) bool { return o.Name == d.Name }) {
		return nil, problems.Invalid("body", "At most %d dialects are kept. Nothing was saved.", mostOwn)
	}
	if err := a.rows.PutDialect(ctx, Dialect{Name: d.Name, Body: body}); err != nil {
		return nil, err
	}
	head := headOf(d, body, true)
	return &head, nil
}

// Delete takes a dialect away that somebody wrote.
func (a *Service) Delete(ctx context.Context, name string) error {
	return problems.Gone(a.rows.DeleteDialect(ctx, name), "dialect")
}

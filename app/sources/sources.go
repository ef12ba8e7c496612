package sources

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"strings"
	"tamiz/store"
	"time"

	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/exchange"
	"tamiz/source"
	"tamiz/source/sru"
)

// A Source is a literature source that can be asked: how, and what it says of itself.
type Source struct {
	ID         int64              `json:"id"`
	Name       string             `json:"name"`
	Address    string             `json:"address"`
	Version    string             `json:"version"`
	Map        source.Map         `json:"map"`
	Lacks      []string           `json:"lacks"`
	Described  source.Description `json:"described"`
	Vocabulary string             `json:"vocabulary"`
	Off        bool               `json:"off"`
}

// SourceEdit is what can be said of a source. An address alone is enough for a new one.
type SourceEdit struct {
	Name       *string     `json:"name,omitempty"`
	Address    *string     `json:"address,omitempty"`
	Map        *source.Map `json:"map,omitempty"`
	Vocabulary *string     `json:"vocabulary,omitempty"`
	Off        *bool       `json:"off,omitempty"`
}

const MaxSources = 100

func sourceOf(s library.Source) (Source, error) {
	out := Source{ID: s.ID, Name: s.Name, Address: s.Address, Version: s.Version, Vocabulary: s.Vocabulary, Off: s.Off}
	if err := json.Unmarshal(s.Map, &out.Map); err != nil {
		return out, err
	}
	if err := json.Unmarshal(s.Described, &out.Described); err != nil {
		return out, err
	}
	if out.Lacks = out.Map.Lacks(); out.Lacks == nil {
		out.Lacks = []string{}
	}
	return out, nil
}

func (s Source) stored() (library.Source, error) {
	m, err := json.Marshal(s.Map)
	if err != nil {
		return library.Source{}, err
	}
	described, err := json.Marshal(s.Described)
	return library.Source{
		ID:         s.ID,
		Name:       s.Name,
		Address:    s.Address,
		Version:    s.Version,
		Map:        m,
		Described:  described,
		Vocabulary: s.Vocabulary,
		Off:        s.Off,
	}, err
}

// Sources returns the sources that can be asked, and those that are switched off.
func (a *Service) Sources(ctx context.Context) ([]Source, error) {
	all, err := a.library.Sources(ctx)
	if err != nil {
		return nil, err
	}
	out := []Source{}
	for _, s := range all {
		x, err := sourceOf(s)
		if err != nil {
			return nil, err
		}
		out = append(out, x)
	}
	return out, nil
}

// Source returns a source.
func (a *Service) Source(ctx context.Context, id int64) (Source, error) {
	s, err := a.library.Source(ctx, id)
	if err != nil {
		return Source{}, problems.Gone(err, "source")
	}
	return sourceOf(s)
}

// Named returns a source that is not switched off, and a client of it.
func (a *Service) Named(ctx context.Context, id int64) (Source, *sru.Client, error) {
	s, err := a.Source(ctx, id)
	if err != nil {
		return s, nil, err
	}
	c, err := a.Client(s)
	return s, c, err
}

// Client returns a client of a source that is not switched off.
func (a *Service) Client(s Source) (*sru.Client, error) {
	if s.Off {
		return nil, &problems.Problem{
			Type:   "source-off",
			Status: 409,
			Title:  fmt.Sprintf("%s is switched off. Switch it on under Sources to ask it.", s.Name),
		}
	}
	c, err := a.sources.NewClient(s.Address, s.Version, s.Map)
	if err != nil {
		return nil, Unanswered(s.Name, err)
	}
	return c, nil
}

// Unanswered says of a source why it did not answer.
func Unanswered(name string, err error) error {
	if err == nil || errors.Is(err, context.Canceled) {
		return err
	}
	p := &problems.Problem{
		Type:   "source-unanswered",
		Status: 424,
		Params: map[string]string{"source": name},
		Detail: exchange.InWords(err),
	}
	var refused *source.Refusal
	switch {
	case errors.As(err, &refused):
		p.Type, p.Status, p.Title = "source-refused", 422, fmt.Sprintf("%s refuses the question: %s.", name, refused)
	case errors.Is(err, source.ErrNoYears):
		p.Type, p.Status, p.Field, p.Title = "no-years", 422, "how", problems.Sentence(err.Error())
	case errors.Is(err, source.ErrNotAllowed):
		p.Type, p.Status, p.Field, p.Title = "address-not-allowed", 422, "address",
			"This address is not asked: "+strings.TrimPrefix(
				err.Error(),
				source.ErrNotAllowed.Error()+": ",
			)+"."
	case errors.Is(err, source.ErrTimeout), errors.Is(err, context.DeadlineExceeded):
		p.Title = name + " did not answer in time. Nothing is lost; ask again later."
	case errors.Is(err, source.ErrBusy):
		p.Title = name + " asks to be left alone for a while. Nothing is lost; ask again later."
	case errors.Is(err, source.ErrMalformed), errors.Is(err, source.ErrTooLarge):
		p.Title = name + " answered with something that cannot be read."
	case errors.Is(err, source.ErrBroken):
		p.Title = name + " answered with an error of its own."
	case errors.Is(err, source.ErrUnreachable):
		p.Title = name + " cannot be reached."
	default:
		return err
	}
	return p
}

// AskTime is how long a person is made to wait for a source.
const AskTime = 45 * time.Second

// AddSource takes in a source by its address: it is asked what it is, and a map is proposed.
func (a *Service) AddSource(ctx context.Context, e SourceEdit) (Source, error) {
	if e.Address == nil {
		return Source{}, problems.Invalid("address", "A source has an address.")
	}
	all, err := a.Sources(ctx)
	if err != nil {
		return Source{}, err
	}
	if len(all) >= MaxSources {
		return Source{}, problems.Invalid("address", "There are at most %d sources.", MaxSources)
	}
	return a.saveSource(ctx, Source{}, e)
}

// ChangeSource changes how a source is asked. A new address is asked what it is.
func (a *Service) ChangeSource(ctx context.Context, id int64, e SourceEdit) (Source, error) {
	s, err := a.Source(ctx, id)
	if err != nil {
		return s, err
	}
	return a.saveSource(ctx, s, e)
}

func (a *Service) saveSource(ctx context.Context, s Source, e SourceEdit) (Source, error) {
	if e.Address != nil && (s.ID == 0 || *e.Address != s.Address) {
		if len(*e.Address) > 500 {
			return s, problems.Invalid("address", "An address has at most 500 characters.")
		}
		ctx, cancel := context.WithTimeout(ctx, AskTime)
		defer cancel()
		c, err := a.sources.NewClient(*e.Address, "", source.Map{})
		if err != nil {
			return s, Unanswered(*e.Address, err)
		}
		d, m, err := c.Discover(ctx)
		if err != nil {
			return s, Unanswered(*e.Address, err)
		}
		s.Address, s.Version, s.Map, s.Described = c.Address, d.Version, m, *d
		if s.Name == "" {
			if s.Name = strings.TrimSpace(d.Title); s.Name == "" {
				s.Name = c.Address
			}
		}
	}
	if e.Name != nil {
		name, err := reviews.GoodName(*e.Name)
		if err != nil {
			return s, err
		}
		s.Name = name
	}
	if e.Map != nil {
		s.Map = e.Map.Clean()
		s.Map.Schema = store.Plain(s.Map.Schema)
	}
	if e.Vocabulary != nil {
		if s.Vocabulary = strings.TrimSpace(store.Plain(*e.Vocabulary)); len(s.Vocabulary) > 500 {
			return s, problems.Invalid("vocabulary", "The name of a vocabulary has at most 500 characters.")
		}
	}
	if e.Off != nil {
		s.Off = *e.Off
	}
	stored, err := s.stored()
	if err != nil {
		return s, err
	}
	id, err := a.library.PutSource(ctx, stored)
	if err != nil {
		return s, problems.Gone(err, "source")
	}
	a.jobs.Tell(ctx, 0, jobs.News{Kind: "sources"})
	return a.Source(ctx, id)
}

// DeleteSource takes a source away; what was drawn from it stays.
func (a *Service) DeleteSource(ctx context.Context, id int64) error {
	err := problems.Gone(a.library.DeleteSource(ctx, id), "source")
	if err == nil {
		a.jobs.Tell(ctx, 0, jobs.News{Kind: "sources"})
	}
	return err
}

// TryOut is a question put to a source as it is typed.
type TryOut struct {
	Query string `json:"query"`
	Own   bool   `json:"own"` // in the source's own names; else it is put into them
}

// An Answer is what a source said, and how it said it.
type Answer struct {
	Records  int             `json:"records"`
	Query    string          `json:"query"`
	Sent     string          `json:"sent"`
	Echoed   string          `json:"echoed"`
	Said     []source.Saying `json:"said"`
	Notes    []source.Note   `json:"notes"`
	Received string          `json:"received"`
	Refused  bool            `json:"refused"`
	Titles   []string        `json:"titles"`
}

// Try puts a question to a source and shows what was sent and what came.
func (a *Service) Try(ctx context.Context, id int64, t TryOut) (*Answer, error) {
	s, err := a.Source(ctx, id)
	if err != nil {
		return nil, err
	}
	if q := strings.TrimSpace(t.Query); q == "" || len(q) > query.MaxQuery {
		return nil, problems.Invalid("query", "A question has something in it, and at most 1 MB.")
	}
	c, err := a.Client(s)
	if err != nil {
		return nil, err
	}
	out := &Answer{Query: t.Query, Said: []source.Saying{}, Notes: []source.Note{}, Titles: []string{}}
	if !t.Own {
		q, err := query.Parse(t.Query, nil)
		if err != nil {
			return nil, &problems.Problem{
				Type:   "refused",
				Status: 422,
				Field:  "query",
				Title:  problems.Sentence(exchange.InWords(err)),
			}
		}
		out.Query, out.Notes = Rendered(q.Expr, s.Map)
	}
	ctx, cancel := context.WithTimeout(ctx, AskTime)
	defer cancel()
	c.Keep = true
	page, err := c.Search(ctx, source.Search{Query: out.Query, Start: 1, Max: 5})
	if page != nil {
		out.Sent, out.Echoed, out.Received = page.Sent, page.Echoed, page.Received
		out.Said = append(out.Said, page.Said...)
		out.Records = max(0, page.Total)
		for _, g := range page.Records {
			if g.Record != nil {
				out.Titles = append(out.Titles, g.Record.Title)
			}
		}
	}
	var refused *source.Refusal
	if errors.As(err, &refused) {
		out.Refused = true
		return out, nil
	}
	return out, Unanswered(s.Name, err)
}

// Names returns the names of all sources.
func (a *Service) Names(ctx context.Context) (map[int64]string, error) {
	all, err := a.library.Sources(ctx)
	names := map[int64]string{}
	for _, s := range all {
		names[s.ID] = s.Name
	}
	return names, err
}

// First returns the first records that a source finds for a query; none where it cannot be asked that, or refuses
// to be.
func First(ctx context.Context, c source.Source, m source.Map, q query.Expr, most int) ([]*bib.Record, error) {
	cql, _ := source.Render(q, m)
	if cql == "" {
		return nil, nil
	}
	page, err := c.Search(ctx, source.Search{Query: cql, Start: 1, Max: most})
	var refused *source.Refusal
	if errors.As(err, &refused) {
		return nil, nil
	}
	var out []*bib.Record
	if page != nil {
		for _, g := range page.Records {
			if g.Record != nil {
				out = append(out, g.Record)
			}
		}
	}
	return out, err
}

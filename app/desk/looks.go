package desk

import (
	"context"
	"crypto/sha256"
	"encoding/base32"
	"encoding/json"
	"errors"
	"fmt"
	"slices"
	"strings"

	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/core/set"
	"tamiz/store"
)

// At is of what a figure is asked: a review, and a look at it by its name. Without a name it is the look that was taken
// last in the review. A figure may be asked of an earlier version of the strategy.
type At struct {
	Review   int64
	Look     string
	Revision int // of the document; 0 for what holds now
}

// A NewLook is what somebody wants to look at: a sample, and another or all other records it is set against; or, of
// both together, a set of records against the rest.
type NewLook struct {
	Source  *int64  `json:"source,omitempty"` // whose counts are shown; the sample's, where there is none
	Sample  *int64  `json:"sample,omitempty"` // the newest, where none is said
	Against *int64  `json:"against,omitempty"`
	Rest    bool    `json:"rest"`
	Set     *set.Of `json:"set,omitempty"` // of records
	// of the document that the blocks of the set are taken from: the newest, for 0
	Revision int `json:"revision,omitempty"`
	// another vocabulary than the review's: over what was drawn from a source of it
	Through *int64 `json:"through,omitempty"`
}

// A Look is what is looked at. It never changes, and is named by what it is: whoever has the name looks at the
// same, and what was worked out for it is kept under it.
type Look struct {
	Name string `json:"name"`
	NewLook
	Samples []Sized `json:"samples"` // the sample and what it is set against, with their records
	// samples by which is told what blocks lack, where their own words chose the sample
	Beside     []Sized  `json:"beside,omitempty"`
	Vocabulary *int64   `json:"vocabulary,omitempty"`
	Parted     []string `json:"parted,omitempty"` // writings of authors that are not folded
}

// A Sized is a sample as it was looked at: one that was drawn further is another.
type Sized struct {
	ID      int64 `json:"id"`
	Records int   `json:"records"`
}

const maxLooked = 64 << 10 // bytes of what says which records are looked at

// named returns the look with its name.
func (l Look) named() Look {
	l.Name = ""
	of := l
	if l.Set == nil || !set.OfDocument(l.Set.Set) {
		of.Revision = 0
	}
	body, _ := json.Marshal(of)
	sum := sha256.Sum256(body)
	l.Name = strings.ToLower(base32.StdEncoding.WithPadding(base32.NoPadding).EncodeToString(sum[:10]))
	return l
}

// records returns by what the records are known that are looked at: the same whatever source is asked for counts.
func (l Look) records() string {
	l.Source = nil
	return l.named().Name
}

// pool returns by what the pool of the look is known, how many records its samples hold, and which the others are
// that the sample is set against.
func (l Look) pool() (key string, records int, others []int64) {
	key = vocabularyKey(l.Vocabulary)
	for i, s := range l.Samples {
		key += fmt.Sprint(" ", s.ID, ":", s.Records)
		records += s.Records
		if i > 0 {
			others = append(others, s.ID)
		}
	}
	for _, s := range l.Beside {
		key += fmt.Sprint(" +", s.ID, ":", s.Records)
		records += s.Records
	}
	return key, records, others
}

// completed fills in what a look is made of from what the review is now.
func completed(n NewLook, samples []library.Sample, from []chosen, d Document) Look {
	l := Look{NewLook: n, Samples: []Sized{}, Vocabulary: d.Vocabulary, Parted: d.Parted}
	if l.Through != nil {
		l.Vocabulary = l.Through
	}
	if l.Sample == nil && len(samples) > 0 {
		l.Sample = &samples[len(samples)-1].ID
	}
	if l.Sample != nil && l.Against != nil && *l.Against == *l.Sample {
		l.Against, l.Rest = nil, true // the newest, which nobody chose, is what it was set against
	}
	if l.Sample == nil {
		return l.named()
	}
	for _, s := range samples {
		if s.ID == *l.Sample {
			l.Samples = slices.Insert(l.Samples, 0, Sized{s.ID, s.Records})
		} else if l.Rest && l.Against == nil || l.Against != nil && s.ID == *l.Against {
			l.Samples = append(l.Samples, Sized{s.ID, s.Records})
		}
	}
	// Whatever the order in which they came, it is the same contrast.
	slices.SortFunc(l.Samples[1:], func(a, b Sized) int { return int(a.ID - b.ID) })
	var own []int64
	for _, s := range l.Samples {
		own = append(own, s.ID)
	}
	for _, id := range beside(from, d, *l.Sample, own) {
		i := slices.IndexFunc(samples, func(s library.Sample) bool { return s.ID == id })
		if i >= 0 {
			l.Beside = append(l.Beside, Sized{id, samples[i].Records})
		}
	}
	return l.named()
}

// MakeLook makes a look at a review, and the one that whoever has none begins with; one through another vocabulary
// is taken beside it.
func (a *Service) MakeLook(ctx context.Context, review int64, n NewLook) (Look, error) {
	samples, from, doc, revision, err := a.lookable(ctx, review)
	if err != nil {
		return Look{}, err
	}
	for _, wanted := range []*int64{n.Sample, n.Against} {
		if wanted != nil && !slices.ContainsFunc(samples, func(s library.Sample) bool { return s.ID == *wanted }) {
			return Look{}, problems.Gone(store.ErrNone, "sample")
		}
	}
	if n.Source != nil {
		if _, err := a.library.Source(ctx, *n.Source); err != nil {
			return Look{}, problems.Gone(err, "source")
		}
	}
	if n, err = a.through(ctx, review, doc, n); err != nil {
		return Look{}, err
	}
	if n.Sample != nil && n.Against != nil && *n.Sample == *n.Against {
		return Look{}, problems.Invalid("against", "A sample cannot be set against itself.")
	}
	if n.Revision <= 0 || n.Revision > revision {
		n.Revision = revision
	}
	if n.Set != nil && n.Set.Set != nil {
		if err := a.checkLooked(doc, *n.Set); err != nil {
			return Look{}, err
		}
	} else {
		n.Set = nil
	}
	l := completed(n, samples, from, doc)
	body, err := json.Marshal(l)
	if err != nil {
		return Look{}, err
	}
	return l, problems.Gone(a.documents.PutLook(ctx, review, l.Name, body, l.Through == nil), "review")
}

// through completes a look through another vocabulary: over the largest sample that was drawn from a source of it,
// with what that source counts. Where nothing was drawn there it is over the sample that was chosen, whose records
// know little of it.
func (a *Service) through(ctx context.Context, review int64, doc Document, n NewLook) (NewLook, error) {
	if n.Through == nil || doc.Vocabulary != nil && *doc.Vocabulary == *n.Through {
		n.Through = nil
		return n, nil
	}
	v, err := a.vocabularyRows.One(ctx, *n.Through)
	if err != nil {
		return n, problems.Gone(err, "vocabulary")
	}
	out := NewLook{Through: n.Through, Sample: n.Sample, Revision: n.Revision}
	drawn, source, err := a.largest(ctx, review, v.Name)
	if err != nil {
		return n, err
	}
	if source != 0 {
		out.Source = &source
	}
	if drawn.ID != 0 {
		out.Sample = &drawn.ID
	}
	return out, nil
}

// Look returns a look by its name; without one, that which whoever has none begins with.
func (a *Service) Look(ctx context.Context, at At) (Look, error) {
	body, err := a.documents.Look(ctx, at.Review, at.Look)
	switch {
	case errors.Is(err, store.ErrNone) && at.Look != "":
		return Look{}, problems.Gone(err, "look")
	case errors.Is(err, store.ErrNone):
		samples, from, doc, revision, err := a.lookable(ctx, at.Review)
		return completed(NewLook{Rest: true, Revision: revision}, samples, from, doc), err
	case err != nil:
		return Look{}, err
	}
	var l Look
	if err := json.Unmarshal(body, &l); err != nil || at.Look != "" {
		return l, err
	}
	// What was begun with may have changed since: a sample that was deleted gives way.
	samples, from, doc, _, err := a.lookable(ctx, at.Review)
	there := func(id *int64) bool {
		return id == nil || slices.ContainsFunc(samples, func(s library.Sample) bool { return s.ID == *id })
	}
	if !there(l.Sample) {
		l.Sample = nil
	}
	if !there(l.Against) || l.Sample != nil && l.Against != nil && *l.Against == *l.Sample {
		l.Against, l.Rest = nil, true
	}
	if l.Source != nil {
		if _, away := a.library.Source(ctx, *l.Source); away != nil {
			l.Source = nil
		}
	}
	return completed(l.NewLook, samples, from, doc), err
}

// lookable returns what looks are made of.
func (a *Service) lookable(ctx context.Context, review int64) ([]library.Sample, []chosen, Document, int, error) {
	samples, err := a.library.Samples(ctx, review)
	if err != nil {
		return nil, nil, Document{}, 0, err
	}
	origins, err := a.library.Origins(ctx, review)
	if err != nil {
		return nil, nil, Document{}, 0, err
	}
	from, err := chosenBy(origins)
	if err != nil {
		return nil, nil, Document{}, 0, err
	}
	saved, err := a.documents.Document(ctx, review, 0)
	if err != nil {
		return nil, nil, Document{}, 0, problems.Gone(err, "review")
	}
	doc, err := Parse(saved.Body)
	return samples, from, doc, saved.Revision, err
}

// checkLooked says what keeps a set from being looked at.
func (a *Service) checkLooked(doc Document, s set.Of) error {
	if body, err := json.Marshal(s); err != nil || len(body) > maxLooked {
		return problems.Invalid("set", "A selection of so many records cannot be looked at; keep them as a sample.")
	}
	if err := s.Check(); err != nil {
		return SetProblem(err)
	}
	if err := set.InDocument(s.Set, doc); err != nil {
		return SetProblem(err)
	}
	return nil
}

// SetProblem says why the records of a set cannot be told.
func SetProblem(err error) error {
	var f *set.Fault
	switch {
	case errors.Is(err, set.ErrNoBlock):
		return problems.Gone(store.ErrNone, "block")
	case errors.As(err, &f) && f.Err != nil:
		r := problems.RefusalOf(f.Err)
		return &problems.Problem{
			Type:   "refused",
			Status: 422,
			Field:  f.Field,
			Title:  problems.Sentence(r.Message),
			Detail: r.Reason,
		}
	case errors.As(err, &f):
		return problems.Invalid(f.Field, "%s", problems.Sentence(f.Message))
	}
	return err
}

package reviews

import (
	"context"
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/store"
)

// VersionEdit is what somebody says of a version.
type VersionEdit struct {
	Name string `json:"name"`
	Note string `json:"note,omitempty"`
}

func (e *VersionEdit) check() error {
	e.Name, e.Note = strings.TrimSpace(
		store.Plain(e.Name),
	), strings.TrimSpace(
		store.Plain(e.Note),
	)
	if e.Name == "" || utf8.RuneCountInString(e.Name) > 200 {
		return problems.Invalid("name", "A version has a name of 1 to 200 characters.")
	}
	if utf8.RuneCountInString(e.Note) > 4000 {
		return problems.Invalid("note", "A note has at most 4,000 characters.")
	}
	return nil
}

// large are the steps before which a version is kept by itself, by the keys of what they say they do.
var large = []string{
	"plan",
	"prune",
	"pruneSample",
	"takeQuery",
	"vocabulary",
	"removeVocabulary",
	"removeBlock",
	goBack,
}

const goBack = "goBack"

// keepBefore keeps the revision that a large step begins on.
func (d *Done) keepBefore(ctx context.Context, w *store.Tx, key string) error {
	if d.Before.Revision == 0 || !slices.Contains(large, key) {
		return nil
	}
	return keepVersion(ctx, w, Version{Revision: d.Before.Revision, Why: key})
}

// Keep keeps the newest revision of the document as a version.
func (a *Service) Keep(ctx context.Context, review int64, e VersionEdit) error {
	if err := e.check(); err != nil {
		return err
	}
	return a.versions(ctx, review, func(ctx context.Context, w *store.Tx) error {
		saved, err := desk.DocumentIn(ctx, w, 0)
		if err != nil {
			return err
		}
		return keepVersion(ctx, w, Version{Revision: saved.Revision, Name: e.Name, Note: e.Note})
	})
}

// NameVersion changes what a version is called.
func (a *Service) NameVersion(ctx context.Context, review, id int64, e VersionEdit) error {
	if err := e.check(); err != nil {
		return err
	}
	return a.versions(ctx, review, func(ctx context.Context, w *store.Tx) error {
		return problems.Gone(nameVersion(ctx, w, id, e.Name, e.Note), "version")
	})
}

// ForgetVersion keeps a revision as a version no more, or again.
func (a *Service) ForgetVersion(ctx context.Context, review, id int64, gone bool) error {
	return a.versions(ctx, review, func(ctx context.Context, w *store.Tx) error {
		return problems.Gone(forgetVersion(ctx, w, id, gone), "version")
	})
}

func (a *Service) versions(ctx context.Context, review int64, do func(context.Context, *store.Tx) error) error {
	return problems.Gone(a.store.InReview(ctx, review, func(ctx context.Context, w *store.Tx) error {
		if err := do(ctx, w); err != nil {
			return err
		}
		return w.Notify(ctx, jobs.News{Review: review, Kind: "versions"}.String())
	}), "review")
}

// GoBack makes what was searched in a version what is searched now: question, frame, blocks and limits. What it is
// now is kept as a version first, so that nothing newer is lost; the step is taken back like any other. Vocabulary,
// halves and lists stay as they are.
func (a *Service) GoBack(ctx context.Context, review, id int64) (Step, error) {
	var step Step
	err := a.store.InReview(ctx, review, func(ctx context.Context, w *store.Tx) error {
		v, err := VersionIn(ctx, w, id)
		if err != nil {
			return problems.Gone(err, "version")
		}
		_, old, err := DocumentOf(ctx, w, v.Revision)
		if err != nil {
			return err
		}
		current, now, err := DocumentOf(ctx, w, 0)
		if err != nil {
			return err
		}
		to := now
		to.Question, to.Frame, to.Blocks, to.Limits = old.Question, old.Frame, old.Blocks, old.Limits
		var d Done
		if err := d.Save(ctx, w, current, now, to); err != nil || d.After.Revision == 0 {
			return err
		}
		if err := apply(ctx, w, d.After); err != nil {
			return err
		}
		name := v.Name
		if name == "" {
			name = v.At.Format("2 Jan 2006, 15:04")
		}
		if err := d.keepBefore(ctx, w, goBack); err != nil {
			return err
		}
		step, err = d.Log(ctx, w, review, What{Key: goBack, Params: map[string]string{"name": name}})
		return err
	})
	return a.Told(ctx, review, step, err)
}

// NewLine names a review that is begun from a version of another: a second line, for another purpose.
type NewLine struct {
	Name string `json:"name"`
}

// BeginFrom begins a review from a version of another: with its question, blocks, limits and vocabulary, and with
// the same key studies. Samples are not taken along: they are drawn or brought in anew, so that the two do not
// share what they are set against.
func (a *Service) BeginFrom(ctx context.Context, review, id int64, n NewLine) (Head, error) {
	name, err := GoodName(n.Name)
	if err != nil {
		return Head{}, err
	}
	var doc desk.Document
	var of Version
	err = a.store.InReview(ctx, review, func(ctx context.Context, w *store.Tx) error {
		v, err := VersionIn(ctx, w, id)
		if err != nil {
			return problems.Gone(err, "version")
		}
		of = v
		_, doc, err = DocumentOf(ctx, w, v.Revision)
		return err
	})
	if err != nil {
		return Head{}, problems.Gone(err, "review")
	}
	doc.Halves = nil // they name key studies of the other review
	for _, b := range doc.Blocks {
		for i, t := range b.Terms {
			if t.From != nil { // nor are its samples here
				from := *t.From
				from.Sample = nil
				b.Terms[i].From = &from
			}
		}
	}
	body, err := doc.Saved()
	if err != nil {
		return Head{}, err
	}
	keys, err := a.library.KeyStudies(ctx, review)
	if err != nil {
		return Head{}, err
	}
	head, err := a.rows.Head(ctx, review)
	if err != nil {
		return Head{}, problems.Gone(err, "review")
	}
	made, err := a.rows.New(ctx, name, body)
	if err != nil {
		return Head{}, err
	}
	err = a.store.InReview(ctx, made, func(ctx context.Context, w *store.Tx) error {
		records := make([]int64, len(keys))
		for i, k := range keys {
			records[i] = k.StoredRecord.ID
		}
		if _, err := library.AddKeys(ctx, w, records, "copied", head.Name); err != nil {
			return err
		}
		called := of.Name
		if called == "" {
			called = of.At.Format("2 Jan 2006, 15:04")
		}
		return keepVersion(ctx, w, Version{Revision: 1, Name: called, Note: "from " + head.Name})
	})
	if err != nil {
		return Head{}, err
	}
	return a.rows.Head(ctx, made)
}

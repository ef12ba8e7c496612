package written

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/problems"
	"tamiz/app/runs"
	"tamiz/app/sources"
	"tamiz/core/review"
	"tamiz/exchange/document"
)

// The record describes what was run. What was changed since is an open point of it, and never mixed in.

// ran is what was run at one source, the last time that it answered.
type ran struct {
	source runs.SourceRun
	doc    desk.Document
	lines  *sources.Written // as they were asked; nil where that cannot be told any more
	since  bool             // the strategy was changed since
}

// An Open is what keeps the record from being that of the strategy as it stands: it was changed since it was run at
// some sources.
type Open struct {
	Sources []string  `json:"sources"`
	At      time.Time `json:"at"` // when it was run there last
	Says    string    `json:"says"`
	Changed string    `json:"changed"` // what was, in words
}

// asRun finds out what was run, and of which version the record is: of the newest that was run, else of what holds now.
func (a *Service) asRun(ctx context.Context, at desk.At, f *facts) error {
	f.doc = f.review.Document
	for _, s := range f.everywhere.Sources {
		if s.Run == nil || s.Run.Records == nil {
			continue
		}
		r := ran{source: s}
		var err error
		if r.doc, err = a.desk.Proposed(ctx, at.Review, desk.Proposal{Revision: s.Run.Revision}); err != nil {
			return err
		}
		if r.lines, err = a.runs.AsRun(ctx, *s.Run); err != nil {
			return err
		}
		r.since = len(review.Compare(r.doc, f.review.Document)) > 0
		f.ran = append(f.ran, r)
		if s.Run.Revision > f.revision {
			f.revision, f.doc = s.Run.Revision, r.doc
		}
	}
	return nil
}

// since says what was changed since the strategy was run, in one point.
func (a *Service) since(ctx context.Context, at desk.At, f *facts) error {
	var o Open
	for _, r := range f.ran {
		if !r.since {
			continue
		}
		o.Sources = append(o.Sources, r.source.Name)
		if r.source.Run.At.After(o.At) {
			o.At = r.source.Run.At
		}
	}
	if len(o.Sources) == 0 {
		return nil
	}
	o.Says = fmt.Sprintf(
		"The strategy has changed since it was run at %s: run it again, or keep the record of %s.",
		listed(o.Sources),
		day(o.At),
	)
	c, err := a.figures.CompareVersions(ctx, at, f.revision, 0)
	switch {
	case ctx.Err() != nil:
		return ctx.Err()
	case err != nil:
		o.Changed = "What was changed cannot be told any more: " + problems.Told(err)
	default:
		o.Changed = c.Words
	}
	f.open = &o
	return nil
}

// complete reports whether every source that was run is described line by line as it was asked.
func (f facts) complete() bool {
	return len(f.ran) > 0 && !slices.ContainsFunc(f.ran, func(r ran) bool { return r.lines == nil })
}

// others are the versions that were run elsewhere and search something else than that of which the record is.
func (f facts) others() (out []ran) {
	for _, r := range f.ran {
		if r.source.Run.Revision != f.revision && len(review.Compare(r.doc, f.doc)) > 0 {
			out = append(out, r)
		}
	}
	return out
}

// openSection is what stands open, before all else; none, where nothing does.
func (f facts) openSection() []document.Section {
	s := document.Section{ID: "open", Title: "What is open"}
	if f.open != nil {
		s.Add(
			document.Text("%s", f.open.Says),
			document.Note("Changed since, and no part of this record: %s", f.open.Changed),
		)
	}
	for _, r := range f.others() {
		s.Add(
			document.Note(
				"At %s another version was run, on %s: its own lines stand below.",
				r.source.Name,
				day(r.source.Run.At),
			),
		)
	}
	if len(s.Parts) == 0 {
		return nil
	}
	return []document.Section{s}
}

// linesSection is every line as each source was asked it; where none was, as it would be.
func (f facts) linesSection() document.Section {
	s := document.Section{
		ID:    "lines",
		Title: "Lines as they were asked",
		Empty: "There is no source that the strategy can be asked.",
	}
	if len(f.ran) == 0 {
		s.Title = "Lines as they would be asked"
	}
	for _, r := range f.ran {
		name := fmt.Sprintf("%s, asked on %s", r.source.Name, day(r.source.Run.At))
		if r.lines == nil {
			s.Add(document.Part{Title: name + ", as one query", Code: r.source.Run.Query})
			s.Add(
				document.Note(
					"%s is described otherwise since: line by line it cannot be written any more as it was asked.",
					r.source.Name,
				),
			)
			notes(&s, r.source.Name, &sources.Written{Notes: r.source.Run.Notes})
			continue
		}
		byLine(&s, name, r.lines)
	}
	for _, w := range f.lines {
		byLine(&s, w.Source, w)
	}
	if n := len(f.everywhere.Sources); len(f.ran) == 0 && len(f.lines) == mostLines && n > mostLines {
		s.Add(document.Note("Of %d sources the lines of the first %d are written out.", n, mostLines))
	}
	return s
}

// byLine writes a strategy as a source is asked it. Lines that somebody put together to look at are no part of it.
func byLine(s *document.Section, name string, w *sources.Written) {
	var rows [][]string
	for _, l := range w.Lines {
		if l.Line != "" {
			continue
		}
		text := l.Text
		if text == "" {
			text = "not asked: " + saidNotes(l.Notes)
		}
		rows = append(rows, []string{fmt.Sprint(l.Number), text})
	}
	s.Add(document.Rows(name, []string{">Line", "As it is asked"}, rows))
	if w.Whole != "" {
		s.Add(document.Part{Title: w.Source + ", as one query", Code: w.Whole})
	}
	notes(s, w.Source, w)
}

func notes(s *document.Section, name string, w *sources.Written) {
	if len(w.Notes) == 0 {
		return
	}
	var items []string
	for _, n := range w.Notes {
		items = append(items, n.String())
	}
	s.Add(
		document.Note("What %s cannot be asked as it is meant, and what was asked in its place:", name),
		document.Part{Items: items},
	)
}

func saidNotes(of []sources.Note) string {
	var said []string
	for _, n := range of {
		said = append(said, n.String())
	}
	return strings.Join(said, "; ")
}

// away is how many key studies the source does not hold by whose records they are gone by.
func (f facts) away() (n int) {
	for _, c := range f.coverage.Studies {
		if c.NotHere {
			n++
		}
	}
	return n
}

// tested says how good the strategy is that was run.
func tested(c *figures.Coverage, away int, source string) string {
	r := c.Recall
	out := fmt.Sprintf(
		"Of %d key studies the strategy catches %d: %s (95 %% interval %s to %s).",
		r.Of,
		r.Caught,
		percent(r.Share),
		percent(r.Low),
		percent(r.High),
	)
	if away > 0 {
		out = fmt.Sprintf(
			"Of the %d key studies that %s holds the strategy catches %d: %s (95 %% interval %s to %s). %s; they are no misses.",
			r.Of,
			source,
			r.Caught,
			percent(r.Share),
			percent(r.Low),
			percent(r.High),
			plural(away, "more is not held there", "more are not held there"),
		)
	}
	return out
}

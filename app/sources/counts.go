package sources

import (
	"context"
	"encoding/json"
	"errors"
	"fmt"
	"time"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/logbook"
	"tamiz/app/problems"
	"tamiz/core/dialect"
	"tamiz/core/strategy"
	"tamiz/core/thesaurus"
	"tamiz/source"
	"tamiz/source/sru"
	"tamiz/store"
)

// A SourceCount is how many records a source says it finds: when, and what it made of the query.
type SourceCount struct {
	Records int             `json:"records"`
	At      time.Time       `json:"at"`
	Query   string          `json:"query"`
	Sent    string          `json:"sent"`
	Echoed  string          `json:"echoed"`
	Said    []source.Saying `json:"said"`
	Notes   []source.Note   `json:"notes"` // what the source cannot be asked, and what was counted in its place
	Refused bool            `json:"refused,omitempty"`
	Bare    string          `json:"bare,omitempty"` // the same words without an index, where that can be asked
}

// SourceCounts are the counts of a review at the source whose counts are shown. Of what is not counted yet
// nothing is said; a job is counting it.
type SourceCounts struct {
	Source  int64                  `json:"source"`
	Name    string                 `json:"name"`
	Terms   map[string]SourceCount `json:"terms"`
	Blocks  map[string]SourceCount `json:"blocks"`
	Lines   map[string]SourceCount `json:"lines"` // that are put together of others
	Whole   *SourceCount           `json:"whole,omitempty"`
	Waiting int                    `json:"waiting"` // how many are still to be counted
	Problem *problems.Problem      `json:"problem,omitempty"`
}

// A wanted is a query whose count is shown, as the source is asked it.
type wanted struct {
	kind, id string
	query    string
	notes    []source.Note
	bare     string
}

// wantedCounts returns all queries of a document as they are asked as its lines, the whole first, since that is
// looked at most.
func wantedCounts(d desk.Document, as Speech, v *thesaurus.Thesaurus) []wanted {
	var out []wanted
	put := func(kind, id string, w dialect.Written, bare string) {
		if cql, notes := as.Asked(w); cql != "" {
			out = append(out, wanted{kind, id, cql, noted(notes), bare})
		}
	}
	s := d.Strategy("")
	var own []strategy.Numbered
	if lines, err := d.Numbered(v); err == nil {
		own = lines[len(lines)-len(d.Lines):]
	}
	if typed, err := as.Typed(s, v, own...); err == nil {
		put("whole", "", typed.Whole, "")
		for _, l := range typed.Own {
			put("line", d.Lines[l.Of.Own].ID, typed.Line(l), "")
		}
	}
	// A block is counted by itself: also one that is not searched, or takes away.
	var blocks []*strategy.Typed
	for i, b := range d.Blocks {
		only := s.Blocks[i]
		only.Searched = true
		typed, err := as.Typed(strategy.Strategy{Tamiz: strategy.Version, Blocks: []strategy.Block{only}}, v)
		if err != nil {
			typed = nil
		} else {
			put("block", b.ID, typed.Together(0), "")
		}
		blocks = append(blocks, typed)
	}
	for i, b := range d.Blocks {
		for j, t := range b.Terms {
			if blocks[i] == nil {
				continue
			}
			bare := ""
			if t.Kind == strategy.TextTerm {
				bare = t.Text
			}
			put("term", t.ID, blocks[i].Term(0, j), bare)
		}
	}
	return out
}

// Counts returns what the chosen source finds for each term, block and the whole. What was not counted
// today is counted in the background; again makes all be counted anew.
func (a *Service) Counts(ctx context.Context, at desk.At, again bool) (*SourceCounts, error) {
	l, err := a.desk.Look(ctx, at)
	if err != nil {
		return nil, err
	}
	s, all, _, err := a.countable(ctx, at.Review, l.Source)
	if err != nil {
		return nil, err
	}
	if s == nil {
		return &SourceCounts{
			Terms:  map[string]SourceCount{},
			Blocks: map[string]SourceCount{},
			Lines:  map[string]SourceCount{},
		}, nil
	}
	cql := make([]string, len(all))
	for i, w := range all {
		cql[i] = w.query
	}
	if again {
		if err := a.rows.ForgetCounts(ctx, s.ID, cql); err != nil {
			return nil, err
		}
	}
	known, err := a.rows.Counts(ctx, s.ID, cql)
	if err != nil {
		return nil, err
	}
	out := &SourceCounts{
		Source: s.ID,
		Name:   s.Name,
		Terms:  map[string]SourceCount{},
		Blocks: map[string]SourceCount{},
		Lines:  map[string]SourceCount{},
	}
	for _, w := range all {
		k, ok := known[w.query]
		if !ok || !k.Today {
			out.Waiting++
		}
		if !ok {
			continue
		}
		c, err := countOf(k, w)
		if err != nil {
			return nil, err
		}
		switch w.kind {
		case "whole":
			out.Whole = &c
		case "block":
			out.Blocks[w.id] = c
		case "line":
			out.Lines[w.id] = c
		default:
			out.Terms[w.id] = c
		}
	}
	if s.Off {
		_, err := a.Client(*s)
		errors.As(err, &out.Problem)
		return out, nil
	}
	if out.Waiting == 0 {
		return out, nil
	}
	// Where counting came to nothing just now it is not begun again by everyone who looks.
	task := countTask(at.Review, s.ID)
	last, err := a.tasks.Task(ctx, task.Name)
	if err != nil && !errors.Is(err, store.ErrNone) {
		return nil, err
	}
	if last.Source != nil && *last.Source == s.ID {
		failed := last.Problem != nil
		if failed {
			if err := json.Unmarshal(last.Problem, &out.Problem); err != nil {
				return nil, err
			}
		}
		// Nor is it asked for once more by everyone who looks while it is under way: it looks at the document itself.
		if !again && (last.Wanted || failed && last.Ended != nil && a.now().Sub(*last.Ended) < countAgain) {
			return out, nil
		}
	}
	return out, a.jobs.Ask(ctx, task)
}

// countTask is the counting of a review at a source: each review is counted at several, by whoever looks.
func countTask(review, source int64) jobs.Task {
	t := jobs.NewTask("count", review, &review, &source)
	t.Name += fmt.Sprint(" at ", source)
	return t
}

// countAgain is after what time a source that did not answer is asked again by itself.
const countAgain = 20 * time.Second

// countable returns the source whose counts are shown, nil for none, all that is to be counted there, and by which
// revision.
func (a *Service) countable(
	ctx context.Context,
	review int64,
	id *int64,
) (s *Source, all []wanted, revision int, err error) {
	if id == nil {
		return nil, nil, 0, nil
	}
	found, err := a.Source(ctx, *id)
	if err != nil {
		return nil, nil, 0, err
	}
	saved, err := a.documents.Document(ctx, review, 0)
	if err != nil {
		return nil, nil, 0, problems.Gone(err, "review")
	}
	d, err := desk.Parse(saved.Body)
	if err != nil {
		return nil, nil, 0, err
	}
	t, err := a.desk.Pools.Thesaurus(ctx, d.Vocabulary)
	if err != nil {
		return nil, nil, 0, err
	}
	as, err := a.Speech(ctx, found, d.Vocabulary)
	return &found, wantedCounts(d, as, t), saved.Revision, err
}

// countOf returns a count that is kept as it is told, of the query that was asked.
func countOf(k Count, w wanted) (SourceCount, error) {
	var x KeptExchange
	if err := json.Unmarshal(k.Exchange, &x); err != nil {
		return SourceCount{}, err
	}
	if x.Said == nil {
		x.Said = []source.Saying{}
	}
	return SourceCount{
		Records: k.Records,
		At:      k.At,
		Query:   w.query,
		Sent:    x.Sent,
		Echoed:  x.Echoed,
		Said:    x.Said,
		Notes:   w.notes,
		Refused: x.Refused,
		Bare:    w.bare,
	}, nil
}

// KeptExchange is what is kept of an exchange beside its count.
type KeptExchange struct {
	Sent    string          `json:"sent"`
	Echoed  string          `json:"echoed"`
	Said    []source.Saying `json:"said"`
	Refused bool            `json:"refused,omitempty"`
}

// countToday returns today's count of a query that is in the source's own names; it asks where there is none.
func (a *Service) countToday(ctx context.Context, s Source, c source.Source, cql string) (Count, error) {
	known, err := a.rows.Counts(ctx, s.ID, []string{cql})
	if err != nil {
		return Count{}, err
	}
	if k, ok := known[cql]; ok && k.Today {
		return k, nil
	}
	return a.CountNow(ctx, s, c, cql)
}

// Counted returns what a source finds for a query that is in its own names, as it is told; notes say what the query
// was adapted from. What was counted today is not asked again.
func (a *Service) Counted(
	ctx context.Context,
	s Source,
	c source.Source,
	cql string,
	notes []source.Note,
) (*SourceCount, error) {
	k, err := a.countToday(ctx, s, c, cql)
	if err != nil {
		return nil, Unanswered(s.Name, err)
	}
	out, err := countOf(k, wanted{query: cql, notes: notes})
	if err != nil {
		return nil, err
	}
	return &out, nil
}

// CountNow asks a source how many records it finds, whatever it said before, and keeps what it says.
func (a *Service) CountNow(ctx context.Context, s Source, c source.Source, cql string) (Count, error) {
	page, err := c.Search(ctx, source.Search{Query: cql, Start: 1})
	var refused *source.Refusal
	if err != nil && !errors.As(err, &refused) {
		return Count{}, err
	}
	saying, err := json.Marshal(KeptExchange{page.Sent, page.Echoed, page.Said, refused != nil})
	if err != nil {
		return Count{}, err
	}
	k := Count{Records: max(0, page.Total), Exchange: saying, At: a.now(), Today: true}
	return k, a.rows.PutCount(ctx, s.ID, cql, k.Records, saying)
}

// counting returns the source whose counts are shown, and how it is asked.
func (a *Service) counting(ctx context.Context, at desk.At) (Source, *sru.Client, error) {
	l, err := a.desk.Look(ctx, at)
	if err != nil {
		return Source{}, nil, err
	}
	if l.Source == nil {
		return Source{}, nil, errNoSource
	}
	return a.Named(ctx, *l.Source)
}

// CountWhole returns what the source whose counts are shown finds for a whole strategy, saved or not.
func (a *Service) CountWhole(ctx context.Context, at desk.At, p desk.Proposal) (*SourceCount, error) {
	d, err := a.desk.Proposed(ctx, at.Review, p)
	if err != nil {
		return nil, err
	}
	s, client, err := a.counting(ctx, at)
	if err != nil {
		return nil, err
	}
	t, err := a.desk.Pools.Thesaurus(ctx, d.Vocabulary)
	if err != nil {
		return nil, err
	}
	as, err := a.Speech(ctx, s, d.Vocabulary)
	if err != nil {
		return nil, err
	}
	for _, w := range wantedCounts(d, as, t) {
		if w.kind != "whole" {
			continue
		}
		return a.Counted(ctx, s, client, w.query, w.notes)
	}
	return nil, &problems.Problem{Type: "no-query", Status: 409, Title: "This strategy cannot be asked at the source."}
}

// mostAsked is how many terms are counted at a source in one call: each is asked by itself.
const mostAsked = 8

// CountTerms returns what a source finds for some terms, each by itself; nothing of one that it cannot be asked.
// Where none is named it is that whose counts are shown, and headings are of the review's vocabulary; else they are
// of the source's own. What was counted today is not asked again.
func (a *Service) CountTerms(ctx context.Context, at desk.At, of *int64, terms []desk.Term) ([]TermCount, error) {
	if len(terms) > mostAsked {
		return nil, problems.Invalid("terms", "At most %d terms are counted at once; these are %d.", mostAsked, len(terms))
	}
	var s Source
	var client *sru.Client
	var v *thesaurus.Thesaurus
	var as Speech
	var err error
	if of != nil {
		if s, client, err = a.Named(ctx, *of); err != nil {
			return nil, err
		}
		if as, err = speechOf(s.Map, nil); err != nil {
			return nil, err
		}
	} else {
		if s, client, err = a.counting(ctx, at); err != nil {
			return nil, err
		}
		l, err := a.desk.Look(ctx, at)
		if err != nil {
			return nil, err
		}
		if v, err = a.desk.Pools.Thesaurus(ctx, l.Vocabulary); err != nil {
			return nil, err
		}
		if as, err = a.Speech(ctx, s, l.Vocabulary); err != nil {
			return nil, err
		}
	}
	out := make([]TermCount, len(terms))
	for i, t := range terms {
		q, err := t.QueryIn(v)
		if err != nil {
			continue
		}
		cql, notes := as.rendered(q)
		if cql == "" {
			continue
		}
		if out[i].Count, err = a.Counted(ctx, s, client, cql, notes); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// A TermCount is what a source finds for a term; nothing, where it cannot be asked it.
type TermCount struct {
	Count *SourceCount `json:"count,omitempty"`
}

var errNoSource = &problems.Problem{
	Type:   "no-source",
	Status: 409,
	Title:  "No source is chosen whose counts are shown.",
}

// FailCounts tells those who wait that the counting came to nothing.
func (a *Service) FailCounts(ctx context.Context, t jobs.Task, _ *problems.Problem) error {
	a.jobs.Tell(ctx, t.Number, jobs.News{Kind: "counts"})
	return nil
}

// CountAll counts what is not counted yet. It looks at the document again after each count, so that what was
// changed last is counted first and what is no longer asked is not counted at all.
func (a *Service) CountAll(ctx context.Context, t jobs.Task) error {
	review := t.Number
	told := time.Time{}
	tell := func(always bool) {
		if always || time.Since(told) > 250*time.Millisecond {
			told = time.Now()
			a.jobs.Tell(ctx, review, jobs.News{Kind: "counts"})
		}
	}
	defer tell(true)
	seen := map[string]bool{}
	for {
		s, all, revision, err := a.countable(ctx, review, t.Source)
		if err != nil || s == nil || s.Off {
			return err
		}
		next, err := a.nextCount(ctx, s.ID, all, seen)
		if err != nil || next == nil {
			return err
		}
		seen[next.query] = true
		c, err := a.Client(*s)
		var k Count
		if err == nil {
			k, err = a.countToday(ctx, *s, c, next.query)
		}
		if err != nil {
			return Unanswered(s.Name, err)
		}
		if next.kind == "whole" {
			if err := a.logCount(ctx, t, *s, revision, *next, k); err != nil {
				return err
			}
		}
		tell(false)
	}
}

// logCount keeps what a source said of the whole strategy, counted in passing, as a run.
func (a *Service) logCount(ctx context.Context, t jobs.Task, s Source, revision int, w wanted, k Count) error {
	found := int64(k.Records)
	r := logbook.Run{
		Review:   t.Number,
		Kind:     "counted",
		Revision: revision,
		Source:   &s.ID,
		Place:    s.Name,
		Query:    w.query,
		Records:  &found,
		Exchange: k.Exchange,
		Who:      t.Who,
		At:       k.At,
	}
	var err error
	if r.Notes, err = json.Marshal(w.notes); err != nil {
		return err
	}
	return a.logbook.PutRun(ctx, r, nil, a.jobs.Wake)
}

// nextCount returns the next query to count, nil for none: one that was never counted before one that is only old; of
// those the last in the document, which is mostly the newest. seen are those that were counted just now.
func (a *Service) nextCount(ctx context.Context, id int64, all []wanted, seen map[string]bool) (*wanted, error) {
	cql := make([]string, len(all))
	for i, w := range all {
		cql[i] = w.query
	}
	known, err := a.rows.Counts(ctx, id, cql)
	if err != nil {
		return nil, err
	}
	var old, fresh *wanted
	for i, w := range all {
		if seen[w.query] {
			continue
		}
		k, ok := known[w.query]
		switch {
		case !ok && w.kind != "term":
			return &all[i], nil
		case !ok:
			fresh = &all[i]
		case !k.Today && old == nil:
			old = &all[i]
		}
	}
	if fresh != nil {
		return fresh, nil
	}
	return old, nil
}

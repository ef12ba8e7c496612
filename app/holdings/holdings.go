package holdings

import (
	"cmp"
	"context"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"time"

	"tamiz/app/desk"
	"tamiz/app/jobs"
	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/app/reviews"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/core/cite"
	"tamiz/core/index"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/source"
	"tamiz/store"
)

// Limits of what is looked up at once.
const (
	maxPasted  = 200     // references
	maxPaste   = 200_000 // characters
	likeEnough = 0.45    // shared words of two titles, of all their words, for a near-match
	mostFound  = 10      // records looked at for one title
)

// A Lookup is one pasted reference and what sources hold of it.
type Lookup struct {
	Line  string  `json:"line"`
	Found []Found `json:"found"`
	// Problem is why a source could not be asked, where one could not.
	Problem string `json:"problem,omitempty"`
}

// A Found is a record of a source that is, or may be, the work of a reference.
type Found struct {
	Source int64           `json:"source"`
	From   string          `json:"from"`
	How    string          `json:"how"` // identifier, title or near
	Record desk.RecordHead `json:"record"`
}

// LookUp finds pasted references in every source: one in each line, or parted by empty lines. It takes
// nothing in; that is for a person to decide.
func (a *Service) LookUp(ctx context.Context, review int64, pasted string) ([]Lookup, error) {
	if _, err := a.reviewRows.Head(ctx, review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	lines := references(pasted)
	if len(lines) == 0 {
		return nil, problems.Invalid("pasted", "Nothing was pasted that could be looked up.")
	}
	if len(lines) > maxPasted || len(pasted) > maxPaste {
		return nil, problems.Invalid(
			"pasted",
			"At most %d references are looked up at once; there are %d.",
			maxPasted,
			len(lines),
		)
	}
	asked, err := a.sources.Sources(ctx)
	if err != nil {
		return nil, err
	}
	ctx, cancel := context.WithTimeout(ctx, 2*time.Minute)
	defer cancel()
	out := []Lookup{}
	for _, line := range lines {
		l := Lookup{Line: line, Found: []Found{}}
		for _, s := range asked {
			if s.Off {
				continue
			}
			c, err := a.sources.Client(s)
			if err == nil {
				var found []Match
				found, err = a.Matches(ctx, c, s, cite.Record(cite.Read(line)))
				for _, m := range found {
					ids, err := a.library.Put(ctx, library.SourceName(s.ID), []*bib.Record{m.Record})
					if err != nil {
						return nil, err
					}
					r := m.Record
					l.Found = append(l.Found, Found{Source: s.ID, From: s.Name, How: m.How,
						Record: desk.RecordHead{
							ID:      ids[0],
							Title:   r.Title,
							Byline:  desk.Byline(r),
							Year:    r.Year,
							Journal: r.Journal,
							Indexed: r.Indexed(),
						}})
				}
			}
			if err != nil {
				l.Problem = sources.Unanswered(s.Name, err).Error()
			}
		}
		out = append(out, l)
	}
	return out, nil
}

// references parts pasted text: at empty lines where there are any, else at each line.
func references(pasted string) (out []string) {
	pasted = strings.NewReplacer("\r\n", "\n", "\r", "\n", "\x00", "").Replace(pasted)
	parts := strings.Split(pasted, "\n")
	if regexp.MustCompile(`\S\n\s*\n\s*\S`).MatchString(pasted) {
		parts = regexp.MustCompile(`\n\s*\n`).Split(pasted, -1)
	}
	for _, p := range parts {
		if p = strings.Join(strings.Fields(p), " "); p != "" {
			out = append(out, p)
		}
	}
	return out
}

// A Match is a record of a source that is the work that was looked for (identifier, title), or resembles it (near).
type Match struct {
	Record *bib.Record
	How    string
}

// Matches looks for the work of a record at a source: by its identifier, then by its title. What only
// resembles it comes last and is never taken for it.
func (a *Service) Matches(ctx context.Context, c source.Source, s sources.Source, r *bib.Record) ([]Match, error) {
	ask := func(q query.Expr) ([]*bib.Record, error) { return sources.First(ctx, c, s.Map, q, mostFound) }
	if r.DOI != "" && s.Map.Indexes["identifier"] != "" {
		for _, doi := range []string{r.DOI, bib.DOIKey(r.DOI)} {
			found, err := ask(query.Listed{List: index.Identifiers, Value: doi})
			if err != nil {
				return nil, err
			}
			for _, f := range found {
				if bib.DOIKey(f.DOI) == bib.DOIKey(r.DOI) {
					return []Match{{f, "identifier"}}, nil
				}
			}
		}
	}
	tokens := text.Tokens(r.Title)
	if len(tokens) < 2 {
		return nil, nil
	}
	found, err := ask(query.Phrase{Pattern: text.Literal(tokens...), Fields: bib.Title})
	if err != nil {
		return nil, err
	}
	if len(found) == 0 {
		// A title that is a little otherwise: its longest words, all of them.
		long := slices.Clone(tokens)
		slices.SortStableFunc(long, func(a, b string) int { return len(b) - len(a) })
		long = slices.Compact(long[:min(4, len(long))])
		words := func(leave int) (all query.And) {
			for i, w := range long {
				if i != leave {
					all = append(all, query.Phrase{Pattern: text.Literal(w), Fields: bib.Title})
				}
			}
			return all
		}
		// All of them; then, where there are enough, all but one.
		for leave := -1; leave < len(long) && len(found) == 0 && (leave < 0 || len(long) > 3); leave++ {
			if found, err = ask(words(leave)); err != nil {
				return nil, err
			}
		}
	}
	var out []Match
	for _, f := range found {
		switch alike := bib.Likeness(r.Title, f.Title); {
		case alike == 1 && (r.Year == 0 || f.Year == 0 || r.Year-f.Year <= 1 && f.Year-r.Year <= 1):
			out = append(out, Match{f, "title"})
		case alike >= likeEnough:
			out = append(out, Match{f, "near"})
		}
	}
	slices.SortStableFunc(out, func(a, b Match) int { return strings.Compare(b.How, a.How) })
	return out[:min(3, len(out))], nil
}

// cameBy is what it is called where key studies came from, by the way.
var cameBy = map[string]string{
	"look-up": "a look-up",
	"judged":  "judging",
	"new":     "a search that ran again",
	"round":   "a round",
}

// AddKeyStudies makes records that were found key studies of the review, and keeps by which way they were. Those
// that are some already are left out.
func (a *Service) AddKeyStudies(ctx context.Context, review int64, c Chosen) (reviews.Step, error) {
	records, way := c.Records, cmp.Or(c.Way, "look-up")
	if cameBy[way] == "" {
		return reviews.Step{}, problems.Invalid("way", "There is no way %q by which key studies are found.", way)
	}
	if len([]rune(c.Origin)) > 200 || strings.ContainsRune(c.Origin, 0) {
		return reviews.Step{}, problems.Invalid("origin", "Where they were found is said in at most 200 characters.")
	}
	if len(records) == 0 || len(records) > maxPasted {
		return reviews.Step{}, problems.Invalid("records", "1 to %d key studies are taken in at once.", maxPasted)
	}
	var step reviews.Step
	err := a.store.InReview(ctx, review, func(ctx context.Context, w *store.Tx) error {
		studies, err := library.KeyStudiesIn(ctx, w)
		if err != nil {
			return err
		}
		var known bib.Known
		for i, s := range studies {
			known.Add(s.Record, i)
		}
		var fresh []int64
		for _, id := range records {
			r, err := library.RecordIn(ctx, w, id)
			if err != nil {
				return problems.Gone(err, "record")
			}
			if _, there := known.Find(r.Record); !there {
				known.Add(r.Record, len(studies)+len(fresh))
				fresh = append(fresh, id)
			}
		}
		if len(fresh) == 0 {
			return &problems.Problem{
				Type:   "nothing-new",
				Status: 422,
				Field:  "records",
				Title:  "All of these are key studies of this review already.",
			}
		}
		ids, err := library.AddKeys(ctx, w, fresh, way, c.Origin)
		if err != nil {
			return err
		}
		step, err = reviews.KeysAdded(ids).
			Log(ctx, w, review, reviews.What{Key: "import.keys", Params: map[string]string{"name": cameBy[way],
				"records": fmt.Sprint(len(ids))}})
		return err
	})
	if err != nil {
		return reviews.Step{}, problems.Gone(err, "review")
	}
	// They are added, whatever becomes of the looking up: that can be asked for again.
	if err := a.FindHoldings(ctx, review); err != nil {
		a.jobs.Tell(
			ctx,
			review,
			jobs.News{
				Kind: "holdings",
				Problem: &problems.Problem{
					Type:   "not-looked-up",
					Status: 503,
					Title:  "Which sources hold the new key studies could not be looked up just now.",
				},
			},
		)
	}
	return a.reviews.Told(ctx, review, step, nil)
}

// Holdings returns which sources hold the key studies of a review.
func (a *Service) Holdings(ctx context.Context, review int64) ([]library.Holding, error) {
	return a.library.Holdings(ctx, review)
}

// FindHoldings looks up, in the background, which sources hold the key studies of a review.
func (a *Service) FindHoldings(ctx context.Context, review int64) error {
	return a.jobs.Ask(ctx, jobs.NewTask("holding", review, &review, nil))
}

// FailHoldings tells those who wait that the looking up came to nothing.
func (a *Service) FailHoldings(ctx context.Context, t jobs.Task, p *problems.Problem) error {
	a.jobs.Tell(ctx, t.Number, jobs.News{Kind: "holdings", Problem: p})
	return nil
}

// HoldingsFound looks up which sources hold the key studies of a review, and fetches their records there: the work
// of a task.
func (a *Service) HoldingsFound(ctx context.Context, t jobs.Task) error {
	review := t.Number
	studies, err := a.library.KeyStudies(ctx, review)
	if err != nil {
		return err
	}
	asked, err := a.sources.Sources(ctx)
	if err != nil {
		return err
	}
	before, err := a.library.Holdings(ctx, review)
	if err != nil {
		return err
	}
	asked = slices.DeleteFunc(asked, func(s sources.Source) bool { return s.Off })
	told, done := time.Time{}, 0
	tell := func() {
		if time.Since(told) > 250*time.Millisecond {
			told = time.Now()
			a.jobs.Tell(ctx, review, jobs.News{Kind: "holdings", Done: done, Of: len(asked) * len(studies)})
		}
	}
	defer a.jobs.Tell(ctx, review, jobs.News{Kind: "holdings"})
	for _, s := range asked {
		c, err := a.sources.Client(s)
		failing := 0
		for _, k := range studies {
			h := library.Holding{KeyStudy: k.ID, Source: s.ID, State: library.Unknown}
			var there *bib.Record
			// A source that has stopped answering is not asked for every study.
			if err == nil && failing < 2 {
				found, err := a.Matches(ctx, c, s, k.Record)
				switch {
				case ctx.Err() != nil:
					return ctx.Err()
				case err != nil:
					failing++
				default:
					failing = 0
					if h, there, err = a.holding(ctx, s, h, found, before); err != nil {
						return err
					}
				}
			}
			if err := a.library.PutHolding(ctx, h, there); err != nil {
				return err
			}
			done++
			tell()
		}
	}
	return nil
}

// holding says of what was found of a key study at a source whether it holds it, and which is its record. What
// somebody said of a record that resembles it goes on to hold of that record.
func (a *Service) holding(
	ctx context.Context,
	s sources.Source,
	h library.Holding,
	found []Match,
	before []library.Holding,
) (library.Holding, *bib.Record, error) {
	if len(found) == 0 {
		h.State = library.Absent
		return h, nil, nil
	}
	h.State, h.How = library.Held, found[0].How
	if found[0].How == "near" {
		h.State = library.Near
	}
	ids, err := a.library.Put(ctx, library.SourceName(s.ID), []*bib.Record{found[0].Record})
	if err != nil {
		return h, nil, err
	}
	h.Record = &ids[0]
	i := slices.IndexFunc(before, func(b library.Holding) bool { return b.KeyStudy == h.KeyStudy && b.Source == h.Source })
	if i >= 0 && before[i].How == "settled" && before[i].Record != nil && *before[i].Record == ids[0] &&
		h.State == library.Near {
		h.State, h.How = before[i].State, "settled"
	}
	return h, found[0].Record, nil
}

// Settle says of a near-match whether it is the key study.
func (a *Service) Settle(ctx context.Context, review int64, h library.Holding) error {
	all, err := a.library.Holdings(ctx, review)
	if err != nil {
		return err
	}
	if !slices.ContainsFunc(
		all,
		func(x library.Holding) bool { return x.KeyStudy == h.KeyStudy && x.Source == h.Source },
	) {
		return problems.Gone(store.ErrNone, "holding")
	}
	if h.State != library.Held && h.State != library.Absent {
		return problems.Invalid("state", "A near-match is the key study, or it is not.")
	}
	if err = a.library.SettleHolding(ctx, h); err == nil {
		a.jobs.Tell(ctx, review, jobs.News{Kind: "holdings"})
	}
	return err
}

// Pasted is references as they were pasted.
type Pasted struct {
	Text string `json:"text"`
}

// Chosen is records that were chosen.
type Chosen struct {
	Records []int64 `json:"records"`
	Way     string  `json:"way,omitempty"`    // how they were found: look-up, judged, new or round
	Origin  string  `json:"origin,omitempty"` // and where, in words
}

package rounds

import (
	"cmp"
	"context"
	"slices"
	"strings"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/core/cite"
	"tamiz/core/likeness"
	"tamiz/core/query"
	"tamiz/core/text"
)

// start returns the works that a round begins from, and the round that it follows.
func (a *Service) start(
	ctx context.Context,
	at desk.At,
	n Asked,
	all []RoundRow,
) (ids []int64, after *int64, err error) {
	switch n.From {
	case "keys", "relevant":
		keys, err := a.library.KeyStudies(ctx, at.Review)
		if err != nil {
			return nil, nil, err
		}
		for _, k := range keys {
			ids = append(ids, k.StoredRecord.ID)
		}
		if n.From == "relevant" {
			judged, err := a.library.Judgements(ctx, at.Review)
			if err != nil {
				return nil, nil, err
			}
			for _, j := range judged {
				if j.Verdict == relevant {
					ids = append(ids, j.Record)
				}
			}
		}
	case "shelf":
		if ids, err = a.library.ShelvedIDs(ctx, at.Review); err != nil {
			return nil, nil, err
		}
	case "last":
		i := len(all) - 1
		for ; i >= 0 && all[i].State != "done" && all[i].State != "stopped"; i-- {
		}
		if i < 0 {
			return nil, nil, problems.Invalid("from", "There is no round yet that this one could follow.")
		}
		works, err := a.rows.WorksOfRound(ctx, all[i].ID)
		if err != nil {
			return nil, nil, err
		}
		for _, w := range works {
			ids = append(ids, w.Record)
		}
		after = &all[i].ID
	case "reviews":
		if ids, err = a.reviewsOf(ctx, at); err != nil {
			return nil, nil, err
		}
	case "records":
		if n.Of == nil {
			return nil, nil, problems.Invalid("of", "It is not said which records are meant.")
		}
		meant, err := a.desk.SetIDs(ctx, at, n.Of.Set)
		if err != nil {
			return nil, nil, err
		}
		if len(meant) > mostStart { // before they are read
			return nil, nil, tooMany("of", len(meant))
		}
		there, err := a.library.RecordsByID(ctx, meant)
		if err != nil {
			return nil, nil, err
		}
		for _, s := range there {
			ids = append(ids, s.ID)
		}
	default:
		return nil, nil, problems.Invalid(
			"from",
			"A round begins from key studies, from what belongs, from the shelf, from the round before, from earlier "+
				"reviews or from some records, not from %q.",
			n.From,
		)
	}
	slices.Sort(ids)
	ids = slices.Compact(ids)
	if len(ids) == 0 {
		return nil, nil, problems.Invalid(
			"from",
			"%s",
			map[string]string{"keys": "There are no key studies yet to begin from.",
				"relevant": "No work belongs yet that a round could begin from.", "shelf": "The shelf is empty.",
				"last":    "The round before brought nothing.",
				"reviews": "Among the records that are looked at is no earlier review.",
				"records": "None of these records is there."}[n.From],
		)
	}
	if len(ids) > mostStart {
		return nil, nil, tooMany("from", len(ids))
	}
	return ids, after, nil
}

func tooMany(field string, many int) error {
	return problems.Invalid(
		field,
		"A round begins from at most %d works; these are %d. Choose fewer, such as those that belong.",
		mostStart,
		many,
	)
}

// sampled waits for a turn and lays out a review with its sample; where none is looked at, it says so.
func (a *Service) sampled(ctx context.Context, at desk.At) (*desk.Desk, error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, err
	}
	d, err := a.desk.Desk(ctx, at)
	if err == nil && d.Pool == nil {
		err = desk.ErrNoSample
	}
	return d, err
}

// reviewsOf returns the records of the sample that is looked at which are earlier reviews: by their type, or by a
// title that says so.
func (a *Service) reviewsOf(ctx context.Context, at desk.At) ([]int64, error) {
	d, err := a.sampled(ctx, at)
	if err != nil {
		return nil, err
	}
	var out []int64
	for it := d.Pool.Sample.Iterator(); it.HasNext(); {
		n := it.Next()
		if isReview(d.Pool.Records[n]) {
			out = append(out, d.Pool.IDs[n])
		}
	}
	return out, nil
}

func isReview(r *bib.Record) bool {
	if slices.ContainsFunc(r.Types, func(t string) bool {
		t = text.Label(t)
		return t == "review" || strings.HasSuffix(t, " review")
	}) {
		return true
	}
	title := " " + text.Key(r.Title) + " "
	return slices.ContainsFunc(
		[]string{" systematic review ", " scoping review ", " meta analysis ", " metaanalysis ", " a review "},
		func(s string) bool { return strings.Contains(title, s) },
	)
}

// named returns what is asked for the works of a person, of several who are parted by semicolons, or of a journal.
func named(n Asked) (query.Expr, error) {
	if n.Way == Author {
		return peopleOf(n).query()
	}
	words := text.Tokens(n.Name)
	if len(words) == 0 {
		return nil, problems.Invalid("name", "This is no name that could be asked for.")
	}
	var q query.Expr = query.Phrase{Pattern: text.Literal(words...), Fields: bib.Journal, Whole: true}
	if len(n.Years) == 0 {
		return q, nil
	}
	if len(n.Years) != 2 || n.Years[0] < query.FirstYear || n.Years[1] > query.LastYear || n.Years[0] > n.Years[1] {
		return nil, problems.Invalid("years", "Years are a first and a last one.")
	}
	return query.And{q, query.Years{From: n.Years[0], To: n.Years[1]}}, nil
}

// citedInSample returns the records of the sample that is looked at which most others of it cite; and of the works
// elsewhere that it cites most, how many there are and which of its records cite them: their references lead there.
func (a *Service) citedInSample(
	ctx context.Context,
	at desk.At,
	most int,
) (works []WorkRow, elsewhere int, citing []int64, err error) {
	d, err := a.sampled(ctx, at)
	if err != nil {
		return nil, 0, nil, err
	}
	var records []*bib.Record
	var ids []int64
	says := false
	for it := d.Pool.Sample.Iterator(); it.HasNext(); {
		n := it.Next()
		records, ids = append(records, d.Pool.Records[n]), append(ids, d.Pool.IDs[n])
		says = says || len(d.Pool.Records[n].References) > 0
	}
	if !says {
		return nil, 0, nil, &problems.Problem{
			Type:   "no-references",
			Status: 422,
			Field:  "from",
			Title: "The records of this sample do not say what they cite. A source that knows who cites whom tells the " +
				"most cited by its own number.",
		}
	}
	g := cite.Of(records, nil)
	order := make([]int, 0, len(records))
	for i := range records {
		if len(g.CitedBy(i)) > 1 { // one is no more than any other
			order = append(order, i)
		}
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(len(g.CitedBy(b)), len(g.CitedBy(a))) })
	order = order[:min(len(order), most)]
	for _, i := range order {
		by := g.CitedBy(i)
		w := WorkRow{Record: ids[i]}
		for _, c := range by[:min(len(by), mostLeads)] {
			w.Leads = append(w.Leads, ids[c])
		}
		works = append(works, w)
	}
	beyond := g.Elsewhere()
	beyond = beyond[:min(len(beyond), most)]
	from := map[int]bool{}
	for _, by := range beyond {
		for _, i := range by {
			if !from[i] && len(citing) < mostStart {
				from[i] = true
				citing = append(citing, ids[i])
			}
		}
	}
	return works, len(beyond), citing, ctx.Err()
}

const (
	mostLeads = 50   // of those that cite a work, that are kept with it
	mostAside = 2000 // records that stand for what does not belong
)

// alike returns the records of the sample that is looked at that are most like those that belong and that nobody
// judged.
func (a *Service) alike(ctx context.Context, at desk.At, most int) ([]WorkRow, error) {
	d, err := a.sampled(ctx, at)
	if err != nil {
		return nil, err
	}
	known, err := a.known(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	if len(known.belong) == 0 {
		return nil, problems.Invalid("way", "No work belongs yet that others could be like.")
	}
	type scored struct {
		id    int64
		score float64
	}
	var all []scored
	// What the sample is set against stands for what does not belong: the sample is about the topic itself.
	var others []*bib.Record
	for n, r := range d.Pool.Records {
		if !d.Pool.Sample.Contains(uint32(n)) && len(others) < mostAside && known.verdict(r) == "" {
			others = append(others, r)
		}
	}
	if others = append(others, known.not...); len(others) < fewNot {
		return nil, &problems.Problem{
			Type:   "no-contrast",
			Status: 422,
			Field:  "way",
			Title: "What does not belong is not known: set the sample against another, such as one drawn at random, or " +
				"judge ten records that do not belong.",
		}
	}
	m := likeness.Of(known.belong, others)
	for it := d.Pool.Sample.Iterator(); it.HasNext(); {
		n := it.Next()
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		if r := d.Pool.Records[n]; known.verdict(r) == "" {
			if s := m.Score(r); s > 0 {
				all = append(all, scored{d.Pool.IDs[n], s})
			}
		}
	}
	slices.SortStableFunc(all, func(a, b scored) int { return cmp.Compare(b.score, a.score) })
	var out []WorkRow
	for _, s := range all[:min(len(all), most)] {
		out = append(out, WorkRow{Record: s.id, Likeness: &s.score})
	}
	return out, nil
}

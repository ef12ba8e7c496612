package rounds

import (
	"context"
	"slices"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/likeness"
)

// view is what questions about what rounds brought are answered from: it is laid out once for each.
type view struct {
	*laid
	desk   *desk.Desk
	rounds []RoundRow
	known  *known
	shown  []Work // the works with what is said of them now, in the order of laid
}

// fewNot is how many works have to be known not to belong before likeness says anything.
const fewNot = 10

// view waits for a turn and lays out what rounds brought, with what is said of it now.
func (a *Service) view(ctx context.Context, at desk.At) (*view, error) {
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, err
	}
	if _, err := a.reviewRows.Head(ctx, at.Review); err != nil {
		return nil, problems.Gone(err, "review")
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	l, err := a.layOut(ctx, at.Review, d)
	if err != nil {
		return nil, err
	}
	k, err := a.known(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	v := &view{laid: l, desk: d, known: k}
	if v.rounds, err = a.rows.Rounds(ctx, at.Review); err != nil {
		return nil, err
	}
	v.say(k)
	return v, ctx.Err()
}

// say shows the works with what is known of them.
func (v *view) say(k *known) {
	l := v.laid
	numbers := map[int64]int{}
	for i, r := range v.rounds {
		numbers[r.ID] = i + 1
	}
	// Ties are to what belongs as it is known now.
	belongs := slices.Clone(l.number)
	verdicts := make([]string, len(l.works))
	for i, w := range l.works {
		if verdicts[i] = k.verdictOf(w.self); verdicts[i] == isKey || verdicts[i] == relevant {
			belongs = append(belongs, i)
		}
	}
	ties := l.graph.Ties(belongs)
	later := map[int]bool{}
	for _, p := range l.graph.Later() {
		later[p[0]], later[p[1]] = true, true
	}
	var model *likeness.Model
	// What nobody judged cannot stand for what does not belong: most of what rounds bring is about the question.
	if len(k.belong) >= 3 && len(k.not) >= fewNot {
		model = likeness.Of(k.belong, k.not)
	}
	v.shown = make([]Work, 0, len(l.works))
	for i, w := range l.works {
		r := w.record
		x := Work{
			Record:     w.head,
			Records:    w.records,
			Rounds:     []int{},
			Leads:      ties[i].Leads,
			Shared:     ties[i].Shared,
			Together:   ties[i].Together,
			TimesCited: r.TimesCited,
			Caught:     w.caught,
			MissedBy:   w.missed,
			Verdict:    verdicts[i],
			Retracted:  r.Retracted(),
			Corrected:  r.Corrected(),
			Later:      later[i],
		}
		x.Record.Key = x.Verdict == isKey
		_, x.Shelved = k.shelf.Get(w.self)
		for _, id := range w.rounds {
			x.Rounds = append(x.Rounds, numbers[id])
		}
		cited := 0
		if r.TimesCited != nil {
			cited = *r.TimesCited
		}
		x.Worth = l.graph.Worth(i, ties[i], cited)
		switch {
		case model != nil:
			s := model.Score(r)
			x.Score = &s
		default: // as the round told it that looked for it
			x.Score = w.likeness
		}
		v.shown = append(v.shown, x)
	}
}

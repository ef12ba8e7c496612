package scenario

import (
	"context"
	"fmt"
	"slices"

	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/peerreview"
	"tamiz/app/reviews"
	"tamiz/app/rounds"
	"tamiz/core/bib"
	"tamiz/core/review"
	"tamiz/core/set"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/demo"
	"tamiz/store"
)

// change returns what a stage of the work changes.
func (sc *scene) change(stage demo.Stage, now desk.Document) reviews.Change {
	doc := desk.Document{Question: sc.plan.Question, Frame: sc.plan.Frame, Vocabulary: now.Vocabulary}
	if stage.Limits {
		doc.Limits = sc.plan.Limits
	}
	for i, c := range sc.plan.Concepts {
		b := desk.Block{
			ID:       fmt.Sprintf("demo-%d", i),
			Name:     c.Block.Name,
			Concept:  c.Block.Concept,
			Part:     c.Part,
			Seeds:    c.Seeds,
			Searched: c.Block.Searched,
			Reason:   c.Reason,
		}
		words := 0
		for j, t := range c.Block.Terms {
			if t.Kind == strategy.HeadingTerm {
				if !stage.Headings {
					continue
				}
			} else if words++; stage.Words > 0 && words > stage.Words {
				continue
			}
			term := desk.Term{ID: fmt.Sprintf("demo-%d-%d", i, j), Term: t}
			b.Terms = append(b.Terms, term)
		}
		doc.Blocks = append(doc.Blocks, b)
	}
	change := reviews.Change{What: reviews.What{Key: "demo", Params: map[string]string{}}, Edits: review.Diff(now, doc)}
	for _, d := range sc.plan.Decisions {
		item := d.Item
		if tally.Facet(d.Facet) == tally.Headings {
			item = text.Label(item)
		}
		change.Decisions = append(
			change.Decisions,
			reviews.NewDecision{Facet: tally.Facet(d.Facet), Item: item, State: d.State, Reason: d.Reason},
		)
	}
	return change
}

// shelve puts records on the shelf of the demo review, and the journals that matter most on its hand-search list.
func (sc *scene) shelve(ctx context.Context) error {
	now, err := sc.app.Reviews.Review(ctx, sc.review)
	if err != nil {
		return err
	}
	change := reviews.Change{What: reviews.What{Key: "demo", Params: map[string]string{}}}
	for _, k := range sc.plan.Shelf {
		list, err := sc.app.Figures.Records(
			ctx,
			desk.At{Review: sc.review},
			figures.RecordsQuestion{Of: desk.RecordSet{Set: &set.Item{Facet: tally.Types, Item: k.Type}}, At: k.Nth, Limit: 1},
		)
		if err != nil {
			return err
		}
		for _, r := range list.Records {
			change.Shelf = append(change.Shelf, reviews.ShelfPatch{Record: r.ID, On: true, Note: &k.Note, Tags: &k.Tags})
		}
	}
	journals, err := sc.app.Figures.Tally(ctx, desk.At{Review: sc.review}, tally.Journals)
	if err != nil {
		return err
	}
	rows := slices.Clone(journals.Rows)
	slices.SortStableFunc(rows, func(a, b figures.TallyRow) int { return b.Records - a.Records })
	for _, r := range rows[:min(len(rows), sc.plan.HandSearch)] {
		h := desk.HandSearch{Journal: tally.JournalKey(r.Item), Name: r.Item}
		if r.Unindexed > 0 {
			h.Note = sc.plan.HandSearchNote
		}
		change.Edits = append(change.Edits, &review.HandSearched{Journal: h.Journal, Name: h.Name, Note: &h.Note, On: true})
	}
	_, err = sc.app.Reviews.Change(ctx, sc.review, now.Revision, change)
	return err
}

// handOver hands a version of the demo review to a colleague, who is half way through it.
func (sc *scene) handOver(ctx context.Context) error {
	all, err := sc.app.Figures.Versions(ctx, desk.At{Review: sc.review})
	if err != nil {
		return err
	}
	i := slices.IndexFunc(all, func(v figures.Version) bool { return v.Name == demo.CheckedVersion })
	if i < 0 {
		return fmt.Errorf("the demo review has no version %q", demo.CheckedVersion)
	}
	if err := sc.app.PeerReview.HandOver(ctx, sc.review, peerreview.NewCheck{Version: all[i].ID, Checker: demo.Checker,
		Note: demo.CheckNote}); err != nil {
		return err
	}
	list, err := sc.app.PeerReview.Checks(ctx, sc.review)
	if err != nil {
		return err
	}
	by := store.By(ctx, store.Author{Name: demo.Checker})
	for _, said := range demo.CheckSaid {
		if err := sc.app.PeerReview.Say(by, sc.review, list[0].ID, said.Question,
			peerreview.Answer{Verdict: said.Verdict, Words: said.Words}); err != nil {
			return err
		}
	}
	now, err := sc.app.Reviews.Review(ctx, sc.review)
	if err != nil {
		return err
	}
	for _, b := range now.Document.Blocks {
		for _, t := range b.Terms {
			switch t.Text {
			case demo.SuggestedFor:
				more := t
				more.ID, more.Text, more.Key = t.ID+"-north", demo.SuggestedText, ""
				s := peerreview.Suggestion{
					Line:  t.String(),
					Says:  "besides: " + demo.SuggestedText,
					Words: demo.SuggestedWhy,
					Edits: review.Edits{&review.AddTerm{Block: b.ID, Term: more}},
				}
				if err := sc.app.PeerReview.Suggest(by, sc.review, list[0].ID, s); err != nil {
					return err
				}
			case demo.NotedTerm:
				if err := sc.app.PeerReview.Note(by, sc.review, peerreview.Note{Kind: "term", About: t.ID, Name: t.String(),
					Words: demo.DemoNote}); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// follow follows the references of the key studies of the demo review and the works that cite them; the first of
// what that brings is judged.
func (sc *scene) follow(ctx context.Context) error {
	at := desk.At{Review: sc.review}
	these := []int64{sc.sources["vilano"], sc.sources["almagre"]}
	if err := sc.app.Rounds.Begin(ctx, at, rounds.Asked{Way: rounds.Both, From: "keys", Sources: these}); err != nil {
		return err
	}
	if err := until(ctx, func() (bool, error) {
		all, err := sc.app.Rounds.Rounds(ctx, sc.review)
		if err == nil && all[0].Problem != nil {
			err = all[0].Problem
		}
		return err == nil && all[0].State == "done", err
	}); err != nil {
		return err
	}
	found, err := sc.app.Rounds.Found(ctx, at, rounds.Window{Most: demo.JudgedOfRound})
	if err != nil {
		return err
	}
	for _, w := range found.Works {
		read, err := sc.app.Figures.ReadRecord(ctx, at, w.Record.ID, nil, nil)
		if err != nil {
			return err
		}
		text := ""
		for _, p := range append(read.Title, read.Abstract...) {
			text += p.Text
		}
		verdict := "not"
		if demo.OnTopic(&bib.Record{Title: text}) {
			verdict = "relevant"
		}
		if err := sc.app.Judge(ctx, sc.review, w.Record.ID, verdict); err != nil {
			return err
		}
	}
	return nil
}

package main

import (
	"bytes"
	"context"
	"fmt"
	"io"
	"maps"
	"slices"
	"strings"
	"time"

	"tamiz/app"
	"tamiz/app/desk"
	"tamiz/app/figures"
	"tamiz/app/peerreview"
	"tamiz/app/reviews"
	"tamiz/app/rounds"
	"tamiz/app/sources"
	"tamiz/app/vocabularies"
	"tamiz/core/bib"
	"tamiz/core/review"
	"tamiz/core/set"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/exchange/skos"
	"tamiz/source"
	"tamiz/source/standin"
	"tamiz/store"
)

// fillDemo lays out the demo review in an empty database, by the ways a person would take.
func fillDemo(ctx context.Context, a *app.App, db *store.Store, made *standins) error {
	byName, err := demoSources(ctx, a, made)
	if err != nil {
		return err
	}
	if reviews, err := a.Reviews.Reviews(ctx); err != nil || len(reviews) > 0 {
		return err
	}
	plan := demo.NewReview()
	if _, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: "An empty review, to begin from " +
		"nothing"}); err != nil {
		return err
	}
	review, err := a.Reviews.CreateReview(ctx, reviews.NewReview{Name: plan.Name})
	if err != nil {
		return err
	}
	var keys, headings bytes.Buffer
	for _, r := range made.literature.Keys {
		if err := ris.Write(&keys, r); err != nil {
			return err
		}
	}
	if _, err := bringFile(ctx, a, review.ID, "keys", "key studies.ris", &keys); err != nil {
		return err
	}
	if err := skos.Write(&headings, demo.Headings()); err != nil {
		return err
	}
	if _, err := bringFile(ctx, a, review.ID, "vocabulary", "Almagre Headings.nt", &headings); err != nil {
		return err
	}
	// The other vocabulary belongs to the program alone, until a review goes by it.
	surco, _ := thesaurus.Build(demo.SurcoTerms(), "") // that it has no troubles is a test of the vocabulary
	body, err := vocabularies.Pack(surco)
	if err != nil {
		return err
	}
	if _, err := vocabularies.NewRows(db).Add(ctx, "Surco Thesaurus", surco, body); err != nil {
		return err
	}
	view := desk.NewLook{Rest: true}
	for _, sample := range plan.Samples {
		id, err := drawSample(
			ctx,
			a,
			review.ID,
			sources.NewDraw{Name: sample.Name, Sources: []int64{byName[sample.Source]}, Concepts: roughConcepts(sample.Words),
				How: source.How(sample.How), AtMost: sample.AtMost, Seed: demo.Seed % 1000},
		)
		if err != nil {
			return err
		}
		switch sample.Use {
		case "sample":
			view.Sample = id
		case "contrast":
			view.Against = id
		}
	}
	// The key studies are looked up where counts are shown.
	almagre := byName["almagre"]
	view.Source = &almagre
	if _, err := a.Desk.MakeLook(ctx, review.ID, view); err != nil {
		return err
	}
	all := slices.Sorted(maps.Values(byName))
	later, err := notYet(plan, made)
	if err != nil {
		return err
	}
	for _, stage := range plan.Stages {
		now, err := a.Reviews.Review(ctx, review.ID)
		if err != nil {
			return err
		}
		if _, err := a.Reviews.Change(ctx, review.ID, now.Revision, demoChange(plan, stage, now.Document)); err != nil {
			return err
		}
		if err := a.Reviews.Keep(ctx, review.ID, reviews.VersionEdit{Name: stage.Name, Note: stage.Note}); err != nil {
			return err
		}
		if err := a.Sources.Run(ctx, review.ID, sources.NewRuns{Sources: all}); err != nil {
			return err
		}
		if err := fetched(ctx, a, review.ID, all); err != nil {
			return err
		}
		if err := app.MoveBack(ctx, db, review.ID, stage.Days); err != nil {
			return err
		}
	}
	if err := demoKept(ctx, a, review.ID, plan); err != nil {
		return err
	}
	if err := until(ctx, func() (bool, error) {
		list, err := a.Sources.Holdings(ctx, review.ID)
		return len(list) == len(made.literature.Keys)*len(byName), err
	}); err != nil {
		return err
	}
	if err := until(ctx, func() (bool, error) {
		counts, err := a.Sources.Counts(ctx, desk.At{Review: review.ID}, false)
		return err == nil && (counts.Waiting == 0 || counts.Problem != nil), err
	}); err != nil {
		return err
	}
	if err := a.Alerts.TellTo(ctx, review.ID, demo.ToldAddress); err != nil {
		return err
	}
	if err := demoAgain(ctx, a, review.ID, almagre); err != nil {
		return err
	}
	if err := demoByHand(ctx, a, review.ID, 0); err != nil {
		return err
	}
	if err := app.MoveBack(ctx, db, review.ID, demo.DaysToNextRun); err != nil {
		return err
	}
	later()
	if err := demoAgain(ctx, a, review.ID, almagre); err != nil {
		return err
	}
	if err := demoByHand(ctx, a, review.ID, 1); err != nil {
		return err
	}
	if err := app.MoveBack(ctx, db, review.ID, demo.DaysToCheck); err != nil {
		return err
	}
	if err := demoCheck(ctx, a, review.ID); err != nil {
		return err
	}
	if err := app.MoveBack(ctx, db, review.ID, demo.DaysToRounds); err != nil {
		return err
	}
	next := time.Now().AddDate(0, 1, -demo.DaysToCheck-demo.DaysToRounds)
	if err := a.Sources.SetWatch(ctx, review.ID, sources.Watch{On: true, Sources: []int64{almagre}, Every: "month",
		Next: &next}); err != nil {
		return err
	}
	if err := demoRuns(ctx, a, review.ID, all); err != nil {
		return err
	}
	if err := demoRound(ctx, a, review.ID, byName); err != nil {
		return err
	}
	return reviews.NewRows(db).ForgetChanges(ctx, review.ID)
}

// demoCheck hands a version of the demo review to a colleague, who is half way through it.
func demoCheck(ctx context.Context, a *app.App, id int64) error {
	all, err := a.Figures.Versions(ctx, desk.At{Review: id})
	if err != nil {
		return err
	}
	i := slices.IndexFunc(all, func(v figures.Version) bool { return v.Name == demo.CheckedVersion })
	if i < 0 {
		return fmt.Errorf("the demo review has no version %q", demo.CheckedVersion)
	}
	if err := a.PeerReview.HandOver(ctx, id, peerreview.NewCheck{Version: all[i].ID, Checker: demo.Checker,
		Note: demo.CheckNote}); err != nil {
		return err
	}
	list, err := a.PeerReview.Checks(ctx, id)
	if err != nil {
		return err
	}
	by := store.By(ctx, store.Author{Name: demo.Checker})
	for _, s := range demo.CheckSaid {
		if err := a.PeerReview.Say(by, id, list[0].ID, s.Question, peerreview.Answer{Verdict: s.Verdict,
			Words: s.Words}); err != nil {
			return err
		}
	}
	now, err := a.Reviews.Review(ctx, id)
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
				if err := a.PeerReview.Suggest(by, id, list[0].ID, s); err != nil {
					return err
				}
			case demo.NotedTerm:
				if err := a.PeerReview.Note(by, id, peerreview.Note{Kind: "term", About: t.ID, Name: t.String(),
					Words: demo.DemoNote}); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// demoRound follows the references of the key studies of the demo review and the works that cite them; the first of
// what that brings is judged.
func demoRound(ctx context.Context, a *app.App, id int64, byName map[string]int64) error {
	at := desk.At{Review: id}
	if err := a.Rounds.Begin(ctx, at, rounds.Asked{Way: rounds.Both, From: "keys", Sources: []int64{byName["vilano"],
		byName["almagre"]}}); err != nil {
		return err
	}
	if err := until(ctx, func() (bool, error) {
		all, err := a.Rounds.Rounds(ctx, id)
		if err == nil && all[0].Problem != nil {
			err = all[0].Problem
		}
		return err == nil && all[0].State == "done", err
	}); err != nil {
		return err
	}
	found, err := a.Rounds.Found(ctx, at, rounds.Window{Most: demo.JudgedOfRound})
	if err != nil {
		return err
	}
	for _, w := range found.Works {
		read, err := a.Figures.ReadRecord(ctx, at, w.Record.ID, nil, nil)
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
		if err := a.Judge(ctx, id, w.Record.ID, verdict); err != nil {
			return err
		}
	}
	return nil
}

// demoByHand writes down one of the searches that were made by hand.
func demoByHand(ctx context.Context, a *app.App, id int64, n int) error {
	h := demo.HandRuns[n]
	return a.Sources.WriteDown(
		ctx,
		id,
		sources.HandRun{Way: h.Way, Place: h.Place, Query: h.Query, Records: &h.Records, At: time.Now(), Note: h.Note},
	)
}

// demoRuns runs the strategy of the demo review at all sources.
func demoRuns(ctx context.Context, a *app.App, id int64, all []int64) error {
	if err := a.Sources.Run(ctx, id, sources.NewRuns{Sources: all, Records: 300}); err != nil {
		return err
	}
	return fetched(ctx, a, id, all)
}

// fetched waits until some sources have answered and what is wanted of their answers is there.
func fetched(ctx context.Context, a *app.App, id int64, these []int64) error {
	return until(ctx, func() (bool, error) {
		e, err := a.Sources.Everywhere(ctx, desk.At{Review: id})
		if err != nil {
			return false, err
		}
		for _, s := range e.Sources {
			if slices.Contains(these, s.Source) && (s.Waiting || s.Run == nil || s.Fetch == "waiting" || s.Fetch == "drawing") {
				return false, nil
			}
		}
		return true, nil
	})
}

// notYet takes two works out of Almagre that the demo review will find; they come to it later.
func notYet(plan demo.Review, made *standins) (later func(), err error) {
	i := slices.IndexFunc(made.sources, func(c *standin.Collection) bool { return c.Name == "almagre" })
	collection := made.sources[i]
	terms := collection.Vocabulary()
	whole := strategy.Strategy{Limits: plan.Limits}
	for _, c := range plan.Concepts {
		whole.Blocks = append(whole.Blocks, c.Block)
	}
	q, err := whole.Query(terms)
	if err != nil {
		return nil, err
	}
	found := q.Match(collection.Index())
	var before []*bib.Record
	late := 0
	for n, r := range made.literature.Almagre {
		if late < demo.FoundLater && found.Contains(uint32(n)) && r.Year == demo.LaterYear {
			late++
			continue
		}
		before = append(before, r)
	}
	collection.Fill(before, terms)
	return func() { collection.Fill(made.literature.Almagre, terms) }, nil
}

// demoAgain has the search of the demo review run again by itself, as if its day had come.
func demoAgain(ctx context.Context, a *app.App, id, almagre int64) error {
	due := time.Now()
	if err := a.Sources.SetWatch(ctx, id, sources.Watch{On: true, Sources: []int64{almagre}, Every: "month",
		Next: &due}); err != nil {
		return err
	}
	if err := a.Sources.RunDue(ctx); err != nil {
		return err
	}
	if err := fetched(ctx, a, id, []int64{almagre}); err != nil {
		return err
	}
	return a.Alerts.Tell(ctx)
}

// demoKept puts records on the shelf of the demo review, and the journals that matter most on its hand-search list.
func demoKept(ctx context.Context, a *app.App, id int64, plan demo.Review) error {
	now, err := a.Reviews.Review(ctx, id)
	if err != nil {
		return err
	}
	change := reviews.Change{What: reviews.What{Key: "demo", Params: map[string]string{}}}
	for _, k := range plan.Shelf {
		list, err := a.Figures.Records(
			ctx,
			desk.At{Review: id},
			figures.RecordsQuestion{Of: desk.RecordSet{Set: &set.Item{Facet: tally.Types, Item: k.Type}}, At: k.Nth, Limit: 1},
		)
		if err != nil {
			return err
		}
		for _, r := range list.Records {
			change.Shelf = append(change.Shelf, reviews.ShelfPatch{Record: r.ID, On: true, Note: &k.Note, Tags: &k.Tags})
		}
	}
	journals, err := a.Figures.Tally(ctx, desk.At{Review: id}, tally.Journals)
	if err != nil {
		return err
	}
	rows := slices.Clone(journals.Rows)
	slices.SortStableFunc(rows, func(a, b figures.TallyRow) int { return b.Records - a.Records })
	for _, r := range rows[:min(len(rows), plan.HandSearch)] {
		h := desk.HandSearch{Journal: tally.JournalKey(r.Item), Name: r.Item}
		if r.Unindexed > 0 {
			h.Note = plan.HandSearchNote
		}
		change.Edits = append(change.Edits, &review.HandSearched{Journal: h.Journal, Name: h.Name, Note: &h.Note, On: true})
	}
	_, err = a.Reviews.Change(ctx, id, now.Revision, change)
	return err
}

// demoSources makes the stand-ins known as sources and returns them by name. A source that is known by
// another port is found at its new one.
func demoSources(ctx context.Context, a *app.App, made *standins) (map[string]int64, error) {
	known, err := a.Sources.Sources(ctx)
	if err != nil {
		return nil, err
	}
	out := map[string]int64{}
	vocabularies := map[string]string{"almagre": "Almagre Headings", "surco": "Surco Thesaurus"}
	for _, c := range made.sources {
		address := made.url(c)
		i := slices.IndexFunc(known, func(s sources.Source) bool {
			return strings.HasPrefix(s.Address, "http://127.0.0.1:") && strings.HasSuffix(s.Address, "/"+c.Name)
		})
		switch {
		case i < 0:
			vocabulary := vocabularies[c.Name]
			s, err := a.Sources.AddSource(ctx, sources.SourceEdit{Address: &address, Vocabulary: &vocabulary})
			if err != nil {
				return nil, err
			}
			out[c.Name] = s.ID
		case known[i].Address != address:
			if _, err := a.Sources.ChangeSource(ctx, known[i].ID, sources.SourceEdit{Address: &address}); err != nil {
				return nil, err
			}
			fallthrough
		default:
			out[c.Name] = known[i].ID
		}
	}
	return out, nil
}

func roughConcepts(words [][]string) (out []sources.RoughConcept) {
	for i, w := range words {
		out = append(out, sources.RoughConcept{Name: string(rune('A' + i)), Words: w})
	}
	return out
}

// drawSample draws a sample and waits until it is there.
func drawSample(ctx context.Context, a *app.App, review int64, n sources.NewDraw) (sample *int64, err error) {
	begun, err := a.Sources.BeginDraw(ctx, review, n)
	if err != nil {
		return nil, err
	}
	err = until(ctx, func() (bool, error) {
		draws, err := a.Sources.Draws(ctx, review)
		for _, d := range draws {
			if d.ID != begun[0].ID {
				continue
			}
			if d.State == "failed" || d.State == "stopped" {
				return false, fmt.Errorf("%s: %s", d.Name, d.Problem)
			}
			sample = d.Sample
			return d.State == "done", err
		}
		return false, err
	})
	return sample, err
}

// until waits until something is so.
func until(ctx context.Context, so func() (bool, error)) error {
	for {
		if yes, err := so(); yes || err != nil {
			return err
		}
		select {
		case <-ctx.Done():
			return ctx.Err()
		case <-time.After(50 * time.Millisecond):
		}
	}
}

func demoChange(plan demo.Review, stage demo.Stage, now desk.Document) reviews.Change {
	doc := desk.Document{Question: plan.Question, Frame: plan.Frame, Vocabulary: now.Vocabulary}
	if stage.Limits {
		doc.Limits = plan.Limits
	}
	for i, c := range plan.Concepts {
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
	for _, d := range plan.Decisions {
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

// bringFile brings in a file and waits until it has been read.
func bringFile(ctx context.Context, a *app.App, review int64, kind, name string, file io.Reader) (*int64, error) {
	i, err := a.Intake.ImportFile(ctx, review, kind, name, false, file)
	if err != nil {
		return nil, err
	}
	return i.Sample, until(ctx, func() (bool, error) {
		if i, err = a.Intake.Import(ctx, i.ID); err == nil && i.State == "failed" {
			err = fmt.Errorf("%s: %w", name, i.Error)
		}
		return i.State == "done", err
	})
}

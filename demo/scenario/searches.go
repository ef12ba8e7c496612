package scenario

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"time"

	"tamiz/app/draws"
	"tamiz/app/runs"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/core/strategy"
	"tamiz/demo"
	"tamiz/source/standin"
)

// makeKnown makes the stand-ins known as sources. A source that is known by another port is found at its new one.
func (sc *scene) makeKnown(ctx context.Context) error {
	known, err := sc.app.Sources.Sources(ctx)
	if err != nil {
		return err
	}
	vocabularies := map[string]string{"almagre": "Almagre Headings", "surco": "Surco Thesaurus"}
	for _, c := range sc.world.Collections {
		address := sc.world.Address(c)
		i := slices.IndexFunc(known, func(s sources.Source) bool {
			return strings.HasPrefix(s.Address, "http://127.0.0.1:") && strings.HasSuffix(s.Address, "/"+c.Name)
		})
		switch {
		case i < 0:
			vocabulary := vocabularies[c.Name]
			s, err := sc.app.Sources.AddSource(ctx, sources.SourceEdit{Address: &address, Vocabulary: &vocabulary})
			if err != nil {
				return err
			}
			sc.sources[c.Name] = s.ID
		case known[i].Address != address:
			if _, err := sc.app.Sources.ChangeSource(ctx, known[i].ID, sources.SourceEdit{Address: &address}); err != nil {
				return err
			}
			fallthrough
		default:
			sc.sources[c.Name] = known[i].ID
		}
	}
	return nil
}

func roughConcepts(words [][]string) (out []draws.RoughConcept) {
	for i, w := range words {
		out = append(out, draws.RoughConcept{Name: string(rune('A' + i)), Words: w})
	}
	return out
}

// drawSample draws a sample and waits until it is there.
func (sc *scene) drawSample(ctx context.Context, n draws.NewDraw) (sample *int64, err error) {
	begun, err := sc.app.Draws.BeginDraw(ctx, sc.review, n)
	if err != nil {
		return nil, err
	}
	err = until(ctx, func() (bool, error) {
		list, err := sc.app.Draws.Draws(ctx, sc.review)
		for _, d := range list {
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

// runEverywhere runs the strategy of the demo review at all sources.
func (sc *scene) runEverywhere(ctx context.Context) error {
	if err := sc.app.Runs.Run(ctx, sc.review, runs.NewRuns{Sources: sc.all(), Records: 300}); err != nil {
		return err
	}
	return sc.fetched(ctx, sc.all())
}

// runAgain has the search of the demo review run again by itself, as if its day had come.
func (sc *scene) runAgain(ctx context.Context) error {
	if err := sc.monthly(ctx, time.Now()); err != nil {
		return err
	}
	if err := sc.app.Runs.RunDue(ctx); err != nil {
		return err
	}
	if err := sc.fetched(ctx, []int64{sc.almagre()}); err != nil {
		return err
	}
	return sc.app.Alerts.Tell(ctx)
}

// byHand writes down one of the searches that were made by hand.
func (sc *scene) byHand(ctx context.Context, n int) error {
	h := demo.HandRuns[n]
	return sc.app.Runs.WriteDown(
		ctx,
		sc.review,
		runs.HandRun{Way: h.Way, Place: h.Place, Query: h.Query, Records: &h.Records, At: time.Now(), Note: h.Note},
	)
}

// notYet takes two works out of Almagre that the demo review will find; they come to it later.
func (sc *scene) notYet() (later func(), err error) {
	i := slices.IndexFunc(sc.world.Collections, func(c *standin.Collection) bool { return c.Name == "almagre" })
	collection := sc.world.Collections[i]
	terms := collection.Vocabulary()
	whole := strategy.Strategy{Limits: sc.plan.Limits}
	for _, c := range sc.plan.Concepts {
		whole.Blocks = append(whole.Blocks, c.Block)
	}
	q, err := whole.Query(terms)
	if err != nil {
		return nil, err
	}
	found := q.Match(collection.Index())
	var before []*bib.Record
	late := 0
	for n, r := range sc.world.Literature.Almagre {
		if late < demo.FoundLater && found.Contains(uint32(n)) && r.Year == demo.LaterYear {
			late++
			continue
		}
		before = append(before, r)
	}
	collection.Fill(before, terms)
	return func() { collection.Fill(sc.world.Literature.Almagre, terms) }, nil
}

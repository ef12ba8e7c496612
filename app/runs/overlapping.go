package runs

import (
	"context"
	"fmt"

	"tamiz/app/library"
	"tamiz/core/bib"
	"tamiz/core/overlap"
)

// A fetchedAnswer is one that is set against others: what was drawn of it, or the sample that holds what was found
// by hand. One that found nothing is neither.
type fetchedAnswer struct {
	draw   library.Draw
	sample int64
	row    int  // of the sources, or of what was found by hand
	hand   bool // the latter
}

func (f fetchedAnswer) key() string {
	return fmt.Sprint(f.draw.ID, ":", f.draw.Got, ":", f.sample, " ")
}

// whole reports whether all of the answer is there.
func (f fetchedAnswer) whole() bool { return f.draw.ID == 0 || f.draw.Whole() }

func (f fetchedAnswer) works(ctx context.Context, l libraryRows, visit func(bib.Identity)) error {
	switch {
	case f.hand:
		return l.SampleWorks(ctx, f.sample, visit)
	case f.draw.ID != 0:
		return l.DrawnWorks(ctx, f.draw.ID, visit)
	}
	return nil
}

// byHand adds what was found by hand, as far as the records were brought in and are still there.
func (a *Service) byHand(ctx context.Context, review int64, out *Everywhere, fetched *[]fetchedAnswer) error {
	runs, err := a.logbook.HandRuns(ctx, review)
	if err != nil || len(runs) == 0 {
		return err
	}
	samples, err := a.library.Samples(ctx, review)
	if err != nil {
		return err
	}
	sizes := map[int64]int{}
	for _, s := range samples {
		sizes[s.ID] = s.Records
	}
	for _, r := range runs {
		if r.Sample == nil {
			continue
		}
		n, there := sizes[*r.Sample]
		if !there {
			continue
		}
		*fetched = append(*fetched, fetchedAnswer{sample: *r.Sample, row: len(out.ByHand), hand: true})
		out.ByHand = append(
			out.ByHand,
			HandAnswer{Run: r.ID, Place: r.Place, Records: *r.Records, Fetched: n, Sample: *r.Sample},
		)
		out.Records += int64(n)
		out.Among += int64(n)
	}
	return nil
}

// overlapping sets the answers against each other of which records were fetched.
func (a *Service) overlapping(ctx context.Context, out *Everywhere, fetched []fetchedAnswer) error {
	key := ""
	for _, f := range fetched {
		key += f.key()
	}
	o, ok := a.overlaps.Get(key)
	if !ok {
		if err := a.desk.Heavy.Take(ctx); err != nil {
			return err
		}
		answers := make([]overlap.Answer, len(fetched))
		var works bib.Works
		for i, f := range fetched {
			seen := map[int]bool{}
			answers[i].Records = f.draw.Total
			err := f.works(ctx, a.library, func(id bib.Identity) {
				if n := works.Number(id); !seen[n] {
					seen[n] = true
					answers[i].Works = append(answers[i].Works, n)
				}
			})
			if err != nil {
				return err
			}
			if f.whole() { // what it gave twice, or what is no record, is no work
				answers[i].Records = len(answers[i].Works)
			}
		}
		o = overlap.Of(answers)
		a.overlaps.Add(key, o)
	}
	out.Exact = true
	for n, f := range fetched {
		only := rounded(o.Only[n])
		out.Exact = out.Exact && f.whole() && !f.draw.Moved
		if f.hand {
			out.ByHand[f.row].Only = &only
			continue
		}
		out.Sources[f.row].Only = &only
		for m, other := range fetched[:n] {
			if !other.hand {
				out.Pairs = append(out.Pairs, Pair{out.Sources[other.row].Source, out.Sources[f.row].Source, rounded(o.Both[m][n])})
			}
		}
	}
	together := rounded(o.Together)
	out.Together = &together
	return nil
}

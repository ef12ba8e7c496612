package tally

import (
	"context"
	"fmt"
	"testing"

	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// Behind every figure stand as many records as it says.
func TestEveryFigureHasItsRecords(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		some := func(name string, of ...string) []string {
			return rapid.SliceOfNDistinct(rapid.SampledFrom(of), 0, 2, rapid.ID[string]).Draw(t, name)
		}
		var records []*bib.Record
		for i := range rapid.IntRange(1, 25).Draw(t, "records") {
			r := &bib.Record{
				ID: fmt.Sprint(i),
				Title: rapid.SampledFrom([]string{"Shade: a trial", "A review of shade", "Shade for children", "Shade"}).
					Draw(t, "title"),
				Year: rapid.SampledFrom([]int{0, 2001, 2003, 2010}).
					Draw(t, "year"),
				Types:     some("types", "Trial Report", "Review", "Letter"),
				Languages: some("languages", "eng", "spa"),
				Journal:   rapid.SampledFrom([]string{"", "Annals of Shade", "Letters"}).Draw(t, "journal"),
			}
			for _, h := range some("headings", "Shade", "Rest", "Children", "Animals") {
				r.Headings = append(r.Headings, bib.Assignment{Label: h})
			}
			records = append(records, r)
		}
		cut := rapid.IntRange(1, len(records)).Draw(t, "sample")
		p := must(NewPool(context.Background(), records[:cut], records[cut:]))
		if rapid.Bool().Draw(t, "keep") {
			p.Keep()
		}
		behind := func(f Facet, key string, a Aspect) int { return int(p.Around(f, key, a).AndCardinality(p.Sample)) }
		for _, f := range []Facet{Years, Types, Languages, Journals, Headings, Ages, Humans} {
			counted := must(CountList(context.Background(), p, f, nil))
			require.Equal(t, counted.Missing, behind(f, "", AspectMissing), f)
			losses := counted.Losses()
			for i, r := range counted.Rows {
				key := text.Label(r.Item)
				if f == Journals {
					key = JournalKey(r.Item)
				}
				require.Equal(t, losses[i].Records, behind(f, key, AspectLost), "%s %s", f, r.Item)
				if f != Years {
					require.Equal(t, losses[i].Records-counted.Missing, behind(f, key, AspectOther), "%s %s", f, r.Item)
				}
				require.Equal(t, r.Unindexed, behind(f, key, AspectBare), "%s %s", f, r.Item)
			}
		}
		for _, f := range []Facet{Types, Ages, Humans} {
			for _, s := range p.Said(f) {
				require.Equal(
					t,
					[]int{s.Typed, s.Titled, s.Both, s.Either},
					[]int{
						behind(f, s.Kind, AspectTyped),
						behind(f, s.Kind, AspectTitled),
						behind(f, s.Kind, AspectBoth),
						behind(f, s.Kind, AspectEither),
					},
					s.Kind,
				)
			}
		}
		require.Zero(t, behind(Types, "no such kind", AspectTyped))
		require.Equal(t, cut, behind(Years, "no year", AspectLost))
	})
}

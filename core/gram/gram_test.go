package gram_test

import (
	"context"
	"fmt"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/gram"
	"tamiz/core/index"
	"tamiz/core/text"
)

const (
	longest = 4
	least   = 2
)

// some draws records of few different words, so that phrases come again.
func some(t *rapid.T) (records []*bib.Record) {
	for i := range rapid.IntRange(1, 12).Draw(t, "records") {
		title := rapid.SliceOfN(rapid.SampledFrom([]string{"farm", "farms", "worker", "of", "the", "heat", "rest.", "2",
			"cane-cutter"}), 0, 9).
			Draw(t, fmt.Sprint("title", i))
		abstract := rapid.SliceOfN(rapid.SampledFrom([]string{"farm", "worker", "workers", "in", "heat", "shade",
			"rest;"}), 0, 9).
			Draw(t, fmt.Sprint("abstract", i))
		records = append(records, &bib.Record{Title: strings.Join(title, " "), Abstract: strings.Join(abstract, " ")})
	}
	return records
}

// byDefinition counts every n-gram of every record that is an item.
func byDefinition(records []*bib.Record) map[string]gram.Count {
	out := map[string]gram.Count{}
	for _, r := range records {
		var values []string
		r.Values(bib.TitleAbstract, func(_ bib.Field, v string) { values = append(values, v) })
		for g, times := range text.Grams(values, longest) {
			c := out[g]
			out[g] = gram.Count{Records: c.Records + 1, Occurrences: c.Occurrences + int32(times)}
		}
	}
	for g, c := range out {
		if c.Records < least {
			delete(out, g)
		}
	}
	return out
}

// holds reports whether a phrase holds another, token by token.
func holds(whole, part string) bool {
	return len(whole) > len(part) && strings.Contains(" "+whole+" ", " "+part+" ")
}

// What is found level by level, with names, families and what absorbs what, is what the definitions say.
func TestItemsAreWhatTheDefinitionsSay(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		records := some(t)
		ix := index.Build(records)
		s := ix.Stream(ix.All(), bib.TitleAbstract)
		shown := 0
		found, err := gram.Find(context.Background(), ix, s, longest, least, func(l gram.Level, at []int32) {
			shown++
			for _, g := range at {
				require.True(t, g == gram.None || int(g) < len(l.Records))
			}
		})
		require.NoError(t, err)
		require.Len(t, found.Levels, shown)
		items, counts := found.Items, found.Counts()
		want := byDefinition(records)
		got := map[string]gram.Count{}
		for i := range int32(items.Len()) {
			got[items.Name(i)] = counts[i]
			assert.Equal(t, items.Words(i), len(strings.Fields(items.Name(i))))
		}
		require.Equal(t, want, got)

		of := func(i int32) gram.Count { return counts[i] }
		label := items.Labels(of, 0)
		for i := range int32(items.Len()) {
			name := items.Name(i)
			absorber := ""
			for other, c := range want {
				if !holds(other, name) || c.Records != want[name].Records {
					continue
				}
				if n, m := len(strings.Fields(other)), len(strings.Fields(absorber)); absorber == "" || n > m ||
					n == m &&
						(c.Occurrences > want[absorber].Occurrences || c.Occurrences == want[absorber].Occurrences && other < absorber) {
					absorber = other
				}
			}
			if a := items.Absorber(i, of); a == gram.None {
				assert.Empty(t, absorber, name)
			} else {
				assert.Equal(t, absorber, items.Name(a), name)
			}
			best := ""
			for other, c := range want {
				if text.FamilyKey(strings.Fields(other)) == text.FamilyKey(strings.Fields(name)) &&
					(best == "" || text.Labels(other, int(c.Records), best, int(want[best].Records))) {
					best = other
				}
			}
			assert.Equal(t, best, items.Name(label[items.Family(i)]), name)
			for k := range int32(items.Len()) {
				assert.Equal(t, items.Rank(i) < items.Rank(k), name < items.Name(k))
			}
		}
	})
}

// Where items stand is where the text has them; those of another stream are counted by the levels of the first.
func TestPlacesAndOtherStreams(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		records := some(t)
		ix := index.Build(records)
		s := ix.Stream(ix.All(), bib.TitleAbstract)
		found, err := gram.Find(context.Background(), ix, s, longest, least, nil)
		require.NoError(t, err)
		p := found.Places(s, func(i gram.Item) bool { return i.Records > 2 || i.Words > 1 })
		want := byDefinition(records)
		for i, item := range p.Items {
			require.Equal(t, int(want[item.Name].Records), item.Records)
			require.Len(t, p.Of(i), item.Occurrences)
			require.True(t, slices.IsSorted(p.Of(i)))
			for _, at := range p.Of(i) {
				var tokens []string
				for _, term := range p.Stream.Terms[at:][:item.Words] {
					tokens = append(tokens, ix.Token(term))
				}
				require.Equal(t, item.Name, strings.Join(tokens, " "))
			}
		}

		half := ix.All()
		half.RemoveRange(0, uint64(len(records)/2))
		there := map[string]int{}
		for _, r := range records[len(records)/2:] {
			var values []string
			r.Values(bib.TitleAbstract, func(_ bib.Field, v string) { values = append(values, v) })
			for g := range text.Grams(values, longest) {
				there[g]++
			}
		}
		for i, records := range found.In(ix.Stream(half, bib.TitleAbstract)) {
			require.Equal(t, there[found.Name(int32(i))], int(records), found.Name(int32(i)))
		}
	})
}

func TestFindingEndsWithItsContext(t *testing.T) {
	ctx, cancel := context.WithCancel(context.Background())
	cancel()
	ix := index.Build([]*bib.Record{{Title: "farm workers rest"}, {Title: "farm workers"}})
	_, err := gram.Find(ctx, ix, ix.Stream(ix.All(), bib.TitleAbstract), longest, least, nil)
	assert.ErrorIs(t, err, context.Canceled)
}

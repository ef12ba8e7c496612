package gram_test

import (
	"context"
	"fmt"
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

// standing returns of each n-gram of some titles whether it stands by itself.
func standing(t require.TestingT, titles []string) map[string]bool {
	var records []*bib.Record
	for _, title := range titles {
		records = append(records, &bib.Record{Title: title})
	}
	ix := index.Build(records)
	found, err := gram.Find(context.Background(), ix, ix.Stream(ix.All(), bib.TitleAbstract), longest, least, nil)
	require.NoError(t, err)
	out := map[string]bool{}
	for i, stands := range found.Standing() {
		out[found.Name(int32(i))] = stands
	}
	return out
}

func TestWhatSomebodyWouldTypeStandsByItself(t *testing.T) {
	var titles []string
	for i, crew := range []string{"millers", "pickers", "porters", "divers", "weavers", "smiths"} {
		titles = append(titles,
			fmt.Sprintf("Trials have tested cooling vests for %s in summer", crew),
			fmt.Sprintf("%s quality of life, year %d", crew, i),
			fmt.Sprintf("Cooling vests worn by %s", crew),
			fmt.Sprintf("Exposure at least among %s", crew))
	}
	stands := standing(t, titles)
	for item, want := range map[string]bool{"cooling vests": true, "quality of life": true, "cooling": true,
		"trials have tested cooling": false, "tested cooling": false, "exposure at least": false} {
		got, there := stands[item]
		assert.True(t, there, item)
		assert.Equal(t, want, got, item)
	}
}

func TestSignsInARowStand(t *testing.T) {
	stands := standing(t, []string{"熱中症の予防", "熱中症の予防と水"})
	assert.True(t, stands["熱 中 症"])
}

// It is what the definition says, worked out from the tokens of each title.
func TestStandingIsWhatTheRuleSays(t *testing.T) {
	joining := map[string]bool{
		"and":  true,
		"by":   true,
		"for":  true,
		"from": true,
		"in":   true,
		"of":   true,
		"on":   true,
		"to":   true,
		"with": true,
	}
	rapid.Check(t, func(t *rapid.T) {
		var titles []string
		for i := range rapid.IntRange(2, 14).Draw(t, "titles") {
			words := rapid.SliceOfN(rapid.SampledFrom([]string{"heat", "rest", "crew", "cane", "of", "the", "is", "vests.",
				"in", "2"}), 1, 9).
				Draw(t, fmt.Sprint("title ", i))
			titles = append(titles, strings.Join(words, " "))
		}
		type sides struct{ before, after map[string]int }
		beside, occurrences := map[string]sides{}, map[string]int{}
		each := func(visit func(tokens []text.Span, i, n int)) {
			for _, title := range titles {
				var tokens []text.Span
				text.Scan(
					title,
					func(token []byte, brk bool) { tokens = append(tokens, text.Span{Token: string(token), Break: brk}) },
				)
				for i := range tokens {
					for n := 1; n <= longest && i+n <= len(tokens) && (n == 1 || !tokens[i+n-1].Break); n++ {
						visit(tokens, i, n)
					}
				}
			}
		}
		name := func(tokens []text.Span, i, n int) string {
			var words []string
			for _, s := range tokens[i : i+n] {
				words = append(words, s.Token)
			}
			return strings.Join(words, " ")
		}
		each(func(tokens []text.Span, i, n int) { occurrences[name(tokens, i, n)]++ })
		each(func(tokens []text.Span, i, n int) {
			item := name(tokens, i, n)
			if beside[item].before == nil {
				beside[item] = sides{map[string]int{}, map[string]int{}}
			}
			count := func(of map[string]int, token string) {
				if occurrences[item] >= 5 || !text.IsStopword(token) {
					of[token]++
				}
			}
			if i > 0 && !tokens[i].Break {
				count(beside[item].before, tokens[i-1].Token)
			}
			if i+n < len(tokens) && !tokens[i+n].Break {
				count(beside[item].after, tokens[i+n].Token)
			}
		})
		for item, got := range standing(t, titles) {
			words := strings.Split(item, " ")
			want := true
			if len(words) > 1 {
				holds, often := false, false
				for _, w := range words {
					if text.IsStopword(w) {
						holds = true
						want = want && joining[w]
					} else if text.RoleOf(w)&text.Alone != 0 && 3*occurrences[item] >= occurrences[w] {
						often = true
					}
				}
				want = want && (often || !holds)
				for _, of := range []map[string]int{beside[item].before, beside[item].after} {
					for _, n := range of {
						want = want && (2*n <= occurrences[item] || occurrences[item]-n >= 50)
					}
				}
			}
			assert.Equal(t, want, got, "%s in %q", item, titles)
		}
	})
}

package index_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/text"
)

// vocabularyOf returns an index of made words, many of which are a letter apart, share ends, or are one word in two
// spellings.
func vocabularyOf(t *rapid.T) *index.Index {
	made := rapid.SliceOfN(rapid.OneOf(rapid.StringMatching(`[abж]{3,7}`), rapid.StringMatching(`colou?r(s|ing)?[ab]?`),
		rapid.StringMatching(`organi[sz](e|ation)s?`)), 1, 40).
		Draw(t, "words")
	return index.Build([]*bib.Record{{Title: strings.Join(made, " ")}})
}

// However a list of words is asked, and however often, it answers what a look at each word would.
func TestWordsAreFoundAsByOneByOne(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		ix := vocabularyOf(t)
		list, often := index.NewWords(ix), index.NewWords(ix)
		for range 400 {
			often.Edited("abab")
		}
		for _, word := range []string{rapid.StringMatching(`[abж]{4,7}`).Draw(t, "word"), ix.Token(0),
			ix.Token(uint32(ix.Tokens() - 1))} {
			var near []string
			for n := range uint32(ix.Tokens()) {
				if other := ix.Token(n); len([]rune(word)) >= 4 && text.Edited(word, other) {
					near = append(near, other)
				}
			}
			assert.Equal(t, near, list.Edited(word), word)
			assert.Equal(t, near, often.Edited(word), word)
		}
	})
}

// A pattern finds the words that fit it, wherever its signs stand, and a stem those of another spelling besides.
func TestPatternsFindTheWordsThatFit(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		ix := vocabularyOf(t)
		typed := rapid.OneOf(rapid.StringMatching(`[?*]?[abж?*]{2,6}`),
			rapid.StringMatching(`(colou?r|organi[sz])[a-z]?\*`), rapid.StringMatching(`[?*]+(rs|on|bb)`)).
			Draw(t, "typed")
		p, err := text.ParsePattern(typed)
		if err != nil || len(p) != 1 {
			return
		}
		var fit, forms []string
		stem := strings.TrimSuffix(typed, "*")
		cut := stem+"*" == typed && !strings.ContainsAny(stem, "*?")
		for n := range uint32(ix.Tokens()) {
			w := ix.Token(n)
			if p[0].Match(w) {
				fit = append(fit, w)
			}
			if base := text.Base(stem); p[0].Match(w) || cut && len([]rune(base)) >= 5 && strings.HasPrefix(text.Base(w), base) {
				forms = append(forms, w)
			}
		}
		assert.Equal(t, len(fit) > 0, !ix.Phrase(p, bib.Title).IsEmpty(), typed)
		if _, exact := p[0].Exact(); !exact {
			assert.Equal(t, forms, index.NewWords(ix).Forms(p[0]), typed)
		}
	})
}

// One record for each word: a pattern finds the records of the words that fit, and no others.
func TestPatternsFindNoOtherWords(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		words := rapid.SliceOfNDistinct(rapid.StringMatching(`[abж]{1,6}`), 1, 30, rapid.ID[string]).Draw(t, "words")
		var records []*bib.Record
		for _, w := range words {
			records = append(records, &bib.Record{Title: w})
		}
		p, err := text.ParsePattern(rapid.StringMatching(`[?*]{0,2}[abж]{1,3}[?*]?[abж]{0,3}`).Draw(t, "typed"))
		if err != nil {
			return
		}
		found := index.Build(records).Phrase(p, bib.Title)
		for i, w := range words {
			assert.Equal(t, len(p) == 1 && p[0].Match(w), found.Contains(uint32(i)), "%s %s", p, w)
		}
	})
}

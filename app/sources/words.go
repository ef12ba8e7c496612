package sources

import (
	"context"
	"fmt"
	"strings"

	"tamiz/app/problems"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/source"
)

// The words of a source: what its own index of words holds, where it can be asked.

// Limits of what is looked at of a source's words.
const (
	wordsAtOnce = 100
	mostWords   = 2000 // that begin alike: of more nothing is told
	mostForms   = 50   // of which stems are proposed at once
)

// wordIndex returns the index of words of a source that stands for a field, "" where there is none that can be
// looked through.
func wordIndex(s Source, field string) string {
	if !s.Map.Scan {
		return ""
	}
	for _, f := range []string{field, "text", "titleAbstract", "title", "any"} {
		if ix := s.Map.Indexes[f]; ix != "" {
			return ix
		}
	}
	return ""
}

// Neighbours returns the words around one in a source's own index.
func (a *Service) Neighbours(ctx context.Context, id int64, field, word string) ([]source.Entry, error) {
	s, err := a.Source(ctx, id)
	if err != nil {
		return nil, err
	}
	if n := len([]rune(word)); n == 0 || n > 200 {
		return nil, problems.Invalid("word", "A word has 1 to 200 characters.")
	}
	ix := wordIndex(s, field)
	if ix == "" {
		return []source.Entry{}, nil
	}
	c, err := a.Client(s)
	if err != nil {
		return nil, err
	}
	ctx, cancel := context.WithTimeout(ctx, AskTime)
	defer cancel()
	out, err := c.Scan(ctx, source.Scan{Index: ix, Term: word, Before: 4, Max: 14})
	if out == nil {
		out = []source.Entry{}
	}
	return out, Unanswered(s.Name, err)
}

// Stems proposes how forms of a word are best searched truncated at a source, by its own index of words; none where
// that cannot be looked through, or holds too many words that begin alike.
func (a *Service) Stems(ctx context.Context, id int64, forms []string) ([]tally.Truncation, error) {
	s, err := a.Source(ctx, id)
	if err != nil {
		return nil, err
	}
	if len(forms) == 0 || len(forms) > mostForms {
		return nil, problems.Invalid("forms", "Stems are proposed of 1 to %d forms at once.", mostForms)
	}
	words := map[string]int{}
	var single []string
	ix := wordIndex(s, "text")
	if ix == "" {
		return nil, nil
	}
	c, err := a.Client(s)
	if err != nil {
		return nil, err
	}
	ctx, cancel := context.WithTimeout(ctx, AskTime)
	defer cancel()
	begun := map[string]bool{}
	for _, f := range forms {
		if tokens := text.Tokens(f); len(tokens) != 1 || tokens[0] != f {
			continue // an index of words knows nothing of phrases
		}
		single = append(single, f)
		begin := []rune(f)
		if len(begin) < tally.ShortestStem {
			continue
		}
		prefix := string(begin[:tally.ShortestStem])
		if begun[prefix] {
			continue
		}
		begun[prefix] = true
		if whole, err := wordsBeginning(ctx, c, ix, prefix, words); err != nil || !whole {
			return nil, Unanswered(s.Name, err)
		}
	}
	return tally.TruncationsBy(words, single), nil
}

// wordsBeginning fills in the words of an index that begin alike, with their records; whole is false where they are
// too many, or the index does not say how many records hold them.
func wordsBeginning(
	ctx context.Context,
	c source.Source,
	ix, prefix string,
	words map[string]int,
) (whole bool, err error) {
	next := prefix
	for len(words) <= mostWords {
		found, err := c.Scan(ctx, source.Scan{Index: ix, Term: next, Before: 0, Max: wordsAtOnce})
		if err != nil {
			return false, fmt.Errorf("its index of words: %w", err)
		}
		fresh := 0
		for _, e := range found {
			word := text.Normalise(e.Term)
			if !strings.HasPrefix(word, prefix) {
				if word > prefix {
					return true, nil
				}
				continue
			}
			if _, known := words[word]; !known {
				words[word] = e.Records
				fresh++
			}
			next = e.Term
		}
		if fresh == 0 {
			return true, nil
		}
	}
	return false, nil
}

package coverage

import (
	"context"
	"strings"
	"unicode"
	"unicode/utf8"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// Bounds of what is taken for an abbreviation, and of when one means several things.
const (
	shortest     = 2 // letters
	longest      = 8
	leastMeaning = 3   // records that write a meaning out
	meaningShare = 0.1 // of those that write any out
	mostRead     = 20_000
)

// meanings tells what a short word stands for in some records, where they say so: by the words that are written out
// before it stands in brackets. Meanings that are the same but for number and spelling are one, in its most
// frequent form.
func meanings(ctx context.Context, records []*bib.Record, in *roaring.Bitmap, token string) (map[string]int, error) {
	forms := map[string]map[string]int{} // by family, each form with its records
	read := 0
	for it := in.Iterator(); it.HasNext() && read < mostRead; read++ {
		if read%1000 == 0 && ctx.Err() != nil {
			return nil, ctx.Err()
		}
		seen := map[string]bool{}
		records[it.Next()].Values(bib.TitleAbstract, func(_ bib.Field, value string) {
			for _, long := range writtenOut(value, token) {
				family := text.FamilyKey(text.Tokens(long))
				if family == "" || seen[family] {
					continue
				}
				seen[family] = true
				if forms[family] == nil {
					forms[family] = map[string]int{}
				}
				forms[family][text.Key(long)]++
			}
		})
	}
	out := map[string]int{}
	for _, of := range forms {
		best, all := "", 0
		for form, n := range of {
			all += n
			if n > of[best] || n == of[best] && form < best {
				best = form
			}
		}
		out[best] = all
	}
	return out, nil
}

// writtenOut returns the words that a text writes out before a short word in brackets: "acute kidney injury (AKI)".
func writtenOut(value, token string) (out []string) {
	for at := 0; ; {
		open := strings.IndexByte(value[at:], '(')
		if open < 0 {
			return out
		}
		open += at
		length := strings.IndexByte(value[open:], ')')
		if length < 0 {
			return out
		}
		at = open + length + 1
		if length > 4*longest {
			continue
		}
		short := strings.TrimSpace(value[open+1 : open+length])
		if tokens := text.Tokens(short); len(tokens) != 1 || tokens[0] != token {
			continue
		}
		if long := longForm(short, value[:open]); long != "" {
			out = append(out, long)
		}
	}
}

// begins reports whether a word begins here that a form that is written out can begin with: none that says nothing.
func begins(line []rune, at int) bool {
	if at > 0 && (unicode.IsLetter(line[at-1]) || unicode.IsDigit(line[at-1])) {
		return false
	}
	end := at
	for end < len(line) && (unicode.IsLetter(line[end]) || unicode.IsDigit(line[end])) {
		end++
	}
	return !text.IsStopword(strings.ToLower(string(line[at:end])))
}

// longForm finds the words that a short form stands for at the end of what stands before it: its letters and digits in
// their order from the end, the first of them at the beginning of a word, within min(|A| + 5, 2 |A|) words
// (Schwartz and Hearst 2003, "A simple algorithm for identifying abbreviation definitions in biomedical text").
func longForm(short, before string) string {
	words := strings.Fields(before)
	n := utf8.RuneCountInString(short)
	if most := min(n+5, 2*n); len(words) > most {
		words = words[len(words)-most:]
	}
	long := []rune(strings.Join(words, " "))
	at := len(long) - 1
	letters := []rune(short)
	for i := len(letters) - 1; i >= 0; i-- {
		c := unicode.ToLower(letters[i])
		if !unicode.IsLetter(c) && !unicode.IsDigit(c) {
			continue
		}
		for at >= 0 && (unicode.ToLower(long[at]) != c || i == 0 && !begins(long, at)) {
			at--
		}
		if at < 0 {
			return ""
		}
		at--
	}
	found := strings.TrimFunc(
		string(long[at+1:]),
		func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) },
	)
	// What is one word, or has a bracket in it, is no form that is written out.
	if len(text.Tokens(found)) < 2 || strings.ContainsAny(found, "()[];:.") {
		return ""
	}
	return found
}

package thesaurus

import (
	"regexp"
	"slices"
	"strconv"
	"strings"
)

// A History is since when a heading is given to records, and what was given before.
type History struct {
	Since  int   // the year it came in; 0 where that is not known
	Before []int // the headings used before it, for what it covers
	Said   bool  // the vocabulary says so itself; else it was read out of the note
	After  []int // of a heading that is given no more: what is used now
}

var fourDigits = regexp.MustCompile(`\b(1[5-9]|20)\d\d\b`)

// History returns what a vocabulary says of the time before a heading: as statements, or, where there are none, in the
// words of its history note, which may name a year and another heading, written as it is labelled.
func (t *Thesaurus) History(heading int) History {
	h := t.At(heading)
	out := History{Before: h.Replaces, After: h.ReplacedBy, Said: len(h.Replaces) > 0}
	for _, said := range []string{h.Since, h.HistoryNote} {
		if year := fourDigits.FindString(said); year != "" && out.Since == 0 && !h.Retired {
			out.Since, _ = strconv.Atoi(year)
		}
	}
	if len(h.Replaces)+len(h.ReplacedBy) > 0 || h.HistoryNote == "" {
		return out
	}
	for _, named := range t.named(h.HistoryNote) {
		if named == heading {
			continue
		}
		// Who names the other as what came before it is the younger of the two: the other's note does not say so.
		if other := t.At(named); h.named("before", "instead", "previously", "formerly") {
			out.Before = append(out.Before, named)
		} else if h.named("until", "now", "use ") || other.named("before") {
			out.After = append(out.After, named)
		}
	}
	if len(out.After) > 0 {
		out.Since = 0 // the year is that of its end
	}
	return out
}

func (h Heading) named(words ...string) bool {
	note := strings.ToLower(h.HistoryNote)
	return slices.ContainsFunc(words, func(w string) bool { return strings.Contains(note, w) })
}

// mostWords is how many words a label has that is looked for in a note.
const mostWords = 8

// named returns the headings whose labels stand in a note as the vocabulary writes them, the longest of those that
// overlap.
func (t *Thesaurus) named(note string) (out []int) {
	words := strings.Fields(note)
	for from := 0; from < len(words); {
		took := 1
		for n := min(mostWords, len(words)-from); n > 0; n-- {
			label := strings.Trim(strings.Join(words[from:from+n], " "), ".,;:()\"'“”‘’")
			if n == 1 && (from == 0 || strings.HasSuffix(words[from-1], ".")) {
				break // a word that begins a sentence is written large whatever it means
			}
			if h, ok := t.Find(label); ok && t.Label(h) == label && !slices.Contains(out, h) {
				out = append(out, h)
				took = n
				break
			}
		}
		from += took
	}
	return out
}

// Named returns the headings that a note names, as links are drawn in it.
func (t *Thesaurus) Named(note string) []string { return t.labels(t.named(note)) }

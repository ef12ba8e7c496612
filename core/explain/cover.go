package explain

import (
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// longestRun is how many letters of a word tell which patterns may cover it.
const longestRun = 24

// covers finds, among many terms, those that may find all that one does. A pattern covers another only where each
// run of letters between its signs stands in one of the other's: each pattern is kept under that of its runs that
// the fewest have, so that a term is set against a few.
type covers struct {
	parts    []*dialect.Node
	same     map[string]int       // by what is written: the first
	runs     map[string][]int     // patterns
	open     []int                // patterns of signs alone
	headings map[string][]int     // by label
	branches map[string][]int     // headings with all below them, by label
	lengths  map[int]bool         // of the runs
	broader  *thesaurus.Thesaurus // that tells what stands above a heading
}

// newCovers looks through terms once. Of terms that are written alike only the first is one of others'.
func newCovers(parts []*dialect.Node, v *thesaurus.Thesaurus) *covers {
	c := &covers{
		parts:    parts,
		same:     map[string]int{},
		runs:     map[string][]int{},
		headings: map[string][]int{},
		branches: map[string][]int{},
		lengths:  map[int]bool{},
		broader:  v,
	}
	often := map[string]int{}
	var phrases []int
	for i, p := range parts {
		if p.Expr == nil {
			continue
		}
		key := keyOf(p.Expr)
		if _, ok := c.same[key]; ok {
			continue
		}
		c.same[key] = i
		switch q := p.Expr.(type) {
		case query.Phrase:
			phrases = append(phrases, i)
			for _, run := range runsOf(q.Pattern) {
				often[run]++
			}
		case query.Heading:
			label := text.Label(q.Label)
			c.headings[label] = append(c.headings[label], i)
			if q.Narrower {
				c.branches[label] = append(c.branches[label], i)
			}
		}
	}
	for _, i := range phrases {
		runs := runsOf(parts[i].Expr.(query.Phrase).Pattern)
		if len(runs) == 0 {
			c.open = append(c.open, i)
			continue
		}
		rarest := slices.MinFunc(runs, func(a, b string) int { return often[a] - often[b] })
		c.runs[rarest] = append(c.runs[rarest], i)
		c.lengths[utf8.RuneCountInString(rarest)] = true
	}
	return c
}

// runsOf returns what a term must hold for a pattern to cover it: whole words, marked by a blank, and runs of letters.
func runsOf(p text.Pattern) (out []string) {
	for _, t := range p {
		word, exact := t.Exact()
		if exact {
			out = append(out, " "+word)
			continue
		}
		for _, run := range strings.FieldsFunc(t.String(), isSign) {
			if r := []rune(run); len(r) > longestRun {
				run = string(r[:longestRun])
			}
			out = append(out, run)
		}
	}
	return out
}

func isSign(r rune) bool { return r == '*' || r == '?' }

// may returns the places of the terms that may find all that one does, ascending.
func (c *covers) may(p *dialect.Node) (out []int) {
	if p.Expr == nil {
		return nil
	}
	if i, ok := c.same[keyOf(p.Expr)]; ok {
		out = append(out, i)
	}
	switch q := p.Expr.(type) {
	case query.Phrase:
		out = append(out, c.covering(q.Pattern)...)
	case query.Heading:
		out = append(out, c.headings[text.Label(q.Label)]...)
		out = append(out, c.above(q.Label)...)
	}
	slices.Sort(out)
	return slices.Compact(out)
}

// covering returns the phrases that may cover one.
func (c *covers) covering(p text.Pattern) (out []int) {
	out = append(out, c.open...)
	for _, t := range p {
		if word, exact := t.Exact(); exact {
			out = append(out, c.runs[" "+word]...)
		}
		for _, run := range strings.FieldsFunc(t.String(), isSign) {
			letters := []rune(run)
			for n := range c.lengths {
				for i := 0; i+n <= len(letters); i++ {
					out = append(out, c.runs[string(letters[i:i+n])]...)
				}
			}
		}
	}
	return out
}

// above returns the headings with all below them under which a heading may stand.
func (c *covers) above(label string) (out []int) {
	if len(c.branches) == 0 || c.broader == nil {
		return nil
	}
	at, ok := c.broader.Find(label)
	if !ok {
		return nil
	}
	seen := map[int]bool{at: true}
	for next := []int{at}; len(next) > 0; {
		h := next[len(next)-1]
		next = next[:len(next)-1]
		out = append(out, c.branches[text.Label(c.broader.Label(h))]...)
		for _, b := range c.broader.Broader(h) {
			if !seen[b] {
				seen[b] = true
				next = append(next, b)
			}
		}
	}
	return out
}

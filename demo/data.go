package demo

import (
	_ "embed"
	"fmt"
	"math/rand/v2"
	"regexp"
	"strconv"
	"strings"
)

//go:embed data/vocabulary.txt
var vocabularyText string

//go:embed data/fields.txt
var fieldsText string

//go:embed data/sentences.txt
var sentencesText string

// An entry is one thing that records are about, with the ways it is written.
type entry struct {
	heading string
	written []string
	weights []int
}

// A field is a topic: whom its records are about, and what of.
type field struct {
	weight                                     int
	pops, problems, measures, outcomes, things []*entry
	name                                       string
	near                                       bool // near the demo question
	topic                                      bool // the demo question itself
}

// animals reports whether a topic is about animals, which are not asked and not paid.
func (f field) animals() bool { return len(f.pops) > 0 && f.pops[0].heading == "Veterinary Subjects" }

var (
	entries  = readVocabulary(vocabularyText)
	fields   = readFields(fieldsText)
	patterns = readSentences(sentencesText)
	choice   = regexp.MustCompile(`\([^()|{}]*(\|[^()|{}]*)+\)\??|\([^()|{}]*\)\?`)
	slot     = regexp.MustCompile(`\{[A-Za-z]+2?\}`)
)

func lines(s string, each func(line string)) {
	for _, line := range strings.Split(s, "\n") {
		if line = strings.TrimSpace(line); line != "" && (line[0] != '#') {
			each(line)
		}
	}
}

// readVocabulary returns the entries by kind and name. The data ships with the program, so a mistake
// in it is a mistake of the program.
func readVocabulary(s string) map[string][]*entry {
	out := map[string][]*entry{}
	lines(s, func(line string) {
		parts := strings.Split(line, "|")
		if len(parts) != 4 {
			panic("demo: vocabulary: " + line)
		}
		e := &entry{heading: parts[2]}
		for _, w := range strings.Split(parts[3], ";") {
			text, weight, ok := strings.Cut(w, ":")
			n, err := strconv.Atoi(weight)
			if !ok || err != nil {
				panic("demo: vocabulary: " + line)
			}
			e.written, e.weights = append(e.written, text), append(e.weights, n)
		}
		key := parts[0] + " " + parts[1]
		out[key] = append(out[key], e)
	})
	return out
}

func readFields(s string) []field {
	var out []field
	lines(s, func(line string) {
		parts := strings.Split(line, "|")
		if len(parts) != 7 {
			panic("demo: fields: " + line)
		}
		of := func(kind, names string) (found []*entry) {
			for _, n := range strings.Split(names, ",") {
				e := entries[kind+" "+n]
				if e == nil {
					panic(fmt.Sprintf("demo: fields: no %s %s", kind, n))
				}
				found = append(found, e...)
			}
			return found
		}
		weight, err := strconv.Atoi(parts[0])
		if err != nil {
			panic("demo: fields: " + line)
		}
		out = append(out, field{weight: weight, pops: of("pop", parts[1]), problems: of("problem", parts[2]),
			measures: of("measure", parts[3]), outcomes: of("outcome", parts[4]), things: of("thing", parts[5]),
			name: parts[6], near: len(out) < 10, topic: len(out) < 2})
	})
	return out
}

func readSentences(s string) map[string][]string {
	out := map[string][]string{}
	kind := ""
	lines(s, func(line string) {
		if strings.HasPrefix(line, "[") {
			kind = strings.Trim(line, "[]")
			return
		}
		out[kind] = append(out[kind], line)
	})
	return out
}

func pick[T any](r *rand.Rand, of []T) T { return of[r.IntN(len(of))] }

// pickWritten draws one of the ways an entry is written, by weight.
func pickWritten(r *rand.Rand, e *entry) string {
	return e.written[weighted(r, len(e.written), func(i int) int { return e.weights[i] })]
}

// weighted draws one of n by weight.
func weighted(r *rand.Rand, n int, weight func(int) int) int {
	total := 0
	for i := range n {
		total += weight(i)
	}
	at := r.IntN(total)
	for i := range n {
		if at -= weight(i); at < 0 {
			return i
		}
	}
	return n - 1
}

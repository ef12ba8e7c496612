package demo

import (
	_ "embed"
	"fmt"
	"strings"

	"tamiz/core/thesaurus"
)

//go:embed data/headings.txt
var headingsText string

// qualifiers are what headings of Almagre may carry behind them.
var qualifiers = []string{"prevention", "causes", "methods", "statistics", "therapy"}

const headingAddress = "https://almagre.example/headings/"

// Headings returns the vocabulary of the invented source Almagre.
func Headings() []thesaurus.Concept {
	var out []thesaurus.Concept
	place := map[string]int{}
	var path []string // addresses from the top down
	text := func(s string) thesaurus.Text { return thesaurus.Text{Value: s, Language: "en"} }
	for _, line := range strings.Split(headingsText, "\n") {
		indented := strings.TrimRight(line, " ")
		if indented == "" || indented[0] == '#' {
			continue
		}
		depth := (len(indented) - len(strings.TrimLeft(indented, " "))) / 2
		parts := strings.Split(indented, "|")
		for i := range parts {
			parts[i] = strings.TrimSpace(parts[i])
		}
		i, known := place[parts[0]]
		if !known {
			i = len(out)
			place[parts[0]] = i
			out = append(out, thesaurus.Concept{ID: fmt.Sprintf("%s%d", headingAddress, i+1), Labels: []thesaurus.Text{text(parts[0])}})
		}
		c := &out[i]
		if len(parts) > 1 {
			for _, term := range strings.Split(parts[1], ";") {
				if term = strings.TrimSpace(term); term != "" {
					c.EntryTerms = append(c.EntryTerms, text(term))
				}
			}
		}
		if len(parts) > 2 && parts[2] != "" {
			c.ScopeNotes = append(c.ScopeNotes, text(parts[2]))
		}
		if len(parts) > 3 {
			c.HistoryNotes = append(c.HistoryNotes, text(parts[3]))
		}
		if path = path[:depth]; depth > 0 {
			c.Broader = append(c.Broader, path[depth-1])
		}
		path = append(path, c.ID)
	}
	for i, q := range qualifiers {
		out = append(out, thesaurus.Concept{ID: fmt.Sprintf("%squalifiers/%d", headingAddress, i+1), Labels: []thesaurus.Text{text(q)}, Qualifier: true})
	}
	return out
}

// Package thesaurustest makes small vocabularies for tests.
package thesaurustest

import (
	"maps"
	"slices"

	"tamiz/core/thesaurus"
)

// Tree returns a vocabulary of the given headings and those that stand below them, without entry terms.
func Tree(narrower map[string][]string) *thesaurus.Thesaurus {
	var concepts []thesaurus.Concept
	seen := map[string]bool{}
	add := func(label string) {
		if !seen[label] {
			seen[label] = true
			concepts = append(
				concepts,
				thesaurus.Concept{ID: label, Labels: []thesaurus.Text{{Value: label}}, Narrower: narrower[label]},
			)
		}
	}
	for _, label := range slices.Sorted(maps.Keys(narrower)) {
		add(label)
		for _, n := range narrower[label] {
			add(n)
		}
	}
	t, _ := thesaurus.Build(concepts, "")
	return t
}

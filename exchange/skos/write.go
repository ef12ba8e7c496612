package skos

import (
	"bufio"
	"fmt"
	"io"
	"strings"

	"tamiz/core/thesaurus"
)

// Write writes a vocabulary as N-Triples. Read reads it back the same; qualifiers stand in a collection
// of their own.
func Write(w io.Writer, concepts []thesaurus.Concept) error {
	out := bufio.NewWriter(w)
	link := func(subject, predicate, object string) {
		fmt.Fprintf(out, "%s <%s> %s .\n", term(subject), predicate, term(object))
	}
	words := func(subject, predicate string, texts []thesaurus.Text) {
		for _, t := range texts {
			language := ""
			if t.Language != "" {
				language = "@" + t.Language
			}
			fmt.Fprintf(out, "%s <%s%s> \"%s\"%s .\n", term(subject), core, predicate, escape.Replace(t.Value), language)
		}
	}
	collection := ""
	for _, c := range concepts {
		link(c.ID, rdf+"type", core+"Concept")
		words(c.ID, "prefLabel", c.Labels)
		words(c.ID, "altLabel", c.EntryTerms)
		words(c.ID, "scopeNote", c.ScopeNotes)
		words(c.ID, "historyNote", c.HistoryNotes)
		if c.Notation != "" {
			words(c.ID, "notation", []thesaurus.Text{{Value: c.Notation}})
		}
		if c.Since != "" {
			fmt.Fprintf(out, "%s <%sissued> \"%s\" .\n", term(c.ID), dct, escape.Replace(c.Since))
		}
		if c.Retired {
			fmt.Fprintf(out, "%s <%sdeprecated> \"true\" .\n", term(c.ID), owl)
		}
		for _, links := range []struct {
			name string
			to   []string
		}{{core + "broader", c.Broader}, {core + "narrower", c.Narrower}, {core + "related", c.Related},
			{core + "exactMatch", c.Exact}, {core + "closeMatch", c.Close},
			{dct + "replaces", c.Replaces}, {dct + "isReplacedBy", c.ReplacedBy}} {
			for _, to := range links.to {
				link(c.ID, links.name, to)
			}
		}
		if c.Qualifier {
			if collection == "" {
				collection = "_:qualifiers"
				link(collection, rdf+"type", core+"Collection")
				words(collection, "prefLabel", []thesaurus.Text{{Value: "qualifiers", Language: "en"}})
			}
			link(collection, core+"member", c.ID)
		}
	}
	return out.Flush()
}

func term(id string) string {
	if strings.HasPrefix(id, "_:") {
		return id
	}
	return "<" + id + ">"
}

var escape = strings.NewReplacer(`\`, `\\`, `"`, `\"`, "\n", `\n`, "\r", `\r`)

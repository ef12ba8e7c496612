package skos

import (
	"regexp"
	"strings"
)

// statement is how a line of N-Triples begins.
var statement = regexp.MustCompile(`(?m)^\s*<[a-zA-Z][\w+.-]*:[^<>\s]*>\s+<[a-zA-Z][\w+.-]*:[^<>\s]*>\s+[<"_]`)

// Looks reports whether the beginning of a text looks like a vocabulary rather than anything else.
func Looks(head string) bool {
	text := strings.TrimLeft(strings.TrimPrefix(head, "\ufeff"), " \t\r\n")
	switch {
	case text == "":
		return false
	case text[0] == '{' || text[0] == '[':
		return strings.Contains(text, `"@context"`) || strings.Contains(text, `"@graph"`) || strings.Contains(text, `"@id"`)
	case beginsXML.MatchString(text):
		return strings.Contains(text, "rdf:RDF") || strings.Contains(text, rdf) && strings.Contains(text, "RDF")
	}
	return statement.MatchString(text)
}

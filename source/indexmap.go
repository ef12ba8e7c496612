package source

import (
	"maps"
	"slices"
	"strings"
)

// Fields are the names of the parts of a record that a query can ask for, in the order in which they are
// shown.
var Fields = []string{"text", "title", "abstract", "titleAbstract", "keyword", "heading", "any", "author", "journal",
	"year", "type", "language", "country", "identifier"}

// Links are the names of what a source can be asked about citations, where it can: the records that cite a work,
// those that a work cites, and how many cite each.
var Links = []string{"cites", "citedBy", "timesCited"}

// A Map says how a source is asked: which of its indexes stands for which of our fields, and what else it
// can do. What it does not say cannot be asked.
type Map struct {
	Indexes  map[string]string `json:"indexes"` // our field → the source's index
	Schema   string            `json:"schema"`
	Phrase   string            `json:"phrase"`   // the relation that keeps words together: = or adj
	Near     bool              `json:"near"`     // words near each other
	Ends     bool              `json:"ends"`     // * at the end of a word
	Inside   bool              `json:"inside"`   // * and ? inside a word
	Narrower bool              `json:"narrower"` // a heading with everything below it
	Central  bool              `json:"central"`
	Qualify  bool              `json:"qualify"`
	Sort     bool              `json:"sort"` // by year
	Scan     bool              `json:"scan"`
	AtMost   int               `json:"atMost"` // records in one answer
}

// names by which indexes go in context sets known to us, the better ones first. A name without a prefix
// fits any set.
var names = map[string][]string{
	"text":          {"tamiz.text"},
	"title":         {"tamiz.title", "dc.title", "title", "maintitle"},
	"abstract":      {"tamiz.abstract", "dc.description", "abstract", "description", "summary"},
	"titleAbstract": {"tamiz.titleabstract"},
	"keyword":       {"tamiz.keyword", "keyword", "keywords", "dc.subject", "subject"},
	"heading":       {"tamiz.heading", "heading", "subjectheading", "descriptor"},
	"any":           {"tamiz.any", "cql.anywhere", "cql.anyindexes", "cql.serverchoice", "anywhere", "any", "all"},
	"author":        {"tamiz.author", "dc.creator", "author", "creator", "namepersonal", "name"},
	"journal":       {"tamiz.journal", "journal", "hosttitle", "dc.source", "source"},
	"year":          {"tamiz.year", "dc.date", "year", "dateissued", "date", "publicationdate"},
	"type":          {"tamiz.type", "dc.type", "type", "genre"},
	"language":      {"tamiz.language", "dc.language", "language", "lang"},
	"country":       {"tamiz.country", "country"},
	"identifier":    {"tamiz.identifier", "dc.identifier", "doi", "identifier", "id"},
	"cites":         {"tamiz.cites", "cites", "references"},
	"citedBy":       {"tamiz.citedby", "citedby"},
	"timesCited":    {"tamiz.timescited", "timescited", "citationcount"},
}

// The forms of records we read, the fullest first.
var schemas = []string{"mods", "marcxml", "marc", "dc"}

// maxIndexName is how long the name of an index may be.
const maxIndexName = 200

// The most records asked for in one answer, where the source does not say less.
const pageSize = 100

// Propose returns the map that a source's own description suggests. It is a proposal: names are taken to
// mean what they say.
func Propose(d *Description) Map {
	m := Map{Indexes: map[string]string{}, AtMost: pageSize}
	for field, wanted := range names {
		for _, name := range wanted {
			i := slices.IndexFunc(d.Indexes, func(ix Index) bool {
				full := strings.ToLower(ix.Name)
				_, bare, ok := strings.Cut(full, ".")
				return full == name || ok && bare == name
			})
			if i >= 0 {
				m.Indexes[field] = d.Indexes[i].Name
				break
			}
		}
	}
	for _, wanted := range schemas {
		i := slices.IndexFunc(d.Schemas, func(s Schema) bool {
			return strings.Contains(strings.ToLower(s.Name), wanted) || strings.Contains(strings.ToLower(s.Identifier), wanted)
		})
		if i >= 0 {
			m.Schema = d.Schemas[i].Name
			if m.Schema == "" {
				m.Schema = d.Schemas[i].Identifier
			}
			break
		}
	}
	if d.MaxRecords > 0 {
		m.AtMost = min(pageSize, d.MaxRecords)
	}
	has := func(kind string, values ...string) bool {
		said, ok := d.Supports[kind]
		return ok &&
			(len(values) == 0 || slices.ContainsFunc(said, func(v string) bool {
				return slices.Contains(values,
					strings.ToLower(v))
			}))
	}
	_, masks := d.Supports["maskingcharacter"]
	m.Phrase = "="
	if has("relation", "adj") {
		m.Phrase = "adj"
	}
	// The mark at the end of a word is part of the language; where a source does not say, it is tried.
	m.Ends = !masks || has("maskingcharacter", "*")
	m.Inside = has("maskingcharacter", "?")
	m.Near = has("proximity") || has("booleanmodifier", "distance") || has("boolean", "prox")
	m.Narrower, m.Central, m.Qualify = has(
		"relationmodifier",
		"narrower",
	), has(
		"relationmodifier",
		"central",
	), has(
		"relationmodifier",
		"qualifier",
	)
	m.Sort = m.Indexes["year"] != "" &&
		(has("sort") || slices.ContainsFunc(d.Indexes, func(ix Index) bool {
			return ix.Sort &&
				ix.Name == m.Indexes["year"]
		}))
	m.Scan = has("scan") || slices.ContainsFunc(d.Indexes, func(ix Index) bool { return ix.Scan })
	return m
}

// Lacks returns which of our fields the source cannot be asked for in full, in the order in which they are shown.
// A field that its parts can be asked for in its place is not lacking.
func (m Map) Lacks() (out []string) {
	for _, f := range Fields {
		if indexes, missing := m.parts(f); len(indexes) == 0 || len(missing) > 0 {
			out = append(out, f)
		}
	}
	return out
}

// madeOf is which fields together are one. Headings are asked by their labels, so that nothing else stands for any.
var madeOf = map[string][]string{"text": {"titleAbstract", "keyword"}, "titleAbstract": {"title", "abstract"}}

// parts returns the indexes that together stand for a field, and which parts of it have none.
func (m Map) parts(field string) (indexes, missing []string) {
	if ix := m.Indexes[field]; ix != "" {
		return []string{ix}, nil
	}
	if len(madeOf[field]) == 0 {
		return nil, []string{field}
	}
	for _, f := range madeOf[field] {
		some, lacking := m.parts(f)
		missing = append(missing, lacking...)
		for _, ix := range some {
			if !slices.Contains(indexes, ix) {
				indexes = append(indexes, ix)
			}
		}
	}
	return indexes, missing
}

// Clean returns the map without fields that do not exist and with sensible limits.
func (m Map) Clean() Map {
	m.Indexes = maps.Clone(m.Indexes)
	maps.DeleteFunc(m.Indexes, func(field, ix string) bool {
		return !slices.Contains(Fields, field) && !slices.Contains(Links, field) || strings.TrimSpace(ix) == "" ||
			len(ix) > maxIndexName ||
			strings.ContainsAny(ix, "\x00\"() ")
	})
	if m.Phrase != "adj" {
		m.Phrase = "="
	}
	if m.AtMost < 1 || m.AtMost > 1000 {
		m.AtMost = pageSize
	}
	return m
}

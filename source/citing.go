package source

import (
	"context"
	"fmt"
	"strings"
)

// A Way is a direction along citations.
type Way string

// The ways.
const (
	Backward Way = "backward" // to the works that some cite
	Forward  Way = "forward"  // to those that cite them
)

// A Citing source knows who cites whom. It is an optional part of the port: a source of another protocol may
// implement it itself, an index map may offer it (Links).
type Citing interface {
	// Can reports whether the source can be asked along a way.
	Can(way Way) bool
	// Most is how many works are asked about at once.
	Most() int
	// Linked returns some of the records that are linked to any of the works that go by these identifiers, the newest
	// first where the source can, and how many there are.
	Linked(ctx context.Context, way Way, ids []string, start, most int) (*Page, error)
}

// CitingOf returns what a source knows of citations; nil where that is nothing.
func CitingOf(s Source, m Map) Citing {
	if c, ok := s.(Citing); ok {
		return c
	}
	c := byIndex{s, m}
	if !c.Can(Backward) && !c.Can(Forward) {
		return nil
	}
	return c
}

// byIndex asks along citations by the indexes of a map.
type byIndex struct {
	source Source
	m      Map
}

// mostAsked is how many works are asked about in one query: its address stays shorter than servers take.
const mostAsked = 25

func (c byIndex) index(way Way) string {
	return c.m.Indexes[map[Way]string{Backward: "citedBy", Forward: "cites"}[way]]
}

// Can implements Citing.
func (c byIndex) Can(way Way) bool { return c.index(way) != "" }

// Most implements Citing.
func (c byIndex) Most() int { return mostAsked }

// Linked implements Citing.
func (c byIndex) Linked(ctx context.Context, way Way, ids []string, start, most int) (*Page, error) {
	ix := c.index(way)
	if ix == "" {
		return nil, fmt.Errorf("source: no index for %s citations", way)
	}
	cql := anyOf(ix, ids)
	if c.m.Sort { // where not all are taken, the newest are
		cql = c.m.NewestFirst(cql)
	}
	return c.source.Search(ctx, Search{Query: cql, Start: start, Max: min(most, c.m.AtMost)})
}

// anyOf asks for any of some values of an index.
func anyOf(ix string, values []string) string {
	parts := make([]string, len(values))
	for i, v := range values {
		parts[i] = ix + " = " + mustQuote(v)
	}
	return strings.Join(parts, " or ")
}

// Identified asks for the records that go by any of some identifiers; "" where the source cannot be asked so.
func (m Map) Identified(ids []string) string {
	if m.Indexes["identifier"] == "" || len(ids) == 0 {
		return ""
	}
	return anyOf(m.Indexes["identifier"], ids)
}

// MostCited asks for a query's records by how often they are cited, most often first; "" where the source does not say.
func (m Map) MostCited(cql string) string {
	if m.Indexes["timesCited"] == "" {
		return ""
	}
	return cql + " sortBy " + m.Indexes["timesCited"] + "/sort.descending"
}

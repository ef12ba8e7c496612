package draws

import (
	"context"
	"encoding/json"

	"tamiz/app/library"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/source"
)

// A DrawPart is one part of a sample that is drawn in several: what all concepts find together, what one finds by
// itself, or, without a concept, anything.
type DrawPart struct {
	Concepts []RoughConcept `json:"concepts"`
	Query    string         `json:"query"`
	Total    int            `json:"total"`  // records that match
	Wanted   int            `json:"wanted"` // of them, those that are drawn
}

// inParts lays out the parts of a sample: all concepts together, each by itself, and anything. What the map of the
// source cannot say comes as notes.
func inParts(concepts []RoughConcept, m source.Map) (out []DrawPart, notes []source.Note, err error) {
	of := [][]RoughConcept{concepts}
	if len(concepts) > 1 {
		for _, c := range concepts {
			of = append(of, []RoughConcept{c})
		}
	}
	of = append(of, []RoughConcept{})
	for _, concepts := range of {
		q, err := roughQuery(concepts)
		if err != nil {
			return nil, nil, err
		}
		cql, more := sources.Rendered(q, m)
		out = append(out, DrawPart{Concepts: concepts, Query: cql})
		if len(concepts) == 0 {
			notes = append(notes, more...)
		}
	}
	return out, notes, nil
}

// planInParts counts what each part finds, and lays out which of it is fetched: of all together up to half, of the
// others as evenly as they allow, at random, so that their figures hold at the source.
func planInParts(
	ctx context.Context,
	c source.Source,
	m source.Map,
	said json.RawMessage,
	o source.Order,
) (plan source.Plan, saved json.RawMessage, err error) {
	var parts []DrawPart
	if err := json.Unmarshal(said, &parts); err != nil {
		return plan, nil, err
	}
	hold := make([]int, len(parts))
	for i, p := range parts {
		page, err := c.Search(ctx, source.Search{Query: p.Query, Start: 1})
		if err != nil {
			return plan, nil, err
		}
		parts[i].Total, hold[i] = page.Total, page.Total
	}
	plan.Total = parts[0].Total
	for i, n := range source.Share(hold, o.AtMost) {
		parts[i].Wanted = n
		if n == 0 {
			continue
		}
		order := o
		order.AtMost = n
		if i > 0 {
			order.How = source.Random
		}
		one, err := source.PlanOf(ctx, c, m, parts[i].Query, order)
		if err != nil {
			return plan, nil, err
		}
		for _, p := range one.Parts {
			p.Key += i * library.PartSize
			plan.Parts = append(plan.Parts, p)
		}
	}
	saved, err = json.Marshal(parts)
	return plan, saved, err
}

// drawnKnown is what was drawn already, by part.
type drawnKnown map[int]*drawnPart

type drawnPart struct {
	known bib.Known
	n     int
}

func (k drawnKnown) of(part int) *drawnPart {
	if k[part] == nil {
		k[part] = &drawnPart{}
	}
	return k[part]
}

func (p *drawnPart) has(r *bib.Record) bool {
	_, twice := p.known.Find(r)
	return twice
}

func (p *drawnPart) add(r *bib.Record) {
	p.known.Add(slim(r), p.n)
	p.n++
}

package draws

import (
	"context"
	"fmt"
	"strings"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/source"
)

// Limits of rough words and of what is shown of them.
const (
	maxWords   = 200 // rough words of a concept
	maxConcept = 300 // characters of its name
	firstOnes  = 10  // titles shown before drawing
)

// A RoughConcept is a concept in rough words, which are alternatives.
type RoughConcept struct {
	Name  string   `json:"name"`
	Block string   `json:"block,omitempty"` // of the document that it is the concept of: its id
	Words []string `json:"words"`
}

// Preview asks what rough words would find at a source, before anything is drawn.
type Preview struct {
	Concepts []RoughConcept `json:"concepts"`
}

// A Previewed is what rough words find: each concept by itself, all together, and the first titles.
type Previewed struct {
	Concepts []PreviewedConcept   `json:"concepts"`
	Together *sources.SourceCount `json:"together,omitempty"`
	Titles   []PreviewedTitle     `json:"titles"`
	// what to try where nothing is found: together, or the name of a concept
	Nothing string `json:"nothing,omitempty"`
}

// A PreviewedConcept is what one concept finds. A word that cannot be searched is refused with its reason.
type PreviewedConcept struct {
	Name    string               `json:"name"`
	Count   *sources.SourceCount `json:"count,omitempty"`
	Refused []problems.Refusal   `json:"refused"`
}

// A PreviewedTitle is a title with the words of the concepts marked.
type PreviewedTitle struct {
	Title []desk.Piece `json:"title"`
	Year  int          `json:"year"`
}

// rough reads concepts in rough words. What cannot be searched is left out and told.
func rough(concepts []RoughConcept) (s strategy.Strategy, refused [][]problems.Refusal, err error) {
	if len(concepts) > strategy.MaxBlocks {
		return s, nil, problems.Invalid("concepts", "There are at most %d concepts.", strategy.MaxBlocks)
	}
	s.Tamiz = strategy.Version
	for i, c := range concepts {
		if len([]rune(c.Name)) > maxConcept {
			return s, nil, problems.Invalid("concepts", "The name of a concept has at most %d characters.", maxConcept)
		}
		if len(c.Words) > maxWords {
			return s, nil, problems.Invalid(
				"concepts",
				"A concept has at most %d rough words; %s has %d.",
				maxWords,
				c.Name,
				len(c.Words),
			)
		}
		b := strategy.Block{Name: fmt.Sprint(i), Searched: true}
		bad := []problems.Refusal{}
		for _, w := range c.Words {
			if strings.TrimSpace(w) == "" {
				continue
			}
			if _, _, ok := query.Parts(w); ok {
				bad = append(
					bad,
					problems.Refusal{
						Reason:  "query",
						Token:   w,
						Message: "This is a query: rough words are alternatives, parted by commas.",
					},
				)
				continue
			}
			t := strategy.Term{Kind: strategy.TextTerm, Text: w, Field: "text", On: true}
			if _, err := t.Query(); err != nil {
				r := problems.RefusalOf(err)
				bad = append(bad, *r)
				continue
			}
			b.Terms = append(b.Terms, t)
		}
		s.Blocks, refused = append(s.Blocks, b), append(refused, bad)
	}
	return s, refused, nil
}

// Preview counts rough words at a source and shows the first titles.
func (a *Service) Preview(ctx context.Context, id int64, p Preview) (*Previewed, error) {
	s, c, err := a.sources.Named(ctx, id)
	if err != nil {
		return nil, err
	}
	all, refused, err := rough(p.Concepts)
	if err != nil {
		return nil, err
	}
	ctx, cancel := context.WithTimeout(ctx, sources.AskTime)
	defer cancel()
	out := &Previewed{Concepts: []PreviewedConcept{}, Titles: []PreviewedTitle{}}
	count := func(q query.Expr) (*sources.SourceCount, error) {
		cql, notes := sources.Rendered(q, s.Map)
		if cql == "" {
			return nil, nil
		}
		return a.sources.Counted(ctx, s, c, cql, notes)
	}
	var together []strategy.Block
	for i, b := range all.Blocks {
		row := PreviewedConcept{Name: p.Concepts[i].Name, Refused: refused[i]}
		if len(b.Terms) > 0 {
			together = append(together, b)
			q, err := (strategy.Strategy{Blocks: []strategy.Block{b}}).Query(nil)
			if err != nil {
				return nil, err
			}
			if row.Count, err = count(q); err != nil {
				return nil, err
			}
			if row.Count != nil && row.Count.Records == 0 && out.Nothing == "" {
				out.Nothing = row.Name
			}
		}
		out.Concepts = append(out.Concepts, row)
	}
	if len(together) == 0 {
		return out, nil
	}
	q, err := (strategy.Strategy{Blocks: together}).Query(nil)
	if err != nil {
		return nil, err
	}
	if out.Together, err = count(q); err != nil {
		return nil, err
	}
	if out.Together.Records == 0 {
		if out.Nothing == "" {
			out.Nothing = "together"
		}
		return out, nil
	}
	page, err := c.Search(ctx, source.Search{Query: out.Together.Query, Start: 1, Max: firstOnes})
	if err != nil && (page == nil || len(page.Records) == 0) {
		return nil, sources.Unanswered(s.Name, err)
	}
	marker, err := coverage.NewMarker(all, nil)
	if err != nil {
		return nil, err
	}
	for _, g := range page.Records {
		if g.Record == nil {
			continue
		}
		t := PreviewedTitle{Year: g.Record.Year, Title: []desk.Piece{}}
		for _, piece := range marker.Value(bib.Title, g.Record.Title) {
			var letters []string
			for _, b := range piece.Blocks {
				letters = append(letters, p.Concepts[b].Name)
			}
			t.Title = append(t.Title, desk.Piece{Text: piece.Text, Blocks: letters})
		}
		out.Titles = append(out.Titles, t)
	}
	return out, nil
}

// roughQuery joins concepts in rough words into one query.
func roughQuery(concepts []RoughConcept) (query.Expr, error) {
	s, refused, err := rough(concepts)
	if err != nil {
		return nil, err
	}
	for _, bad := range refused {
		if len(bad) > 0 {
			return nil, &problems.Problem{
				Type:   "refused",
				Status: 422,
				Field:  "concepts",
				Title:  problems.Sentence(bad[0].Message),
				Detail: bad[0].Reason,
			}
		}
	}
	if len(concepts) == 0 {
		return query.Years{From: query.FirstYear, To: query.LastYear}, nil // anything with a year
	}
	q, err := s.Query(nil)
	if err != nil {
		return nil, problems.Invalid("concepts", "A concept has rough words.")
	}
	return q, nil
}

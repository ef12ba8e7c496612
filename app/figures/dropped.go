package figures

import (
	"context"
	"slices"
	"strings"

	"tamiz/app/desk"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
)

// A dropped is what somebody dropped: it is not proposed again, nor what is the same but for number and spelling.
type dropped map[string]bool

// dropped returns what was dropped in a review.
func (a *Service) dropped(ctx context.Context, at desk.At) (dropped, error) {
	decisions, err := a.reviewRows.Decisions(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	out := dropped{}
	for _, d := range decisions {
		if d.State != "dropped" {
			continue
		}
		kind := strategy.TextTerm
		if tally.Facet(d.Facet) == tally.Headings {
			kind = strategy.HeadingTerm
		}
		out[droppedKey(kind, d.Item)] = true
	}
	return out, nil
}

// droppedWords returns the words and phrases that were dropped in a review, in order.
func (a *Service) droppedWords(ctx context.Context, at desk.At) ([]string, error) {
	decisions, err := a.reviewRows.Decisions(ctx, at.Review)
	if err != nil {
		return nil, err
	}
	var out []string
	for _, d := range decisions {
		if d.State == "dropped" && desk.Textual(tally.Facet(d.Facet)) {
			out = append(out, text.Key(d.Item))
		}
	}
	slices.Sort(out)
	return slices.Compact(out), nil
}

func (d dropped) has(kind, item string) bool { return len(d) > 0 && d[droppedKey(kind, item)] }

// droppedKey is the same for what differs in number and spelling alone: the family of its words.
func droppedKey(kind, item string) string {
	if kind == strategy.HeadingTerm {
		return kind + " " + text.Label(item)
	}
	return kind + " " + text.FamilyKey(strings.Split(text.Key(item), " "))
}

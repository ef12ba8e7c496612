package rounds

import (
	"cmp"
	"context"
	"encoding/json"
	"fmt"
	"slices"
	"strings"

	"tamiz/app/logbook"
	"tamiz/app/problems"
)

// entry is what stands in the logbook of a round that is done.
func (a *Service) entry(ctx context.Context, r RoundRow, works, lost int) (*logbook.Run, error) {
	saved, err := a.documents.Document(ctx, r.Review, 0)
	if err != nil {
		return nil, problems.Gone(err, "review")
	}
	asked, err := a.sources.Sources(ctx)
	if err != nil {
		return nil, err
	}
	var places []string
	for _, s := range asked {
		if slices.Contains(r.Sources, s.ID) {
			places = append(places, s.Name)
		}
	}
	brought := int64(works)
	out := &logbook.Run{
		Review:   r.Review,
		Kind:     "round",
		Way:      logbook.ByCiting,
		Revision: saved.Revision,
		Place:    cmp.Or(strings.Join(places, ", "), "the sample"),
		Records:  &brought,
		Notes:    json.RawMessage("[]"),
		Who:      r.Who,
		At:       a.now(),
	}
	switch r.Way {
	case Backward:
		out.Query = "what these cite: " + r.Name
	case Forward:
		out.Query = "what cites these: " + r.Name
	case Both:
		out.Query = "what these cite, and what cites them: " + r.Name
	case Author:
		out.Way, out.Query = logbook.Otherwise, "works of "+r.Name
	case Journal:
		out.Way, out.Query = logbook.ByBrowsing, "contents of "+r.Name
	case Cited:
		out.Query = "the most cited of " + r.Name
	case Alike:
		out.Way, out.Query = logbook.Otherwise, "the works of "+r.Name+" that are most like those that belong"
	}
	if lost > 0 {
		out.Note = fmt.Sprintf("%d references led nowhere", lost)
	}
	if len([]rune(out.Place)) > 200 {
		out.Place = fmt.Sprintf("%d asked", len(places))
	}
	return out, nil
}

package written

import (
	"context"
	"errors"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/tally"
	"tamiz/exchange"
	"tamiz/exchange/document"
)

// HandSearch writes the journals that are to be read by hand as a document, with their figures in what is looked
// at: called is how that is called where it is not the sample. Without a sample there are no figures, and it says
// so.
func (a *Service) HandSearch(
	ctx context.Context,
	at desk.At,
	called, format string,
) (body []byte, name string, err error) {
	r, err := a.reviews.Review(ctx, at.Review)
	if err != nil {
		return nil, "", err
	}
	listed := r.Document.HandSearch
	if len(listed) == 0 {
		return nil, "", problems.Invalid("format", "No journal is on the hand-search list yet.")
	}
	s := document.Section{ID: "journals", Title: "Journals"}
	s.Add(document.Text("Journals to read by hand, to make up for weak indexing."))
	figures := map[string][]string{}
	t, err := a.figures.Tally(ctx, at, tally.Journals)
	switch {
	case errors.Is(err, desk.ErrNoSample):
		s.Add(document.Note("There is no sample yet, so nothing is counted."))
	case err != nil:
		return nil, "", err
	default:
		if called == "" {
			called = t.Sample.Name
		}
		s.Add(
			document.Note(
				"Figures of %s, over %s: records of each journal, how many of them are key studies, and how many carry no heading.",
				day(a.now()),
				exchange.Cut(called, 200),
			),
		)
		for _, row := range t.Rows {
			key := row.Key
			if key == "" {
				key = row.Item
			}
			figures[key] = []string{num(row.Records), numOf(row.Keys), num(row.Unindexed)}
		}
	}
	rows := make([][]string, len(listed))
	for i, h := range listed {
		of := figures[h.Journal]
		switch {
		case t == nil:
			of = []string{"", "", ""}
		case of == nil:
			of = []string{"0", "", "0"}
		}
		rows[i] = append(append([]string{h.Name}, of...), h.Note)
	}
	s.Add(document.Rows("", []string{"Journal", ">Records", ">Key studies", ">Unindexed", "Note"}, rows))
	d := document.Document{Title: r.Name + ": hand-search list", Sections: []document.Section{s}}
	if body, err = written(d, format, a.now()); err != nil {
		return nil, "", err
	}
	return body, exchange.FileName(r.Name+", hand-search list") + "." + format, nil
}

package figures

import (
	"context"
	"fmt"
	"io"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/tally"
	"tamiz/exchange"
	"tamiz/exchange/table"
)

// mostSheetRows is how many items a sheet of a workbook holds, below its head.
const mostSheetRows = 1_048_575

// TallyFile writes a facet of what is looked at as a file: csv or xlsx. Words are folded into families. name is
// that of the file; called, what is looked at where that is not the sample.
func (a *Service) TallyFile(
	ctx context.Context,
	at desk.At,
	f tally.Facet,
	format, called string,
	asIs bool,
) (file io.ReadCloser, name string, err error) {
	if err := desk.CheckFacet(f); err != nil {
		return nil, "", err
	}
	if err := a.desk.Heavy.Take(ctx); err != nil {
		return nil, "", err
	}
	head, err := a.reviewRows.Head(ctx, at.Review)
	if err != nil {
		return nil, "", problems.Gone(err, "review")
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, "", err
	}
	if d.Pool == nil {
		return nil, "", desk.ErrNoSample
	}
	counted, err := d.Pool.Tally(ctx, d.Look, f, d.Keys)
	if err != nil {
		return nil, "", err
	}
	t := counted.Tally
	if format == "xlsx" && counted.Len() > mostSheetRows {
		return nil, "", problems.Invalid("format", "A sheet holds at most %d items; save the tally as CSV.", mostSheetRows)
	}
	looked, against := d.Sample.Name, d.Contrast
	if d.Look.Key != "" {
		looked, against = exchange.Cut(called, 200), "the rest of sample and contrast"
	} else if against == "" && t.Contrast > 0 {
		against = "all other records of the review"
	}
	out := exchange.Piped(func(in io.Writer) error {
		if format == "xlsx" {
			return table.WriteTallyXLSX(in, t, counted.EachRow(), [][2]string{
				{
					"review",
					head.Name,
				}, {"facet", string(f)}, {"sample", looked}, {"records of the sample (N1)", fmt.Sprint(t.Sample)},
				{
					"contrast",
					against,
				}, {"records of the contrast (N2)", fmt.Sprint(t.Contrast)}, {"counted", a.now().Format("2006-01-02 15:04")},
				{"items left out in fewer records than", fmt.Sprint(t.LeftOutBelow)},
			})
		}
		return table.WriteTallyCSV(in, t, counted.EachRow(), asIs)
	})
	return out, exchange.FileName(fmt.Sprintf("%s %s", head.Name, f)) + "." + format, nil
}

package figures

import (
	"bufio"
	"cmp"
	"context"
	"io"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/records"
	"tamiz/store"
)

// An Export is a set of records to be written as a file.
type Export struct {
	Of     desk.RecordSet `json:"of"`
	Format records.Format `json:"format"`
	Fields []string       `json:"fields,omitempty"` // of bib.FieldNames, and "extra"; none for all
	// of a table: cells that a spreadsheet would take for formulas are not marked
	AsIs bool   `json:"asIs,omitempty"`
	Name string `json:"name"` // of the file, without ending; a page has it as its title
}

const exportBatch = 500

// Export writes a set of records. What is wrong with the order is said at once; the file then comes as it
// is read. name is that of the file, with its ending.
func (a *Service) Export(ctx context.Context, at desk.At, e Export) (file io.ReadCloser, name string, err error) {
	if r, err := a.reviewRows.Head(ctx, at.Review); err != nil || r.Deleted {
		return nil, "", problems.Gone(cmp.Or(err, store.ErrNone), "review")
	}
	choice := records.Choice{Title: e.Name, AsIs: e.AsIs}
	if len(e.Fields) > 0 {
		choice.Fields = e.Fields
	}
	if err := choice.Check(); err != nil {
		return nil, "", problems.Invalid("fields", "%s", problems.Sentence(exchange.InWords(err)))
	}
	if _, err := records.Create(io.Discard, e.Format, choice); err != nil {
		return nil, "", problems.Invalid("format", "%s", problems.Sentence(exchange.InWords(err)))
	}
	ids, err := a.desk.SetIDs(ctx, at, e.Of.Set)
	if err != nil {
		return nil, "", err
	}
	d, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, "", err
	}
	if e.Format == records.CSV || e.Format == records.TSV {
		// A table has one head for all its rows.
		err := a.eachRecord(ctx, ids, func(r *bib.Record) error {
			choice.Columns = records.Columns(choice.Columns, r)
			return nil
		})
		if err != nil {
			return nil, "", err
		}
	}
	out := exchange.Piped(func(in io.Writer) error {
		b := bufio.NewWriterSize(in, 64<<10)
		w, err := records.Create(b, e.Format, choice)
		if err == nil {
			// Headings go out as the review's vocabulary knows them.
			err = a.eachRecord(ctx, ids, func(r *bib.Record) error { return w.Write(desk.Assigned(d.Keys.Set.Thesaurus, r)) })
		}
		if err == nil {
			err = w.Close()
		}
		if err == nil {
			err = b.Flush()
		}
		return err
	})
	return out, exchange.FileName(e.Name) + e.Format.Ending(), nil
}

func (a *Service) eachRecord(ctx context.Context, ids []int64, do func(*bib.Record) error) error {
	for at := 0; at < len(ids); at += exportBatch {
		stored, err := a.library.RecordsByID(ctx, ids[at:min(at+exportBatch, len(ids))])
		if err != nil {
			return err
		}
		for _, s := range stored {
			if err := do(s.Record); err != nil {
				return err
			}
		}
	}
	return nil
}

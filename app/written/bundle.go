package written

import (
	"archive/zip"
	"bytes"
	"context"
	"crypto/sha256"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"
	"time"

	"tamiz/app/desk"
	"tamiz/app/dialects"
	"tamiz/app/figures"
	"tamiz/app/problems"
	"tamiz/app/runs"
	"tamiz/core/bib"
	"tamiz/core/parallel"
	"tamiz/exchange"
	"tamiz/exchange/records"
	"tamiz/exchange/table"
)

// A bundle is being written: one file after another, each with its checksum.
type bundle struct {
	zip  *zip.Writer
	made time.Time
	sums strings.Builder
	list []string // what each file is, for the README
}

// put writes a file; says tells a stranger what it is.
func (b *bundle) put(name, says string, write func(io.Writer) error) error {
	w, err := b.zip.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: b.made})
	if err != nil {
		return err
	}
	sum := sha256.New()
	if err := write(io.MultiWriter(w, sum)); err != nil {
		return err
	}
	fmt.Fprintf(&b.sums, "%x  %s\n", sum.Sum(nil), name)
	if says != "" {
		b.list = append(b.list, fmt.Sprintf("%s\n    %s", name, says))
	}
	return nil
}

func text(s string) func(io.Writer) error {
	return func(w io.Writer) error {
		_, err := io.WriteString(w, s)
		return err
	}
}

// Bundle packs all that a search is shown by: the strategy in every syntax, what was run, the records that were
// fetched (in the formats named), the record, checksums, and a README that explains it to a stranger.
func (a *Service) Bundle(
	ctx context.Context,
	at desk.At,
	formats []records.Format,
) (file io.ReadCloser, name string, err error) {
	for _, f := range formats {
		if _, err := records.Create(io.Discard, f, records.Choice{}); err != nil {
			return nil, "", problems.Invalid("formats", "%s", problems.Sentence(exchange.InWords(err)))
		}
	}
	r, err := a.Record(ctx, at)
	if err != nil {
		return nil, "", err
	}
	at.Revision = r.revision // the files are of the version that the record is of
	doc, err := a.desk.Proposed(ctx, at.Review, desk.Proposal{Revision: at.Revision})
	if err != nil {
		return nil, "", err
	}
	out := exchange.Piped(func(in io.Writer) error {
		b := &bundle{zip: zip.NewWriter(in), made: a.now()}
		err := a.pack(ctx, b, at, r, doc, formats)
		if err == nil {
			err = b.zip.Close()
		}
		return err
	})
	return out, exchange.FileName(r.Document.Title+", search of "+a.now().Format("2006-01-02")) + ".zip", nil
}

func (a *Service) pack(
	ctx context.Context,
	b *bundle,
	at desk.At,
	r *Record,
	doc desk.Document,
	formats []records.Format,
) error {
	for _, f := range []struct{ format, says string }{{Markdown, "The written record of the search."},
		{HTML, "The same, to be read in a browser or printed."},
		{DOCX, "The same as a document of Office Open XML (ISO/IEC 29500)."},
		{JSON, "The same for programs, with the items of the reporting checklist and the numbers of the flow."}} {
		body, err := r.as(f.format, b.made)
		if err != nil {
			return err
		}
		if err := b.put("record."+f.format, f.says, text(string(body))); err != nil {
			return err
		}
	}
	if err := b.put("record.schema.json", "What record.json looks like, as a JSON Schema.",
		text(string(Schema))); err != nil {
		return err
	}
	strategy := doc.Strategy(r.Document.Title)
	if err := b.put("strategy/strategy.json", "The strategy as a file that Tamiz reads: blocks, terms, limits.",
		func(w io.Writer) error {
			e := json.NewEncoder(w)
			e.SetIndent("", "  ")
			return e.Encode(strategy)
		}); err != nil {
		return err
	}
	if err := a.packTyped(ctx, b, at); err != nil {
		return err
	}
	if err := a.packRuns(ctx, b, at.Review); err != nil {
		return err
	}
	if err := a.packRecords(ctx, b, at.Review, formats); err != nil {
		return err
	}
	if err := b.put("README.txt", "", text(readme(r.Document.Title, b.made, b.list))); err != nil {
		return err
	}
	sums := b.sums.String()
	return b.put("SHA256SUMS", "", text(sums))
}

// packTyped writes the strategy in each dialect. What cannot be typed in one is said in the README.
func (a *Service) packTyped(ctx context.Context, b *bundle, at desk.At) error {
	heads, err := a.dialects.All(ctx)
	if err != nil {
		return err
	}
	heads = slices.DeleteFunc(heads, func(h dialects.Head) bool { return h.Broken != "" })
	type written struct {
		*figures.TypedStrategy
		err error
	}
	all := make([]written, len(heads))
	if err := parallel.Each(ctx, len(heads), func(i int) error {
		d, err := a.dialects.Find(ctx, heads[i].Name, "")
		if err == nil {
			all[i].TypedStrategy, all[i].err = a.figures.TypedIn(ctx, at, d)
		}
		return err
	}); err != nil {
		return err
	}
	used := map[string]bool{}
	for i, h := range heads {
		typed, err := all[i].TypedStrategy, all[i].err
		if err != nil {
			b.list = append(b.list, fmt.Sprintf("(no file for %s)\n    It cannot be typed there: %s", h.Title, err))
			continue
		}
		if typed.Text == "" {
			b.list = append(b.list, fmt.Sprintf("(no file for %s)\n    Nothing of it can be typed there.", h.Title))
			continue
		}
		var body strings.Builder
		body.WriteString(typed.Text + "\n")
		for _, n := range typed.Notes {
			fmt.Fprintf(&body, "\n* %s: %s → %s", n.Kind, n.Term, n.Instead)
		}
		name := unused(used, "strategy/typed for "+exchange.FileName(h.Title)+".txt")
		if err := b.put(name, "The strategy as it is typed for "+h.Title+"; notes stand under it.",
			text(body.String())); err != nil {
			return err
		}
	}
	return nil
}

// unused returns a name that no file has yet.
func unused(used map[string]bool, name string) string {
	stem, ending := name, ""
	if i := strings.LastIndexByte(name, '.'); i >= 0 {
		stem, ending = name[:i], name[i:]
	}
	for n := 2; used[strings.ToLower(name)]; n++ {
		name = fmt.Sprintf("%s (%d)%s", stem, n, ending)
	}
	used[strings.ToLower(name)] = true
	return name
}

// packRuns writes all that was run, the newest first.
func (a *Service) packRuns(ctx context.Context, b *bundle, review int64) error {
	return b.put(
		"runs.csv",
		"What was asked where, when and by whom, and how many records it found; the newest first. A run that another "+
			"corrects counts no more.",
		func(w io.Writer) error {
			c := csv.NewWriter(w)
			_ = c.Write(
				[]string{
					"at",
					"place",
					"kind",
					"records",
					"revision",
					"who",
					"query",
					"note",
					"problem",
					"run",
					"corrects",
					"never made",
				},
			) // what fails is told by Error
			if err := a.runs.EachRun(ctx, review, true, func(r runs.Run) {
				found, problem := "", ""
				if r.Records != nil {
					found = fmt.Sprint(*r.Records)
				}
				if r.Problem != nil {
					problem = r.Problem.Title
				}
				corrects, void := "", ""
				if r.Corrects != nil {
					corrects = fmt.Sprint(*r.Corrects)
				}
				if r.Void {
					void = "yes"
				}
				row := []string{r.At.UTC().Format(time.RFC3339), r.Place, r.Kind, found, fmt.Sprint(r.Revision), r.Who, r.Query,
					r.Note, problem, fmt.Sprint(r.ID), corrects, void}
				for i := range row { // people wrote some of it, and others open it
					row[i] = table.Marked(row[i])
				}
				_ = c.Write(row)
			}); err != nil {
				return err
			}
			c.Flush()
			return c.Error()
		},
	)
}

// packRecords writes the records that were fetched from each source, and says how many of how many they are.
func (a *Service) packRecords(ctx context.Context, b *bundle, review int64, formats []records.Format) error {
	all, err := a.runs.Fetched(ctx, review)
	if err != nil {
		return err
	}
	used := map[string]bool{}
	for _, f := range all {
		if f.Got == 0 {
			continue
		}
		for _, format := range formats {
			choice := records.Choice{Title: f.Run.Place}
			if format == records.CSV || format == records.TSV { // a table has one head for all its rows
				if err := a.runs.Each(ctx, f, func(r *bib.Record) error {
					choice.Columns = records.Columns(choice.Columns, r)
					return nil
				}); err != nil {
					return err
				}
			}
			name := unused(used, "records/"+exchange.FileName(f.Run.Place)+format.Ending())
			says := fmt.Sprintf(
				"%s of the %s records that %s found on %s.",
				num(f.Got),
				num(f.Total),
				f.Run.Place,
				day(f.Run.At),
			)
			if err := b.put(name, says, func(w io.Writer) error {
				out, err := records.Create(w, format, choice)
				if err == nil {
					err = a.runs.Each(ctx, f, out.Write)
				}
				if err == nil {
					err = out.Close()
				}
				return err
			}); err != nil {
				return err
			}
		}
	}
	return nil
}

func readme(title string, made time.Time, files []string) string {
	var b bytes.Buffer
	fmt.Fprintf(&b, `%s

This is a literature search as it was packed on %s: what was looked for, how it was typed at each
source, what came of it, and how good it is known to be. Begin with record.html.

%s

SHA256SUMS
    A checksum of each file but itself: sha256sum -c SHA256SUMS tells whether one was changed.

Text is UTF-8. A work that several sources hold stands in the records of each of them.
`, title, day(made), strings.Join(files, "\n\n"))
	return b.String()
}

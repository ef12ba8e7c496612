package records

import (
	_ "embed"
	"html/template"
	"io"
	"slices"

	"tamiz/core/bib"
)

//go:embed page.html
var pageText string

var pageParts = template.Must(template.New("page").Parse(pageText))

// page writes records as a page to be read and printed.
type page struct {
	w      io.Writer
	title  string
	fields map[string]bool
	n      int
	err    error
}

func newPage(w io.Writer, title string, fields []string) *page {
	p := &page{w: w, title: title, fields: map[string]bool{}}
	for _, f := range fields {
		p.fields[f] = true
	}
	p.err = pageParts.ExecuteTemplate(w, "begin", title)
	return p
}

func (p *page) Write(r *bib.Record) error {
	if p.err != nil {
		return p.err
	}
	p.n++
	r = r.Only(p.fields)
	rest := []bib.Named{}
	for _, f := range r.Fields() {
		if len(f.Values) > 0 &&
			!slices.Contains(
				[]string{"title", "abstract", "authors", "journal", "year", "volume", "issue", "firstPage", "lastPage"},
				f.Name,
			) {
			rest = append(rest, f)
		}
	}
	where := r.Volume
	if r.Issue != "" {
		where += "(" + r.Issue + ")"
	}
	if r.FirstPage != "" {
		if where += ":" + r.FirstPage; r.LastPage != "" {
			where += "–" + r.LastPage
		}
	}
	p.err = pageParts.ExecuteTemplate(
		p.w,
		"record",
		map[string]any{"N": p.n, "R": r, "Authors": r.Fields()[2].Text(), "Where": bib.Flat(where), "Rest": rest},
	)
	return p.err
}

func (p *page) Close() error {
	if p.err != nil {
		return p.err
	}
	return pageParts.ExecuteTemplate(p.w, "end", p.n)
}

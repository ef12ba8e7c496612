package mods

import (
	"encoding/xml"
	"fmt"
	"io"
	"strconv"
	"strings"

	"tamiz/core/bib"
)

// Encode writes a record as a mods element. authority names the vocabulary that its headings are from;
// without one they could not be told from keywords, so an empty one is written as "local".
func Encode(e *xml.Encoder, r *bib.Record, authority string) error {
	if authority == "" {
		authority = "local"
	}
	m := record{Namespace: Namespace}
	if r.Title != "" {
		m.Titles = []titleInfo{{Title: []string{r.Title}}}
	}
	for _, o := range r.Others {
		if o.Title != "" {
			m.Titles = append(m.Titles, titleInfo{Type: "translated", Language: o.Language, Title: []string{o.Title}})
		}
	}
	for _, a := range r.Authors {
		m.Names = append(m.Names, nameOf(a))
	}
	m.Genres = r.Types
	var o origin
	for _, c := range r.Countries {
		o.Places = append(o.Places, placeTerm{Type: "text", Value: c})
	}
	if r.Year > 0 {
		o.Issued = []string{fmt.Sprintf("%04d", r.Year)}
	}
	if len(o.Places)+len(o.Issued) > 0 {
		m.Origins = []origin{o}
	}
	for _, l := range r.Languages {
		m.Languages = append(m.Languages, language{Terms: []roleTerm{{Type: "code", Value: l}}})
	}
	if r.Abstract != "" {
		m.Abstracts = []abstract{{Value: r.Abstract}}
	}
	for _, o := range r.Others {
		if o.Abstract != "" {
			m.Abstracts = append(m.Abstracts, abstract{Type: "translated", Language: o.Language, Value: o.Abstract})
		}
	}
	for _, k := range r.Keywords {
		m.Subjects = append(m.Subjects, subject{Topics: []string{k}})
	}
	for _, h := range r.Headings {
		s := subject{Authority: authority, Topics: append([]string{h.Label}, h.Qualifiers...)}
		if h.Central {
			s.Usage = "primary"
		}
		m.Subjects = append(m.Subjects, s)
	}
	if host := hostOf(r); host != nil {
		m.Related = append(m.Related, *host)
	}
	for _, x := range r.Extra {
		kind, isNote := strings.CutPrefix(x.Tag, "note ")
		switch {
		case x.Format == Format && isNote:
			m.Notes = append(m.Notes, note{Type: kind, Value: x.Value})
		case x.Format == Format && x.Value != "":
			m.Unknown = append(m.Unknown, element{x.Tag, x.Value})
		}
	}
	for _, f := range r.References {
		m.Related = append(m.Related, referenceOf(f))
	}
	if r.TimesCited != nil {
		m.Notes = append(m.Notes, note{Type: citedBy, Value: strconv.Itoa(*r.TimesCited)})
	}
	put := func(kind, value string) {
		if value != "" {
			m.IDs = append(m.IDs, identifier{Type: kind, Value: value})
		}
	}
	put("doi", r.DOI)
	put("local", r.LocalID)
	if len(r.URLs) > 0 {
		m.Locations = []location{{URLs: r.URLs}}
	}
	if r.Accession != "" {
		m.Info = []info{{Identifiers: []string{r.Accession}}}
	}
	return e.Encode(m)
}

// nameOf writes a person as an author.
func nameOf(a bib.Person) name {
	n := name{Type: "personal", Roles: []roleTerm{{Type: "text", Value: "author"}}}
	if a.Given == "" && a.Written == "" {
		n.Type = "corporate"
		n.Parts = []namePart{{Value: a.Family}}
	} else if a.Written != "" {
		n.Parts = []namePart{{Value: a.Written}}
	} else {
		given, junior, _ := strings.Cut(a.Given, ", ")
		n.Parts = []namePart{{Type: "family", Value: a.Family}, {Type: "given", Value: given}}
		if junior != "" {
			n.Parts = append(n.Parts, namePart{Type: "termsOfAddress", Value: junior})
		}
	}
	return n
}

func referenceOf(f bib.Reference) related {
	out := related{Type: references}
	if f.Title != "" {
		out.Titles = []titleInfo{{Title: []string{f.Title}}}
	}
	if f.Author != "" {
		out.Names = []name{nameOf(bib.ParsePerson(f.Author))}
	}
	if f.Year != 0 {
		out.Origins = []origin{{Issued: []string{fmt.Sprintf("%04d", f.Year)}}}
	}
	for _, id := range []identifier{{"doi", f.DOI}, {"local", f.Local}} {
		if id.Value != "" {
			out.IDs = append(out.IDs, id)
		}
	}
	if f.Text != "" {
		out.Notes = []note{{Value: f.Text}}
	}
	return out
}

func hostOf(r *bib.Record) *related {
	host := related{Type: "host"}
	if r.Journal != "" {
		host.Titles = []titleInfo{{Title: []string{r.Journal}}}
	}
	if r.ISSN != "" {
		host.IDs = []identifier{{Type: "issn", Value: r.ISSN}}
	}
	var p detailPart
	for _, d := range []struct{ kind, value string }{{"volume", r.Volume}, {"issue", r.Issue}} {
		if d.value != "" {
			p.Details = append(p.Details, detail{Type: d.kind, Number: []string{d.value}})
		}
	}
	if r.FirstPage != "" || r.LastPage != "" {
		p.Extents = []extent{{Unit: "pages", Start: r.FirstPage, End: r.LastPage}}
	}
	if len(p.Details)+len(p.Extents) > 0 {
		host.Parts = []detailPart{p}
	}
	if len(host.Titles)+len(host.IDs)+len(host.Parts) == 0 {
		return nil
	}
	return &host
}

// A Writer writes records one at a time, as a collection.
type Writer struct {
	w io.Writer
	e *xml.Encoder
	n int
}

// NewWriter writes to w; Close ends the collection.
func NewWriter(w io.Writer) *Writer {
	e := xml.NewEncoder(w)
	e.Indent("", " ")
	return &Writer{w: w, e: e}
}

var collection = xml.StartElement{
	Name: xml.Name{Local: "modsCollection"},
	Attr: []xml.Attr{{Name: xml.Name{Local: "xmlns"}, Value: Namespace}},
}

func (w *Writer) begin() error {
	if w.n++; w.n > 1 {
		return nil
	}
	if _, err := io.WriteString(w.w, xml.Header); err != nil {
		return err
	}
	return w.e.EncodeToken(collection)
}

// Write writes one record.
func (w *Writer) Write(r *bib.Record) error {
	if err := w.begin(); err != nil {
		return err
	}
	return Encode(w.e, r, "")
}

// Close ends the collection.
func (w *Writer) Close() error {
	if err := w.begin(); err != nil {
		return err
	}
	if err := w.e.EncodeToken(collection.End()); err != nil {
		return err
	}
	if err := w.e.Flush(); err != nil {
		return err
	}
	_, err := io.WriteString(w.w, "\n")
	return err
}

package bibtex

import (
	"bufio"
	"fmt"
	"io"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// kinds are the entry types of the codes, one for each.
var kinds = func() map[string]string {
	out := map[string]string{}
	for _, kind := range []string{"article", "book", "incollection", "inproceedings", "proceedings", "thesis", "report",
		"unpublished", "online", "patent", "dataset"} {
		out[codes[kind]] = kind
	}
	return out
}()

// A Writer writes records one at a time.
type Writer struct {
	b    *bufio.Writer
	keys map[string]int // so that no two entries have one key
}

// NewWriter writes to w; Close ends it.
func NewWriter(w io.Writer) *Writer { return &Writer{bufio.NewWriter(w), map[string]int{}} }

// Write writes one record as an entry.
func (w *Writer) Write(r *bib.Record) error {
	types, kind := r.Types, "misc"
	for i, t := range types {
		if k := kinds[t]; k != "" {
			kind, types = k, slices.Delete(slices.Clone(types), i, i+1)
			break
		}
	}
	key := r.LocalID
	if !goodKey(key) {
		key = keyOf(r)
	}
	if w.keys[key]++; w.keys[key] > 1 {
		key = fmt.Sprintf("%s-%d", key, w.keys[key])
	}
	fmt.Fprintf(w.b, "@%s{%s", kind, key)
	raw := func(name, v string) {
		if v != "" {
			fmt.Fprintf(w.b, ",\n  %s = {%s}", name, v)
		}
	}
	put := func(name, v string) { raw(name, Escaped(bib.Flat(v))) }
	put("title", r.Title)
	var names []string
	for _, p := range r.Authors {
		names = append(names, nameOf(p))
	}
	raw("author", strings.Join(names, " and "))
	put("journaltitle", r.Journal)
	if r.Year > 0 {
		put("date", fmt.Sprintf("%04d", r.Year))
	}
	put("volume", r.Volume)
	put("number", r.Issue)
	if r.FirstPage != "" || r.LastPage != "" {
		raw("pages", strings.TrimSuffix(Escaped(bib.Flat(r.FirstPage))+"--"+Escaped(bib.Flat(r.LastPage)), "--"))
	}
	put("doi", r.DOI)
	put("issn", r.ISSN)
	raw("url", strings.Join(r.URLs, " "))
	put("abstract", r.Abstract)
	keywords := slices.Clone(r.Keywords)
	for _, h := range r.Headings {
		keywords = append(keywords, h.Line())
	}
	put("keywords", exchange.Joined(keywords))
	put("language", exchange.Joined(r.Languages))
	put("type", exchange.Joined(types))
	put("country", exchange.Joined(r.Countries))
	put("substances", exchange.Joined(r.Substances))
	put("accession", r.Accession)
	if len(r.Others) > 0 {
		put("othertitle", r.Others[0].Title)
		put("otherabstract", r.Others[0].Abstract)
		put("otherlanguage", r.Others[0].Language)
	}
	for _, e := range r.Extra {
		if e.Format == Format && balanced(e.Value) {
			raw(e.Tag, e.Value)
		}
	}
	_, err := w.b.WriteString("\n}\n\n")
	return err
}

// Close writes what is left.
func (w *Writer) Close() error { return w.b.Flush() }

// nameOf writes a name so that person reads it.
func nameOf(p bib.Person) string {
	if p.Given == "" {
		return "{" + Escaped(p.Family) + "}"
	}
	given, junior, _ := strings.Cut(p.Given, ", ")
	name := Escaped(p.Family) + ", "
	if strings.ContainsAny(p.Family, ",") || strings.Contains(" "+p.Family+" ", " and ") {
		name = "{" + Escaped(p.Family) + "}, "
	}
	if junior != "" {
		name += Escaped(junior) + ", "
	}
	if strings.Contains(" "+given+" ", " and ") {
		return name + "{" + Escaped(given) + "}"
	}
	return name + Escaped(given)
}

// goodKey reports whether a text can be the key of an entry.
func goodKey(s string) bool {
	return s != "" && !strings.ContainsAny(s, " \t\r\n{}(),=\"#%~\\'")
}

// keyOf makes the key of a record that has none of its own: its accession number or DOI, without what a key
// cannot hold.
func keyOf(r *bib.Record) string {
	id := r.Accession
	if id == "" {
		id = r.DOI
	}
	if id == "" && len(r.Authors) > 0 {
		id = fmt.Sprintf("%s%d", r.Authors[0].Family, r.Year)
	}
	key := strings.Map(func(c rune) rune {
		if strings.ContainsRune(" \t\r\n{}(),=\"#%~\\'", c) {
			return -1
		}
		return c
	}, id)
	if key == "" {
		return "record"
	}
	return key
}

func balanced(s string) bool {
	depth := 0
	for i := 0; i < len(s); i++ {
		switch s[i] {
		case '\\':
			i++
		case '{':
			depth++
		case '}':
			if depth--; depth < 0 {
				return false
			}
		}
	}
	return depth == 0 && !strings.HasSuffix(s, `\`)
}

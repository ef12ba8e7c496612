package exchange

import (
	"slices"
	"strings"

	"tamiz/core/bib"
)

// Fields that a file may have in one, beside those of bib.FieldNames.
const (
	Pages = "pages" // first and last page in one, as 11-19
	Own   = "extra" // kept under its own name
	Leave = ""      // left out
)

// Targets are the fields that a column or tag can stand for.
var Targets = append(slices.Clone(bib.FieldNames), Pages, Own)

// Many reports whether a field of a record holds a list of values.
func Many(field string) bool { return lists[field] != nil }

// lists are how the fields that hold lists take values.
var lists = map[string]func(r *bib.Record, values []string, s Sorter){
	"authors":        putAuthors,
	"keywords":       putKeywords,
	"headings":       putHeadings,
	"types":          putTypes,
	"otherTitles":    putOtherTitles,
	"otherAbstracts": putOtherAbstracts,
	"languages":      func(r *bib.Record, values []string, _ Sorter) { r.Languages = append(r.Languages, values...) },
	"countries":      func(r *bib.Record, values []string, _ Sorter) { r.Countries = append(r.Countries, values...) },
	"substances":     func(r *bib.Record, values []string, _ Sorter) { r.Substances = append(r.Substances, values...) },
	"urls":           func(r *bib.Record, values []string, _ Sorter) { r.URLs = append(r.URLs, values...) },
}

// Put gives a field of a record its values, as far as it has none yet; lists grow. Titles and abstracts of
// several values are joined, of other single fields the first value counts. A year is the first that a value
// holds. It reports whether the field took something.
func Put(r *bib.Record, field string, values []string, s Sorter) bool {
	if values = filled(values); len(values) == 0 {
		return false
	}
	if put := lists[field]; put != nil {
		put(r, values, s)
		return true
	}
	switch field {
	case "title":
		r.Title = joined(r.Title, values)
	case "abstract":
		r.Abstract = joined(r.Abstract, values)
	case "year":
		for _, v := range values {
			if r.Year == 0 {
				r.Year = bib.ParseYear(v)
			}
		}
		return r.Year > 0
	case Pages:
		if r.FirstPage == "" {
			r.FirstPage, r.LastPage = PageRange(values[0])
		}
	default:
		if to := single(r, field); to != nil && *to == "" {
			*to = values[0]
		}
	}
	return true
}

// putAuthors takes names apart as they read.
func putAuthors(r *bib.Record, values []string, _ Sorter) {
	r.Authors = slices.Grow(r.Authors, len(values))
	for _, v := range values {
		p := bib.ParsePerson(Plain(v))
		guarded := bib.Person{Family: Guarded(p.Family), Given: Guarded(p.Given), Written: Guarded(p.Written)}
		r.Authors = append(r.Authors, guarded)
	}
}

func putKeywords(r *bib.Record, values []string, s Sorter) {
	r.Keywords = slices.Grow(r.Keywords, len(values))
	for _, v := range values {
		s.Take(r, v)
	}
}

func putHeadings(r *bib.Record, values []string, _ Sorter) {
	r.Headings = slices.Grow(r.Headings, len(values))
	for _, v := range values {
		if a := bib.ParseAssignment(Plain(v)); a.Label != "" {
			r.Headings = append(r.Headings, guarded(a))
		}
	}
}

func putTypes(r *bib.Record, values []string, _ Sorter) {
	for _, v := range values {
		if !slices.Contains(r.Types, v) {
			r.Types = append(r.Types, v)
		}
	}
}

func putOtherTitles(r *bib.Record, values []string, _ Sorter) {
	for _, v := range values {
		r.Others = append(r.Others, bib.Rendering{Title: v})
	}
}

// putOtherAbstracts puts each to a title that has none yet.
func putOtherAbstracts(r *bib.Record, values []string, _ Sorter) {
	for _, v := range values {
		i := slices.IndexFunc(r.Others, func(o bib.Rendering) bool { return o.Abstract == "" })
		if i < 0 {
			i, r.Others = len(r.Others), append(r.Others, bib.Rendering{})
		}
		r.Others[i].Abstract = v
	}
}

func joined(before string, values []string) string {
	if before == "" && len(values) == 1 {
		return strings.TrimSpace(values[0])
	}
	return strings.TrimSpace(before + " " + strings.Join(values, " "))
}

// single returns the field of a record that holds one text; nil where there is none of the name.
func single(r *bib.Record, field string) *string {
	switch field {
	case "journal":
		return &r.Journal
	case "volume":
		return &r.Volume
	case "issue":
		return &r.Issue
	case "firstPage":
		return &r.FirstPage
	case "lastPage":
		return &r.LastPage
	case "doi":
		return &r.DOI
	case "accession":
		return &r.Accession
	case "localId":
		return &r.LocalID
	case "issn":
		return &r.ISSN
	}
	return nil
}

func filled(values []string) []string {
	if !slices.Contains(values, "") {
		return values
	}
	return slices.DeleteFunc(slices.Clone(values), func(v string) bool { return v == "" })
}

// PageRange parts "11-19", "11--19" or "11–19". A last page that is written short, as in 110-9, stays as
// it is.
func PageRange(s string) (first, last string) {
	s = strings.TrimSpace(s)
	i := strings.IndexAny(s, "-–—")
	if i <= 0 {
		return s, ""
	}
	return strings.TrimSpace(s[:i]), strings.TrimSpace(strings.TrimLeft(s[i:], "-–— "))
}

// Empty reports whether a record holds nothing that could make anyone keep it.
func Empty(r *bib.Record) bool {
	return r.Title+r.Abstract+r.Journal+r.DOI+r.Accession+r.LocalID == "" && r.Year == 0 &&
		len(r.Authors)+len(r.Keywords)+len(r.Headings)+len(r.Others)+len(r.Substances) == 0
}

// Cut returns at most n characters of a text, with a sign where some are left out.
func Cut(s string, n int) string {
	if r := []rune(s); len(r) > n {
		return string(r[:n]) + "…"
	}
	return s
}

// Shorten cuts a text that is quoted in a report.
func Shorten(s string) string { return Cut(s, 60) }

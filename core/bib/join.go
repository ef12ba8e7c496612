package bib

import (
	"slices"

	"tamiz/core/text"
)

// Join makes one record of two of the same work. What the first does not say is taken from the second, and
// what both list is put together, each value once; where both say something different, the first holds.
// Neither record is changed.
func Join(first, second *Record) *Record {
	r := *first
	for _, f := range []struct {
		to   *string
		from string
	}{
		{&r.Title, second.Title}, {&r.Abstract, second.Abstract}, {&r.Journal, second.Journal},
		{&r.Accession, second.Accession}, {&r.LocalID, second.LocalID},
		{&r.DOI, second.DOI}, {&r.ISSN, second.ISSN}, {&r.Volume, second.Volume}, {&r.Issue, second.Issue},
	} {
		if *f.to == "" {
			*f.to = f.from
		}
	}
	if r.FirstPage == "" { // pages go together
		r.FirstPage, r.LastPage = second.FirstPage, second.LastPage
	}
	if r.Year == 0 {
		r.Year = second.Year
	}
	if len(r.Authors) == 0 { // two lists of the same people are often written differently
		r.Authors = second.Authors
	}
	same := func(s string) string { return text.Label(s) }
	r.Keywords = united(first.Keywords, second.Keywords, text.Key)
	r.Types = united(first.Types, second.Types, same)
	r.Languages = united(first.Languages, second.Languages, same)
	r.Countries = united(first.Countries, second.Countries, same)
	r.Substances = united(first.Substances, second.Substances, same)
	r.URLs = united(first.URLs, second.URLs, func(s string) string { return s })
	r.Others = united(first.Others, second.Others, func(o Rendering) Rendering { return o })
	r.Extra = united(first.Extra, second.Extra, func(e Extra) Extra { return e })
	if len(r.References) == 0 { // two lists of the same works are often written differently
		r.References = second.References
	}
	if r.TimesCited == nil {
		r.TimesCited = second.TimesCited
	}
	r.Headings = headingsOf(first.Headings, second.Headings)
	return &r
}

// united returns the values of both, those of b only where none of a has the same key.
func united[T any, K comparable](a, b []T, key func(T) K) []T {
	if len(b) == 0 {
		return a
	}
	out := slices.Clone(a)
	has := map[K]bool{}
	for _, v := range a {
		has[key(v)] = true
	}
	for _, v := range b {
		if k := key(v); !has[k] {
			has[k] = true
			out = append(out, v)
		}
	}
	return out
}

// headingsOf puts assignments together: one heading once, with the qualifiers of both, central where
// either says so.
func headingsOf(a, b []Assignment) []Assignment {
	if len(b) == 0 {
		return a
	}
	out := slices.Clone(a)
	for _, h := range b {
		i := slices.IndexFunc(out, func(o Assignment) bool { return text.Label(o.Label) == text.Label(h.Label) })
		if i < 0 {
			out = append(out, h)
			continue
		}
		out[i].Central = out[i].Central || h.Central
		out[i].Qualifiers = united(out[i].Qualifiers, h.Qualifiers, text.Label)
	}
	return out
}

// A Difference is one field in which two records differ, as people read it.
type Difference struct {
	Field string `json:"field"`
	A     string `json:"a"`
	B     string `json:"b"`
}

// Differences returns the fields in which two records are not written alike, in the order of a record.
func Differences(a, b *Record) (out []Difference) {
	fa, fb := a.Fields(), b.Fields()
	for i := range fa {
		if fa[i].Text() != fb[i].Text() {
			out = append(out, Difference{fa[i].Name, fa[i].Text(), fb[i].Text()})
		}
	}
	return out
}

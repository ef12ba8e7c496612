package index

import (
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// A List is one of the lists that records carry beside their text.
type List uint8

// The lists.
const (
	Types List = iota
	Languages
	Countries
	Identifiers
	lists
)

// attributes are what is known of records beside their text.
type attributes struct {
	years  []int32
	listed [lists]map[string][]uint32 // records by value, as it is compared, ascending
	people []person
}

type person struct {
	family, given []string
	records       []uint32
}

func (a *attributes) build(records []*bib.Record) {
	a.years = make([]int32, len(records))
	for l := range a.listed {
		a.listed[l] = map[string][]uint32{}
	}
	known := map[string]int{}
	for n, r := range records {
		at := uint32(n)
		a.years[n] = int32(r.Year)
		a.put(Types, at, r.Types...)
		a.put(Languages, at, r.Languages...)
		a.put(Countries, at, r.Countries...)
		a.put(Identifiers, at, r.Accession, r.LocalID, r.DOI)
		for _, p := range r.Authors {
			name := p.Family + "\n" + p.Given
			i, ok := known[name]
			if !ok {
				i = len(a.people)
				known[name] = i
				a.people = append(a.people, person{family: text.Tokens(p.Family), given: text.Tokens(p.Given)})
			}
			if has := a.people[i].records; len(has) == 0 || has[len(has)-1] != at {
				a.people[i].records = append(has, at)
			}
		}
	}
}

func (a *attributes) put(l List, record uint32, values ...string) {
	for _, v := range values {
		key := listKey(l, v)
		if has := a.listed[l][key]; key != "" && (len(has) == 0 || has[len(has)-1] != record) {
			a.listed[l][key] = append(has, record)
		}
	}
}

// listKey returns a value as it is compared: labels normalised, identifiers as DOIs are, which leaves
// other identifiers in lower case.
func listKey(l List, value string) string {
	if l == Identifiers {
		return bib.DOIKey(value)
	}
	return text.Label(value)
}

// Listed returns the records that carry a value in a list.
func (ix *Index) Listed(l List, value string) *roaring.Bitmap {
	return roaring.BitmapOf(ix.attributes.listed[l][listKey(l, value)]...)
}

// Years returns the records of the years from one to another, both included. Records without a year
// are in none.
func (ix *Index) Years(from, to int) *roaring.Bitmap {
	var out []uint32
	for r, y := range ix.attributes.years {
		if y != 0 && int(y) >= from && int(y) <= to {
			out = append(out, uint32(r))
		}
	}
	return roaring.BitmapOf(out...)
}

// Author returns the records with an author whose family name is the first tokens of the pattern, and
// whose given names begin as the rest says, one by one.
func (ix *Index) Author(p text.Pattern) *roaring.Bitmap {
	return ix.peopled(func(who person) bool {
		n := len(who.family)
		if n == 0 || n > len(p) || len(p)-n > len(who.given) || !p[:n].At(who.family, 0) {
			return false
		}
		for i, begins := range p[n:] {
			if !begins.Begins(who.given[i]) {
				return false
			}
		}
		return true
	})
}

// AuthorWord returns the records with an author in whose name a word matches.
func (ix *Index) AuthorWord(word text.TokenPattern) *roaring.Bitmap {
	return ix.peopled(func(who person) bool {
		return slices.ContainsFunc(who.family, word.Match) || slices.ContainsFunc(who.given, word.Match)
	})
}

func (ix *Index) peopled(is func(person) bool) *roaring.Bitmap {
	var out []uint32
	for _, who := range ix.attributes.people {
		if is(who) {
			out = append(out, who.records...)
		}
	}
	slices.Sort(out)
	return roaring.BitmapOf(slices.Compact(out)...)
}

// Whole returns the records in which a value of the fields is exactly the pattern.
func (ix *Index) Whole(p text.Pattern, fields bib.Field) *roaring.Bitmap {
	elements := ix.elements(p)
	if elements == nil {
		return roaring.New()
	}
	whole := slices.DeleteFunc(ix.phraseOf(elements, fields), func(at uint32) bool {
		v := ix.valueAt(at)
		return ix.values[v].begin != at || ix.values[v+1].begin != at+uint32(len(p))
	})
	return ix.records(whole)
}

package cite

import (
	"cmp"
	"slices"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// How it was told which work a reference means.
type How string

// The ways of telling. What is Near only resembles it, and is for a person to decide.
const (
	ByIdentifier How = "identifier"
	ByTitle      How = "title" // title, first author's family name, and years at most one apart
	Near         How = "near"
	None         How = ""
)

// NearEnough is the share of words of two titles, of all their words, from which they are said to resemble each other.
const NearEnough = 0.6

// A Finder finds the works that references mean among some records.
type Finder struct {
	records []*bib.Record
	byID    map[string]int
	byWork  map[string][]int
	byWord  map[string][]int32 // of titles
}

// NewFinder returns one for records, which it keeps.
func NewFinder(records []*bib.Record) *Finder {
	f := &Finder{byID: map[string]int{}, byWork: map[string][]int{}, byWord: map[string][]int32{}}
	for _, r := range records {
		f.Add(r)
	}
	return f
}

// Add lets a record be found, under the next number.
func (f *Finder) Add(r *bib.Record) {
	n := len(f.records)
	f.records = append(f.records, r)
	for _, id := range []string{bib.DOIKey(r.DOI), bib.DOIKey(r.Accession)} {
		if _, taken := f.byID[id]; id != "" && !taken {
			f.byID[id] = n
		}
	}
	if k := r.WorkKey(); k != "" {
		f.byWork[k] = append(f.byWork[k], n)
	}
	for _, w := range words(r.Title) {
		f.byWord[w] = append(f.byWord[w], int32(n))
	}
}

// words are the different words of a title that tell it from others.
func words(title string) []string {
	out := slices.DeleteFunc(text.Tokens(title), func(w string) bool { return len(w) < 4 || text.IsStopword(w) })
	slices.Sort(out)
	return slices.Compact(out)
}

// Same returns the number of the record that a reference means, and how that was told: by an identifier, else by title, first
// author and year.
func (f *Finder) Same(ref bib.Reference) (int, How) {
	for _, id := range []string{bib.DOIKey(ref.DOI), bib.DOIKey(ref.Local)} {
		if n, ok := f.byID[id]; ok && id != "" {
			return n, ByIdentifier
		}
	}
	if ref.Title == "" && ref.Text == "" {
		return 0, None
	}
	r := Record(ref)
	if k := r.WorkKey(); k != "" {
		for _, n := range f.byWork[k] {
			if d := f.records[n].Year - r.Year; d >= -1 && d <= 1 {
				return n, ByTitle
			}
		}
	}
	return 0, None
}

// Find does so, and returns as Near a record that merely resembles it.
func (f *Finder) Find(ref bib.Reference) (int, How) {
	if n, how := f.Same(ref); how != None {
		return n, how
	}
	return f.near(Whole(ref).Title)
}

// near looks for a title that resembles one, among those that share one of its three rarest words.
func (f *Finder) near(title string) (int, How) {
	rare := words(title)
	if len(rare) < 2 {
		return 0, None
	}
	slices.SortStableFunc(rare, func(a, b string) int { return cmp.Compare(len(f.byWord[a]), len(f.byWord[b])) })
	rare = slices.DeleteFunc(rare, func(w string) bool { return len(f.byWord[w]) == 0 })
	best, at := NearEnough, -1
	for _, w := range rare[:min(3, len(rare))] {
		for _, n := range f.byWord[w] {
			if alike := bib.Likeness(title, f.records[n].Title); alike > best || alike == best && at < 0 {
				best, at = alike, int(n)
			}
		}
	}
	if at < 0 {
		return 0, None
	}
	return at, Near
}

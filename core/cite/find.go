package cite

import "tamiz/core/bib"

// How it was told which work a reference means.
type How string

// The ways of telling.
const (
	ByIdentifier How = "identifier"
	ByTitle      How = "title" // title, first author's family name, and years at most one apart
	None         How = ""
)

// A Finder finds the works that references mean among some records.
type Finder struct {
	records []*bib.Record
	byID    map[string]int
	byWork  map[string][]int
}

// NewFinder returns one for records, which it keeps.
func NewFinder(records []*bib.Record) *Finder {
	f := &Finder{byID: map[string]int{}, byWork: map[string][]int{}}
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
}

// Find returns the number of the record that a reference means, and how that was told: by an identifier, else by
// title, first author and year.
func (f *Finder) Find(ref bib.Reference) (int, How) {
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

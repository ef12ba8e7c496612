package bib

import (
	"crypto/sha256"
	"strings"

	"tamiz/core/text"
)

// DOIKey returns a DOI as DOIs are compared: in lower case, without doi: or a resolver's address.
func DOIKey(doi string) string {
	s := strings.ToLower(strings.TrimSpace(doi))
	s = strings.TrimPrefix(strings.TrimPrefix(s, "https://"), "http://")
	s = strings.TrimPrefix(strings.TrimPrefix(s, "www."), "dx.")
	s = strings.TrimPrefix(s, "doi.org/")
	return strings.TrimSpace(strings.TrimPrefix(s, "doi:"))
}

// WorkKey returns what two records of one work share besides their DOI: the words of the title and
// the first author's family name. It is empty when title, year or author is missing.
func (r *Record) WorkKey() string {
	if r.Year == 0 || len(r.Authors) == 0 {
		return ""
	}
	title, family := text.Key(r.Title), text.Key(r.Authors[0].Family)
	if title == "" || family == "" {
		return ""
	}
	return title + "|" + family
}

// looseKey returns what a record without a DOI shares with others of one work where title, year or author is missing:
// its accession number and the words of its title, if it has one. It is empty without a number or with a DOI.
func (r *Record) looseKey() string {
	if r.Accession == "" || DOIKey(r.DOI) != "" {
		return ""
	}
	return strings.TrimSpace(r.Accession) + "|" + text.Key(r.Title)
}

// Known is a set of records in which another record of the same work can be found. Two records are
// one when their DOIs are equal, or when title and first author's family name are equal and the
// years at most one apart; where title, year or author is missing and there is no DOI, when accession number and
// title are equal. The zero value is an empty set. It holds digests, not texts: a set of 200,000
// records takes some 40 MB.
type Known struct {
	doi   map[digest]int
	work  map[digest][]dated
	loose map[digest][]lacking
}

type dated struct{ year, n int }

type lacking struct {
	n    int
	some bool // title, year or author is missing
}

// digest stands for a text; two texts of one digest do not occur.
type digest [16]byte

func digestOf(s string) digest {
	sum := sha256.Sum256([]byte(s))
	return digest(sum[:16])
}

// Add puts a record into the set under a number of the caller's choice.
func (k *Known) Add(r *Record, n int) {
	if k.doi == nil {
		k.doi, k.work, k.loose = map[digest]int{}, map[digest][]dated{}, map[digest][]lacking{}
	}
	if d := DOIKey(r.DOI); d != "" {
		key := digestOf(d)
		if _, ok := k.doi[key]; !ok {
			k.doi[key] = n
		}
	}
	w := r.WorkKey()
	if w != "" {
		key := digestOf(w)
		k.work[key] = append(k.work[key], dated{r.Year, n})
	}
	if l := r.looseKey(); l != "" {
		key := digestOf(l)
		k.loose[key] = append(k.loose[key], lacking{n, w == ""})
	}
}

// Find returns the number of the first record in the set that is one with r.
func (k *Known) Find(r *Record) (n int, ok bool) {
	if d := DOIKey(r.DOI); d != "" {
		if n, ok = k.doi[digestOf(d)]; ok {
			return n, true
		}
	}
	w := r.WorkKey()
	if w != "" {
		for _, e := range k.work[digestOf(w)] {
			if e.year-r.Year <= 1 && r.Year-e.year <= 1 {
				return e.n, true
			}
		}
	}
	if l := r.looseKey(); l != "" {
		for _, e := range k.loose[digestOf(l)] {
			if w == "" || e.some {
				return e.n, true
			}
		}
	}
	return 0, false
}

// Without returns the records that are one with none of those in k.
func (k *Known) Without(records []*Record) []*Record {
	var out []*Record
	for _, r := range records {
		if _, ok := k.Find(r); !ok {
			out = append(out, r)
		}
	}
	return out
}

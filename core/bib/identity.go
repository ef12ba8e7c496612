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

// An Identity is what makes a record itself, without its text: two records are one when their DOIs are equal, or when
// title and first author's family name are equal and the years at most one apart; where title, year or author is missing
// and there is no DOI, when accession number and title are equal.
type Identity struct {
	DOI, Work, Loose Digest // none where a record does not say enough
	Year             int
}

// A Digest stands for a text; two texts of one digest do not occur. The zero value stands for none.
type Digest [16]byte

func digestOf(s string) (d Digest) {
	if s == "" {
		return d
	}
	sum := sha256.Sum256([]byte(s))
	return Digest(sum[:16])
}

// IdentityOf returns what makes a record itself.
func IdentityOf(r *Record) Identity {
	return Identity{DOI: digestOf(DOIKey(r.DOI)), Work: digestOf(r.WorkKey()), Loose: digestOf(r.looseKey()), Year: r.Year}
}

// Known is a set of records in which another record of the same work can be found. The zero value is an empty set. It
// holds digests, not texts: a set of 200,000 records takes some 40 MB.
type Known struct {
	doi   map[Digest]int
	work  map[Digest][]dated
	loose map[Digest][]lacking
}

type dated struct{ year, n int }

type lacking struct {
	n    int
	some bool // title, year or author is missing
}

// Add puts a record into the set under a number of the caller's choice.
func (k *Known) Add(r *Record, n int) { k.Put(IdentityOf(r), n) }

// Put does so with what makes a record itself.
func (k *Known) Put(id Identity, n int) {
	if k.doi == nil {
		k.doi, k.work, k.loose = map[Digest]int{}, map[Digest][]dated{}, map[Digest][]lacking{}
	}
	if id.DOI != (Digest{}) {
		if _, ok := k.doi[id.DOI]; !ok {
			k.doi[id.DOI] = n
		}
	}
	if id.Work != (Digest{}) {
		k.work[id.Work] = append(k.work[id.Work], dated{id.Year, n})
	}
	if id.Loose != (Digest{}) {
		k.loose[id.Loose] = append(k.loose[id.Loose], lacking{n, id.Work == Digest{}})
	}
}

// Find returns the number of the first record in the set that is one with r.
func (k *Known) Find(r *Record) (n int, ok bool) { return k.Get(IdentityOf(r)) }

// Get does so with what makes a record itself.
func (k *Known) Get(id Identity) (n int, ok bool) {
	if id.DOI != (Digest{}) {
		if n, ok = k.doi[id.DOI]; ok {
			return n, true
		}
	}
	if id.Work != (Digest{}) {
		for _, e := range k.work[id.Work] {
			if e.year-id.Year <= 1 && id.Year-e.year <= 1 {
				return e.n, true
			}
		}
	}
	if id.Loose != (Digest{}) {
		for _, e := range k.loose[id.Loose] {
			if id.Work == (Digest{}) || e.some {
				return e.n, true
			}
		}
	}
	return 0, false
}

// Works numbers works from 0 on, as records of them come: records of one work have the same number.
type Works struct {
	known Known
	next  int
}

// Number returns the number of the work of a record.
func (w *Works) Number(id Identity) int {
	n, ok := w.known.Get(id)
	if !ok {
		n = w.next
		w.next++
	}
	w.known.Put(id, n) // what this record says besides leads to the work as well
	return n
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

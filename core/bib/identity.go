package bib

import (
	"crypto/sha256"
	"strings"

	"tamiz/core/text"
)

// DOIKey returns a DOI as DOIs are compared: in lower case, without doi:, a resolver's address, or punctuation
// behind it.
func DOIKey(doi string) string {
	s := strings.ToLower(strings.TrimSpace(doi))
	s = strings.TrimPrefix(strings.TrimPrefix(s, "https://"), "http://")
	s = strings.TrimPrefix(strings.TrimPrefix(s, "www."), "dx.")
	s = strings.TrimPrefix(s, "doi.org/")
	return strings.TrimRight(strings.TrimSpace(strings.TrimPrefix(s, "doi:")), ".,; ")
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

// An Identity is what makes a record itself, without its text (measures.md §6).
type Identity struct {
	DOI, Loose Digest // none where a record does not say enough
	Place      Digest // journal, volume and first page
	Year       int
	Title      title
	first      author
	signed     bool     // it has an author
	people     []Person // of whom all are compared where the first differ
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
	id := Identity{
		DOI:    digestOf(DOIKey(r.DOI)),
		Loose:  digestOf(r.looseKey()),
		Year:   r.Year,
		Title:  titleOf(r.Title),
		people: r.Authors,
	}
	id.first, id.signed = first(r.Authors)
	if journal, page := text.Key(r.Journal), strings.TrimSpace(r.FirstPage); journal != "" && r.Volume != "" &&
		page != "" {
		id.Place = digestOf(journal + "|" + strings.TrimSpace(r.Volume) + "|" + page)
	}
	return id
}

// Known is a set of records in which another record of the same work can be found. The zero value is an empty set.
// It holds what makes each record itself, some 400 bytes, and not its text.
type Known struct {
	doi    map[Digest]int
	loose  map[Digest][]lacking
	titles map[uint64][]int32 // records by the keys of their titles
	all    []numbered
}

type numbered struct {
	Identity
	n int
}

type lacking struct {
	n    int
	some bool // title, year or author is missing
}

// Add puts a record into the set under a number of the caller's choice.
func (k *Known) Add(r *Record, n int) { k.Put(IdentityOf(r), n) }

// Put does so with what makes a record itself.
func (k *Known) Put(id Identity, n int) {
	if k.doi == nil {
		k.doi, k.loose, k.titles = map[Digest]int{}, map[Digest][]lacking{}, map[uint64][]int32{}
	}
	if id.DOI != (Digest{}) {
		if _, ok := k.doi[id.DOI]; !ok {
			k.doi[id.DOI] = n
		}
	}
	if id.Loose != (Digest{}) {
		k.loose[id.Loose] = append(k.loose[id.Loose], lacking{n, id.lacks()})
	}
	id.Title.keys(0, func(key uint64) { k.titles[key] = append(k.titles[key], int32(len(k.all))) })
	k.all = append(k.all, numbered{id, n})
}

// lacks reports whether title, year or author is missing.
func (id Identity) lacks() bool { return id.Title.whole == "" || id.Year == 0 || !id.signed }

// Find returns the number of the first record in the set that is one with r.
func (k *Known) Find(r *Record) (n int, ok bool) { return k.Get(IdentityOf(r)) }

// Get does so with what makes a record itself.
func (k *Known) Get(id Identity) (n int, ok bool) {
	if id.DOI != (Digest{}) {
		if n, ok = k.doi[id.DOI]; ok {
			return n, true
		}
	}
	if n, ok := k.alike(id, Same); ok {
		return n, true
	}
	if id.Loose != (Digest{}) {
		for _, e := range k.loose[id.Loose] {
			if id.lacks() || e.some {
				return e.n, true
			}
		}
	}
	return 0, false
}

// Perhaps returns the number of the first record in the set of which it cannot be told whether it is one with r:
// somebody has to be asked. It is of use where Find finds none.
func (k *Known) Perhaps(r *Record) (n int, ok bool) { return k.alike(IdentityOf(r), Perhaps) }

// mostAlike is how many records of a title's key are looked at: of more it is no title but a kind of text.
const mostAlike = 40

// alike returns the first record in the set that stands so to one.
func (k *Known) alike(id Identity, wanted Sameness) (n int, ok bool) {
	first := int32(-1)
	id.Title.keys(1, func(key uint64) {
		among := k.titles[key]
		for _, i := range among[:min(len(among), mostAlike)] {
			if first >= 0 && i >= first {
				break
			}
			if id.Compare(k.all[i].Identity) == wanted {
				first = i
			}
		}
	})
	if first < 0 {
		return 0, false
	}
	return k.all[first].n, true
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

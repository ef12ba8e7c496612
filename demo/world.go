// Package demo makes the invented world that ships with Tamiz: literature that reads like abstracts,
// key studies, and a review half done. Everything comes from a seed, the same each time. No person,
// journal, place or study in it exists.
package demo

import (
	"fmt"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// A World is invented literature and the papers known to belong to the demo question.
type World struct {
	Records []*bib.Record // in no order that means anything
	Keys    []*bib.Record // the key studies; each is among Records too
	About   [][]string    // of each record, the concepts of Topics that it is truly about
}

// Seed is the seed of the demo review.
const Seed = 20260219

// NewWorld makes a world of n records, the key studies among them.
func NewWorld(seed uint64, n int) *World {
	w := &World{}
	_ = EachAbout(seed, n, func(r *bib.Record, key bool, about []string) error { // visit does not fail
		w.Records = append(w.Records, r)
		w.About = append(w.About, about)
		if key {
			w.Keys = append(w.Keys, r)
		}
		return nil
	})
	slices.SortFunc(w.Keys, func(a, b *bib.Record) int { return strings.Compare(a.LocalID, b.LocalID) })
	for _, k := range w.Keys {
		k.LocalID = ""
	}
	return w
}

// Each makes the records of a world one by one, so that it may be of any size, and tells which are key
// studies. It stops at the first error of visit and returns it. The key studies are numbered in LocalID,
// in the order in which the review lists them.
func Each(seed uint64, n int, visit func(r *bib.Record, key bool) error) error {
	return EachAbout(seed, n, func(r *bib.Record, key bool, _ []string) error { return visit(r, key) })
}

// EachAbout does the same and tells of each record which concepts of Topics it is truly about.
func EachAbout(seed uint64, n int, visit func(r *bib.Record, key bool, about []string) error) error {
	g := newGenerator(seed, 0x7a6e)
	keys := g.keyStudies(keySpecs)
	n = max(n, len(keys))
	at := map[int]*bib.Record{}
	for i, k := range keys {
		k.LocalID = fmt.Sprintf("KEY%02d", i+1)
		place := g.IntN(n)
		for at[place] != nil {
			place = g.IntN(n)
		}
		at[place] = k
	}
	for i := range n {
		r, key, about := at[i], at[i] != nil, keyConcepts
		if !key {
			var w *writer
			r, w = g.other(almagreFields)
			about = w.about()
		}
		r.Accession = fmt.Sprintf("ALM%06d", i+1)
		r.ID = r.Accession
		r.DOI = fmt.Sprintf("10.99999/alm.%06d", i+1)
		if err := visit(r, key, about); err != nil {
			return err
		}
	}
	return nil
}

// Says reports whether a record's title, abstract or keywords hold any of the typed words.
func Says(r *bib.Record, typed ...string) bool {
	found := false
	r.Values(bib.Text, func(_ bib.Field, v string) {
		tokens := text.Tokens(v)
		for _, t := range typed {
			if p, err := text.ParsePattern(t); err == nil && len(p.Find(tokens)) > 0 {
				found = true
			}
		}
	})
	return found
}

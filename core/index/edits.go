package index

import (
	"cmp"
	"hash/maphash"
	"slices"

	"tamiz/core/text"
)

// edits finds the words one letter from another among many, whatever their number: two such words are the same once
// one letter is left out of either or both. Each word is kept under itself and what is left of it without each of
// its letters.
type edits struct {
	seed maphash.Seed
	all  []edit // ascending by key
}

type edit struct {
	key  uint64
	word int32
}

func newEdits(words []string) *edits {
	e := &edits{seed: maphash.MakeSeed()}
	for i, w := range words {
		e.each(w, func(key uint64) { e.all = append(e.all, edit{key, int32(i)}) })
	}
	slices.SortFunc(e.all, func(a, b edit) int {
		return cmp.Or(cmp.Compare(a.key, b.key), cmp.Compare(a.word, b.word))
	})
	return e
}

// each gives the keys of a word: of itself, and of it without each of its letters.
func (e *edits) each(word string, yield func(key uint64)) {
	yield(maphash.String(e.seed, word))
	less := make([]byte, 0, len(word))
	for i, r := range word {
		less = append(append(less[:0], word[:i]...), word[i+len(string(r)):]...)
		yield(maphash.Bytes(e.seed, less))
	}
}

// of returns the words one letter from another, in their order.
func (e *edits) of(word string, words []string) (out []string) {
	var places []int32
	e.each(word, func(key uint64) {
		from, _ := slices.BinarySearchFunc(e.all, key, func(x edit, key uint64) int { return cmp.Compare(x.key, key) })
		for ; from < len(e.all) && e.all[from].key == key; from++ {
			places = append(places, e.all[from].word)
		}
	})
	slices.Sort(places)
	for _, at := range slices.Compact(places) {
		if text.Edited(word, words[at]) {
			out = append(out, words[at])
		}
	}
	return out
}

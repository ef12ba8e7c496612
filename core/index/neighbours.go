package index

import "slices"

// Neighbours returns the tokens around a word in the order of the alphabet: at most before tokens that
// come before it, then it or what would stand in its place, and at most after tokens from there on.
func (ix *Index) Neighbours(word string, before, after int) []string {
	at, _ := slices.BinarySearch(ix.dict, word)
	return ix.dict[max(0, at-before):min(len(ix.dict), at+after)]
}

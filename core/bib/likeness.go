package bib

import "tamiz/core/text"

// Likeness returns how alike two titles are, from 0 to 1: the share of different words that both hold, of
// all different words of the two (Jaccard 1901). Two titles without a word are not alike.
func Likeness(a, b string) float64 {
	of := map[string]int{} // 1: in a, 2: in b, 3: in both
	for _, w := range text.Tokens(a) {
		of[w] |= 1
	}
	for _, w := range text.Tokens(b) {
		of[w] |= 2
	}
	both := 0
	for _, in := range of {
		if in == 3 {
			both++
		}
	}
	if len(of) == 0 {
		return 0
	}
	return float64(both) / float64(len(of))
}

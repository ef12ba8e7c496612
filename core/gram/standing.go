package gram

import (
	"tamiz/core/index"
	"tamiz/core/text"
)

// How much of what makes a phrase stand by itself (measures.md §4). The numbers were chosen with the formula of suit.
const (
	manyWithout = 50 // occurrences without a neighbour, from which on that neighbour says nothing
	tooFew      = 5  // occurrences below which a stopword beside says nothing
	wordsInIt   = 3  // one of its words has at least one occurrence of so many in a phrase that holds a stopword
)

// joining are the stopwords that a phrase which somebody would type may hold.
var joining = map[string]bool{
	"and":  true,
	"by":   true,
	"for":  true,
	"from": true,
	"in":   true,
	"of":   true,
	"on":   true,
	"to":   true,
	"with": true,
}

// Standing tells of each item whether it stands by itself: whether somebody would type it, or whether it is a piece
// of a sentence (measures.md §4). A single word always stands, and so do signs in a row (Han, kana): no blank tells
// where a word ends. Variety of neighbours as the sign of a word: Feng, Chen, Deng and Zheng 2004, "Accessor
// variety criteria for Chinese word extraction". It is worked out when it is first asked for.
func (f *Found) Standing() []bool { return f.standing() }

func (f *Found) stand(ix *index.Index, s index.Stream) []bool {
	stands := make([]bool, f.Len())
	role := newStops(ix)
	f.Levels.walk(s, func(n int, at []int32) {
		l, place := f.Levels[n], f.Place[n]
		if n == 0 {
			for _, item := range place {
				if item != None {
					stands[item] = true
				}
			}
			return
		}
		sides := [2][]neighbour{make([]neighbour, len(l.Records)), make([]neighbour, len(l.Records))}
		seen, signs := make([]bool, len(l.Records)), make([]bool, len(l.Records))
		each := func(visit func(g int32, i int, beside [2]int32)) {
			for i, g := range at {
				if g == None || place[g] == None {
					continue
				}
				few := l.Occurrences[g] < tooFew
				visit(g, i, [2]int32{role.before(s, i, few), role.after(s, i+n, few)})
			}
		}
		each(func(g int32, i int, beside [2]int32) {
			for side, token := range beside {
				sides[side][g].vote(token)
			}
			if !seen[g] {
				seen[g] = true
				stands[place[g]] = f.joined(ix, s.Terms[i:i+n+1], l.Occurrences[g])
				signs[g] = text.IsSign(ix.Token(s.Terms[i])) && text.IsSign(ix.Token(s.Terms[i+n]))
			}
		})
		// What has the majority, if any does, is known now; how large it is has to be counted.
		for _, side := range sides {
			for g := range side {
				side[g].votes = 0
			}
		}
		each(func(g int32, _ int, beside [2]int32) {
			for side, token := range beside {
				if token != None && token == sides[side][g].token {
					sides[side][g].votes++
				}
			}
		})
		for g, item := range place {
			if item == None {
				continue
			}
			if signs[g] {
				stands[item] = true
				continue
			}
			for _, side := range sides {
				with := side[g].votes
				if without := l.Occurrences[g] - with; with > without && without < manyWithout {
					stands[item] = false
				}
			}
		}
	})
	return stands
}

// joined reports whether the stopwords in a phrase are such as join words, and whether one of its words is often
// enough in it.
func (f *Found) joined(ix *index.Index, tokens []uint32, occurrences int32) bool {
	holds, often := false, false
	for _, t := range tokens {
		word := ix.Token(t)
		if text.IsStopword(word) {
			if !joining[word] {
				return false
			}
			holds = true
			continue
		}
		if g := f.Levels[0].tokens[t]; g != None && f.Place[0][g] != None &&
			wordsInIt*occurrences >= f.Levels[0].Occurrences[g] {
			often = true
		}
	}
	return often || !holds
}

// A neighbour is the token that more than half of the occurrences of an item have on one side, if any does: found
// by majority vote (Boyer and Moore 1991, "MJRTY: a fast majority vote algorithm").
type neighbour struct {
	token int32
	votes int32
}

func (n *neighbour) vote(token int32) {
	switch {
	case n.votes > 0 && token == n.token:
		n.votes++
	case n.votes > 0:
		n.votes--
	case token != None:
		n.token, n.votes = token, 1
	}
}

// stops tells which token stands beside a place, and which of them are stopwords.
type stops struct{ is []bool }

func newStops(ix *index.Index) stops {
	s := stops{make([]bool, ix.Tokens())}
	for t := range s.is {
		s.is[t] = text.IsStopword(ix.Token(uint32(t)))
	}
	return s
}

// before returns the token before a place, or None at a break; with few occurrences a stopword is none.
func (p stops) before(s index.Stream, i int, few bool) int32 {
	if i == 0 || s.Begins[i] {
		return None
	}
	return p.token(s.Terms[i-1], few)
}

// after returns the token after a place, or None at a break; with few occurrences a stopword is none.
func (p stops) after(s index.Stream, i int, few bool) int32 {
	if i+1 >= len(s.Terms) || s.Begins[i+1] {
		return None
	}
	return p.token(s.Terms[i+1], few)
}

func (p stops) token(t uint32, few bool) int32 {
	if few && p.is[t] {
		return None
	}
	return int32(t)
}

package cite

import "tamiz/core/coverage"

// Found says in which of two ways a work that belongs was found: by the words of a search, along citations.
type Found struct{ Words, Citations bool }

// Captures is how many works that belong there may be in all, by those that were found in two ways.
type Captures struct {
	Words, Citations, Both, Neither int // neither: known from elsewhere
	coverage.Estimate
	Few bool // so few in both that the estimate says little
}

// Capture estimates how many works that belong there are in all from those that are known: ok is false where one of
// the ways found none. It holds for ways that are independent of each other, which these are not where citations
// begin from what words found: then there are more.
func Capture(works []Found) (c Captures, ok bool) {
	for _, w := range works {
		if w.Words {
			c.Words++
		}
		if w.Citations {
			c.Citations++
		}
		switch {
		case w.Words && w.Citations:
			c.Both++
		case !w.Words && !w.Citations:
			c.Neither++
		}
	}
	if c.Words == 0 || c.Citations == 0 {
		return c, false
	}
	c.Estimate = coverage.Chapman(c.Words, c.Citations, c.Both).AtLeast(len(works)) // all that are known are there
	c.Few = coverage.FewBoth(c.Both)
	return c, true
}

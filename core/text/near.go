package text

// MaxWithin is the widest distance a near pair may ask for: farther apart, two words of a value have
// nothing to do with each other.
const MaxWithin = 100

// A Distance is how far apart the nearest ends of two matches stand, in positions, and in which order.
// Matches that touch have a distance of 1; those that overlap have none.
type Distance struct {
	Least, Most int
	Ordered     bool // the first before the second
}

// Within is at most so far apart, in either order.
func Within(most int) Distance { return Distance{Least: 1, Most: most} }

// Near reports whether two patterns stand near each other in one value.
func Near(left, right Pattern, d Distance, tokens []string) bool {
	return NearAt(left.Find(tokens), right.Find(tokens), len(left), len(right), d)
}

// NearAt does the same for the ascending positions at which matches of the two begin, and the number
// of tokens each takes.
func NearAt[P int | uint32](lefts, rights []P, left, right int, d Distance) bool {
	return follows(lefts, rights, left, d) || !d.Ordered && follows(rights, lefts, right, d)
}

// follows reports whether some position of second begins so far after the end of one of first. The
// first second at the least distance or beyond is the nearest.
func follows[P int | uint32](first, second []P, length int, d Distance) bool {
	j := 0
	for _, p := range first {
		end := int(p) + length - 1
		for j < len(second) && int(second[j])-end < d.Least {
			j++
		}
		if j == len(second) {
			return false
		}
		if int(second[j])-end <= d.Most {
			return true
		}
	}
	return false
}

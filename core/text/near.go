package text

// MaxWithin is the widest distance a near pair may ask for: farther apart, two words of a value have
// nothing to do with each other.
const MaxWithin = 100

// Near reports whether two patterns stand near each other in one value: in either order, apart, and
// with at most within-1 tokens between their nearest ends.
func Near(left, right Pattern, within int, tokens []string) bool {
	return NearAt(left.Find(tokens), right.Find(tokens), len(left), len(right), within)
}

// NearAt does the same for the ascending positions at which matches of the two begin, and the number
// of tokens each takes.
func NearAt[P int | uint32](lefts, rights []P, left, right, within int) bool {
	return follows(lefts, rights, left, within) || follows(rights, lefts, right, within)
}

// follows reports whether some position of second begins after the end of one of first, and at most
// within tokens after it. The first second beyond each end is the nearest.
func follows[P int | uint32](first, second []P, length, within int) bool {
	j := 0
	for _, p := range first {
		end := int(p) + length - 1
		for j < len(second) && int(second[j]) <= end {
			j++
		}
		if j == len(second) {
			return false
		}
		if int(second[j])-end <= within {
			return true
		}
	}
	return false
}

package cite

import "tamiz/core/coverage"

// A Round is what one round along citations, or another way of looking, came to.
type Round struct {
	New     int // works that no round before brought and that were not known
	Judged  int // of them
	Belongs int // of those
}

// Share is a share with its 95 % interval by Wilson (1927).
type Share struct{ Value, Low, High float64 }

// Yield returns which share of the judged works that a round newly brought belong; ok is false where none was
// judged. Where they were judged in order, the likeliest first, the share of all is lower.
func (r Round) Yield() (s Share, ok bool) {
	if r.Judged == 0 {
		return Share{}, false
	}
	low, high := coverage.Wilson(r.Belongs, r.Judged)
	return Share{float64(r.Belongs) / float64(r.Judged), low, high}, true
}

// Next estimates how many works that belong the round after the last would bring, and all rounds after it: each
// brings the same part of what the one before it brought, which is the part that the last brought of the one before
// (a geometric series). It is a rough figure: ok is false with fewer than two rounds, where a round is not judged
// to its end, or where the last brought no less than the one before it.
func Next(rounds []Round) (next, all float64, ok bool) {
	if len(rounds) < 2 {
		return 0, 0, false
	}
	a, b := rounds[len(rounds)-2], rounds[len(rounds)-1]
	if a.Judged < a.New || b.Judged < b.New || a.Belongs == 0 || b.Belongs >= a.Belongs {
		return 0, 0, false
	}
	part := float64(b.Belongs) / float64(a.Belongs)
	return part * float64(b.Belongs), part * float64(b.Belongs) / (1 - part), true
}

// leastRead is how many works have to be read at random before they say anything of the others.
const leastRead = 10

// Left is how many works that belong are left among those that nobody judged, by those that were read at random.
type Left struct {
	Works  int // in all
	Read   int // of them, at random
	Belong int // of those
	coverage.Estimate
}

// Remaining estimates how many works that belong are left, of which judged are known already by any reading: the
// share among those that were read at random, taken of all (the interval by Wilson 1927, for as many as are read of
// a finite whole), less those that are known. ok is false where too few were read.
func Remaining(works, read, belong, known int) (l Left, ok bool) {
	l = Left{Works: works, Read: read, Belong: belong}
	if read < leastRead && read < works || works == 0 {
		return l, false
	}
	if read == works {
		return l, true // all are known
	}
	of := float64(works)
	p := float64(belong) / float64(read)
	low, high := coverage.WilsonShare(p, float64(read)*(of-1)/float64(works-read))
	rest := func(share float64) float64 { return max(0, share*of-float64(known)) }
	l.Total, l.Low, l.High = rest(p), rest(low), rest(high)
	return l, true
}

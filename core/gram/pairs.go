package gram

// pairs numbers keys in the order in which they come: a hash table with open addressing, which takes
// a fraction of the time and memory of a map of the language's own.
type pairs struct {
	keys    []uint64 // 0 is a free slot, so keys are stored with 1 added
	numbers []int32
	n       int
}

func newPairs(expected int) pairs {
	size := 1024
	for size < expected*2 {
		size *= 2
	}
	return pairs{keys: make([]uint64, size), numbers: make([]int32, size)}
}

// slot returns where a key stands or would stand.
func (p *pairs) slot(key uint64) int {
	mask := uint64(len(p.keys) - 1)
	for i := spread(key) & mask; ; i = (i + 1) & mask {
		if k := p.keys[i]; k == 0 || k == key+1 {
			return int(i)
		}
	}
}

// spread makes keys that differ in few bits differ in many: by an odd constant near 2^64/φ (Knuth, TAOCP 6.4).
func spread(key uint64) uint64 {
	h := key * 0x9E3779B97F4A7C15
	return h ^ h>>32
}

// put returns the number of a key, a new one when the key is new.
func (p *pairs) put(key uint64) int32 {
	i := p.slot(key)
	if p.keys[i] != 0 {
		return p.numbers[i]
	}
	if p.n*2 >= len(p.keys) {
		p.grow()
		i = p.slot(key)
	}
	p.keys[i], p.numbers[i] = key+1, int32(p.n)
	p.n++
	return p.numbers[i]
}

// get returns the number of a key, or None.
func (p *pairs) get(key uint64) int32 {
	if i := p.slot(key); p.keys[i] != 0 {
		return p.numbers[i]
	}
	return None
}

// each calls visit for every key and its number, in no order.
func (p *pairs) each(visit func(key uint64, number int32)) {
	for i, k := range p.keys {
		if k != 0 {
			visit(k-1, p.numbers[i])
		}
	}
}

func (p *pairs) grow() {
	old := *p
	*p = pairs{keys: make([]uint64, len(old.keys)*2), numbers: make([]int32, len(old.keys)*2), n: old.n}
	for i, k := range old.keys {
		if k != 0 {
			at := p.slot(k - 1)
			p.keys[at], p.numbers[at] = k, old.numbers[i]
		}
	}
}

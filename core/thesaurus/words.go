package thesaurus

import (
	"cmp"
	mathbits "math/bits"
	"slices"
	"strings"

	"tamiz/core/text"
)

// words finds texts by the words in them.
type words struct {
	all   string   // the different tokens, ascending, one behind the other
	ends  []uint32 // where each ends
	texts links    // of each token, the texts that have it, ascending
	bases hashed   // tokens by what they are without number and spelling
	long  []uint32 // tokens by their length in bytes, ascending
	count []uint8  // of each text, how many tokens it has, up to 255; of those that are not looked in, none
}

func (w *words) bytes() int64 {
	return int64(
		len(w.all)+len(w.count),
	) + 4*int64(
		len(w.ends)+len(w.texts.From)+len(w.texts.To)+len(w.long),
	) + 12*int64(
		len(w.bases.of),
	)
}

func (r role) searched() bool { return r >= label && r <= historyNote }

// newWords notes the tokens of all labels, entry terms and notes, in every language.
func newWords(p *packed) words {
	number := map[string]uint32{}
	var tokens []string
	var w words
	var said, ends []uint32 // the tokens of all texts, one behind the other
	for x := range p.ends {
		if p.role[x].searched() {
			text.Scan(p.text(x), func(token []byte, _ bool) {
				n, known := number[string(token)]
				if !known {
					n = uint32(len(tokens))
					tokens = append(tokens, string(token))
					number[tokens[n]] = n
				}
				said = append(said, n)
			})
		}
		begin := 0
		if x > 0 {
			begin = int(ends[x-1])
		}
		ends = append(ends, uint32(len(said)))
		w.count = append(w.count, uint8(min(255, len(said)-begin)))
	}
	order := make([]uint32, len(tokens))
	for i := range order {
		order[i] = uint32(i)
	}
	slices.SortFunc(order, func(a, b uint32) int { return strings.Compare(tokens[a], tokens[b]) })
	place := make([]uint32, len(tokens))
	var all strings.Builder
	for at, n := range order {
		place[n] = uint32(at)
		all.WriteString(tokens[n])
		w.ends = append(w.ends, uint32(all.Len()))
		w.bases.add(text.Base(tokens[n]), uint32(at))
		w.long = append(w.long, uint32(at))
	}
	w.all = all.String()
	w.bases.done()
	slices.SortStableFunc(w.long, func(a, b uint32) int { return cmp.Compare(len(w.token(a)), len(w.token(b))) })

	// Each token's texts stand together: counted first, then put in their places.
	w.texts.From = make([]uint32, len(tokens)+1)
	each := func(do func(token, x uint32)) {
		last := make([]uint32, len(tokens)) // the text after the one a token was last seen in
		at := uint32(0)
		for x, end := range ends {
			for ; at < end; at++ {
				if token := place[said[at]]; last[token] != uint32(x)+1 {
					last[token] = uint32(x) + 1
					do(token, uint32(x))
				}
			}
		}
	}
	each(func(token, _ uint32) { w.texts.From[token+1]++ })
	for i := range tokens {
		w.texts.From[i+1] += w.texts.From[i]
	}
	w.texts.To = make([]uint32, w.texts.From[len(tokens)])
	next := slices.Clone(w.texts.From)
	each(func(token, x uint32) {
		w.texts.To[next[token]] = x
		next[token]++
	})
	return w
}

func (w *words) token(n uint32) string {
	from := uint32(0)
	if n > 0 {
		from = w.ends[n-1]
	}
	return w.all[from:w.ends[n]]
}

// at returns where a token stands or would.
func (w *words) at(token string) (int, bool) {
	from, to := 0, len(w.ends)
	for from < to {
		if mid := (from + to) / 2; w.token(uint32(mid)) < token {
			from = mid + 1
		} else {
			to = mid
		}
	}
	return from, from < len(w.ends) && w.token(uint32(from)) == token
}

// whole returns a token itself, where it is there.
func (w *words) whole(token string) []uint32 {
	if at, is := w.at(token); is {
		return []uint32{uint32(at)}
	}
	return nil
}

// begun returns the tokens with a beginning.
func (w *words) begun(beginning string) (out []uint32) {
	for at, _ := w.at(beginning); at < len(w.ends) && strings.HasPrefix(w.token(uint32(at)), beginning); at++ {
		out = append(out, uint32(at))
	}
	return out
}

// based returns the tokens that are a token in another number or spelling.
func (w *words) based(token string) (out []uint32) {
	base := text.Base(token)
	for n := range w.bases.find(base) {
		if text.Base(w.token(n)) == base {
			out = append(out, n)
		}
	}
	return out
}

// leastMeant is how many letters a token has of which one may be wrong.
const leastMeant = 4

// meant returns the tokens that are one letter from a token: one more, less, other, or two changed about; of very many
// those that most texts have.
func (w *words) meant(token string, most int) (out []uint32) {
	if len([]rune(token)) < leastMeant-1 { // a letter may be left out
		return nil
	}
	at, _ := slices.BinarySearchFunc(
		w.long,
		len(token)-4,
		func(n uint32, length int) int { return cmp.Compare(len(w.token(n)), length) },
	)
	for _, n := range w.long[at:] {
		t := w.token(n)
		if len(t) > len(token)+4 {
			break
		}
		// Two that are one letter apart are the same before or behind their middles, of which two letters may be changed
		// about.
		half := (min(len(t), len(token)) - 1) / 2
		if len([]rune(t)) >= leastMeant && (t[:half] == token[:half] || t[len(t)-half:] == token[len(token)-half:]) &&
			text.Edited(t, token) {
			out = append(out, n)
		}
	}
	slices.SortStableFunc(
		out,
		func(a, b uint32) int { return cmp.Compare(len(w.texts.span(int(b))), len(w.texts.span(int(a)))) },
	)
	return out[:min(len(out), most)]
}

// having visits the texts that have one of the tokens, ascending.
func (w *words) having(tokens []uint32, visit func(x uint32)) {
	if len(tokens) == 1 {
		for _, x := range w.texts.span(int(tokens[0])) {
			visit(x)
		}
		return
	}
	// However many there are, a bit for each text puts them in their order.
	bits := make([]uint64, (len(w.count)+63)/64)
	for _, n := range tokens {
		for _, x := range w.texts.span(int(n)) {
			bits[x/64] |= 1 << (x % 64)
		}
	}
	for i, word := range bits {
		for ; word != 0; word &= word - 1 {
			visit(uint32(i*64 + mathbits.TrailingZeros64(word)))
		}
	}
}

// union returns the texts that have one of the tokens, ascending.
func (w *words) union(tokens []uint32) []uint32 {
	if len(tokens) == 1 {
		return w.texts.span(int(tokens[0]))
	}
	var out []uint32
	w.having(tokens, func(x uint32) { out = append(out, x) })
	return out
}

// both returns what is in two ascending lists.
func both(a, b []uint32) []uint32 {
	if len(a) > len(b) {
		a, b = b, a
	}
	var out []uint32
	for _, x := range a {
		at, found := slices.BinarySearch(b, x)
		if found {
			out = append(out, x)
		}
		b = b[at:]
	}
	return out
}

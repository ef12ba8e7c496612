package company

import (
	"tamiz/core/tally"
	"tamiz/core/text"
)

// Between returns how alike a word or phrase and each of several others are: the cosine of their vectors, 0 to 1;
// -1 for what is no item. ok is false where the first is none.
func (c *Company) Between(item string, others []string) (alike []float64, ok bool) {
	t, ok := c.place[text.Key(item)]
	if !ok {
		return nil, false
	}
	weights := map[int32]float64{}
	for word, w := range c.vector(t) {
		weights[word] = w
	}
	alike = make([]float64, len(others))
	for i, other := range others {
		u, is := c.place[text.Key(other)]
		if !is {
			alike[i] = -1
			continue
		}
		dot := 0.0
		for word, w := range c.vector(u) {
			dot += weights[word] * w
		}
		if length := c.length[t] * c.length[u]; length > 0 {
			alike[i] = tally.Round(dot / length)
		}
	}
	return alike, true
}

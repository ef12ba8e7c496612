package tally

import (
	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/index"
	"tamiz/core/text"
)

const (
	tellingTokens = 8    // of title and abstract: fewer say nothing about their language
	englishShare  = 0.12 // of English text at least so many tokens are stopwords; in running text it is a third
)

// Foreign returns how many records of the sample have a title and abstract that do not read like English: the word
// lists (stopwords, spellings, plurals) are English and do not apply to them.
func (p *Pool) Foreign() int {
	foreign := func() *roaring.Bitmap { return foreignOf(p.Index) }
	if p.kept != nil {
		foreign = p.kept.foreign
	}
	return int(foreign().AndCardinality(p.Sample))
}

func foreignOf(ix *index.Index) *roaring.Bitmap {
	out := roaring.New()
	s := ix.Stream(ix.All(), DefaultWords.Fields)
	from := uint32(0)
	for record, to := range s.Ends {
		stopwords := 0
		for _, t := range s.Terms[from:to] {
			if ix.Role(t) == text.Role(0) {
				stopwords++
			}
		}
		if n := int(to - from); n >= tellingTokens && float64(stopwords) < englishShare*float64(n) {
			out.Add(uint32(record))
		}
		from = to
	}
	return out
}

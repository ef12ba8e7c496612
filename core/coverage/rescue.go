package coverage

import (
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/text"
)

// A Candidate is a word, phrase or heading of a missed study that would bring it back into a block.
type Candidate struct {
	Item    string
	Kind    string // strategy.TextTerm or strategy.HeadingTerm
	Rescues int    // missed key studies that the block would then catch
	Price   int    // records that the whole strategy would then find beyond those it finds now
}

// maxCandidateWords is how many tokens a candidate from a study has at most.
const maxCandidateWords = 4

// Rescue returns the candidates of one key study for a block that misses it: its n-grams and its
// headings, unless a term of any block matches them already. Most rescues come first, then the lowest
// price. A study that the block catches has none.
func Rescue(set, keys Set, s strategy.Strategy, block, study int) ([]Candidate, error) {
	inKeys, err := Find(keys, s)
	if err != nil {
		return nil, err
	}
	missed := keys.all()
	missed.AndNot(inKeys.Blocks[block])
	if !missed.Contains(uint32(study)) {
		return nil, nil
	}
	reach, err := Find(set, s)
	if err != nil {
		return nil, err
	}
	taken, err := takenBy(s)
	if err != nil {
		return nil, err
	}
	open := reach.Open(block)
	record := keys.Records[study]
	var out []Candidate

	var values []string
	record.Values(bib.Text, func(_ bib.Field, v string) { values = append(values, v) })
	for gram := range text.Grams(values, maxCandidateWords) {
		tokens := strings.Split(gram, " ")
		if taken.text(tokens) {
			continue
		}
		p := text.Literal(tokens...)
		out = append(out, Candidate{
			Item: gram, Kind: strategy.TextTerm,
			Rescues: count(keys.Index.PhraseWithin(p, bib.Text, missed)),
			Price:   count(set.Index.PhraseWithin(p, bib.Text, open)),
		})
	}
	seen := map[string]bool{}
	for _, h := range record.Headings {
		label := text.Label(h.Label)
		if seen[label] || taken.heading(record, label) {
			continue
		}
		seen[label] = true
		q := query.Heading{Labels: []string{label}}
		out = append(out, Candidate{
			Item: h.Label, Kind: strategy.HeadingTerm,
			Rescues: int(q.Match(keys.Index).AndCardinality(missed)),
			Price:   int(q.Match(set.Index).AndCardinality(open)),
		})
	}
	slices.SortFunc(out, func(a, b Candidate) int {
		if a.Rescues != b.Rescues {
			return b.Rescues - a.Rescues
		}
		if a.Price != b.Price {
			return a.Price - b.Price
		}
		if c := strings.Compare(a.Item, b.Item); c != 0 {
			return c
		}
		return strings.Compare(a.Kind, b.Kind) // "heading" before "text"
	})
	return out, nil
}

func count(b *roaring.Bitmap) int { return int(b.GetCardinality()) }

// taken is the terms of all blocks, for asking whether one of them matches a candidate already.
type taken struct {
	texts []interface {
		MatchesValue(tokens []string) bool
	}
	headings []query.Heading
}

func takenBy(s strategy.Strategy) (taken, error) {
	var out taken
	for _, b := range s.Blocks {
		for _, t := range b.Terms {
			if !t.On {
				continue
			}
			q, err := t.Query()
			if err != nil {
				return out, err
			}
			switch q := q.(type) {
			case query.Phrase:
				out.texts = append(out.texts, q)
			case query.Near:
				out.texts = append(out.texts, q)
			case query.Heading:
				out.headings = append(out.headings, q)
			}
		}
	}
	return out, nil
}

// text reports whether a term matches the tokens taken as a value of their own.
func (t taken) text(tokens []string) bool {
	for _, q := range t.texts {
		if q.MatchesValue(tokens) {
			return true
		}
	}
	return false
}

// heading reports whether a term matches an assignment of the label in the record.
func (t taken) heading(r *bib.Record, label string) bool {
	for _, a := range r.Headings {
		if text.Label(a.Label) != label {
			continue
		}
		for _, q := range t.headings {
			if q.MatchesAssignment(a) {
				return true
			}
		}
	}
	return false
}

package coverage

import (
	"cmp"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Candidate is a word, phrase or heading of a missed study that would bring it back into a block.
type Candidate struct {
	Item    string
	Kind    string  // strategy.TextTerm or strategy.HeadingTerm
	Rescues int     // missed key studies that the block would then catch
	Price   int     // records that the whole strategy would then find beyond those it finds now
	Pull    float64 // how typical it is of the blind spot, against all other records
	Worth   float64 // how good the bargain is: rescues × max(pull, 0) / (5 + price)
}

// maxCandidateWords is how many tokens a candidate from a study has at most.
const maxCandidateWords = 4

// Rescue returns the candidates of one key study for a block that misses it: its n-grams and its
// headings, unless a term of any block matches them already. The best bargain comes first: by worth,
// then most rescues, then the lowest price. A study that the block catches has none.
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
	taken, err := takenBy(s, keys.Thesaurus)
	if err != nil {
		return nil, err
	}
	deal := bargain{missed: missed, open: reach.Open(block), blind: reach.BlindSpot(block), all: count(set.all())}
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
		out = append(out, deal.of(gram, strategy.TextTerm, keys.Index.PhraseWithin(p, bib.Text, missed), set.hits(query.Phrase{Pattern: p, Fields: bib.Text})))
	}
	seen := map[string]bool{}
	for _, h := range record.Headings {
		label := text.Label(h.Label)
		if seen[label] || taken.heading(record, label) {
			continue
		}
		seen[label] = true
		q := query.Heading{Labels: []string{label}}
		out = append(out, deal.of(h.Label, strategy.HeadingTerm, q.Match(keys.Index), set.hits(q)))
	}
	slices.SortFunc(out, func(a, b Candidate) int {
		if wa, wb := tally.Round(a.Worth), tally.Round(b.Worth); wa != wb {
			return cmp.Compare(wb, wa)
		}
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

// A bargain is what candidates for one block are weighed on.
type bargain struct {
	missed *roaring.Bitmap // key studies
	open   *roaring.Bitmap // what the strategy would find if only the block did
	blind  *roaring.Bitmap // the block's blind spot
	all    int             // records of the set
}

// of weighs a candidate by the key studies and the records that have it.
func (b bargain) of(item, kind string, keys, records *roaring.Bitmap) Candidate {
	c := Candidate{Item: item, Kind: kind, Rescues: int(keys.AndCardinality(b.missed)), Price: int(records.AndCardinality(b.open))}
	here, spot := int(records.AndCardinality(b.blind)), count(b.blind)
	c.Pull = tally.Pull(here, spot, count(records)-here, b.all-spot)
	c.Worth = float64(c.Rescues) * max(c.Pull, 0) / float64(5+c.Price)
	return c
}

func count(b *roaring.Bitmap) int { return int(b.GetCardinality()) }

// taken is the terms of all blocks, for asking whether one of them matches a candidate already.
type taken struct {
	texts []interface {
		MatchesValue(tokens []string) bool
	}
	headings []query.Heading
}

func takenBy(s strategy.Strategy, vocabulary *thesaurus.Thesaurus) (taken, error) {
	var out taken
	for _, b := range s.Blocks {
		for _, t := range b.Terms {
			if !t.On {
				continue
			}
			q, err := t.QueryIn(vocabulary)
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

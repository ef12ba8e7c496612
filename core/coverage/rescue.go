package coverage

import (
	"cmp"
	"context"
	"math"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/parallel"
	"tamiz/core/query"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/text"
	"tamiz/core/thesaurus"
)

// A Candidate is a word, phrase or heading of a missed study that would bring it back into a block.
type Candidate struct {
	Item     string
	Kind     string  // strategy.TextTerm or strategy.HeadingTerm
	Rescues  int     // missed key studies that the block would then catch
	Price    int     // records that the whole strategy would then find beyond those it finds now
	Pull     float64 // how typical it is of the blind spot, against all other records
	Suit     float64 // how well it belongs to the block
	Worth    float64 // how good the bargain is: rescues × suit / √(5 + price)
	Best     int     // the block that it suits best, or -1
	Rare     bool    // too rare to have company: nothing tells whether it belongs
	Doubtful bool    // it fits the block far less than the block's own words do
	Under    string  // the shorter or longer form of it that stands before it; empty where none does

	found *found
}

// maxCandidateWords is how many tokens a candidate from a study has at most.
const maxCandidateWords = 4

// A Rescuer works out what would bring missed key studies back. What it has searched for once it
// remembers, since the same words stand in many studies and serve many blocks.
type Rescuer struct {
	set, keys Set
	s         strategy.Strategy
	reach     *Reach   // in the set
	priced    []*Reach // by block, in the records over which its prices are told
	inKeys    *Reach   // in the key studies
	taken     Taken
	suits     *Suits
	known     map[itemKey]*found
}

type itemKey struct{ kind, key string }

// A found is the records, of all that are indexed, and the key studies that hold an item. It is nil for one that a
// term of some block matches already.
type found struct {
	records, keys *roaring.Bitmap
	suit          Suit
}

// NewRescuer prepares to rescue the key studies that a strategy misses. set holds the records on which
// price and pull are counted, suits tells what belongs to which block.
func NewRescuer(ctx context.Context, set, keys Set, s strategy.Strategy, suits *Suits) (*Rescuer, error) {
	r := &Rescuer{set: set, keys: keys, s: s, suits: suits, known: map[itemKey]*found{}}
	var err error
	if r.inKeys, err = Find(ctx, keys, s); err != nil {
		return nil, err
	}
	if r.reach, err = Find(ctx, set, s); err != nil {
		return nil, err
	}
	for range s.Blocks {
		r.priced = append(r.priced, r.reach)
	}
	r.taken, err = TakenBy(s, keys.Thesaurus)
	return r, err
}

// PriceIn tells prices and pull of a block over other records of the same index: those that its own words did not
// choose.
func (r *Rescuer) PriceIn(ctx context.Context, block int, set Set) (err error) {
	r.priced[block], err = Find(ctx, set, r.s)
	return err
}

// Standing returns how many key studies the strategy catches now, and how many records it finds.
func (r *Rescuer) Standing() (caught, hits int) { return count(r.inKeys.Whole), count(r.reach.Whole) }

// Missed returns the key studies that a block misses, by place.
func (r *Rescuer) Missed(block int) *roaring.Bitmap {
	missed := r.keys.All()
	missed.AndNot(r.inKeys.Blocks[block])
	return missed
}

// Study returns the candidates of one key study for a block that misses it: its n-grams and its
// headings, unless a term of any block matches them already. The best bargain comes first: by worth,
// then most rescues, then the lowest price. A study that the block catches has none.
func (r *Rescuer) Study(ctx context.Context, block, study int) ([]Candidate, error) {
	missed := r.Missed(block)
	if !missed.Contains(uint32(study)) {
		return nil, nil
	}
	return r.candidates(ctx, block, missed, []uint32{uint32(study)}, false)
}

// A BlockRescue is what a block misses and what would bring it back.
type BlockRescue struct {
	Block      int
	BlindSpot  int   // records
	Missed     []int // key studies
	Candidates []Candidate
}

// Block returns the candidates of all key studies that a block misses.
func (r *Rescuer) Block(ctx context.Context, block int) (BlockRescue, error) {
	return r.block(ctx, block, false)
}

// Promising returns those of them that may be of some worth: what is too rare to have company has no part in a
// plan, and need not be looked for.
func (r *Rescuer) Promising(ctx context.Context, block int) (BlockRescue, error) {
	return r.block(ctx, block, true)
}

func (r *Rescuer) block(ctx context.Context, block int, promising bool) (BlockRescue, error) {
	missed := r.Missed(block)
	out := BlockRescue{Block: block, BlindSpot: count(r.priced[block].BlindSpot(block)), Missed: []int{}}
	for _, k := range missed.ToArray() {
		out.Missed = append(out.Missed, int(k))
	}
	var err error
	out.Candidates, err = r.candidates(ctx, block, missed, missed.ToArray(), promising)
	return out, err
}

func (r *Rescuer) candidates(
	ctx context.Context,
	block int,
	missed *roaring.Bitmap,
	studies []uint32,
	promising bool,
) ([]Candidate, error) {
	var keys []itemKey
	var items []string // as they are shown
	listed := map[itemKey]bool{}
	add := func(key itemKey, item string) {
		if !listed[key] {
			listed[key] = true
			keys, items = append(keys, key), append(items, item)
		}
	}
	for _, k := range studies {
		if ctx.Err() != nil {
			return nil, ctx.Err()
		}
		record := r.keys.Records[k]
		var values []string
		record.Values(bib.Text, func(_ bib.Field, v string) { values = append(values, v) })
		for gram := range text.Grams(values, maxCandidateWords) {
			if !promising || r.suits.Known(gram) {
				add(itemKey{strategy.TextTerm, gram}, gram)
			}
		}
		for _, h := range record.Headings {
			key := itemKey{strategy.HeadingTerm, text.Label(h.Label)}
			if !listed[key] && !r.taken.Heading(record, key.key) {
				add(key, r.written(h.Label))
			}
		}
	}
	if err := r.look(ctx, keys); err != nil {
		return nil, err
	}
	deal := bargain{
		block:  block,
		missed: missed,
		open:   r.priced[block].Open(block),
		blind:  r.priced[block].BlindSpot(block),
		in:     r.priced[block].set,
	}
	var out []Candidate
	for i, key := range keys {
		if f := r.known[key]; f != nil {
			out = append(out, deal.of(items[i], key.kind, f))
		}
	}
	slices.SortFunc(out, better)
	var under pieces
	for i, x := range out {
		out[i].Under = under.put(x.Kind, x.Item, x.Suit)
	}
	return out, nil
}

// look searches for what was not searched for yet, on all cores.
func (r *Rescuer) look(ctx context.Context, keys []itemKey) error {
	var fresh []itemKey
	for _, key := range keys {
		if _, ok := r.known[key]; !ok {
			fresh = append(fresh, key)
		}
	}
	found := make([]*found, len(fresh))
	err := parallel.Each(ctx, len(fresh), func(i int) error {
		found[i] = r.find(fresh[i])
		return nil
	})
	if err != nil {
		return err
	}
	for i, key := range fresh {
		r.known[key] = found[i]
	}
	return nil
}

// holding returns what holds an item; nil where a term matches it already.
func (r *Rescuer) holding(key itemKey) *found {
	f, ok := r.known[key]
	if !ok {
		f = r.find(key)
		r.known[key] = f
	}
	return f
}

// find searches for an item.
func (r *Rescuer) find(key itemKey) *found {
	if key.kind == strategy.HeadingTerm {
		q := query.Heading{Which: thesaurus.Keyed(key.key)}
		everywhere := q.Match(r.set.Index)
		return &found{everywhere, q.Match(r.keys.Index), r.suits.Heading(key.key, everywhere)}
	}
	tokens := strings.Split(key.key, " ")
	if r.taken.Text(tokens) {
		return nil
	}
	p := text.Literal(tokens...)
	everywhere := r.set.Index.Phrase(p, bib.Text)
	return &found{everywhere, r.keys.Index.Phrase(p, bib.Text), r.suits.Text(key.key, everywhere)}
}

// written returns a heading as the vocabulary writes it; without one, as it stands.
func (r *Rescuer) written(label string) string { return written(r.keys.Thesaurus, label) }

func written(t *thesaurus.Thesaurus, label string) string {
	if t != nil {
		if known, ok := t.Heading(label); ok {
			return known
		}
	}
	return label
}

// better orders candidates by worth, rescues, price and item, headings before text.
func better(a, b Candidate) int {
	return cmp.Or(cmp.Compare(tally.Round(b.Worth), tally.Round(a.Worth)), cmp.Compare(b.Rescues, a.Rescues),
		cmp.Compare(a.Price, b.Price), strings.Compare(a.Item, b.Item), strings.Compare(a.Kind, b.Kind))
}

// A bargain is what candidates for one block are weighed on.
type bargain struct {
	block  int
	missed *roaring.Bitmap // key studies
	open   *roaring.Bitmap // what the strategy would find if only the block did
	blind  *roaring.Bitmap // the block's blind spot
	in     Set             // over which prices are told
}

// of weighs a candidate by the key studies and the records that have it.
func (b bargain) of(item, kind string, f *found) Candidate {
	c := Candidate{Item: item, Kind: kind, Suit: f.suit.Of[b.block], Best: f.suit.Best(), Rare: !f.suit.Kept, found: f}
	c.Doubtful = f.suit.Kept && f.suit.doubtful[b.block]
	here, spot := int(f.records.AndCardinality(b.blind)), count(b.blind)
	c.Pull = tally.Pull(here, spot, count(b.in.part(f.records))-here, count(b.in.All())-spot)
	return c.at(b.missed, b.open)
}

// at returns the candidate with its rescues, price and worth for what is missed and open now.
func (c Candidate) at(missed, open *roaring.Bitmap) Candidate {
	c.Rescues, c.Price = int(c.found.keys.AndCardinality(missed)), int(c.found.records.AndCardinality(open))
	c.Worth = float64(c.Rescues) * c.Suit / math.Sqrt(float64(5+c.Price))
	return c
}

func count(b *roaring.Bitmap) int { return int(b.GetCardinality()) }

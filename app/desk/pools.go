package desk

import (
	"context"
	"fmt"
	"iter"
	"math"
	"slices"
	"sync"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/app/library"
	"tamiz/app/problems"
	"tamiz/app/vocabularies"
	"tamiz/core/bib"
	"tamiz/core/company"
	"tamiz/core/coverage"
	"tamiz/core/tally"
	"tamiz/core/thesaurus"
	"tamiz/exchange/ris"
	"tamiz/store"
)

// Pools keeps what was worked out from samples, vocabularies and key studies, each kind by itself: none pushes out
// another.
type Pools struct {
	library        libraryRows
	vocabularyRows vocabularyRows
	vocabularies   *Cache
	keyStudies     *Cache
	samples        *Cache
	beside         *Cache

	Room     *Room
	building *Turns   // pools that are made at once
	makings  sync.Map // those being made: how far each is
}

func newPools(s *store.Store) *Pools {
	room := newRoom()
	p := &Pools{
		library:        library.NewRows(s),
		vocabularyRows: vocabularies.NewRows(s),
		Room:           room,
		vocabularies:   newCache(room, 0),
		keyStudies:     newCache(room, 0),
		samples:        newCache(room, 0),
		beside:         newCache(room, 0),
		building:       newTurns(2),
	}
	p.bound(machineMemory() / 2)
	return p
}

// bound says how many bytes there are for what is worked out and what is kept of it, and shares out what is kept.
func (p *Pools) bound(bytes int64) {
	p.Room.bound(bytes)
	p.samples.bound(bytes / 2)
	p.vocabularies.bound(bytes / 8)
	p.keyStudies.bound(bytes / 32)
	p.beside.bound(bytes / 32)
}

// Beside keeps what was worked out from records that are no sample, such as those that rounds brought, under a key
// of the caller's; make returns it with the records that it holds.
func Beside[T any](
	ctx context.Context,
	p *Pools,
	key string,
	make func(context.Context) (T, []*bib.Record, error),
) (T, error) {
	return Cached(ctx, p.beside, key, func(ctx context.Context) (T, int64, error) {
		v, records, err := make(ctx)
		return v, recordBytes(records), err
	})
}

// A Pool is the records of a sample and its contrast, indexed.
type Pool struct {
	*tally.Pool
	IDs    []int64      // of the records in the store
	Parted tally.Parted // authors that are not folded
	*worked

	members map[member]*roaring.Bitmap // which of them each sample holds, and each part of one
}

// A worked is what was worked out from a pool. It goes with the pool.
type worked struct {
	tallies *Cache
	sets    *Cache // that were looked at
	Suited  *Cache
	company *Cache // of all records: one
	grams   *Cache // the words of all records: one
	hits    *coverage.Kept
}

// newWorked keeps each kind within its part of a room.
func newWorked(room *Room) *worked {
	most := int64(math.MaxInt64)
	if room != nil {
		most = room.most
	}
	return &worked{
		tallies: newCache(room, most/6),
		sets:    newCache(room, most/32),
		Suited:  newCache(room, most/8),
		company: newCache(room, most),
		grams:   newCache(room, most),
		hits:    coverage.NewKept(uint64(min(64<<20, most/16))),
	}
}

func (w *worked) letGo() {
	for _, c := range []*Cache{w.tallies, w.sets, w.Suited, w.company, w.grams} {
		c.end()
	}
}

// Set returns the sample's part of the pool.
func (p *Pool) Set() coverage.Set { return p.setOf(p.Sample) }

// setOf returns some records of the pool as what blocks and terms are looked for in.
func (p *Pool) setOf(records *roaring.Bitmap) coverage.Set {
	return coverage.Set{Records: p.Records, Index: p.Index, Within: records, Thesaurus: p.Thesaurus, Kept: p.hits}
}

// A Counted is a tally. That of words is folded into families, and has no rows: they are made when they are asked for.
type Counted struct {
	*tally.Tally
	words *tally.Folded
}

// Len returns how many rows there are: of words, families.
func (c *Counted) Len() int {
	if c.words != nil {
		return c.words.Len()
	}
	return len(c.Rows)
}

// Row returns the figures of a row.
func (c *Counted) Row(i int) tally.Row {
	if c.words != nil {
		return c.words.Figures(i)
	}
	return c.Rows[i]
}

// Forms returns the variants of a row, that by which it is known first.
func (c *Counted) Forms(i int) []string {
	if c.words != nil {
		return c.words.Names(i)
	}
	return []string{c.Rows[i].Item}
}

// Find returns the row of which an item, by its key, is a form; of words alone.
func (c *Counted) Find(form string) (int, bool) {
	if c.words == nil {
		return 0, false
	}
	return c.words.Find(form)
}

// Piece reports whether a row is a piece of a sentence, in all its forms.
func (c *Counted) Piece(i int) bool { return c.words != nil && c.words.Piece(i) }

// Several reports whether a row has several forms.
func (c *Counted) Several(i int) bool { return c.words != nil && c.words.Several(i) }

// Family returns a family of a tally of words; of anything else a family of one.
func (c *Counted) Family(i int) tally.Family {
	if c.words != nil {
		return c.words.Family(i)
	}
	return tally.Family{Row: c.Rows[i]}
}

// EachRow goes through the rows.
func (c *Counted) EachRow() iter.Seq[tally.Row] {
	return func(yield func(tally.Row) bool) {
		for i := range c.Len() {
			if !yield(c.Row(i)) {
				return
			}
		}
	}
}

// Tally counts a facet, once for each set of key studies that words may be mined from.
func (p *Pool) Tally(ctx context.Context, l Scope, f tally.Facet, k *Keys) (*Counted, error) {
	name := string(f) + " " + k.Key + " " + l.Key
	if f == tally.Authors {
		name += " " + p.Parted.Key()
	}
	need := func() int64 { return 0 }
	if f == tally.Words {
		if err := p.Words(ctx); err != nil {
			return nil, err
		}
		need = func() int64 { return int64(p.Items()) * bytesOfTallied }
	}
	return CachedWithin(ctx, p.tallies, name, need, func(ctx context.Context) (*Counted, int64, error) {
		if f == tally.Words {
			folded, err := tally.Fold(ctx, l.Pool, k.Mined(), tally.DefaultWords)
			if err != nil {
				return nil, 0, err
			}
			return &Counted{&folded.Tally, folded}, folded.Bytes(), nil
		}
		rows, err := tally.CountList(ctx, l.Pool, f, k.Mined())
		if err != nil {
			return nil, 0, err
		}
		return &Counted{Tally: rows}, rows.Bytes(), nil
	})
}

// Words counts the words of all records of the pool, once: tallies of them and their company are made of these.
func (p *Pool) Words(ctx context.Context) error {
	need := func() int64 { return int64(p.Index.Words()) * bytesOfCounting }
	_, err := CachedWithin(ctx, p.grams, "words", need, func(ctx context.Context) (words, int64, error) {
		_, err := p.Grams(ctx)
		return words{p.Pool}, p.WordBytes(), err
	})
	return err
}

// words are the words of a pool that were counted. They can be counted again.
type words struct{ of *tally.Pool }

func (w words) letGo() { w.of.Uncount() }

// Befriended returns the company of all records of the pool.
func (p *Pool) Befriended(ctx context.Context) (*company.Company, error) {
	if err := p.Words(ctx); err != nil {
		return nil, err
	}
	need := func() int64 { return int64(p.Index.Words()) * bytesOfCompany }
	return CachedWithin(ctx, p.company, "company", need, func(ctx context.Context) (*company.Company, int64, error) {
		c, err := company.Of(ctx, p.Pool)
		if err != nil {
			return nil, 0, err
		}
		return c, c.Bytes(), nil
	})
}

// Keys are the key studies of a review, indexed.
type Keys struct {
	Key     string
	Studies []library.Key
	Set     coverage.Set    // the record of each that figures go by
	By      []int64         // whose that is: a source, by its number, or 0 for all that is known put together
	Build   *roaring.Bitmap // those of the build half; nil where there are no halves
	Absent  *roaring.Bitmap // those that the source whose counts are shown does not hold; nil for none
}

// without returns the key studies with those that a source does not hold set aside: no strategy for that
// source can catch them.
func (k *Keys) without(all []library.Holding, source *int64) *Keys {
	if source == nil {
		return k
	}
	absent := roaring.New()
	for _, h := range all {
		if h.Source != *source || h.State != library.Absent && h.State != library.Near {
			continue
		}
		if i := slices.IndexFunc(k.Studies, func(s library.Key) bool { return s.ID == h.KeyStudy }); i >= 0 {
			absent.Add(uint32(i))
		}
	}
	if absent.IsEmpty() {
		return k
	}
	out := *k
	out.Absent = absent
	return &out
}

// Here reports whether a key study is where counts are shown.
func (k *Keys) Here(study int) bool { return k.Absent == nil || !k.Absent.Contains(uint32(study)) }

// Held returns how many key studies are where counts are shown.
func (k *Keys) Held() int {
	if k.Absent == nil {
		return len(k.Studies)
	}
	return len(k.Studies) - int(k.Absent.GetCardinality())
}

// halved returns the key studies with the halves of a document.
func (k *Keys) halved(h *Halves) *Keys {
	if h == nil {
		return k
	}
	out := *k
	out.Build = roaring.New()
	for i, s := range k.Studies {
		if !slices.Contains(h.Test, s.ID) {
			out.Build.Add(uint32(i))
			out.Key += fmt.Sprint(" ", i)
		}
	}
	return &out
}

// Mined returns the key studies that words may be mined from, or nil when there are none.
func (k *Keys) Mined() []*bib.Record {
	if k.Build == nil {
		if len(k.Studies) == 0 {
			return nil
		}
		return k.Set.Records
	}
	out := []*bib.Record{}
	for _, i := range k.Build.ToArray() {
		out = append(out, k.Set.Records[i])
	}
	return out
}

// MinedSet returns the key studies with those that words may be mined from as the part that counts.
func (k *Keys) MinedSet() coverage.Set {
	set := k.Set
	set.Within = k.Build
	if k.Absent != nil {
		all := k.Build
		if all == nil {
			all = set.Index.All()
		}
		set.Within = roaring.AndNot(all, k.Absent)
	}
	return set
}

// MinedHere returns how many key studies words may be mined from and are where counts are shown.
func (k *Keys) MinedHere() int {
	if within := k.MinedSet().Within; within != nil {
		return int(within.GetCardinality())
	}
	return len(k.Studies)
}

// InTest reports whether a key study is of the test half.
func (k *Keys) InTest(study int) bool { return k.Build != nil && !k.Build.Contains(uint32(study)) }

// Has reports whether a stored record is a key study.
func (k *Keys) Has(record int64) bool {
	return slices.ContainsFunc(k.Studies, func(s library.Key) bool { return s.StoredRecord.ID == record })
}

// Thesaurus returns a vocabulary; nil for none.
func (p *Pools) Thesaurus(ctx context.Context, vocabulary *int64) (*thesaurus.Thesaurus, error) {
	if vocabulary == nil {
		return nil, nil
	}
	return Cached(
		ctx,
		p.vocabularies,
		fmt.Sprint(*vocabulary),
		func(ctx context.Context) (*thesaurus.Thesaurus, int64, error) {
			t, err := p.vocabularyRows.Thesaurus(ctx, *vocabulary)
			if err != nil {
				return nil, 0, problems.Gone(err, "vocabulary")
			}
			return t, t.Bytes(), nil
		},
	)
}

// Assigned returns a record as it is under a vocabulary, which may be nil.
func Assigned(t *thesaurus.Thesaurus, r *bib.Record) *bib.Record {
	if t == nil {
		return r
	}
	return t.Assign(r)
}

// Figured returns a record as figures are worked out from it: under a vocabulary, with the types of the trade
// alone. The code of a file format stays with the record, and is no type of publication.
func Figured(t *thesaurus.Thesaurus, r *bib.Record) *bib.Record {
	r = Assigned(t, r)
	if !slices.ContainsFunc(r.Types, ris.IsCode) {
		return r
	}
	out := *r
	out.Types = slices.DeleteFunc(slices.Clone(r.Types), ris.IsCode)
	return &out
}

func vocabularyKey(vocabulary *int64) string {
	if vocabulary == nil {
		return ""
	}
	return fmt.Sprint(" by ", *vocabulary)
}

// pool returns the pool of a look at a review, or nil when no sample is looked at.
func (p *Pools) pool(ctx context.Context, review int64, l Look) (*Pool, error) {
	if l.Sample == nil {
		return nil, nil
	}
	t, err := p.Thesaurus(ctx, l.Vocabulary)
	if err != nil {
		return nil, err
	}
	key, records, others := l.pool()
	need := func() int64 {
		all := append([]int64{*l.Sample}, others...)
		for _, s := range l.Beside {
			all = append(all, s.ID)
		}
		// What cannot be told now is told by reading.
		bytes, _ := p.library.SampleBytes(ctx, all...)
		return readingBytes(records, bytes)
	}
	return CachedWithin(ctx, p.samples, key, need, func(ctx context.Context) (*Pool, int64, error) {
		ctx, done := ForRequest(ctx)
		defer done()
		if err := p.building.Take(ctx); err != nil {
			return nil, 0, err
		}
		m := &making{of: records}
		p.makings.Store(key, m)
		defer p.makings.Delete(key)
		sample, err := p.library.SampleRecords(ctx, m.seen, *l.Sample)
		if err != nil {
			return nil, 0, err
		}
		all := map[int64][]library.StoredRecord{*l.Sample: sample}
		read := func(id int64) error {
			records, err := p.library.SampleRecords(ctx, m.seen, id)
			all[id] = records
			return err
		}
		var contrast, beside []library.StoredRecord
		for _, id := range others {
			if err := read(id); err != nil {
				return nil, 0, err
			}
			contrast = append(contrast, all[id]...)
		}
		for _, s := range l.Beside {
			if err := read(s.ID); err != nil {
				return nil, 0, err
			}
			beside = append(beside, all[s.ID]...)
		}
		m.read.Store(int64(m.of))
		built, err := newPool(ctx, p.Room, sample, contrast, beside, t)
		if err != nil {
			return nil, 0, err
		}
		from, err := p.library.Origins(ctx, review)
		if err != nil {
			return nil, 0, err
		}
		chosen, err := chosenBy(from)
		if err != nil {
			return nil, 0, err
		}
		if built.members, err = p.memberOf(ctx, built, all, chosen); err != nil {
			return nil, 0, err
		}
		built.setApart(*l.Sample, chosen)
		return built, recordBytes(built.Records) + built.Index.Bytes(), nil
	})
}

// part returns the pool with some writings of authors parted from those they would be folded with; what was
// worked out is shared.
func (p *Pool) part(writings []string) *Pool {
	if len(writings) == 0 {
		return p
	}
	out := *p
	out.Parted = tally.Part(writings)
	out.Pool = p.Apart(out.Parted)
	return &out
}

func newPool(
	ctx context.Context,
	room *Room,
	sample, contrast, beside []library.StoredRecord,
	t *thesaurus.Thesaurus,
) (*Pool, error) {
	byRecord := make(map[*bib.Record]int64, len(sample)+len(contrast))
	had := map[int64]bool{} // the same record of the same source may be in several samples
	records := func(stored []library.StoredRecord) (out []*bib.Record) {
		for _, s := range stored {
			if had[s.ID] {
				continue
			}
			had[s.ID] = true
			r := Figured(t, s.Record)
			byRecord[r] = s.ID
			out = append(out, r)
		}
		return out
	}
	indexed, err := tally.NewPoolBeside(ctx, records(sample), records(contrast), records(beside))
	if err != nil {
		return nil, err
	}
	p := &Pool{Pool: indexed, worked: newWorked(room), members: map[member]*roaring.Bitmap{}}
	p.Thesaurus = t
	p.Keep()
	for _, r := range p.Records {
		p.IDs = append(p.IDs, byRecord[r])
	}
	return p, nil
}

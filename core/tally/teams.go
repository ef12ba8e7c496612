package tally

import (
	"cmp"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
)

// A Team is authors who are joined by records of the sample: each signed at least two with another of them.
type Team struct {
	Authors []string // as most records write them, those with most records first
	Keys    []string // of the authors
	Records int      // of the sample that two of them signed
	KeyHits int      // key studies that two of them signed
	From    int      // years of these records; 0 where none has one
	To      int
}

// joinedBy is how many records join two authors to a team.
const joinedBy = 2

// mostAuthors is how many authors of one record are looked at: records of whole consortia join everybody.
const mostAuthors = 60

// Teams returns the teams of the sample, those with most records first. keys may be nil.
func (p *Pool) Teams(keys []*bib.Record) []Team {
	l, side := p.listed(Authors), p.sides()
	signed := map[uint32][]int32{} // authors of each record of the sample
	for a := range l.items {
		for _, m := range l.items[a].mentions {
			if side[m.record]&onSample != 0 {
				if has := signed[m.record]; len(has) == 0 || has[len(has)-1] != int32(a) {
					signed[m.record] = append(has, int32(a))
				}
			}
		}
	}
	together := map[[2]int32]int{}
	for _, authors := range signed {
		if len(authors) > mostAuthors {
			continue
		}
		for i, a := range authors {
			for _, b := range authors[i+1:] {
				together[[2]int32{a, b}]++
			}
		}
	}
	// Authors that are joined, directly or through others, are one team.
	leads := make([]int32, len(l.items))
	for i := range leads {
		leads[i] = int32(i)
	}
	lead := func(a int32) int32 {
		for leads[a] != a {
			leads[a] = leads[leads[a]]
			a = leads[a]
		}
		return a
	}
	for pair, n := range together {
		if n >= joinedBy {
			a, b := lead(pair[0]), lead(pair[1])
			leads[max(a, b)] = min(a, b)
		}
	}
	members := map[int32][]int32{}
	for a := range l.items {
		at := lead(int32(a))
		members[at] = append(members[at], int32(a))
	}
	var out []Team
	for _, team := range members {
		if len(team) > 1 {
			out = append(out, p.team(l, side, team, keys))
		}
	}
	slices.SortFunc(out, func(a, b Team) int {
		return cmp.Or(
			cmp.Compare(b.Records, a.Records),
			cmp.Compare(len(b.Authors), len(a.Authors)),
			cmp.Compare(a.Keys[0], b.Keys[0]),
		)
	})
	return out
}

func (p *Pool) team(l *listed, side sides, authors []int32, keys []*bib.Record) Team {
	type author struct {
		row Row
		key string
	}
	var all []author
	var t Team
	for _, a := range authors {
		row, _ := l.items[a].row(side)
		all = append(all, author{row, l.items[a].key})
	}
	slices.SortFunc(all, func(a, b author) int {
		return cmp.Or(cmp.Compare(b.row.Records, a.row.Records), cmp.Compare(a.row.Item, b.row.Item))
	})
	for _, a := range all {
		t.Authors, t.Keys = append(t.Authors, a.row.Item), append(t.Keys, a.key)
	}
	records := p.Together(t.Keys)
	records.And(p.Sample)
	t.Records = int(records.GetCardinality())
	for it := records.Iterator(); it.HasNext(); {
		if y := p.Records[it.Next()].Year; y != 0 {
			if t.From == 0 || y < t.From {
				t.From = y
			}
			t.To = max(t.To, y)
		}
	}
	for _, k := range keys {
		n := 0
		for _, m := range mentions(Authors, k, p.parted) {
			if slices.Contains(t.Keys, m.key) {
				n++
			}
		}
		if n > 1 {
			t.KeyHits++
		}
	}
	return t
}

// Together returns the records of the pool that at least two of some authors signed, by their keys.
func (p *Pool) Together(authors []string) *roaring.Bitmap {
	l := p.listed(Authors)
	once, twice := roaring.New(), roaring.New()
	for _, key := range authors {
		signed := l.having(key)
		twice.Or(roaring.And(once, signed))
		once.Or(signed)
	}
	return twice
}

package cite

import (
	"cmp"
	"maps"
	"math"
	"slices"

	"tamiz/core/bib"
)

// A Graph is who cites whom among records, numbered from 0 on as they were given. Works that they cite and that are
// not among them have numbers behind those: two records that cite the same one have that in common.
type Graph struct {
	records int
	cites   [][]int32 // ascending, each once
	citedBy [][]int32 // of the records alone
	later   [][2]int  // citing and cited, where the cited is of a later year by more than one
}

// Link says that one record cites another, where no reference says so: a source that was asked did.
type Link struct{ From, To int }

// Of builds the graph of records from their references, and from what is known besides. A record that cites itself
// does not count as doing so. A reference that could only be told to resemble a record counts as one to a work
// elsewhere.
func Of(records []*bib.Record, besides []Link) *Graph {
	g := &Graph{records: len(records), cites: make([][]int32, len(records)), citedBy: make([][]int32, len(records))}
	finder := NewFinder(records)
	elsewhere := map[string]int32{}
	for i, r := range records {
		for _, f := range r.References {
			if n, how := finder.Find(f); how != None {
				g.put(i, n)
				continue
			}
			key := Key(f)
			if key == "" {
				continue
			}
			n, ok := elsewhere[key]
			if !ok {
				n = int32(len(records) + len(elsewhere))
				elsewhere[key] = n
			}
			g.cites[i] = append(g.cites[i], n)
		}
	}
	for _, l := range besides {
		g.put(l.From, l.To)
	}
	for i := range g.cites {
		slices.Sort(g.cites[i])
		g.cites[i] = slices.Compact(g.cites[i])
		for _, to := range g.cites[i] {
			if int(to) < g.records {
				g.citedBy[to] = append(g.citedBy[to], int32(i))
				if a, b := records[i].Year, records[to].Year; a > 0 && b > a+1 {
					g.later = append(g.later, [2]int{i, int(to)})
				}
			}
		}
	}
	return g
}

func (g *Graph) put(from, to int) {
	if from != to {
		g.cites[from] = append(g.cites[from], int32(to))
	}
}

// Key is by what two references are known to be to the same work: its identifier, else title and author; "" where
// they say neither.
func Key(f bib.Reference) string {
	if k := bib.DOIKey(f.DOI); k != "" {
		return k
	}
	if f.Local != "" {
		return "local " + bib.DOIKey(f.Local)
	}
	r := Record(f)
	return r.WorkKey()
}

// Cites returns the records that one cites.
func (g *Graph) Cites(i int) (out []int) {
	for _, to := range g.cites[i] {
		if int(to) < g.records {
			out = append(out, int(to))
		}
	}
	return out
}

// CitedBy returns the records that cite one.
func (g *Graph) CitedBy(i int) (out []int) {
	for _, from := range g.citedBy[i] {
		out = append(out, int(from))
	}
	return out
}

// Elsewhere returns of each work that is not among the records and that at least two of them cite which those are,
// the most cited first.
func (g *Graph) Elsewhere() (by [][]int) {
	citing := map[int32][]int{}
	for i, list := range g.cites {
		for _, to := range list {
			if int(to) >= g.records {
				citing[to] = append(citing[to], i)
			}
		}
	}
	for _, n := range slices.Sorted(maps.Keys(citing)) {
		if len(citing[n]) > 1 { // one is no more than any other
			by = append(by, citing[n])
		}
	}
	slices.SortStableFunc(by, func(a, b []int) int { return cmp.Compare(len(b), len(a)) })
	return by
}

// Later returns pairs of records of which the first cites the second, which is of a later year by more than one:
// one of the two years, or the reference, is wrong.
func (g *Graph) Later() [][2]int { return g.later }

// A Tie is what links a record to some others, the start.
type Tie struct {
	Leads    int // works of the start that cite it, or that it cites
	Shared   int // works that it cites and at least one of the start cites too: bibliographic coupling, Kessler 1963
	Together int // records that cite it and at least one of the start as well: co-citation, Small 1973
}

// Ties returns of each record what links it to a start. A record of the start is linked to the others of it.
func (g *Graph) Ties(start []int) []Tie {
	out := make([]Tie, g.records)
	of := make([]bool, g.records)
	nodes := g.records
	for _, list := range g.cites {
		if len(list) > 0 {
			nodes = max(nodes, int(list[len(list)-1])+1)
		}
	}
	citing := make([]int32, nodes)       // works of the start that cite a node
	referred := make([]int32, g.records) // works of the start that a record cites
	for _, s := range start {
		if of[s] {
			continue
		}
		of[s] = true
		for _, to := range g.cites[s] {
			citing[to]++
		}
	}
	for i, list := range g.cites {
		for _, to := range list {
			if int(to) < g.records && of[to] {
				referred[i]++
			}
		}
	}
	for i, list := range g.cites {
		own := int32(0) // what a record of the start cites is not shared by itself
		if of[i] {
			own = 1
		}
		for _, to := range list {
			if citing[to] > own {
				out[i].Shared++
			}
		}
		out[i].Leads = int(referred[i]) + int(citing[i])
		for _, s := range list { // a record that is cited by a start work and cites it as well is led to once
			if int(s) >= g.records || !of[s] {
				continue
			}
			if _, back := slices.BinarySearch(g.cites[s], int32(i)); back {
				out[i].Leads--
			}
		}
		for _, from := range g.citedBy[i] {
			here := referred[from]
			if of[i] {
				here--
			}
			if here > 0 {
				out[i].Together++
			}
		}
	}
	return out
}

// Worth is by what records are ordered that may belong: each of a record's ties by the square root of how many it
// could have had, since a work that cites a hundred shares references with anything, and one that a thousand cite
// is cited with anything (after Salton and McGill 1983, the cosine). cited is how often its source says that it is
// cited; the graph's own count holds where that is more.
func (g *Graph) Worth(i int, t Tie, cited int) float64 {
	by := math.Sqrt(float64(1 + max(cited, len(g.citedBy[i]))))
	return float64(t.Leads)/by + float64(t.Shared)/math.Sqrt(float64(1+len(g.cites[i]))) + float64(t.Together)/by
}

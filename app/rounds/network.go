package rounds

import (
	"cmp"
	"context"
	"slices"

	"tamiz/app/desk"
)

// A Network is who cites whom among key studies and the works that are tied to what belongs the most.
type Network struct {
	Works []Node   `json:"works"`
	Links [][2]int `json:"links"` // citing and cited, by their places in works
	Of    int      `json:"of"`    // works that there are
}

// A Node is a work of the network.
type Node struct {
	Record  desk.RecordHead `json:"record"`
	Verdict string          `json:"verdict,omitempty"`
	Caught  bool            `json:"caught"`
	Cited   int             `json:"cited"` // by how many of the network
}

const mostNodes = 500

// Network returns key studies and at most so many works in all, with the citations among them.
func (a *Service) Network(ctx context.Context, at desk.At) (*Network, error) {
	v, err := a.view(ctx, at)
	if err != nil {
		return nil, err
	}
	caught, err := v.caught(ctx)
	if err != nil {
		return nil, err
	}
	works, nodes := v.shown, map[int]Node{}
	for i, n := range v.number { // key studies, whether a round brought them or not
		x := Node{Record: headOf(v.desk.Keys.Studies[i].StoredRecord), Verdict: isKey, Caught: caught[i]}
		x.Record.Key = true
		nodes[n] = x
	}
	rest := []int{}
	for i, w := range works {
		if _, there := nodes[i]; !there && w.Verdict != isNot {
			rest = append(rest, i)
		}
	}
	belongs := func(w Work) int {
		if w.Verdict == relevant {
			return 1
		}
		return 0
	}
	slices.SortStableFunc(rest, func(a, b int) int {
		return cmp.Or(cmp.Compare(belongs(works[b]), belongs(works[a])), cmp.Compare(works[b].Worth, works[a].Worth))
	})
	out := &Network{Works: []Node{}, Links: [][2]int{}, Of: len(nodes) + len(rest)}
	for _, i := range rest[:min(len(rest), max(0, mostNodes-len(nodes)))] {
		nodes[i] = Node{Record: works[i].Record, Verdict: works[i].Verdict, Caught: works[i].Caught}
	}
	place := map[int]int{}
	for n := range v.nodes {
		if x, ok := nodes[n]; ok {
			place[n] = len(out.Works)
			out.Works = append(out.Works, x)
		}
	}
	for n, from := range place {
		for _, to := range v.graph.Cites(n) {
			if at, ok := place[to]; ok {
				out.Links = append(out.Links, [2]int{from, at})
				out.Works[at].Cited++
			}
		}
	}
	slices.SortFunc(out.Links, func(a, b [2]int) int { return cmp.Or(cmp.Compare(a[0], b[0]), cmp.Compare(a[1], b[1])) })
	return out, nil
}

package tally

import (
	"slices"

	"tamiz/core/bib"
	"tamiz/core/text"
)

// Ages and humans are told by headings: which of them a record carries, or one below them. Which headings stand for
// ages, for humans and for animals is said by the words of limits.

// byHeadings reports whether the items of a facet are groups of headings.
func byHeadings(f Facet) bool { return f == Ages || f == Humans }

// grouped is of a facet the items that each heading counts for, by its key.
type grouped struct {
	facet Facet
	of    map[string][]mention
}

// newGroups looks for the headings of the pool's vocabulary that stand for a kind of the facet, and for all below them.
func (p *Pool) newGroups(f Facet) *grouped {
	g := &grouped{facet: f, of: map[string][]mention{}}
	v := p.Thesaurus
	if v == nil {
		return g
	}
	// The words are looked up: a large vocabulary is not gone through.
	for _, k := range kinds {
		if k.facet != f {
			continue
		}
		for _, words := range k.indexed {
			h, ok := v.Find(words.String())
			if !ok {
				continue
			}
			m := mention{key: text.Label(v.Label(h)), written: v.Label(h)}
			for below := range v.Branch(m.written).Labels() {
				if !slices.Contains(g.of[below], m) {
					g.of[below] = append(g.of[below], m)
				}
			}
		}
	}
	return g
}

// stands reports whether a heading stands for a kind of the facet.
func (g *grouped) stands(label string) bool {
	return slices.ContainsFunc(kinds, func(k kind) bool { return k.facet == g.facet && k.is(label) })
}

// LimitBy returns the facet of which a heading stands for a kind: ages or humans; "" where it stands for none.
func LimitBy(heading string) Facet {
	for _, k := range kinds {
		if byHeadings(k.facet) && k.is(heading) {
			return k.facet
		}
	}
	return ""
}

// mentions returns the items that a record carries, each once. A heading that the vocabulary does not have stands
// for itself.
func (g *grouped) mentions(r *bib.Record) (out []mention) {
	for _, h := range r.Headings {
		all := g.of[text.Label(h.Label)]
		if all == nil && g.stands(h.Label) {
			all = []mention{{key: text.Label(h.Label), written: h.Label}}
		}
		for _, m := range all {
			if !slices.ContainsFunc(out, func(x mention) bool { return x.key == m.key }) {
				out = append(out, m)
			}
		}
	}
	return out
}

// mentioned returns how the items of a facet are read from a record of the pool.
func (p *Pool) mentioned(f Facet) func(*bib.Record) []mention {
	if byHeadings(f) {
		if p.kept != nil {
			return p.kept.groups[f]().mentions
		}
		return p.newGroups(f).mentions
	}
	return func(r *bib.Record) []mention { return mentions(f, r, p.parted) }
}

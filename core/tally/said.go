package tally

import (
	_ "embed"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/text"
)

//go:embed data/limit-words-en.tsv
var limitWordList string

// A kind is a kind of record that titles name as well as indexers do: a trial, a record on children, one on animals.
type kind struct {
	facet           Facet // by which indexers say it
	name            string
	indexed, titles []text.Pattern
}

var kinds = readKinds(limitWordList)

func readKinds(list string) (out []kind) {
	for line := range strings.Lines(list) {
		part := strings.Split(strings.TrimRight(line, "\r\n"), "\t")
		if len(part) != 4 || strings.HasPrefix(line, "#") {
			continue
		}
		p, err := text.ParsePattern(part[3])
		if err != nil {
			panic(err) // the list is our own, and is tested
		}
		i := slices.IndexFunc(out, func(k kind) bool { return k.facet == Facet(part[0]) && k.name == part[1] })
		if i < 0 {
			i, out = len(out), append(out, kind{facet: Facet(part[0]), name: part[1]})
		}
		if part[2] == "indexed" {
			out[i].indexed = append(out[i].indexed, p)
		} else {
			out[i].titles = append(out[i].titles, p)
		}
	}
	return out
}

// A Said is how many records of the sample are of a kind by what they are indexed with, and how many say so in
// the title. The words are English.
type Said struct {
	Kind    string
	Indexed []string // publication types, or headings, of the records that stand for it
	Words   []string // words of titles that do
	Typed   int      // records that carry one
	Titled  int
	Both    int
	Either  int
}

// Said tells of each kind of a facet how records say that they are of it.
func (p *Pool) Said(f Facet) []Said {
	var out []Said
	for _, k := range kinds {
		if k.facet != f {
			continue
		}
		typed, titled := p.said(k)
		typed.And(p.Sample)
		titled.And(p.Sample)
		out = append(
			out,
			Said{
				k.name,
				p.standing(k),
				k.words(),
				int(typed.GetCardinality()),
				int(titled.GetCardinality()),
				int(typed.AndCardinality(titled)),
				int(typed.OrCardinality(titled)),
			},
		)
	}
	return out
}

// words returns the words of titles that say a kind.
func (k kind) words() []string {
	out := make([]string, len(k.titles))
	for i, t := range k.titles {
		out[i] = t.String()
	}
	return out
}

// is reports whether an item of its facet stands for the kind: a publication type with one of its words, a heading that
// is nothing but them.
func (k kind) is(item string) bool {
	tokens := text.Tokens(item)
	return slices.ContainsFunc(k.indexed, func(p text.Pattern) bool {
		return len(p.Find(tokens)) > 0 && (k.facet == Types || len(p) == len(tokens))
	})
}

// standing returns the items of the pool that stand for a kind, as they are written there.
func (p *Pool) standing(k kind) []string {
	out := []string{}
	for _, i := range p.listed(k.facet).items {
		if k.is(i.key) {
			out = append(out, i.writings[0])
		}
	}
	return out
}

// said returns the records of the pool that are of a kind by what they are indexed with, and those whose title says it.
func (p *Pool) said(k kind) (indexed, titled *roaring.Bitmap) {
	indexed, titled = roaring.New(), roaring.New()
	l := p.listed(k.facet)
	for _, i := range l.items {
		if k.is(i.key) {
			indexed.Or(l.having(i.key))
		}
	}
	for _, t := range k.titles {
		titled.Or(p.Index.Phrase(t, bib.Title))
	}
	return indexed, titled
}

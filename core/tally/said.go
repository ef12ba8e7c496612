package tally

import (
	_ "embed"
	"slices"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"

	"tamiz/core/bib"
	"tamiz/core/text"
)

//go:embed data/title-words-en.tsv
var titleWordList string

// A kind is a type of record that titles name as well as indexers do.
type kind struct {
	name          string
	types, titles []text.Pattern
}

var kinds = readKinds(titleWordList)

func readKinds(list string) (out []kind) {
	for line := range strings.Lines(list) {
		part := strings.Split(strings.TrimRight(line, "\r\n"), "\t")
		if len(part) != 3 || strings.HasPrefix(line, "#") {
			continue
		}
		p, err := text.ParsePattern(part[2])
		if err != nil {
			panic(err) // the list is our own, and is tested
		}
		i := slices.IndexFunc(out, func(k kind) bool { return k.name == part[0] })
		if i < 0 {
			i, out = len(out), append(out, kind{name: part[0]})
		}
		if part[1] == "type" {
			out[i].types = append(out[i].types, p)
		} else {
			out[i].titles = append(out[i].titles, p)
		}
	}
	return out
}

// A Said is how many records of the sample are of a kind by their publication types, and how many say so in
// the title. The words are English.
type Said struct {
	Kind   string
	Types  []string // publication types of the records that stand for it
	Words  []string // words of titles that do
	Typed  int
	Titled int
	Both   int
	Either int
}

// Said tells of each kind how records say that they are of it.
func (p *Pool) Said() []Said {
	var out []Said
	for _, k := range kinds {
		typed, titled := p.said(k)
		typed.And(p.Sample)
		titled.And(p.Sample)
		out = append(out, Said{k.name, p.typesOf(k), k.words(), int(typed.GetCardinality()), int(titled.GetCardinality()), int(typed.AndCardinality(titled)), int(typed.OrCardinality(titled))})
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

// typesOf returns the publication types of the pool that stand for a kind, as they are written there.
func (p *Pool) typesOf(k kind) []string {
	out := []string{}
	types := p.listed(Types)
	for _, i := range types.items {
		tokens := text.Tokens(i.key)
		if slices.ContainsFunc(k.types, func(p text.Pattern) bool { return len(p.Find(tokens)) > 0 }) {
			out = append(out, i.writings[0])
		}
	}
	return out
}

// said returns the records of the pool that are of a kind by their types, and those whose title says it.
func (p *Pool) said(k kind) (typed, titled *roaring.Bitmap) {
	typed, titled = roaring.New(), roaring.New()
	types := p.listed(Types)
	for _, i := range types.items {
		tokens := text.Tokens(i.key)
		if slices.ContainsFunc(k.types, func(p text.Pattern) bool { return len(p.Find(tokens)) > 0 }) {
			typed.Or(types.having(i.key))
		}
	}
	for _, t := range k.titles {
		titled.Or(p.Index.Phrase(t, bib.Title))
	}
	return typed, titled
}

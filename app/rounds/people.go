package rounds

import (
	"slices"
	"strings"

	"tamiz/app/problems"
	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/tally"
	"tamiz/core/text"
)

const mostPeople = 20 // of a team

// people are those whose works are asked for. A name stands for all writings that are folded with it (family name
// and first initial), unless somebody parted it from those.
type people struct {
	names  []bib.Person
	parted tally.Parted
}

// peopleOf reads the names of an order, parted by semicolons.
func peopleOf(n Asked) people {
	p := people{parted: tally.Part(n.Parted)}
	for _, name := range strings.Split(n.Name, ";") {
		if who := bib.ParsePerson(name); text.Key(who.Family) != "" {
			p.names = append(p.names, who)
		}
	}
	return p
}

// query asks for the writings of each.
func (p people) query() (query.Expr, error) {
	var any query.Or
	for _, who := range p.names {
		family, given := text.Tokens(who.Family), text.Tokens(who.Given)
		ask := func(given ...string) {
			any = append(any, query.Author{Pattern: text.Literal(append(slices.Clone(family), given...)...)})
		}
		ask(given...)
		// Given names are looked for by how they begin, so that the initial finds them all, where the source does so too.
		if len(given) > 0 && p.parted.AuthorKey(who) == tally.AuthorKey(who) {
			if first := []rune(given[0])[:1]; string(first) != strings.Join(given, " ") {
				ask(string(first))
			}
		}
	}
	switch {
	case len(any) == 0:
		return nil, problems.Invalid("name", "This is no name that could be asked for.")
	case len(p.names) > mostPeople:
		return nil, problems.Invalid("name", "At most %d people are asked for at once.", mostPeople)
	case len(any) == 1:
		return any[0], nil
	}
	return any, nil
}

// wrote reports whether one of the people wrote a record: somebody who was parted from them is another. A name
// without given names is anybody of that family name.
func (p people) wrote(r *bib.Record) bool {
	return slices.ContainsFunc(r.Authors, func(a bib.Person) bool {
		return slices.ContainsFunc(p.names, func(who bib.Person) bool {
			if text.Key(who.Given) == "" {
				return text.Key(a.Family) == text.Key(who.Family)
			}
			return p.parted.AuthorKey(a) == p.parted.AuthorKey(who)
		})
	})
}

package standin

import (
	"tamiz/core/thesaurus"
	"tamiz/demo"
)

// Sources returns the three made-up sources, filled with a literature.
func Sources(l *demo.Literature) []*Collection {
	headings, terms := demo.Vocabularies()
	build := func(of []thesaurus.Concept) *thesaurus.Thesaurus {
		t, _ := thesaurus.Build(of, "") // that it has no troubles is a test of the vocabulary
		return t
	}
	almagre := &Collection{
		Name: "almagre", Title: "Almagre", Authority: "almagre-headings", Near: true, Inside: true, Qualifiers: true,
		MostRecords: 200,
		About: "%d records on health, indexed with Almagre Headings. The newest are not indexed yet. Words without an " +
			"index are also searched as headings.",
		Indexes: []string{
			"tamiz.text",
			"tamiz.title",
			"tamiz.abstract",
			"tamiz.titleAbstract",
			"tamiz.keyword",
			"tamiz.heading",
			"tamiz.any",
			"tamiz.author",
			"tamiz.journal",
			"tamiz.year",
			"tamiz.type",
			"tamiz.language",
			"tamiz.country",
			"tamiz.identifier",
		},
	}
	surco := &Collection{
		Name: "surco", Title: "Surco", Authority: "surco-thesaurus", Inside: true, MostRecords: 100,
		About: "%d records on land, labour and food, indexed with the Surco Thesaurus. Words near each other cannot be " +
			"asked for.",
		Indexes: []string{
			"dc.title",
			"dc.description",
			"dc.subject",
			"dc.creator",
			"dc.date",
			"dc.language",
			"dc.type",
			"dc.identifier",
			"tamiz.heading",
		},
	}
	vilano := &Collection{
		Name: "vilano", Title: "Vilano", Near: true, Loose: true, MostRecords: 50,
		About: "%d records of every field, without headings. A word can be cut at its end alone. Says what each work " +
			"cites and how often it is cited.",
		Indexes: []string{
			"tamiz.any",
			"tamiz.text",
			"tamiz.title",
			"tamiz.author",
			"tamiz.journal",
			"tamiz.year",
			"tamiz.type",
			"tamiz.language",
			"tamiz.identifier",
			"tamiz.cites",
			"tamiz.citedBy",
			"tamiz.timesCited",
		},
	}
	almagre.Fill(l.Almagre, build(headings))
	surco.Fill(l.Surco, build(terms))
	vilano.Fill(l.Vilano, nil)
	return []*Collection{almagre, surco, vilano}
}

package holdings

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/app/sources"
	"tamiz/core/bib"
	"tamiz/source"
)

func TestPastedReferencesArePartedAtEmptyLinesOrAtEachLine(t *testing.T) {
	for name, c := range map[string]struct {
		pasted string
		want   []string
	}{
		"one a line":               {"Shade on the dunes\r\nHeat  in May\n", []string{"Shade on the dunes", "Heat in May"}},
		"empty lines between them": {"Shade on\nthe dunes\n\n \nHeat in May", []string{"Shade on the dunes", "Heat in May"}},
		"nothing":                  {" \n\x00\n", nil},
	} {
		assert.Equal(t, c.want, references(c.pasted), name)
	}
}

// answering is a source that answers with the same records, whatever it is asked.
type answering struct {
	source.Source
	records []*bib.Record
	asked   []string
}

func (a *answering) Search(_ context.Context, s source.Search) (*source.Page, error) {
	a.asked = append(a.asked, s.Query)
	page := &source.Page{Total: len(a.records)}
	for _, r := range a.records {
		page.Records = append(page.Records, source.Got{Record: r})
	}
	return page, nil
}

func TestAWorkIsFoundByItsIdentifierElseByItsTitle(t *testing.T) {
	at := sources.Source{
		Map: source.Map{Indexes: map[string]string{"identifier": "dc.identifier", "title": "dc.title"}},
	}
	wanted := &bib.Record{Title: "Shade on the northern dunes", DOI: "10.5555/dune.1", Year: 2020}
	southern := &bib.Record{Title: "Shade on the southern dunes", Year: 2020}
	same := &bib.Record{Title: "Shade on the northern dunes."}
	for name, c := range map[string]struct {
		there []*bib.Record
		want  []string
	}{
		"its identifier, whatever its title": {
			[]*bib.Record{{Title: "Another", DOI: "10.5555/DUNE.1"}},
			[]string{"identifier"},
		},
		"its title in the year before": {
			[]*bib.Record{{Title: same.Title, Year: 2019}},
			[]string{"title"},
		},
		"its title of long ago is only near":   {[]*bib.Record{{Title: same.Title, Year: 1999}}, []string{"near"}},
		"a title that is much alike":           {[]*bib.Record{southern}, []string{"near"}},
		"what is near stands behind the title": {[]*bib.Record{southern, same}, []string{"title", "near"}},
		"another work":                         {[]*bib.Record{{Title: "Water in old wells"}}, nil},
		"nothing there":                        {nil, nil},
	} {
		found, err := (&Service{}).Matches(t.Context(), &answering{records: c.there}, at, wanted)
		require.NoError(t, err, name)
		var how []string
		for _, m := range found {
			how = append(how, m.How)
		}
		assert.Equal(t, c.want, how, name)
	}
	quiet := &answering{}
	found, err := (&Service{}).Matches(t.Context(), quiet, at, &bib.Record{Title: "Dunes"})
	require.NoError(t, err)
	assert.Empty(t, found)
	assert.Empty(t, quiet.asked, "a title of one word says too little")
}

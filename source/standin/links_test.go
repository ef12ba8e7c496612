package standin_test

import (
	"cmp"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/source"
)

// Who cites whom can be asked both ways, of several works at once, and the two ways agree; a source that knows
// nothing of it says so, one that is asked all the same refuses.
func TestCitationsAreAskedBothWays(t *testing.T) {
	base := serve(t)
	c, m := client(t, base+"/vilano", "")
	links := source.CitingOf(c, m)
	require.NotNil(t, links)
	assert.True(t, links.Can(source.Backward) && links.Can(source.Forward))
	records := literature().Vilano
	some := slices.IndexFunc(records, func(r *bib.Record) bool { return r.DOI != "" && *r.TimesCited > 3 })
	page, err := links.Linked(t.Context(), source.Forward, []string{records[some].DOI}, 1, 50)
	require.NoError(t, err)
	require.NotZero(t, page.Total)
	both := 0
	for _, g := range page.Records {
		assert.True(
			t,
			slices.ContainsFunc(
				g.Record.References,
				func(f bib.Reference) bool { return bib.DOIKey(f.DOI) == bib.DOIKey(records[some].DOI) },
			),
		)
		back, err := links.Linked(t.Context(), source.Backward, []string{cmp.Or(g.Record.DOI, g.Record.Accession)}, 1, 50)
		require.NoError(t, err)
		if slices.ContainsFunc(
			back.Records,
			func(b source.Got) bool { return b.Record.Accession == records[some].Accession },
		) ||
			back.Total > 50 {
			both++
		}
	}
	assert.Equal(t, len(page.Records), both, "what cites it has it among what it cites")
	together, err := links.Linked(t.Context(), source.Forward, []string{records[some].DOI, "10.99999/none"}, 1, 50)
	require.NoError(t, err)
	assert.Equal(t, page.Total, together.Total)

	most, err := c.Search(t.Context(), source.Search{Query: m.MostCited(`tamiz.text = heat`), Start: 1, Max: 10})
	require.NoError(t, err)
	for i := 1; i < len(most.Records); i++ {
		assert.GreaterOrEqual(t, *most.Records[i-1].Record.TimesCited, *most.Records[i].Record.TimesCited)
	}

	for _, name := range []string{"almagre", "surco"} {
		other, its := client(t, base+"/"+name, "")
		assert.Nil(t, source.CitingOf(other, its), name)
		assert.Empty(t, its.MostCited("heat"))
		_, err := other.Search(t.Context(), source.Search{Query: `tamiz.cites = "10.99999/x"`, Start: 1, Max: 1})
		var refused *source.Refusal
		assert.ErrorAs(t, err, &refused, name)
	}
	_, err = c.Search(t.Context(), source.Search{Query: `tamiz.timesCited = many`, Start: 1, Max: 1})
	assert.ErrorContains(t, err, "how often a work is cited")
}

// Half of it is enough to be asked that way alone.
func TestASourceMayKnowOneWayAlone(t *testing.T) {
	c, m := client(t, serve(t)+"/vilano", "")
	delete(m.Indexes, "citedBy")
	links := source.CitingOf(c, m)
	require.NotNil(t, links)
	assert.True(t, links.Can(source.Forward))
	assert.False(t, links.Can(source.Backward))
	_, err := links.Linked(t.Context(), source.Backward, []string{"10.99999/x"}, 1, 5)
	assert.Error(t, err)
}

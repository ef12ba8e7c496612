package vocabularies

import (
	"testing"

	"tamiz/core/thesaurus"
	"tamiz/store"
	"tamiz/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

func TestWhatStandsForAHeadingIsKnownByTheNamesOfBothVocabularies(t *testing.T) {
	rows := NewRows(storetest.Open(t))
	said := func(stands []string) func([]string) []string { return func([]string) []string { return stands } }
	change := func(heading, other string, to func([]string) []string) {
		require.NoError(t, rows.ChangeCounterpart(t.Context(), "Almagre Headings", heading, other, to))
	}
	change("Heat", "Surco Thesaurus", said([]string{"Hot weather"}))
	change("Shade", "Surco Thesaurus", said([]string{})) // nothing stands for it
	change("Heat", "ALMAGRE", said([]string{"x"}))
	got, err := rows.Counterparts(t.Context(), "ALMAGRE headings", "surco thesaurus")
	require.NoError(t, err)
	assert.Equal(t, []Counterpart{{"Heat", []string{"Hot weather"}}, {"Shade", []string{}}}, got)
	change("Heat", "surco thesaurus", func(now []string) []string { return append(now, "Warm spells") })
	change("Shade", "Surco Thesaurus", said(nil)) // nobody says
	got, err = rows.Counterparts(t.Context(), "Almagre Headings", "Surco Thesaurus")
	require.NoError(t, err)
	assert.Equal(t, []Counterpart{{"Heat", []string{"Hot weather", "Warm spells"}}}, got)
}

// A vocabulary is the next edition of the one of its name; one that a review goes by stays.
func TestEditionsOfAVocabulary(t *testing.T) {
	s := storetest.Open(t)
	rows := NewRows(s)
	add := func(name string) int64 {
		built, _ := thesaurus.Build([]thesaurus.Concept{{ID: "1", Labels: []thesaurus.Text{{Value: "Heat",
			Language: "en"}}}}, "")
		body, err := Pack(built)
		require.NoError(t, err)
		id, err := rows.Add(t.Context(), name, built, body)
		require.NoError(t, err)
		return id
	}
	first, second, other := add("Almagre Headings"), add("almagre headings"), add("Surco Thesaurus")
	now, err := rows.One(t.Context(), second)
	require.NoError(t, err)
	assert.Equal(t, &first, now.Earlier)
	was, err := rows.One(t.Context(), first)
	require.NoError(t, err)
	assert.Equal(t, &second, was.Later)
	read, err := rows.Thesaurus(t.Context(), second)
	require.NoError(t, err)
	assert.Equal(t, 1, read.Len())

	review := storetest.Review(t, s)
	_, err = s.Write.Exec(t.Context(), "update document set body = jsonb_build_object('vocabulary', $2::bigint) "+
		"where review = $1",
		review, second)
	require.NoError(t, err)
	require.ErrorIs(t, rows.Delete(t.Context(), second), store.ErrInUse)
	require.NoError(t, rows.Delete(t.Context(), other))
	require.ErrorIs(t, rows.Delete(t.Context(), other), store.ErrNone)
}

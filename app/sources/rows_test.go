package sources

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/store/storetest"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

func TestTheLastCountOfAQueryIsKept(t *testing.T) {
	s := storetest.Open(t)
	rows := NewRows(s)
	var source int64
	require.NoError(t, s.Write.QueryRow(t.Context(), `insert into source (name, address, version, vocabulary, map, described)
		values ('Almagre', 'http://almagre.example', '', '', '{}', '{}') returning id`).Scan(&source))
	for _, n := range []int{7, 9} {
		require.NoError(t, rows.PutCount(t.Context(), source, "heat", n, []byte(`{}`)))
	}
	counts, err := rows.Counts(t.Context(), source, []string{"heat", "shade"})
	require.NoError(t, err)
	require.Len(t, counts, 1, "what was never counted is not there")
	assert.Equal(t, 9, counts["heat"].Records)
	assert.True(t, counts["heat"].Today)
	require.NoError(t, rows.ForgetCounts(t.Context(), source, []string{"heat"}))
	counts, err = rows.Counts(t.Context(), source, []string{"heat"})
	require.NoError(t, err)
	assert.Empty(t, counts)
}

package dialects

import (
	"testing"

	"tamiz/store"
	"tamiz/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

func TestADialectIsKeptByItsName(t *testing.T) {
	rows := NewRows(storetest.Open(t))
	require.NoError(t, rows.PutDialect(t.Context(), Dialect{"olmo", "one"}))
	require.NoError(t, rows.PutDialect(t.Context(), Dialect{"almagre", "two"}))
	require.NoError(t, rows.PutDialect(t.Context(), Dialect{"olmo", "three"}))
	all, err := rows.Dialects(t.Context())
	require.NoError(t, err)
	assert.Equal(t, []Dialect{{"almagre", "two"}, {"olmo", "three"}}, all)
	require.NoError(t, rows.DeleteDialect(t.Context(), "olmo"))
	require.ErrorIs(t, rows.DeleteDialect(t.Context(), "olmo"), store.ErrNone)
}

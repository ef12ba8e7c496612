package figures

import (
	"testing"

	"tamiz/store"
	"tamiz/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

func TestABlockIsKeptInVersions(t *testing.T) {
	rows := NewRows(storetest.Open(t))
	for _, body := range []string{`{"name": "Heat"}`, `{"name": "Heat", "terms": []}`} {
		_, err := rows.KeepBlock(t.Context(), KeptBlockRow{Name: "Heat", Body: []byte(body), Review: "Warm work"})
		require.NoError(t, err)
	}
	require.NoError(t, rows.ForgetBlock(t.Context(), "Heat", true))
	all, err := rows.KeptBlocks(t.Context(), 10)
	require.NoError(t, err)
	require.Len(t, all, 2, "what is not offered any more stays")
	assert.Equal(t, []int{2, 1}, []int{all[0].Version, all[1].Version}, "the newest first")
	assert.True(t, all[0].Gone)
	require.ErrorIs(t, rows.ForgetBlock(t.Context(), "Heat", true), store.ErrNone)
	require.NoError(t, rows.ForgetBlock(t.Context(), "Heat", false))
}

package intake

import (
	"bytes"
	"io"
	"strings"
	"testing"

	"tamiz/app/library"
	"tamiz/core/bib"
	"tamiz/store"
	"tamiz/store/storetest"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func TestMain(m *testing.M) { storetest.Main(m) }

func TestStatementsAreThoseOfTheTables(t *testing.T) { storetest.Prepare(t, sql) }

// A file lies in the database in pieces, and is read from any place.
func TestAFileIsReadFromAnyPlace(t *testing.T) {
	s := storetest.Open(t)
	rows, review := NewRows(s), storetest.Review(t, s)
	body := make([]byte, 2*chunkSize+chunkSize/3)
	for i := range body {
		body[i] = byte(i * 7 / 3)
	}
	id, total, err := rows.Receive(t.Context(), review, "sample", "a.ris", bytes.NewReader(body))
	require.NoError(t, err)
	require.EqualValues(t, len(body), total)
	f := rows.ImportFile(t.Context(), Import{ID: id, Bytes: total})
	rapid.Check(t, func(t *rapid.T) {
		at := rapid.Int64Range(0, total).Draw(t, "at")
		n := rapid.Int64Range(0, 4096).Draw(t, "n")
		_, err := f.Seek(at, io.SeekStart)
		require.NoError(t, err)
		got, err := io.ReadAll(io.LimitReader(f, n))
		require.NoError(t, err)
		require.True(t, bytes.Equal(body[at:min(at+n, total)], got))
	})
	_, err = f.Seek(-1, io.SeekStart)
	assert.Error(t, err)
}

func TestAFileThatIsNotReadToItsEndCanBeForgotten(t *testing.T) {
	s := storetest.Open(t)
	rows, review := NewRows(s), storetest.Review(t, s)
	id, _, err := rows.Receive(t.Context(), review, "sample", "a.ris", strings.NewReader("TY  - JOUR\nER  - \n"))
	require.NoError(t, err)
	f, err := rows.File(t.Context(), Import{ID: id, Review: review})
	require.NoError(t, err)
	sample, err := f.NewSample(t.Context(), "A", "a.ris")
	require.NoError(t, err)
	require.NoError(t, f.AddToSample(t.Context(), []*bib.Record{{Title: "Heat"}}))
	dropped, err := rows.DropImport(t.Context(), id)
	require.NoError(t, err)
	assert.True(t, dropped)
	left, err := library.NewRows(s).SampleIDs(t.Context(), sample)
	require.NoError(t, err)
	assert.Empty(t, left, "with all that was filed of it")
	dropped, err = rows.DropImport(t.Context(), id)
	require.NoError(t, err)
	assert.False(t, dropped)
	_, err = rows.Import(t.Context(), id)
	require.ErrorIs(t, err, store.ErrNone)
}

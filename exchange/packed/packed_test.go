package packed

import (
	"archive/zip"
	"bytes"
	"compress/gzip"
	"io"
	"math/rand/v2"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"
)

func gzipped(t require.TestingT, body []byte) []byte {
	var b bytes.Buffer
	w := gzip.NewWriter(&b)
	_, err := w.Write(body)
	require.NoError(t, err)
	require.NoError(t, w.Close())
	return b.Bytes()
}

func zipped(t *testing.T, files ...[2]string) []byte {
	t.Helper()
	var b bytes.Buffer
	w := zip.NewWriter(&b)
	for _, f := range files {
		part, err := w.Create(f[0])
		require.NoError(t, err)
		_, err = part.Write([]byte(f[1]))
		require.NoError(t, err)
	}
	require.NoError(t, w.Close())
	return b.Bytes()
}

// Whatever is packed comes out as it went in, from any place, as often as wanted.
func TestWhatIsPackedIsReadFromAnyPlaceAgain(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		body := rapid.SliceOfN(rapid.Byte(), 0, 5000).Draw(t, "body")
		file := gzipped(t, body)
		parts, err := Open(bytes.NewReader(file))
		require.NoError(t, err)
		require.Len(t, parts, 1)
		for range 3 {
			at := rapid.IntRange(0, len(body)).Draw(t, "at")
			_, err := parts[0].File.Seek(int64(at), io.SeekStart)
			require.NoError(t, err)
			got, err := io.ReadAll(parts[0].File)
			require.NoError(t, err)
			require.True(t, bytes.Equal(body[at:], got))
		}
	})
}

func TestTheFilesOfAnArchive(t *testing.T) {
	parts, err := Open(bytes.NewReader(zipped(t, [2]string{"a/one.ris", "TY"}, [2]string{"a/", ""},
		[2]string{".hidden", "x"}, [2]string{"__MACOSX/one.ris", "x"}, [2]string{"empty.ris", ""},
		[2]string{"two.ris", "ER"})))
	require.NoError(t, err)
	require.Len(t, parts, 2, "folders, hidden and empty files are passed over")
	for i, want := range [][2]string{{"a/one.ris", "TY"}, {"two.ris", "ER"}} {
		assert.Equal(t, want[0], parts[i].Name)
		for range 2 {
			_, err := parts[i].File.Seek(0, io.SeekStart)
			require.NoError(t, err)
			got, err := io.ReadAll(parts[i].File)
			require.NoError(t, err)
			assert.Equal(t, want[1], string(got))
		}
	}
}

func TestAFileThatIsNotPackedIsItself(t *testing.T) {
	for _, body := range []string{"", "T", "TY  - JOUR\nER  - \n"} {
		parts, err := Open(bytes.NewReader([]byte(body)))
		require.NoError(t, err)
		require.Len(t, parts, 1)
		got, err := io.ReadAll(parts[0].File)
		require.NoError(t, err)
		assert.Equal(t, body, string(got), "from its beginning")
	}
}

func TestWhatIsNotReadHereIsSaid(t *testing.T) {
	for name, c := range map[string]struct {
		file []byte
		says string
	}{
		"a PDF":              {[]byte("%PDF-1.7"), "a PDF"},
		"an old spreadsheet": {[]byte{0xd0, 0xcf, 0x11, 0xe0, 0, 0, 0, 0}, "save it as CSV"},
		"a spreadsheet":      {zipped(t, [2]string{"xl/workbook.xml", "<x/>"}), "save it as CSV"},
		"nothing in it":      {zipped(t, [2]string{"a/", ""}), "empty"},
	} {
		_, err := Open(bytes.NewReader(c.file))
		require.ErrorIs(t, err, ErrOther, name)
		assert.ErrorContains(t, err, c.says, name)
	}
	_, err := Open(bytes.NewReader([]byte("PK\x03\x04 and no more")))
	assert.ErrorContains(t, err, "cannot be opened")
}

// A file that is cut off gives what came before; one that grows without measure is not read on.
func TestDamagedAndGrowingFiles(t *testing.T) {
	body := make([]byte, 100_000)
	r := rand.NewChaCha8([32]byte{1})
	_, _ = r.Read(body)
	file := gzipped(t, body)
	parts, err := Open(bytes.NewReader(file[:len(file)/2]))
	require.NoError(t, err)
	got, err := io.ReadAll(parts[0].File)
	require.NoError(t, err)
	assert.NotEmpty(t, got)
	assert.True(t, bytes.HasPrefix(body, got))

	parts, err = Open(bytes.NewReader(gzipped(t, make([]byte, largeEnough+1<<20))))
	require.NoError(t, err)
	_, err = io.Copy(io.Discard, parts[0].File)
	assert.ErrorIs(t, err, errBomb)
}

package exchange_test

import (
	"bytes"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/exchange"
)

func TestEncodingIsFoundOut(t *testing.T) {
	long := strings.Repeat("heat and rest ", 10_000) // more than is read at once
	for name, c := range map[string]struct{ file, encoding, text string }{
		"plain":                   {"heat", exchange.UTF8, "heat"},
		"empty":                   {"", exchange.UTF8, ""},
		"accents":                 {long + "Sjögren", exchange.UTF8, long + "Sjögren"},
		"byte order mark":         {"\xEF\xBB\xBFheat", exchange.UTF8, "heat"},
		"one byte is not UTF-8":   {long + "Sj\xF6gren", exchange.Windows1252, long + "Sjögren"},
		"quotes of Windows":       {"\x93heat\x94", exchange.Windows1252, "“heat”"},
		"UTF-16, small end first": {"\xFF\xFEh\x00\xE9\x00", exchange.UTF16, "hé"},
		"UTF-16, big end first":   {"\xFE\xFF\x00h\x00\xE9", exchange.UTF16, "hé"},
		"cut off in a character":  {long + "Sjögren \xE2\x80", exchange.UTF8Cut, long + "Sjögren "},
		"cut in a character":      {"heat \xE2\x80", exchange.Windows1252, "heat â€"},
	} {
		r, encoding, err := exchange.Decode(strings.NewReader(c.file))
		require.NoError(t, err, name)
		text, err := io.ReadAll(r)
		require.NoError(t, err, name)
		assert.Equal(t, c.encoding, encoding, name)
		assert.Equal(t, c.text, string(text), name)
	}
}

func TestLinesEndAnyWay(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		lines := rapid.SliceOfN(rapid.StringMatching(`[a-zß ]{0,200}`), 1, 20).Draw(t, "lines")
		var file bytes.Buffer
		for _, l := range lines {
			file.WriteString(l + rapid.SampledFrom([]string{"\n", "\r", "\r\n"}).Draw(t, "end") + "|")
		}
		var got []string
		for r := exchange.NewLines(iotest{&file}, 1000); ; {
			line, cut, err := r.Next()
			if err != nil {
				break
			}
			assert.False(t, cut)
			got = append(got, strings.TrimPrefix(string(line), "|"))
			assert.Equal(t, len(got), r.Number())
		}
		assert.Equal(t, append(lines, ""), got)
	})
}

// iotest gives a few bytes at a time, so that line ends come apart.
type iotest struct{ r io.Reader }

func (i iotest) Read(p []byte) (int, error) { return i.r.Read(p[:min(len(p), 3)]) }

func TestALongLineIsCutAndTheNextIsWhole(t *testing.T) {
	r := exchange.NewLines(strings.NewReader(strings.Repeat("x", 300_000)+"\nnext"), 100)
	line, cut, err := r.Next()
	require.NoError(t, err)
	assert.True(t, cut)
	assert.Len(t, line, 100)
	line, cut, err = r.Next()
	require.NoError(t, err)
	assert.False(t, cut)
	assert.Equal(t, "next", string(line))
	_, _, err = r.Next()
	assert.ErrorIs(t, err, io.EOF)
}

func TestControlCharactersBecomeSpaces(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		text := rapid.StringMatching(`[a-zé\t\n\r\x00-\x08\x0b\x1f\x7f–]{0,40}`).Draw(t, "text")
		want := strings.Map(func(r rune) rune {
			if r < ' ' && r != '\n' && r != '\r' && r != '\t' {
				return ' '
			}
			return r
		}, text)
		r, encoding, err := exchange.Decode(strings.NewReader("é" + text))
		require.NoError(t, err)
		require.Equal(t, exchange.UTF8, encoding)
		got, err := io.ReadAll(r)
		require.NoError(t, err)
		assert.Equal(t, "é"+want, string(got))
	})
}

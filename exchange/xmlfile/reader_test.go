package xmlfile

import (
	"encoding/xml"
	"errors"
	"io"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// decode reads <r><t>Title</t></r>.
func decode(d *xml.Decoder, start xml.StartElement) (*bib.Record, error) {
	var x struct {
		Title string `xml:"t"`
	}
	err := d.DecodeElement(&x, &start)
	return &bib.Record{Title: x.Title}, err
}

func read(t *testing.T, file string) (titles []string, notices []exchange.Notice) {
	t.Helper()
	r := NewReader(strings.NewReader(file), "r", decode, func(n exchange.Notice) { notices = append(notices, n) })
	for {
		rec, err := r.Read()
		if errors.Is(err, io.EOF) {
			return titles, notices
		}
		require.NoError(t, err)
		titles = append(titles, rec.Title)
	}
}

func kinds(notices []exchange.Notice) (out []exchange.Kind) {
	for _, n := range notices {
		out = append(out, n.Kind)
	}
	return out
}

func TestRecordsAreFoundWhateverStandsAroundThem(t *testing.T) {
	for name, file := range map[string]string{
		"in a root":          "<x><r><t>One</t></r><r><t>Two</t></r></x>",
		"deep":               "<a><b><r><t>One</t></r></b><c><r><t>Two</t></r></c></a>",
		"with a prefix":      `<x xmlns:p="urn:p"><p:r><p:t>One</p:t></p:r><p:r><p:t>Two</p:t></p:r></x>`,
		"one after another":  "<r><t>One</t></r>\n<r><t>Two</t></r>",
		"another name first": "<x><rr><t>No</t></rr><r><t>One</t></r><r><t>Two</t></r></x>",
	} {
		titles, notices := read(t, file)
		assert.Equal(t, []string{"One", "Two"}, titles, name)
		assert.Empty(t, notices, name)
	}
}

// A record that is broken costs no other, and where it was is said.
func TestABrokenRecordCostsNoOther(t *testing.T) {
	titles, notices := read(t, "<x>\n<r><t>One</t></r>\n<r><t>Bro<ken</t></r>\n<r><t>Two</t></r></x>")
	assert.Equal(t, []string{"One", "Two"}, titles)
	require.Equal(t, []exchange.Kind{exchange.Broken}, kinds(notices))
	assert.True(t, notices[0].Skipped)
	assert.Equal(t, 2, notices[0].Record)
	assert.Equal(t, 3, notices[0].Line)
}

func TestAFileThatIsCutOffGivesWhatItHolds(t *testing.T) {
	titles, notices := read(t, "<x><r><t>One</t></r><r><t>Tw")
	assert.Equal(t, "One", titles[0])
	assert.Equal(t, []exchange.Kind{exchange.CutOff}, kinds(notices))
	titles, notices = read(t, "<x><r><t>One</t></r>")
	assert.Equal(t, []string{"One"}, titles)
	assert.Equal(t, []exchange.Kind{exchange.NoClose}, kinds(notices))
}

// Entities that a file declares for itself are not expanded, and no DTD is followed.
func TestNoEntityOfAFilesOwnIsExpanded(t *testing.T) {
	titles, notices := read(t, `<!DOCTYPE x [<!ENTITY big "aaaaaaaaaa">]><x><r><t>&big;</t></r><r><t>Caf&eacute;</t></r></x>`)
	assert.Equal(t, []string{"Café"}, titles)
	assert.Equal(t, []exchange.Kind{exchange.DTD, exchange.Broken}, kinds(notices))
}

func TestARecordThatIsTooLargeIsPassedOver(t *testing.T) {
	titles, notices := read(t, "<x><r><t>"+strings.Repeat("a ", maxRecord/2+10)+"</t></r><r><t>Two</t></r></x>")
	assert.Equal(t, []string{"Two"}, titles)
	assert.Equal(t, []exchange.Kind{exchange.TooLarge}, kinds(notices))
}

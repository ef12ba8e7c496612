package document_test

import (
	"archive/zip"
	"bytes"
	"encoding/xml"
	"io"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/exchange/document"
)

var made = time.Date(2031, 5, 6, 7, 8, 9, 0, time.UTC)

// opened unpacks a DOCX, and reads each of its parts as XML.
func opened(t require.TestingT, body []byte) map[string]string {
	z, err := zip.NewReader(bytes.NewReader(body), int64(len(body)))
	require.NoError(t, err)
	parts := map[string]string{}
	for _, f := range z.File {
		r, err := f.Open()
		require.NoError(t, err)
		b, err := io.ReadAll(r)
		require.NoError(t, err)
		parts[f.Name] = string(b)
		for d := xml.NewDecoder(bytes.NewReader(b)); ; {
			if _, err = d.Token(); err == io.EOF {
				break
			}
			require.NoError(t, err, f.Name)
		}
	}
	return parts
}

// texts returns what is said in each paragraph, a break of a line as a newline.
func texts(t require.TestingT, part string) (out []string) {
	d := xml.NewDecoder(strings.NewReader(part))
	for inText := false; ; {
		token, err := d.Token()
		if err == io.EOF {
			return out
		}
		require.NoError(t, err)
		switch e := token.(type) {
		case xml.StartElement:
			switch e.Name.Local {
			case "p":
				out = append(out, "")
			case "t":
				inText = true
			case "br":
				out[len(out)-1] += "\n"
			}
		case xml.EndElement:
			inText = inText && e.Name.Local != "t"
		case xml.CharData:
			if inText {
				out[len(out)-1] += string(e)
			}
		}
	}
}

func TestADOCXHasHeadingsListsAndTablesWhoseHeadIsRepeated(t *testing.T) {
	body, err := example().DOCX(made)
	require.NoError(t, err)
	parts := opened(t, body)
	for _, name := range []string{"[Content_Types].xml", "_rels/.rels", "word/_rels/document.xml.rels",
		"word/styles.xml", "word/numbering.xml"} {
		assert.Contains(t, parts, name)
		for _, target := range []string{"word/document.xml", "docProps/core.xml"} {
			if name == "[Content_Types].xml" || name == "_rels/.rels" {
				assert.Contains(t, parts[name], target)
			}
		}
	}
	assert.Contains(t, parts["docProps/core.xml"], "<dc:title>Heat &amp; kidneys</dc:title>")
	assert.Contains(t, parts["docProps/core.xml"], "2031-05-06T07:08:09Z")
	main := parts["word/document.xml"]
	assert.Equal(t, 2, strings.Count(main, `w:val="Heading1"`))
	assert.Equal(t, 2, strings.Count(main, `w:val="Heading2"`), "of the lines and of the table")
	assert.Equal(t, 2, strings.Count(main, `w:val="ListBullet"`))
	assert.Equal(t, 2, strings.Count(main, `w:val="Typed"`), "one for each line")
	assert.Equal(t, 1, strings.Count(main, "<w:tblHeader/>"))
	assert.Equal(t, 3, strings.Count(main, "<w:tr>"))
	assert.Equal(t, 3, strings.Count(main, `<w:jc w:val="right"/>`), "the column of figures, with its head")
	assert.Equal(
		t,
		[]string{
			"Heat & kidneys",
			"Lines",
			"Searched on *2 March*",
			"one",
			"two | three",
			"As typed",
			"farm* AND ```",
			"heat",
			"Counts",
			"Line",
			"Records",
			"farm* <b>",
			"1,204",
			"a\nb",
			"3",
			"",
			"Two could not be asked.",
			"References",
			"None were followed.",
		},
		texts(t, main),
	)
	for _, style := range []string{"Title", "Heading1", "Heading2", "ListBullet", "Typed", "Note", "Cell"} {
		assert.Contains(t, parts["word/styles.xml"], `w:styleId="`+style+`"`)
	}
	again, err := example().DOCX(made)
	require.NoError(t, err)
	assert.Equal(t, body, again, "the same document is the same file")
}

func TestWhateverADocumentSaysItsDOCXSaysToo(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		cell := rapid.StringMatching(`[a-zA-Zé<>&"' \t\n]{0,40}`)
		columns := rapid.IntRange(1, 6).Draw(t, "columns")
		row := rapid.SliceOfN(cell, columns, columns)
		head, rows := row.Draw(t, "head"), rapid.SliceOfN(row, 0, 5).Draw(t, "rows")
		for i, h := range head {
			head[i] = "x" + h // one that begins with > holds figures
		}
		said := cell.Draw(t, "said")
		s := document.Section{Title: "One"}
		s.Add(document.Part{Text: "t" + said}, document.Rows("", head, rows))
		body, err := document.Document{Title: said, Sections: []document.Section{s}}.DOCX(made)
		require.NoError(t, err)
		want := []string{said, "One", "t" + said}
		want = append(want, head...)
		for _, r := range rows {
			want = append(want, r...)
		}
		main := opened(t, body)["word/document.xml"]
		assert.Equal(t, append(want, ""), texts(t, main), "the last is behind the table")
		width := 0
		for _, part := range strings.Split(main, "<w:gridCol w:w=\"")[1:] {
			n := 0
			for _, c := range part[:strings.IndexByte(part, '"')] {
				n = n*10 + int(c-'0')
			}
			assert.Positive(t, n)
			width += n
		}
		assert.Equal(t, 9638, width, "as wide as the text")
	})
}

func TestWhatXMLCannotSayIsNoBrokenFile(t *testing.T) {
	body, err := document.Document{Title: "a\x00b\x1bc\xffd"}.DOCX(made)
	require.NoError(t, err)
	assert.Equal(t, []string{"a\uFFFDb\uFFFDc\uFFFDd"}, texts(t, opened(t, body)["word/document.xml"]))
}

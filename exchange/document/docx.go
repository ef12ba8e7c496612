package document

import (
	"archive/zip"
	"bytes"
	"embed"
	"encoding/xml"
	"fmt"
	"strings"
	"time"
	"unicode/utf8"
)

// The parts of a DOCX that are the same for every document: what it is made of, styles, the sign before what is listed.
//
//go:embed docx
var docxParts embed.FS

var docxFiles = []struct{ name, from string }{
	{
		"[Content_Types].xml",
		"content_types.xml",
	}, {"_rels/.rels", "rels.xml"}, {"word/_rels/document.xml.rels", "document_rels.xml"},
	{"word/styles.xml", "styles.xml"}, {"word/numbering.xml", "numbering.xml"},
}

// The page is A4 with margins of 2 cm; lengths are twentieths of a point (ISO/IEC 29500-1, 17.18.105).
const (
	pageWidth, pageHeight, pageMargin = 11906, 16838, 1134
	textWidth                         = pageWidth - 2*pageMargin
)

// DOCX returns a document as Office Open XML (ISO/IEC 29500): headings that a table of contents can be made of, tables
// whose head is repeated on each page. made is when it was. A character that XML has not becomes U+FFFD.
func (d Document) DOCX(made time.Time) ([]byte, error) {
	var out bytes.Buffer
	z := zip.NewWriter(&out)
	put := func(name string, body []byte) error {
		w, err := z.CreateHeader(&zip.FileHeader{Name: name, Method: zip.Deflate, Modified: made})
		if err == nil {
			_, err = w.Write(body)
		}
		return err
	}
	for _, f := range docxFiles {
		body, err := docxParts.ReadFile("docx/" + f.from)
		if err != nil {
			return nil, err
		}
		if err := put(f.name, body); err != nil {
			return nil, err
		}
	}
	var core, body docx
	core.raw(
		`<cp:coreProperties xmlns:cp="http://schemas.openxmlformats.org/package/2006/metadata/core-properties" xmlns:dc="http://purl.org/dc/elements/1.1/" xmlns:dcterms="http://purl.org/dc/terms/" xmlns:xsi="http://www.w3.org/2001/XMLSchema-instance"><dc:title>`,
	)
	core.text(d.Title)
	core.raw(
		`</dc:title><dc:creator>Tamiz</dc:creator><dcterms:created xsi:type="dcterms:W3CDTF">%s</dcterms:created></cp:coreProperties>`,
		made.UTC().Format(time.RFC3339),
	)
	if err := put("docProps/core.xml", core.file()); err != nil {
		return nil, err
	}
	body.document(d)
	if err := put("word/document.xml", body.file()); err != nil {
		return nil, err
	}
	err := z.Close()
	return out.Bytes(), err
}

// A docx is a part being written.
type docx struct{ bytes.Buffer }

func (w *docx) file() []byte { return append([]byte(xml.Header), w.Bytes()...) }

func (w *docx) raw(format string, args ...any) { fmt.Fprintf(w, format, args...) }

func (w *docx) text(s string) { _ = xml.EscapeText(w, []byte(s)) } // a buffer takes all

func (w *docx) document(d Document) {
	w.raw(`<w:document xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"><w:body>`)
	w.paragraph("Title", d.Title)
	if d.Under != "" {
		w.paragraph("", d.Under)
	}
	for _, s := range d.Sections {
		w.paragraph("Heading1", s.Title)
		if len(s.Parts) == 0 && s.Empty != "" {
			w.paragraph("Note", s.Empty)
		}
		for _, p := range s.Parts {
			w.part(p)
		}
	}
	w.raw(
		`<w:sectPr><w:pgSz w:w="%d" w:h="%d"/><w:pgMar w:top="%[3]d" w:right="%[3]d" w:bottom="%[3]d" w:left="%[3]d" w:header="600" w:footer="600" w:gutter="0"/></w:sectPr></w:body></w:document>`,
		pageWidth,
		pageHeight,
		pageMargin,
	)
}

func (w *docx) part(p Part) {
	if p.Title != "" {
		w.paragraph("Heading2", p.Title)
	}
	if p.Text != "" {
		style := ""
		if p.Note {
			style = "Note"
		}
		w.paragraph(style, p.Text)
	}
	for _, i := range p.Items {
		w.paragraph("ListBullet", i)
	}
	if p.Code != "" {
		for _, line := range lines(p.Code) {
			w.paragraph("Typed", line)
		}
	}
	if p.Table != nil {
		w.table(p.Table)
	}
}

// paragraph writes one; lines of a text are broken where it breaks them.
func (w *docx) paragraph(style, text string) {
	w.raw(`<w:p>`)
	if style != "" {
		w.raw(`<w:pPr><w:pStyle w:val="%s"/></w:pPr>`, style)
	}
	w.run(text, false)
	w.raw(`</w:p>`)
}

func (w *docx) run(text string, bold bool) {
	w.raw(`<w:r>`)
	if bold {
		w.raw(`<w:rPr><w:b/></w:rPr>`)
	}
	for i, line := range lines(text) {
		if i > 0 {
			w.raw(`<w:br/>`)
		}
		w.raw(`<w:t xml:space="preserve">`)
		w.text(line)
		w.raw(`</w:t>`)
	}
	w.raw(`</w:r>`)
}

func lines(s string) []string {
	return strings.Split(strings.NewReplacer("\r\n", "\n", "\r", "\n").Replace(s), "\n")
}

// table writes a table as wide as the text, with hairlines under its rows. A table needs a paragraph behind it.
func (w *docx) table(t *Table) {
	widths := t.widths()
	w.raw(`<w:tbl><w:tblPr><w:tblW w:w="%d" w:type="dxa"/><w:tblLayout w:type="fixed"/></w:tblPr><w:tblGrid>`, textWidth)
	for _, width := range widths {
		w.raw(`<w:gridCol w:w="%d"/>`, width)
	}
	w.raw(`</w:tblGrid>`)
	row := func(cells []string, head bool) {
		w.raw(`<w:tr><w:trPr><w:cantSplit/>`)
		if head {
			w.raw(`<w:tblHeader/>`)
		}
		w.raw(`</w:trPr>`)
		for i, width := range widths {
			w.raw(
				`<w:tc><w:tcPr><w:tcW w:w="%d" w:type="dxa"/><w:tcBorders><w:bottom w:val="single" w:sz="4" w:space="0" w:color="BBB3A2"/></w:tcBorders></w:tcPr><w:p><w:pPr><w:pStyle w:val="Cell"/>`,
				width,
			)
			if i < len(t.Right) && t.Right[i] {
				w.raw(`<w:jc w:val="right"/>`)
			}
			w.raw(`</w:pPr>`)
			if i < len(cells) {
				w.run(cells[i], head)
			}
			w.raw(`</w:p></w:tc>`)
		}
		w.raw(`</w:tr>`)
	}
	row(t.Head, true)
	for _, r := range t.Rows {
		row(r, false)
	}
	w.raw(`</w:tbl><w:p/>`)
}

// widths parts the width of the text by how long what stands in each column is, so that a column of figures does
// not take as much as one of sentences; none is narrower than its share of a third.
func (t *Table) widths() []int {
	columns := len(t.Head)
	if columns == 0 {
		return nil
	}
	wants, all := make([]int, columns), 0
	for i, h := range t.Head {
		wants[i] = utf8.RuneCountInString(h)
		for _, r := range t.Rows {
			if i < len(r) {
				wants[i] = max(wants[i], min(utf8.RuneCountInString(r[i]), longestCell))
			}
		}
		wants[i] += 2
		all += wants[i]
	}
	least := textWidth / columns / 3
	out, left := make([]int, columns), textWidth
	for i := range out {
		out[i] = least + (textWidth-least*columns)*wants[i]/all
		left -= out[i]
	}
	out[columns-1] += left // what rounding left
	return out
}

// longestCell is beyond how many characters a cell wants no more room: it is broken into lines.
const longestCell = 60

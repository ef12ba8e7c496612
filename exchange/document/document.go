// Package document writes what is to be read by people as Markdown (CommonMark with tables) and as a page of HTML that
// prints well. A document is data: sections of paragraphs, lists, tables and lines that are copied as they stand.
package document

import (
	"bytes"
	_ "embed"
	"fmt"
	"html/template"
	"strings"
)

// A Document is a title and its sections.
type Document struct {
	Title    string    `json:"title"`
	Under    string    `json:"under,omitempty"` // said under the title
	Sections []Section `json:"sections"`
}

// A Section has a heading and parts; one without parts says that there is nothing, and why.
type Section struct {
	ID    string `json:"id"`
	Title string `json:"title"`
	Empty string `json:"empty,omitempty"` // said where it has no parts
	Parts []Part `json:"parts"`
}

// Add puts parts into a section.
func (s *Section) Add(parts ...Part) { s.Parts = append(s.Parts, parts...) }

// A Part is a paragraph, a list, a table, or lines as they are typed: whichever is there.
type Part struct {
	Text  string   `json:"text,omitempty"`
	Items []string `json:"items,omitempty"`
	Code  string   `json:"code,omitempty"`
	Table *Table   `json:"table,omitempty"`
	Title string   `json:"title,omitempty"` // of a table or of lines
	Note  bool     `json:"note,omitempty"`  // of a paragraph: it says what a figure leaves out
}

// A Table has a head and rows as long; Right tells columns of figures.
type Table struct {
	Head  []string   `json:"head"`
	Right []bool     `json:"right"`
	Rows  [][]string `json:"rows"`
}

// Text makes a paragraph.
func Text(format string, args ...any) Part { return Part{Text: fmt.Sprintf(format, args...)} }

// Note makes a paragraph that says what a figure leaves out.
func Note(format string, args ...any) Part {
	return Part{Text: fmt.Sprintf(format, args...), Note: true}
}

// Rows makes a table. A column of the head that begins with > holds figures.
func Rows(title string, head []string, rows [][]string) Part {
	t := &Table{Rows: rows}
	for _, h := range head {
		name, right := strings.CutPrefix(h, ">")
		t.Head, t.Right = append(t.Head, name), append(t.Right, right)
	}
	return Part{Title: title, Table: t}
}

// Markdown returns a document as CommonMark; tables are those of the GitHub extension, which most readers know.
// Whatever a text says, it is text: characters that would be marks are escaped.
func (d Document) Markdown() []byte {
	var b bytes.Buffer
	fmt.Fprintf(&b, "# %s\n\n", plain(d.Title))
	if d.Under != "" {
		fmt.Fprintf(&b, "%s\n\n", plain(d.Under))
	}
	for _, s := range d.Sections {
		fmt.Fprintf(&b, "## %s\n\n", plain(s.Title))
		if len(s.Parts) == 0 && s.Empty != "" {
			fmt.Fprintf(&b, "%s\n\n", plain(s.Empty))
		}
		for _, p := range s.Parts {
			p.markdown(&b)
		}
	}
	return bytes.TrimRight(b.Bytes(), "\n")
}

func (p Part) markdown(b *bytes.Buffer) {
	if p.Title != "" {
		fmt.Fprintf(b, "**%s**\n\n", plain(p.Title))
	}
	if p.Text != "" {
		fmt.Fprintf(b, "%s\n\n", plain(p.Text))
	}
	for _, i := range p.Items {
		fmt.Fprintf(b, "- %s\n", plain(i))
	}
	if len(p.Items) > 0 {
		b.WriteString("\n")
	}
	if p.Code != "" {
		fence := "```"
		for strings.Contains(p.Code, fence) {
			fence += "`"
		}
		fmt.Fprintf(b, "%s\n%s\n%s\n\n", fence, p.Code, fence)
	}
	if p.Table != nil {
		row := func(cells []string) {
			for _, c := range cells {
				fmt.Fprintf(b, "| %s ", plain(c))
			}
			b.WriteString("|\n")
		}
		row(p.Table.Head)
		for _, right := range p.Table.Right {
			if right {
				b.WriteString("| ---: ")
			} else {
				b.WriteString("| --- ")
			}
		}
		b.WriteString("|\n")
		for _, r := range p.Table.Rows {
			row(r)
		}
		b.WriteString("\n")
	}
}

var escaped = strings.NewReplacer(
	"\\",
	`\\`,
	"`",
	"\\`",
	"*",
	`\*`,
	"_",
	`\_`,
	"[",
	`\[`,
	"]",
	`\]`,
	"<",
	`\<`,
	">",
	`\>`,
	"|",
	`\|`,
	"#",
	`\#`,
	"~",
	`\~`,
	"\r\n",
	" ",
	"\n",
	" ",
	"\r",
	" ",
)

// plain returns text as Markdown that says just that.
func plain(s string) string { return escaped.Replace(s) }

//go:embed page.html
var page string

var pageTemplate = template.Must(template.New("page").Funcs(template.FuncMap{"long": long}).Parse(page))

// long reports whether a text has a word that may be broken anywhere, since it would push the rest of its table aside.
func long(s string) bool {
	for _, w := range strings.Fields(s) {
		if len(w) > 24 {
			return true
		}
	}
	return false
}

// HTML returns a document as one page that needs nothing beside it.
func (d Document) HTML() ([]byte, error) {
	var b bytes.Buffer
	err := pageTemplate.Execute(&b, d)
	return b.Bytes(), err
}

package exchange

import (
	"html"
	"io"
	"strings"

	xhtml "golang.org/x/net/html"
)

// The elements of HTML and JATS that stand in titles and abstracts. Anything else that looks like one, as
// in "p<x and y>z", is text.
var markup = func() map[string]bool {
	set := map[string]bool{}
	for _, name := range strings.Fields("i b em strong sub sup u s small big span div p br tt font italic bold underline sc scp inf " +
		"abstract sec title list list-item label ext-link inline-formula tex-math math mml xref ul ol li h1 h2 h3 h4 h5 h6 a strike overline roman sans-serif monospace named-content styled-content") {
		set[name] = true
	}
	return set
}()

// blocks are the elements that part text from text.
var blocks = func() map[string]bool {
	set := map[string]bool{}
	for _, name := range strings.Fields("p br div sec title list list-item ul ol li h1 h2 h3 h4 h5 h6 abstract label") {
		set[name] = true
	}
	return set
}()

// Plain returns a title, abstract or keyword without the tags of HTML and JATS and with its entities as
// characters. The title of a section of an abstract becomes a label before it: "Methods: ".
func Plain(s string) string {
	if !strings.ContainsAny(s, "<&") {
		return s
	}
	var b strings.Builder
	title := 0 // where the title of a section began
	inTitle := false
	any := false
	z := xhtml.NewTokenizer(strings.NewReader(s))
	z.SetMaxBuf(0)
	for {
		kind := z.Next()
		if kind == xhtml.ErrorToken {
			if z.Err() == io.EOF && any {
				return Flat(b.String())
			}
			return s
		}
		raw := string(z.Raw())
		switch kind {
		case xhtml.TextToken:
			// Text is taken from the raw bytes: within some elements the tokeniser would leave entities alone.
			if t := html.UnescapeString(raw); t != raw {
				any = true
				b.WriteString(t)
			} else {
				b.WriteString(raw)
			}
		case xhtml.StartTagToken, xhtml.EndTagToken, xhtml.SelfClosingTagToken:
			name := elementName(raw)
			if !markup[name] || !strings.HasSuffix(raw, ">") {
				b.WriteString(raw)
				continue
			}
			any = true
			if inTitle && kind == xhtml.EndTagToken && (name == "title" || name == "label") {
				inTitle = false
				if label := strings.TrimSpace(b.String()[title:]); label != "" && !strings.HasSuffix(label, ":") && !strings.HasSuffix(label, ".") {
					b.WriteByte(':')
				}
			}
			if blocks[name] {
				b.WriteByte(' ')
			}
			if kind == xhtml.StartTagToken && (name == "title" || name == "label") {
				inTitle, title = true, b.Len()
			}
		case xhtml.CommentToken, xhtml.DoctypeToken:
			if strings.HasPrefix(raw, "<!--") && strings.HasSuffix(raw, "-->") {
				any = true
				continue
			}
			b.WriteString(raw)
		}
	}
}

// elementName returns the name of a tag without the prefix of its namespace, in lower case.
func elementName(raw string) string {
	s := strings.TrimLeft(raw, "</")
	if end := strings.IndexAny(s, " \t\r\n/>"); end >= 0 {
		s = s[:end]
	}
	if _, local, ok := strings.Cut(s, ":"); ok {
		s = local
	}
	return strings.ToLower(s)
}

// Guarded writes a text so that Plain gives it again, whatever stands in it.
func Guarded(s string) string {
	if Plain(s) == s {
		return s
	}
	return html.EscapeString(s)
}

package exchange

import (
	"html"
	"regexp"
	"strings"

	"tamiz/core/bib"
)

// The tags of HTML and JATS that stand in titles and abstracts, with or without the prefix of a namespace.
// Anything else that looks like one, as in "p<x and y>z", is text.
var (
	inline = "i|b|em|strong|sub|sup|u|s|small|big|span|tt|font|italic|bold|underline|strike|overline|roman|sc|inf|sans-serif|monospace|" +
		"ext-link|inline-formula|tex-math|math|xref|a|named-content|styled-content"
	parting = "p|br|div|sec|title|list|list-item|ul|ol|li|h[1-6]|abstract|label"
	markup  = regexp.MustCompile(`(?i)<!--.*?-->|<(/?)(?:[a-z]+:)?(?:(` + parting + `)|` + inline + `)(?:\s+[\w:.-]+\s*=\s*(?:"[^"<>]*"|'[^'<>]*'|[^\s"'<>]+))*\s*/?>`)
)

// Plain returns a title, abstract or keyword without the tags of HTML and JATS and with its entities as
// characters. The title of a section of an abstract becomes a label before it: "Methods: ".
func Plain(s string) string {
	if strings.IndexByte(s, '<') < 0 && strings.IndexByte(s, '&') < 0 {
		return s
	}
	var tags [][]int
	if strings.Contains(s, "<") {
		tags = markup.FindAllStringSubmatchIndex(s, -1)
	}
	if len(tags) == 0 {
		return html.UnescapeString(s)
	}
	var b strings.Builder
	at, title := 0, -1 // where the title of a section began
	for _, m := range tags {
		b.WriteString(html.UnescapeString(s[at:m[0]]))
		at = m[1]
		if m[4] < 0 { // within a line, or a comment
			continue
		}
		name := strings.ToLower(s[m[4]:m[5]])
		label := name == "title" || name == "label"
		ends := m[2] < m[3]
		if label && ends && title >= 0 {
			if t := strings.TrimSpace(b.String()[title:]); t != "" && !strings.HasSuffix(t, ":") && !strings.HasSuffix(t, ".") {
				b.WriteByte(':')
			}
			title = -1
		}
		b.WriteByte(' ')
		if label && !ends {
			title = b.Len()
		}
	}
	b.WriteString(html.UnescapeString(s[at:]))
	return bib.Flat(b.String())
}

// Guarded writes a text so that Plain gives it again, whatever stands in it.
func Guarded(s string) string {
	if Plain(s) == s {
		return s
	}
	return html.EscapeString(s)
}

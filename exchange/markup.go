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
	inline = "i|b|em|strong|sub|sup|u|s|small|big|span|tt|font|italic|bold|underline|strike|overline|roman|sc|inf|" +
		"sans-serif|monospace|" +
		"ext-link|inline-formula|tex-math|math|xref|a|named-content|styled-content"
	parting = "p|br|div|sec|title|list|list-item|ul|ol|li|h[1-6]|abstract|label"
	markup  = regexp.MustCompile(
		`(?i)<!--.*?-->|<(/?)(?:[a-z]+:)?(?:(` + parting + `)|` + inline +
			`)(?:\s+[\w:.-]+\s*=\s*(?:"[^"<>]*"|'[^'<>]*'|[^\s"'<>]+))*\s*/?>`,
	)
)

// What programs and styles of a page say is no text.
var unread = regexp.MustCompile(`(?is)<script\b[^<>]*>.*?</script\s*>|<style\b[^<>]*>.*?</style\s*>`)

// entities are what stands for one character, or for some: of those with a name only the known ones do.
var entities = regexp.MustCompile(`&(?:#[0-9]{1,7}|#[xX][0-9a-fA-F]{1,6}|[A-Za-z][A-Za-z0-9]{1,31});`)

// Decoded returns a text with its entities as characters. What is none, as in AT&T or &nothing;, stays as written.
func Decoded(s string) string {
	if strings.IndexByte(s, '&') < 0 {
		return s
	}
	return entities.ReplaceAllStringFunc(s, character)
}

// character returns what an entity stands for; one that nobody knows stands for itself, whatever its name begins with.
func character(e string) string {
	c := html.UnescapeString(e)
	if strings.HasSuffix(c, ";") && c != ";" {
		return e
	}
	return c
}

// Plain returns a value without the tags of HTML and JATS, written as they are or escaped, and with its entities as
// characters. The title of a section of an abstract becomes a label before it: "Methods: ".
func Plain(s string) string {
	if strings.IndexByte(s, '<') < 0 && strings.IndexByte(s, '&') < 0 {
		return s
	}
	raw := s
	// Escaped markup is markup. Entities are read once: of &amp;lt; the text is &lt;.
	s = entities.ReplaceAllStringFunc(s, func(e string) string {
		switch strings.ToLower(e) {
		case "&lt;":
			return "<"
		case "&gt;":
			return ">"
		}
		return e
	})
	if strings.Contains(s, "<") {
		s = unread.ReplaceAllString(s, " ")
	}
	var tags [][]int
	if strings.Contains(s, "<") {
		tags = markup.FindAllStringSubmatchIndex(s, -1)
	}
	if len(tags) == 0 {
		if s = Decoded(s); s != raw {
			s = bib.Flat(s)
		}
		return s
	}
	var b strings.Builder
	at, title := 0, -1 // where the title of a section began
	for _, m := range tags {
		b.WriteString(Decoded(s[at:m[0]]))
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
	b.WriteString(Decoded(s[at:]))
	return bib.Flat(b.String())
}

// guards stand for the characters that markup and entities are made of, so that they are read as text.
var guards = strings.NewReplacer("&", "&#38;", "<", "&#60;", ">", "&#62;")

// Guarded writes a text so that Plain gives it again, whatever stands in it.
func Guarded(s string) string {
	if Plain(s) == s {
		return s
	}
	return guards.Replace(s)
}

// Tidy passes all texts of a record through f, which is Plain or Guarded: each once.
func Tidy(r *bib.Record, f func(string) string) {
	for _, s := range []*string{&r.Title, &r.Abstract, &r.Journal} {
		*s = f(*s)
	}
	for _, list := range [][]string{r.Keywords, r.Types, r.Languages, r.Countries, r.Substances} {
		for i := range list {
			list[i] = f(list[i])
		}
	}
	for i := range r.Headings {
		h := &r.Headings[i]
		h.Label = f(h.Label)
		for k := range h.Qualifiers {
			h.Qualifiers[k] = f(h.Qualifiers[k])
		}
	}
	for i := range r.Authors {
		r.Authors[i] = tidyPerson(r.Authors[i], f)
	}
	for i := range r.Others {
		r.Others[i].Title, r.Others[i].Abstract = f(r.Others[i].Title), f(r.Others[i].Abstract)
	}
}

func tidyPerson(p bib.Person, f func(string) string) bib.Person {
	line := p.Line()
	if f(line) == line {
		return p
	}
	return bib.Person{Family: f(p.Family), Given: f(p.Given), Written: f(p.Written)}
}

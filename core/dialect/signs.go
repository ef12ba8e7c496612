package dialect

import (
	"fmt"
	"slices"
	"strings"
)

// checkSigns works out which characters end a word that stands without marks, and what else the reader looks out
// for. It refuses a sign that is two things at once.
func (d *Dialect) checkSigns(m *templates) error {
	m.joiners = m.operatorWords()
	m.delims = m.delimiters(d)
	m.begins = m.beginnings(d)
	m.modifying = m.modifiers()
	m.relating = m.relations()
	m.stops = m.endings()
	for _, t := range slices.Concat(m.all, m.headings) {
		if t.parts[0].slot == "" {
			m.begun = append(m.begun, t)
		}
	}
	m.nearBy, m.written = map[rune][]template{}, map[string]template{}
	for _, t := range m.near {
		m.nearBy[t.first()] = append(m.nearBy[t.first()], t)
		m.written[t.text] = t
	}
	for _, w := range d.After {
		m.after = append(m.after, folded(w))
	}
	for _, c := range d.Comments {
		if !isSign(c[0]) || !isSign(c[1]) && c[1] != "\n" {
			return fmt.Errorf("a comment begins and ends with signs, or ends with its line, not %q and %q", c[0], c[1])
		}
		m.comments = append(m.comments, [2][]rune{folded(c[0]), folded(c[1])})
	}
	return m.unambiguous()
}

// operatorWords returns the words of all operators, the longest first.
func (m *templates) operatorWords() (out []operatorWord) {
	for _, op := range []string{opAnd, opOr, opNot} {
		for _, w := range m.words[op] {
			out = append(out, operatorWord{op, w})
		}
	}
	slices.SortStableFunc(out, func(a, b operatorWord) int { return len(b.word) - len(a.word) })
	return out
}

// literals calls visit with all text that stands in templates, and which part of its template it is.
func (m *templates) literals(of [][]template, visit func(t template, i int, literal []rune)) {
	for _, ts := range of {
		for _, t := range ts {
			for i, p := range t.parts {
				if p.slot == "" {
					visit(t, i, p.literal)
				}
			}
		}
	}
}

// whole are the templates of all that stands by itself in a query.
func (m *templates) whole() [][]template {
	return [][]template{m.clauses, m.all, m.headings, m.near, m.lines}
}

// delimiters returns the characters that end a word.
func (m *templates) delimiters(d *Dialect) map[rune]bool {
	out := map[rune]bool{}
	put := func(s []rune) {
		for _, r := range s {
			if !isWord(r) && !isBlank(r) && r != '-' && r != '\'' && r != '.' {
				out[r] = true
			}
		}
	}
	put(m.open)
	put(m.shut)
	for _, mark := range m.marks {
		put(mark[0])
		put(mark[1])
	}
	put(folded(d.Several))
	m.literals(m.whole(), func(t template, _ int, literal []rune) {
		if d.Lines != nil || !strings.HasPrefix(t.op, "lines") {
			put(literal)
		}
	})
	for _, of := range m.mods {
		for _, t := range of {
			put(t.parts[0].literal)
		}
	}
	for _, w := range m.joiners {
		put(w.word)
	}
	return out
}

// beginnings returns the words with which a name, an operator or a template begins.
func (m *templates) beginnings(d *Dialect) map[string]bool {
	out := map[string]bool{}
	m.literals(m.whole(), func(_ template, i int, literal []rune) {
		if first, _, _ := strings.Cut(string(literal), " "); i == 0 && first != "" {
			out[first] = true
		}
	})
	for _, w := range m.joiners {
		first, _, _ := strings.Cut(string(w.word), " ")
		out[string(folded(first))] = true
	}
	for _, all := range m.names {
		for _, n := range all {
			out[string(n.name)] = true
		}
	}
	return out
}

// modifiers returns the characters with which a modifier of a heading begins.
func (m *templates) modifiers() map[rune]bool {
	out := map[rune]bool{}
	for _, of := range m.mods {
		for _, t := range of {
			if len(t.parts[0].literal) > 0 {
				out[t.parts[0].literal[0]] = true
			}
		}
	}
	return out
}

// relations returns what stands between a name and its term, each once.
func (m *templates) relations() (out [][]rune) {
	m.literals([][]template{m.clauses, m.all, m.headings}, func(t template, i int, literal []rune) {
		if i != 1 || t.parts[0].slot != "name" || strings.TrimSpace(string(literal)) == "" {
			return
		}
		if !slices.ContainsFunc(out, func(r []rune) bool { return slices.Equal(r, literal) }) {
			out = append(out, literal)
		}
	})
	return out
}

// endings returns what may end a label that stands without marks.
func (m *templates) endings() (out [][]rune) {
	put := func(literal []rune) {
		if s := strings.TrimSpace(string(literal)); s != "" && !isWord([]rune(s)[0]) {
			out = append(out, []rune(s)[:1])
		}
	}
	m.literals([][]template{m.clauses, m.headings, m.mods["qualifier"]}, func(_ template, i int, literal []rune) {
		if i > 0 {
			put(literal)
		}
	})
	for _, of := range m.mods {
		for _, t := range of {
			put(t.parts[0].literal)
		}
	}
	return out
}

// unambiguous refuses a sign inside words that is something else as well.
func (m *templates) unambiguous() error {
	for _, sign := range slices.Concat(m.many, m.one) {
		for _, r := range sign {
			if m.delims[r] || r == m.escape {
				return fmt.Errorf(
					"its reader would be ambiguous: %q is a sign inside words and something else", string(sign))
			}
		}
	}
	for _, a := range m.many {
		for _, b := range m.one {
			if string(a) == string(b) {
				return fmt.Errorf(
					"its reader would be ambiguous: %q is any number of characters and exactly one", string(a))
			}
		}
	}
	return nil
}

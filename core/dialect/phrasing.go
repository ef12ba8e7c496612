package dialect

import (
	"cmp"
	"fmt"
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/core/text"
)

// A saying is one thing that templates say: the first is written, all are read.
type saying struct {
	op    string
	from  []string
	must  []string // slots that each of them has
	slots []string // that they may have besides
}

// phrasing reads the templates of a dialect, and keeps which of them says what: none may say two things.
type phrasing map[string]string

func (ph phrasing) read(s saying) (out []template, err error) {
	if len(s.from) > mostNames {
		return nil, fmt.Errorf("there are more than %d templates of one kind", mostNames)
	}
	for _, from := range s.from {
		if utf8.RuneCountInString(from) > longestName {
			return nil, fmt.Errorf("a template has at most %d characters: %q", longestName, from)
		}
		t, err := parseTemplate(from, slices.Concat(s.slots, s.must)...)
		if err != nil {
			return nil, err
		}
		for _, slot := range s.must {
			if !t.has(slot) {
				return nil, fmt.Errorf("the template %q lacks {%s}", from, slot)
			}
		}
		key := string(folded(from))
		if other, ok := ph[key]; ok && other != s.op {
			return nil, fmt.Errorf("its reader would be ambiguous: %q is said for %s and for %s", from, other, s.op)
		}
		ph[key] = s.op
		t.op = s.op
		out = append(out, t)
	}
	return out, nil
}

// checkTemplates reads the templates, each kind by itself, and puts those first that say most of themselves.
func (d *Dialect) checkTemplates(m *templates) error {
	ph := phrasing{}
	for _, kind := range []func(*templates, phrasing) error{
		d.clauseTemplates, d.yearTemplates, d.headingTemplates, d.nearTemplates, d.lineTemplates,
	} {
		if err := kind(m, ph); err != nil {
			return err
		}
	}
	for _, of := range []*[]template{&m.clauses, &m.all, &m.headings, &m.near, &m.lines} {
		slices.SortStableFunc(*of, func(a, b template) int {
			return cmp.Or(b.weight()-a.weight(), len(b.parts)-len(a.parts))
		})
	}
	return nil
}

func (d *Dialect) clauseTemplates(m *templates, ph phrasing) error {
	m.bare = map[string][]template{}
	slots := []string{"name", "term"}
	for _, s := range []saying{
		{"is", d.Clauses.Is, slots, nil}, {"many", d.Clauses.Many, slots, nil}, {"whole", d.Clauses.Whole, slots, nil},
		{"all", d.Clauses.All, slots, nil}, {"any", d.Clauses.Any, slots, nil},
	} {
		own, err := ph.read(s)
		if err != nil {
			return err
		}
		m.bare[s.op] = own
		if s.op == "many" { // is read as the same
			for i := range own {
				own[i].op = "is"
			}
		}
		m.clauses = append(m.clauses, own...)
	}
	if len(d.Fields) > 0 && len(d.Clauses.Is) == 0 && d.Bare == "" {
		return fmt.Errorf("it has fields but does not say how a name and a term stand together (clauses.is)")
	}
	return nil
}

func (d *Dialect) yearTemplates(m *templates, ph phrasing) error {
	m.years = map[string][]template{}
	y := d.Years
	if y == nil {
		return nil
	}
	for _, s := range []saying{
		{"year", y.Is, []string{"year"}, nil}, {"from", y.From, []string{"from"}, nil}, {"to", y.To, []string{"to"}, nil},
		{"between", y.Between, []string{"from", "to"}, nil}, {"before", y.Before, []string{"to"}, nil},
		{"after", y.After, []string{"from"}, nil},
	} {
		op := s.op
		s.op, s.slots = "years "+op, []string{"name"}
		own, err := ph.read(s)
		if err != nil {
			return err
		}
		for _, t := range own {
			if t.has("name") && len(d.Fields[year]) == 0 {
				return fmt.Errorf("the template %q has {name}, but the field year has none", t.text)
			}
		}
		m.years[op] = own
		m.all = append(m.all, own...)
	}
	return nil
}

func (d *Dialect) headingTemplates(m *templates, ph phrasing) (err error) {
	m.mods = map[string][]template{}
	h := d.Headings
	if h == nil {
		return nil
	}
	if len(h.Is) == 0 {
		return fmt.Errorf("headings say how a heading is asked for (headings.is)")
	}
	m.headings, err = ph.read(saying{"heading", h.Is, []string{"label"}, []string{"name", "modifiers"}})
	if err != nil {
		return err
	}
	m.heading = m.headings[0]
	for _, s := range []saying{
		{"narrower", h.Narrower, nil, nil}, {"central", h.Central, nil, nil},
		{"qualifier", h.Qualifier, []string{"label"}, nil},
	} {
		if m.mods[s.op], err = ph.read(s); err != nil {
			return err
		}
	}
	for _, t := range m.headings {
		switch {
		case t.has("name") && len(d.Fields[heading]) == 0:
			return fmt.Errorf("the template %q has {name}, but the field heading has none", t.text)
		case !t.has("modifiers") && len(h.Narrower)+len(h.Central)+len(h.Qualifier) > 0:
			return fmt.Errorf("the template %q lacks {modifiers}", t.text)
		case !t.has("name") && t.parts[0].slot != "":
			return fmt.Errorf("its reader would be ambiguous: nothing stands before a heading in %q", t.text)
		}
	}
	return nil
}

func (d *Dialect) nearTemplates(m *templates, ph phrasing) error {
	n := d.Near
	if n == nil {
		return nil
	}
	if n.Most < 1 || n.Most > text.MaxWithin {
		return fmt.Errorf("the greatest distance is 1 to %d words, not %d", text.MaxWithin, n.Most)
	}
	if len(n.Unordered)+len(n.Ordered) == 0 {
		return fmt.Errorf("near has no template")
	}
	slots := []string{"n", "less"}
	for _, s := range []saying{
		{"near unordered", n.Unordered, nil, slots}, {"near ordered", n.Ordered, nil, slots},
		{"near exactly", n.Exactly, nil, slots}, {"near exactlyOrdered", n.ExactlyOrdered, nil, slots},
	} {
		own, err := ph.read(s)
		if err != nil {
			return err
		}
		m.near = append(m.near, own...)
		if len(s.from) > 0 && !strings.Contains(s.from[0], "{n}") {
			return fmt.Errorf("the template %q lacks {n}", s.from[0])
		}
	}
	return nil
}

func (d *Dialect) lineTemplates(m *templates, ph phrasing) error {
	l := d.Lines
	if l == nil { // how plain numbered lines are read, whatever stands in them
		l = &Lines{One: []string{"#{n}"}, Or: []string{"any of {from}-{to}"}, And: []string{"all of {from}-{to}"}}
	}
	if len(l.One) == 0 {
		return fmt.Errorf("lines say how one line is named (lines.one)")
	}
	for _, s := range []saying{
		{"lines one", l.One, []string{"n"}, nil}, {"lines or", l.Or, []string{"from", "to"}, nil},
		{"lines and", l.And, []string{"from", "to"}, nil},
	} {
		own, err := ph.read(s)
		if err != nil {
			return err
		}
		m.lines = append(m.lines, own...)
	}
	return nil
}

package dialect

import (
	"cmp"
	"fmt"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"
)

// Sizes of what a dialect may hold.
const (
	mostNames   = 50  // of a field, or templates of a kind
	longestName = 120 // characters of a name or template
)

var nameForm = regexp.MustCompile(`^[a-z][a-z0-9-]{0,39}$`)

// templates are those of a dialect, ready to be matched: those that say most of themselves first.
type templates struct {
	clauses   []template
	bare      map[string][]template // is, whole, all, any
	years     map[string][]template
	all       []template // of years
	headings  []template
	heading   template // the one that is written
	mods      map[string][]template
	modifying map[rune]bool       // characters with which a modifier begins
	near      []template          // op says which
	nearBy    map[rune][]template // by its first character
	lines     []template          // op says which
	delims    map[rune]bool
	escape    rune
	begins    map[string]bool // words with which a name or a template begins
	marks     [][2][]rune     // of phrases, of several characters before one
	shut      []rune
	open      []rune
	many      [][]rune
	one       [][]rune
	words     map[string][][]rune // of operators
	names     map[rune][]named    // by their first character, the longest first
	joiners   []operatorWord      // the longest first
	relating  [][]rune            // what stands between a name and its term
	begun     []template          // of years and headings, that begin with text
	comments  [][2][]rune
	after     [][]rune
	written   map[string]template // near, by its text
	curls     bool                // curled quotation marks are the dialect's own
	stops     [][]rune            // what may end a label that stands without marks
}

type operatorWord struct {
	op   string
	word []rune
}

type named struct {
	field string
	name  []rune
}

// Check says the first thing that is wrong with a dialect, and makes it ready to be used. At the end it writes a
// number of expressions and reads them back: a dialect that cannot be read is refused.
func (d *Dialect) Check() error {
	if err := d.form(); err != nil {
		return err
	}
	if err := d.prove(); err != nil {
		d.made = nil
		return fmt.Errorf("dialect %s: %w", d.Name, err)
	}
	return nil
}

// ToWrite makes a dialect ready that is only written in: several fields may go by one name. It is not read back.
func (d *Dialect) ToWrite() error {
	d.unread = true
	return d.form()
}

// form returns what is wrong in how a dialect is written; without it, it can write and read, right or wrong.
func (d *Dialect) form() error {
	if d.Tamiz != Version {
		return fmt.Errorf("no dialect: it does not say \"tamiz\": %q", Version)
	}
	if !nameForm.MatchString(d.Name) {
		return fmt.Errorf("the name of a dialect is small letters, digits and hyphens, at most 40, not %q", d.Name)
	}
	if d.Title == "" || utf8.RuneCountInString(d.Title) > longestName || utf8.RuneCountInString(d.About) > 2000 {
		return fmt.Errorf("a dialect has a title of at most %d characters, and says at most 2,000 about itself", longestName)
	}
	if d.Typed != AsQuery && d.Typed != AsLines {
		return fmt.Errorf("a dialect is typed as %q or as %q, not %q", AsQuery, AsLines, d.Typed)
	}
	if d.Typed == AsLines && d.Lines == nil {
		return fmt.Errorf("a dialect typed line by line says how a line is named (lines)")
	}
	if d.Longest < 0 || d.MostTerms < 0 || d.Brackets.Deepest < 0 || d.Longest > 0 && d.Longest < 40 {
		return fmt.Errorf("the longest query is 40 characters or more; 0 is any length, number or depth")
	}
	m := &templates{}
	for _, step := range []func(*templates) error{d.checkTerms, d.checkFields, d.checkOperators, d.checkTemplates,
		d.checkSigns} {
		if err := step(m); err != nil {
			return fmt.Errorf("dialect %s: %w", d.Name, err)
		}
	}
	d.made = m
	return nil
}

func isSign(s string) bool {
	return s != "" && utf8.RuneCountInString(s) <= 4 &&
		!strings.ContainsFunc(s, func(r rune) bool { return isWord(r) || isBlank(plain(r)) })
}

func (d *Dialect) checkTerms(m *templates) error {
	if !slices.Contains([]string{AsPhrase, AsAnd, Refused}, d.Terms.Words) {
		return fmt.Errorf("words side by side mean %q, %q or %q, not %q", AsPhrase, AsAnd, Refused, d.Terms.Words)
	}
	if len(d.Terms.Marks) > 8 || len(d.Terms.Many) > 4 || len(d.Terms.One) > 4 {
		return fmt.Errorf("there are too many phrase marks or signs")
	}
	for _, mark := range d.Terms.Marks {
		if !isSign(mark[0]) || !isSign(mark[1]) {
			return fmt.Errorf("a phrase mark is one to four signs, no letters or spaces, not %q and %q", mark[0], mark[1])
		}
		m.marks = append(m.marks, [2][]rune{folded(mark[0]), folded(mark[1])})
		m.curls = m.curls || strings.ContainsAny(mark[0]+mark[1], "“”„‘’")
	}
	if len(m.marks) == 0 && d.Terms.Always {
		return fmt.Errorf("it has no phrase marks that could always stand")
	}
	for _, of := range []struct {
		signs []string
		to    *[][]rune
	}{{d.Terms.Many, &m.many}, {d.Terms.One, &m.one}} {
		for _, s := range of.signs {
			if !isSign(s) {
				return fmt.Errorf("a sign is one to four characters, no letters or spaces, not %q", s)
			}
			*of.to = append(*of.to, folded(s))
		}
	}
	if len(m.many) == 0 && (d.Terms.Left || d.Terms.Inside || d.Terms.End) {
		return fmt.Errorf("it says where a sign for any number of characters may stand, but has none")
	}
	if d.Terms.Letters < 0 || d.Terms.Letters > 10 {
		return fmt.Errorf("0 to 10 letters stand before a sign, not %d", d.Terms.Letters)
	}
	if d.Escape != "" {
		if !isSign(d.Escape) || utf8.RuneCountInString(d.Escape) > 1 {
			return fmt.Errorf("the escape is one sign, not %q", d.Escape)
		}
		m.escape = []rune(d.Escape)[0]
	}
	return nil
}

func (d *Dialect) checkFields(m *templates) error {
	owner := map[string]string{}
	var all []named
	for field, names := range d.Fields {
		if !slices.Contains(fieldOrder, field) {
			return fmt.Errorf("there is no field %q; there are %s", field, strings.Join(fieldOrder, ", "))
		}
		if len(names) > mostNames {
			return fmt.Errorf("the field %s has more than %d names", field, mostNames)
		}
		for _, n := range names {
			if strings.TrimSpace(n) != n || n == "" || utf8.RuneCountInString(n) > longestName ||
				strings.ContainsAny(n, "\n\t") {
				return fmt.Errorf("a name of the field %s is empty, too long or begins with a space: %q", field, n)
			}
			key := string(folded(n))
			if other, ok := owner[key]; ok && other != field && !d.unread {
				return fmt.Errorf("its reader would be ambiguous: %q is the name of %s and of %s", n, other, field)
			}
			owner[key] = field
			all = append(all, named{field, folded(n)})
		}
	}
	slices.SortFunc(all, func(a, b named) int {
		return cmp.Or(len(b.name)-len(a.name), strings.Compare(string(a.name), string(b.name)))
	})
	m.names = map[rune][]named{}
	for _, n := range all {
		m.names[n.name[0]] = append(m.names[n.name[0]], n)
	}
	if d.Bare != "" {
		if _, ok := textFields[d.Bare]; !ok {
			return fmt.Errorf("a term without a name looks in a field of text, not in %q", d.Bare)
		}
	} else if !slices.ContainsFunc(fieldOrder, func(f string) bool {
		_, ok := textFields[f]
		return ok &&
			len(d.Fields[f]) > 0
	}) {
		return fmt.Errorf("there is no field of text that a term could look in")
	}
	if d.Several != "" && !isSign(strings.TrimSpace(d.Several)) {
		return fmt.Errorf("what stands between names is one to four signs, not %q", d.Several)
	}
	return nil
}

func (d *Dialect) checkOperators(m *templates) error {
	for _, check := range []func(*templates) error{d.operatorWords, d.ranks, d.brackets} {
		if err := check(m); err != nil {
			return err
		}
	}
	return nil
}

// operatorWords checks the words of operators, none of which may say two.
func (d *Dialect) operatorWords(m *templates) error {
	m.words = map[string][][]rune{}
	owner := map[string]string{}
	for _, op := range []struct {
		name  string
		words []string
		must  bool
	}{{opAnd, d.Operators.And, true}, {opOr, d.Operators.Or, true}, {opNot, d.Operators.Not, false}} {
		if op.must && len(op.words) == 0 {
			return fmt.Errorf("it has no word for %s", op.name)
		}
		if len(op.words) > mostNames {
			return fmt.Errorf("it has more than %d words for %s", mostNames, op.name)
		}
		for _, w := range op.words {
			if strings.TrimSpace(w) != w || w == "" || utf8.RuneCountInString(w) > longestName {
				return fmt.Errorf("a word for %s is empty, too long or begins with a space: %q", op.name, w)
			}
			key := string(folded(w))
			if other, ok := owner[key]; ok && other != op.name {
				return fmt.Errorf("its reader would be ambiguous: %q is %s and %s", w, other, op.name)
			}
			owner[key] = op.name
			form := folded(w)
			if d.Operators.Exact {
				form = []rune(w)
			}
			m.words[op.name] = append(m.words[op.name], form)
		}
	}
	return nil
}

// ranks checks that each operator that there is has one rank.
func (d *Dialect) ranks(*templates) error {
	ranked := map[string]bool{}
	for _, same := range d.Operators.Ranks {
		for _, op := range same {
			if ranked[op] || !slices.Contains([]string{opAnd, opOr, opNot, opNear}, op) {
				return fmt.Errorf("ranks name and, or, not and near, each once; not %q", op)
			}
			ranked[op] = true
		}
	}
	there := []string{opAnd, opOr}
	if len(d.Operators.Not) > 0 {
		there = append(there, opNot)
	}
	if d.Near != nil {
		there = append(there, opNear)
	}
	for _, op := range there {
		if !ranked[op] {
			return fmt.Errorf("ranks do not say where %s stands", op)
		}
	}
	return nil
}

// brackets checks the brackets, which are no phrase marks.
func (d *Dialect) brackets(m *templates) error {
	b := d.Brackets
	if (b.Open == "") != (b.Shut == "") || b.Open != "" && (!isSign(b.Open) || !isSign(b.Shut) || b.Open == b.Shut) {
		return fmt.Errorf("brackets are two different signs, or none, not %q and %q", b.Open, b.Shut)
	}
	m.open, m.shut = folded(b.Open), folded(b.Shut)
	for _, mark := range d.Terms.Marks {
		if b.Open != "" && (mark[0] == b.Open || mark[1] == b.Shut) {
			return fmt.Errorf("its reader would be ambiguous: %q is a phrase mark and a bracket", mark[0])
		}
	}
	return nil
}

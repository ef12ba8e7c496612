package review

import (
	"fmt"
	"reflect"
	"slices"
	"strings"

	"tamiz/core/strategy"
)

// A Clash is one thing that two people made something else of: what it is, and what each made of it. An empty side is
// that it was taken out there.
type Clash struct {
	// question, frame, limits, vocabulary, halves, journal, block, term, line, order, numbering
	What   string `json:"what"`
	Part   string `json:"part,omitempty"`  // of a block or term, which of its fields; "" for the whole of it
	ID     string `json:"id,omitempty"`    // of the block or term
	Block  string `json:"block,omitempty"` // the letter of the block that it is or stands in
	Name   string `json:"name,omitempty"`  // what it is called
	Mine   string `json:"mine"`
	Theirs string `json:"theirs"`
}

// A merging brings two documents together that were made of one.
type merging struct {
	base, mine, theirs Document
	added              bool // what is merged is in both and was not before: whatever differs in it is a clash
	clashes            []Clash
}

// Merge brings together what two people made of one document: block by block, term by term, field by field, each
// goes to whoever changed it, and what either added is there. What both made something else of is a clash; of it
// the merged document has mine.
func Merge(base, mine, theirs Document) (Document, []Clash) {
	m := &merging{base: base.Filled(), mine: mine.Filled(), theirs: theirs.Filled()}
	base, mine, theirs = m.base, m.mine, m.theirs
	out := theirs
	plain := func(what string) Clash { return Clash{What: what} }
	out.Question = either(m, plain("question"), base.Question, mine.Question, theirs.Question)
	out.Frame = either(m, plain("frame"), base.Frame, mine.Frame, theirs.Frame)
	out.Order = either(m, plain("numbering"), base.Order, mine.Order, theirs.Order)
	out.Limits = m.limits()
	out.Vocabulary = either(m, plain("vocabulary"), base.Vocabulary, mine.Vocabulary, theirs.Vocabulary)
	out.Halves = either(m, plain("halves"), base.Halves, mine.Halves, theirs.Halves)
	out.Parted = mergeSets(base.Parted, mine.Parted, theirs.Parted)
	out.HandSearch = mergeLists(
		base.HandSearch,
		mine.HandSearch,
		theirs.HandSearch,
		false,
		m.journal,
		m.orderOf(Clash{What: "order"}),
	)
	out.Blocks = mergeLists(base.Blocks, mine.Blocks, theirs.Blocks, false, m.block, m.orderOf(Clash{What: "order"}))
	letters(out.Blocks, theirs)
	out.Lines = mergeLists(base.Lines, mine.Lines, theirs.Lines, false, m.line, m.orderOf(Clash{What: "order"}))
	return out.Filled(), m.clashes
}

// letters gives each block one of its own: where two took one, that which has it in theirs keeps it.
func letters(blocks []Block, theirs Document) {
	taken := map[string]bool{}
	kept := func(b Block) bool {
		i := theirs.Block(b.ID)
		return i >= 0 && theirs.Blocks[i].Name == b.Name
	}
	for _, b := range blocks {
		if kept(b) {
			taken[b.Name] = true
		}
	}
	for i, b := range blocks {
		if kept(b) {
			continue
		}
		if taken[b.Name] {
			blocks[i].Name = freeLetter("", blocks)
		}
		taken[blocks[i].Name] = true
	}
}

// either returns what one of two people made of something; where both made something else of it, that is a clash.
func either[T any](m *merging, c Clash, base, mine, theirs T) T {
	switch {
	case !m.added && reflect.DeepEqual(mine, base):
		return theirs
	case (m.added || !reflect.DeepEqual(theirs, base)) && !reflect.DeepEqual(theirs, mine):
		c.Mine, c.Theirs = said(mine), said(theirs)
		m.clashes = append(m.clashes, c)
	}
	return mine
}

// said returns what somebody made of something, in words.
func said(x any) string {
	switch x := x.(type) {
	case *strategy.Limit:
		return saidLimit(x)
	case *int64:
		if x == nil {
			return ""
		}
		return fmt.Sprint(*x)
	case *BlockOrigin:
		if x == nil {
			return ""
		}
		return fmt.Sprintf("%s, version %d", x.Name, x.Version)
	case *Halves:
		if x == nil {
			return ""
		}
		return fmt.Sprint(len(x.Test))
	case []string:
		return strings.Join(x, ", ")
	case Wordings:
		var out []string
		for _, w := range x {
			out = append(out, w.Dialect+": "+w.Query)
		}
		return strings.Join(out, "; ")
	}
	return fmt.Sprint(x)
}

func saidLimit(l *strategy.Limit) string {
	if l == nil {
		return ""
	}
	year := func(y *int) string {
		if y == nil {
			return ""
		}
		return fmt.Sprint(*y)
	}
	if l.Kind == strategy.YearsLimit {
		return l.Kind + " " + year(l.From) + "–" + year(l.To)
	}
	out := l.Kind + " " + strings.Join(l.Values, ", ")
	if l.KeepsOut() {
		out += ", not " + strings.Join(l.Against, ", ")
	}
	return out
}

// limits brings the limits together kind by kind: there is one of each.
func (m *merging) limits() []strategy.Limit {
	find := func(limits []strategy.Limit, kind string) *strategy.Limit {
		if i := slices.IndexFunc(limits, func(l strategy.Limit) bool { return l.Kind == kind }); i >= 0 {
			return &limits[i]
		}
		return nil
	}
	if reflect.DeepEqual(m.base.Limits, m.theirs.Limits) {
		return m.mine.Limits
	}
	out := []strategy.Limit{}
	done := map[string]bool{}
	for _, l := range append(slices.Clone(m.theirs.Limits), m.mine.Limits...) {
		if done[l.Kind] {
			continue
		}
		done[l.Kind] = true
		c := Clash{What: "limits", Name: l.Kind}
		if kept := either(m, c, find(m.base.Limits, l.Kind), find(m.mine.Limits, l.Kind), find(m.theirs.Limits,
			l.Kind)); kept != nil {
			out = append(out, *kept)
		}
	}
	return out
}

// mergeSets brings two sets together: what either put in or took out is in or out.
func mergeSets(base, mine, theirs []string) []string {
	if reflect.DeepEqual(base, theirs) {
		return mine
	}
	out := slices.DeleteFunc(
		slices.Clone(theirs),
		func(x string) bool { return slices.Contains(base, x) && !slices.Contains(mine, x) },
	)
	for _, x := range mine {
		if !slices.Contains(base, x) && !slices.Contains(out, x) {
			out = append(out, x)
		}
	}
	return out
}

func (h HandSearch) id() string { return h.Journal }

// journal brings together what two people made of a journal of the hand-search list.
func (m *merging) journal(base, mine, theirs *HandSearch) *HandSearch {
	if kept, done := whole(base, mine, theirs); done {
		return kept
	}
	kept := mine
	if kept == nil {
		kept = theirs
	}
	note := func(h *HandSearch) string {
		if h == nil {
			return ""
		}
		return h.Name + ": " + h.Note
	}
	m.clashes = append(
		m.clashes,
		Clash{What: "journal", ID: kept.Journal, Name: kept.Name, Mine: note(mine), Theirs: note(theirs)},
	)
	return kept
}

// line brings together what two people made of a line that is put together of others.
func (m *merging) line(base, mine, theirs *Line) *Line {
	if kept, done := whole(base, mine, theirs); done {
		return kept
	}
	kept := mine
	if kept == nil {
		kept = theirs
	}
	note := func(l *Line) string {
		if l == nil {
			return ""
		}
		if l.Note == "" {
			return "…"
		}
		return l.Note
	}
	m.clashes = append(
		m.clashes,
		Clash{What: "line", ID: kept.ID, Name: kept.Note, Mine: note(mine), Theirs: note(theirs)},
	)
	return kept
}

// block brings together what two people made of a block; nil is one that is not there.
func (m *merging) block(base, mine, theirs *Block) *Block {
	if kept, done := whole(base, mine, theirs); done {
		return kept
	}
	if mine == nil || theirs == nil {
		kept := mine
		c := Clash{What: "block"}
		if kept == nil {
			kept = theirs
		}
		c.ID, c.Block, c.Name = kept.ID, kept.Name, kept.Concept
		c.Mine, c.Theirs = saidBlock(mine), saidBlock(theirs)
		m.clashes = append(m.clashes, c)
		return kept
	}
	if base == nil { // one that was taken out and put in again
		base = &Block{ID: mine.ID}
		m.added = true
		defer func() { m.added = false }()
	}
	out := *theirs
	part := func(name string) Clash {
		return Clash{What: "block", Part: name, ID: mine.ID, Block: theirs.Name, Name: theirs.Concept}
	}
	out.Name = either(m, part("name"), base.Name, mine.Name, theirs.Name)
	out.Concept = either(m, part("concept"), base.Concept, mine.Concept, theirs.Concept)
	out.Part = either(m, part("part"), base.Part, mine.Part, theirs.Part)
	out.Seeds = mergeSets(base.Seeds, mine.Seeds, theirs.Seeds)
	out.Searched = either(m, part("searched"), base.Searched, mine.Searched, theirs.Searched)
	out.Reason = either(m, part("reason"), base.Reason, mine.Reason, theirs.Reason)
	out.Origin = either(m, part("origin"), base.Origin, mine.Origin, theirs.Origin)
	out.Wordings = either(m, part("wordings"), base.Wordings, mine.Wordings, theirs.Wordings)
	out.Negated = either(m, part("negated"), base.Negated, mine.Negated, theirs.Negated)
	out.Terms = mergeLists(
		base.Terms,
		mine.Terms,
		theirs.Terms,
		true,
		func(b, x, y *Term) *Term { return m.term(theirs.Name, b, x, y) },
		m.orderOf(Clash{What: "order", ID: mine.ID, Block: theirs.Name, Name: theirs.Concept}),
	)
	return &out
}

func saidBlock(b *Block) string {
	if b == nil {
		return ""
	}
	var terms []string
	for _, t := range b.Terms {
		terms = append(terms, t.String())
	}
	return b.Name + " " + b.Concept + ": " + strings.Join(terms, ", ")
}

// term brings together what two people made of a term of a block; nil is one that is not there.
func (m *merging) term(block string, base, mine, theirs *Term) *Term {
	if kept, done := whole(base, mine, theirs); done {
		return kept
	}
	if mine == nil || theirs == nil {
		kept := mine
		if kept == nil {
			kept = theirs
		}
		m.clashes = append(
			m.clashes,
			Clash{What: "term", ID: kept.ID, Block: block, Name: kept.String(), Mine: saidTerm(mine), Theirs: saidTerm(theirs)},
		)
		return kept
	}
	if base == nil && !m.added {
		base = &Term{ID: mine.ID}
		m.added = true
		defer func() { m.added = false }()
	} else if base == nil {
		base = &Term{ID: mine.ID}
	}
	out := *theirs
	part := func(name string) Clash {
		return Clash{What: "term", Part: name, ID: mine.ID, Block: block, Name: theirs.String()}
	}
	// What is looked for is one thing, whichever of its words changed.
	type wording struct {
		Kind, Text, Left, Right string
		Within                  int
		Heading                 string
	}
	worded := func(t *Term) wording { return wording{t.Kind, t.Text, t.Left, t.Right, t.Within, t.Heading} }
	c := part("text")
	c.Mine, c.Theirs = mine.String(), theirs.String()
	before := len(m.clashes)
	w := either(m, c, worded(base), worded(mine), worded(theirs))
	if len(m.clashes) > before {
		m.clashes[before].Mine, m.clashes[before].Theirs = mine.String(), theirs.String()
	}
	out.Kind, out.Text, out.Left, out.Right, out.Within, out.Heading = w.Kind, w.Text, w.Left, w.Right, w.Within, w.Heading
	out.Field = either(m, part("field"), base.Field, mine.Field, theirs.Field)
	out.Narrower = either(m, part("narrower"), base.Narrower, mine.Narrower, theirs.Narrower)
	out.Central = either(m, part("central"), base.Central, mine.Central, theirs.Central)
	out.Qualifiers = either(m, part("qualifiers"), base.Qualifiers, mine.Qualifiers, theirs.Qualifiers)
	out.Note = either(m, part("note"), base.Note, mine.Note, theirs.Note)
	out.Group = either(m, part("group"), base.Group, mine.Group, theirs.Group)
	out.Quiet = both(base.Quiet, mine.Quiet, theirs.Quiet)
	out.Without = either(m, part("without"), base.Without, mine.Without, theirs.Without)
	out.Until = either(m, part("until"), base.Until, mine.Until, theirs.Until)
	out.On = either(m, part("on"), base.On, mine.On, theirs.On)
	if !reflect.DeepEqual(mine.From, base.From) {
		out.From = mine.From
	}
	return &out
}

// both brings two lists of words together that began as one: what either put there is there, what either took out
// is not.
func both(base, mine, theirs []string) (out []string) {
	for _, w := range theirs {
		if slices.Contains(mine, w) || !slices.Contains(base, w) {
			out = append(out, w)
		}
	}
	for _, w := range mine {
		if !slices.Contains(base, w) && !slices.Contains(out, w) {
			out = append(out, w)
		}
	}
	return out
}

func saidTerm(t *Term) string {
	if t == nil {
		return ""
	}
	return t.String()
}

// whole decides about something that only one of two people touched, or both alike.
func whole[T any](base, mine, theirs *T) (*T, bool) {
	switch {
	case reflect.DeepEqual(mine, base):
		return theirs, true
	case reflect.DeepEqual(theirs, base), reflect.DeepEqual(mine, theirs):
		return mine, true
	}
	return nil, false
}

// mergeLists brings two lists together, one by one, and in their order: what stands in both lists is merged, and
// what is new stands where its maker put it. Of terms that both added, what says the same stands there once.
func mergeLists[T identified](
	base, mine, theirs []T,
	once bool,
	merged func(base, mine, theirs *T) *T,
	order func(base, mine, theirs []string) []string,
) []T {
	places := func(list []T) map[string]*T {
		out := make(map[string]*T, len(list))
		for i := range list {
			out[list[i].id()] = &list[i]
		}
		return out
	}
	bases, mines, theirses := places(base), places(mine), places(theirs)
	kept := map[string]T{}
	for _, list := range [][]T{theirs, mine} {
		for _, x := range list {
			if _, done := kept[x.id()]; done {
				continue
			}
			b, m, t := bases[x.id()], mines[x.id()], theirses[x.id()]
			if once && b == nil && t == nil &&
				slices.ContainsFunc(theirs, func(y T) bool { return bases[y.id()] == nil && sameTerm(x, y) }) {
				continue
			}
			if y := merged(b, m, t); y != nil {
				kept[x.id()] = *y
			}
		}
	}
	ids := func(list []T) (out []string) {
		for _, x := range list {
			out = append(out, x.id())
		}
		return out
	}
	var out []T
	for _, id := range order(ids(base), ids(mine), ids(theirs)) {
		if x, ok := kept[id]; ok {
			out = append(out, x)
		}
	}
	return out
}

// sameTerm reports whether two terms look for the same.
func sameTerm(a, b any) bool {
	x, ok := a.(Term)
	y, also := b.(Term)
	return ok && also && reflect.DeepEqual(x.Term, y.Term)
}

// orderOf returns how an order is found of which two people made one each; c is the clash where both moved something.
func (m *merging) orderOf(c Clash) func(base, mine, theirs []string) []string {
	return func(base, mine, theirs []string) []string {
		in := map[string]int{}
		for _, list := range [][]string{base, mine, theirs} {
			for _, id := range list {
				in[id]++
			}
		}
		common := func(list []string) []string {
			return slices.DeleteFunc(slices.Clone(list), func(id string) bool { return in[id] < 3 })
		}
		b, x, y := common(base), common(mine), common(theirs)
		if slices.Equal(x, b) {
			return lay(theirs, mine)
		}
		if !slices.Equal(y, b) && !slices.Equal(x, y) {
			m.clashes = append(m.clashes, c)
		}
		return lay(mine, theirs)
	}
}

// lay puts what a list lacks of another where it stands there: before what follows it there, or last.
func lay(list, other []string) []string {
	there := make(map[string]bool, len(list))
	for _, id := range list {
		there[id] = true
	}
	before := map[string][]string{}
	var run []string
	for _, id := range other {
		if !there[id] {
			run = append(run, id)
			continue
		}
		before[id], run = run, nil
	}
	out := make([]string, 0, len(list)+len(other))
	for _, id := range list {
		out = append(append(out, before[id]...), id)
	}
	return append(out, run...)
}

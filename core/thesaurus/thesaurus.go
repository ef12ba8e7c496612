// Package thesaurus holds a controlled vocabulary: headings, the entry terms that lead to them, and the
// tree they stand in. It knows nothing of files; exchange/skos reads them.
package thesaurus

import (
	"cmp"
	"slices"

	"tamiz/core/text"
)

// A Concept is a heading as a vocabulary file describes it, with text in any number of languages and
// other concepts named by their addresses.
type Concept struct {
	ID           string
	Labels       []Text
	EntryTerms   []Text
	ScopeNotes   []Text
	HistoryNotes []Text
	Notation     string
	Broader      []string
	Narrower     []string
	Related      []string
	Exact        []string // concepts of other vocabularies that mean the same
	Close        []string // and that mean nearly the same
	Qualifier    bool     // not a heading, but what may be put behind one
}

// A Text is words in a language; the language may be unknown.
type Text struct{ Value, Language string }

// A Heading is one heading of a vocabulary, in its chosen language. Others are named by their places.
type Heading struct {
	ID          string
	Label       string
	EntryTerms  []string
	ScopeNote   string
	HistoryNote string
	Notation    string
	Broader     []int
	Narrower    []int
	Related     []int
	Exact       []string
	Close       []string
}

// A Thesaurus is a vocabulary in one language. It does not change once built and may be used by many
// at a time. Walks in its tree end: cycles were broken when it was built.
type Thesaurus struct {
	Headings   []Heading // ascending by label
	Qualifiers []string
	Language   string

	byLabel map[string]int // as text.Label writes them
	byTerm  map[string]int
	byKin   map[string]int // labels and entry terms by their families
	search  search
}

// TroubleKind is what a Trouble is about.
type TroubleKind string

// What can be wrong with a vocabulary. It is used all the same.
const (
	NoLabel       TroubleKind = "no-label"       // a concept without any label; left out
	OtherLanguage TroubleKind = "other-language" // without a label in the chosen language; shown in another
	TwoLabels     TroubleKind = "two-labels"     // two preferred labels in one language; the first is used
	SameLabel     TroubleKind = "same-label"     // another concept has the label; both kept, the first is found by it
	NoParent      TroubleKind = "no-parent"      // a broader or narrower concept that is not there; passed over
	Cycle         TroubleKind = "cycle"          // a concept below itself; the step that closes the circle is passed over
)

// A Trouble is something wrong with a vocabulary: the concept and what is wrong with it.
type Trouble struct {
	Kind    TroubleKind
	Concept string // its address
	Detail  string
}

// Languages returns the languages of the labels, those with most labels first; of equals English, then by
// name.
func Languages(concepts []Concept) []string {
	n := map[string]int{}
	for _, c := range concepts {
		for _, l := range c.Labels {
			n[l.Language]++
		}
	}
	var out []string
	for l := range n {
		out = append(out, l)
	}
	rank := map[string]int{"en": -1}
	slices.SortFunc(out, func(a, b string) int {
		return cmp.Or(cmp.Compare(n[b], n[a]), cmp.Compare(rank[a], rank[b]), cmp.Compare(a, b))
	})
	return out
}

// Build makes a thesaurus of concepts. language chooses among the labels; empty, it is that of most
// labels. What is wrong with the concepts is mended and told.
func Build(concepts []Concept, language string) (*Thesaurus, []Trouble) {
	t := &Thesaurus{Language: language, byLabel: map[string]int{}, byTerm: map[string]int{}, byKin: map[string]int{}}
	if languages := Languages(concepts); language == "" && len(languages) > 0 {
		t.Language = languages[0]
	}
	var troubles []Trouble
	tell := func(kind TroubleKind, concept, detail string) {
		troubles = append(troubles, Trouble{kind, concept, detail})
	}
	var kept []Concept
	for _, c := range concepts {
		label := t.label(c, tell)
		switch {
		case label == "":
			tell(NoLabel, c.ID, "")
		case c.Qualifier:
			t.Qualifiers = append(t.Qualifiers, label)
		default:
			t.Headings = append(t.Headings, Heading{ID: c.ID, Label: label, Notation: c.Notation, Exact: c.Exact, Close: c.Close,
				EntryTerms: t.all(c.EntryTerms), ScopeNote: t.one(c.ScopeNotes), HistoryNote: t.one(c.HistoryNotes)})
			kept = append(kept, c)
		}
	}
	slices.Sort(t.Qualifiers)
	t.sort(kept)
	place := map[string]int{}
	for i, c := range kept {
		place[c.ID] = i
	}
	t.link(kept, place, tell)
	t.unknot(tell)
	t.name(tell)
	t.search = newSearch(t.Headings)
	return t, troubles
}

// label returns the label of a concept in the chosen language, else one in no language, else the first
// there is.
func (t *Thesaurus) label(c Concept, tell func(TroubleKind, string, string)) string {
	seen := map[string]bool{}
	chosen, bare, other := "", "", ""
	for _, l := range c.Labels {
		if seen[l.Language] {
			tell(TwoLabels, c.ID, l.Value)
			continue
		}
		seen[l.Language] = true
		switch {
		case text.Label(l.Value) == "":
		case l.Language == t.Language:
			chosen = l.Value
		case l.Language == "":
			bare = l.Value
		case other == "":
			other = l.Value
		}
	}
	if chosen == "" && bare == "" && other != "" {
		tell(OtherLanguage, c.ID, other)
	}
	return cmp.Or(chosen, bare, other)
}

// all returns the texts in the chosen language and those of none.
func (t *Thesaurus) all(texts []Text) []string {
	var out []string
	for _, x := range texts {
		if (x.Language == t.Language || x.Language == "") && !slices.Contains(out, x.Value) {
			out = append(out, x.Value)
		}
	}
	return out
}

func (t *Thesaurus) one(texts []Text) string {
	if all := t.all(texts); len(all) > 0 {
		return all[0]
	}
	return ""
}

// sort brings headings, and the concepts they were made of, into the order of their labels.
func (t *Thesaurus) sort(kept []Concept) {
	order := make([]int, len(kept))
	for i := range order {
		order[i] = i
	}
	slices.SortStableFunc(order, func(a, b int) int { return cmp.Compare(t.Headings[a].Label, t.Headings[b].Label) })
	headings, concepts := slices.Clone(t.Headings), slices.Clone(kept)
	for i, from := range order {
		t.Headings[i], kept[i] = headings[from], concepts[from]
	}
}

// name notes by which words a heading is found.
func (t *Thesaurus) name(tell func(TroubleKind, string, string)) {
	for i, h := range t.Headings {
		key := text.Label(h.Label)
		if _, taken := t.byLabel[key]; taken {
			tell(SameLabel, h.ID, h.Label)
			continue
		}
		t.byLabel[key] = i
	}
	for i, h := range t.Headings {
		for _, term := range h.EntryTerms {
			key := text.Label(term)
			if _, taken := t.byTerm[key]; !taken {
				t.byTerm[key] = i
			}
		}
	}
	for i, h := range t.Headings {
		for _, written := range append([]string{h.Label}, h.EntryTerms...) {
			if key := text.FamilyKey(text.Tokens(written)); key != "" {
				if _, taken := t.byKin[key]; !taken {
					t.byKin[key] = i
				}
			}
		}
	}
}

// Kin returns the label of the heading that a word or phrase stands for in another number or spelling than the
// vocabulary's: one of the family of its label or of an entry term.
func (t *Thesaurus) Kin(word string) (string, bool) {
	if i, ok := t.byKin[text.FamilyKey(text.Tokens(word))]; ok {
		return t.Headings[i].Label, true
	}
	return "", false
}

// Leads returns the label of the heading that a keyword leads to: by its label, an entry term, or one of either in
// another number or spelling.
func (t *Thesaurus) Leads(keyword string) (string, bool) {
	if label, ok := t.Heading(keyword); ok {
		return label, true
	}
	return t.Kin(keyword)
}

// Find returns the place of the heading with a label, however that is written.
func (t *Thesaurus) Find(label string) (int, bool) {
	i, ok := t.byLabel[text.Label(label)]
	return i, ok
}

// Heading returns the label that a label or an entry term stands for, as the vocabulary writes it.
func (t *Thesaurus) Heading(label string) (string, bool) {
	key := text.Label(label)
	if i, ok := t.byLabel[key]; ok {
		return t.Headings[i].Label, true
	}
	if i, ok := t.byTerm[key]; ok {
		return t.Headings[i].Label, true
	}
	return "", false
}

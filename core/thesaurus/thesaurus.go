// Package thesaurus holds a controlled vocabulary: headings, the entry terms that lead to them, and the
// tree they stand in. It knows nothing of files; exchange/skos reads them.
//
// A vocabulary of 300,000 headings has millions of labels, so nothing of it stands on the heap by itself: its
// words are one string, everything else flat arrays of numbers.
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
	Since        string // the day or year it came in, as the file says it
	Broader      []string
	Narrower     []string
	Related      []string // to a qualifier: that it may be put behind the heading
	Replaces     []string // what was used before it came in
	ReplacedBy   []string // what is used now that it is not
	Exact        []string // concepts of other vocabularies that mean the same
	Close        []string // and that mean nearly the same
	Qualifier    bool     // not a heading, but what may be put behind one
	Retired      bool     // no longer given to records
}

// A Text is words in a language; the language may be unknown.
type Text struct {
	Value    string `json:"value"`
	Language string `json:"language,omitempty"`
}

// A Heading is one heading of a vocabulary with all that is said of it. Others are named by their places.
type Heading struct {
	ID          string
	Label       string // in the language of the vocabulary
	EntryTerms  []string
	ScopeNote   string
	HistoryNote string
	Notation    string
	Since       string
	Retired     bool
	Broader     []int
	Narrower    []int
	Related     []int
	Replaces    []int
	ReplacedBy  []int
	Exact       []string
	Close       []string
	OtherLabels []Text // in other languages
	OtherTerms  []Text
}

// A Thesaurus is a vocabulary whose headings go by their labels in one language; those of all others are kept. It
// does not change once built and may be used by many at a time. Walks in its tree end: cycles were broken when it
// was built.
type Thesaurus struct {
	Qualifiers []string // ascending
	Language   string

	packed
	names names
	words words
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
	t := &Thesaurus{Language: language}
	if languages := Languages(concepts); language == "" && len(languages) > 0 {
		t.Language = languages[0]
	}
	var troubles []Trouble
	tell := func(kind TroubleKind, concept, detail string) {
		troubles = append(troubles, Trouble{kind, concept, detail})
	}
	var kept, qualifiers []labelled
	for i := range concepts {
		c := &concepts[i]
		label := t.label(c, tell)
		switch {
		case label == "":
			tell(NoLabel, c.ID, "")
		case c.Qualifier:
			qualifiers = append(qualifiers, labelled{c, label})
		default:
			kept = append(kept, labelled{c, label})
		}
	}
	for _, list := range [][]labelled{qualifiers, kept} {
		slices.SortStableFunc(list, func(a, b labelled) int { return cmp.Compare(a.label, b.label) })
	}
	for _, q := range qualifiers {
		t.Qualifiers = append(t.Qualifiers, q.label)
	}
	for _, k := range kept {
		t.pack(k)
	}
	t.link(kept, tell)
	t.allow(kept, qualifiers)
	t.name(tell)
	t.words = newWords(&t.packed)
	return t, troubles
}

// labelled is a concept with the label it goes by.
type labelled struct {
	*Concept
	label string
}

// label returns the label of a concept in the chosen language, else one in no language, else the first
// there is.
func (t *Thesaurus) label(c *Concept, tell func(TroubleKind, string, string)) string {
	seen := make([]string, 0, 8)
	chosen, bare, other := "", "", ""
	for _, l := range c.Labels {
		if slices.Contains(seen, l.Language) {
			tell(TwoLabels, c.ID, l.Value)
			continue
		}
		seen = append(seen, l.Language)
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

// own reports whether words in a language are shown where the vocabulary is read in its own.
func (t *Thesaurus) own(language string) bool { return language == t.Language || language == "" }

// At returns one heading, whole.
func (t *Thesaurus) At(heading int) Heading {
	h := Heading{Label: t.Label(heading), EntryTerms: t.EntryTerms(heading), ScopeNote: t.ScopeNote(heading),
		Retired: t.retired[heading], Broader: t.Broader(heading), Narrower: t.Narrower(heading),
		Related:  t.related.at(heading),
		Replaces: t.replaces.at(heading), ReplacedBy: t.replacedBy.at(heading)}
	for x := range t.textsOf(heading) {
		of := Text{t.text(x), t.language(x)}
		switch t.role[x] {
		case address:
			h.ID = of.Value
		case historyNote:
			if h.HistoryNote == "" && t.own(of.Language) {
				h.HistoryNote = of.Value
			}
		case notation:
			h.Notation = of.Value
		case since:
			h.Since = of.Value
		case exact:
			h.Exact = append(h.Exact, of.Value)
		case near:
			h.Close = append(h.Close, of.Value)
		case label:
			if of.Value != h.Label || !t.own(of.Language) {
				h.OtherLabels = append(h.OtherLabels, of)
			}
		case entryTerm:
			if !t.own(of.Language) {
				h.OtherTerms = append(h.OtherTerms, of)
			}
		}
	}
	return h
}

// EntryTerms returns the entry terms of a heading in the language of the vocabulary, and those in none, each once.
func (t *Thesaurus) EntryTerms(heading int) []string {
	var out []string
	for x := range t.textsOf(heading) {
		if t.role[x] == entryTerm && t.own(t.language(x)) && !slices.Contains(out, t.text(x)) {
			out = append(out, t.text(x))
		}
	}
	return out
}

// ScopeNote returns what a heading means, in the language of the vocabulary; "" where that is not said.
func (t *Thesaurus) ScopeNote(heading int) string { return t.NoteIn(heading, t.Language) }

// NoteIn returns what a heading means in a language, or in no language; "" where that is not said.
func (t *Thesaurus) NoteIn(heading int, language string) string {
	for x := range t.textsOf(heading) {
		if l := t.language(x); t.role[x] == scopeNote && (l == language || l == "") {
			return t.text(x)
		}
	}
	return ""
}

// LabelIn returns the label of a heading in a language, else the one it goes by.
func (t *Thesaurus) LabelIn(heading int, language string) string {
	for x := range t.textsOf(heading) {
		if t.role[x] == label && t.language(x) == language {
			return t.text(x)
		}
	}
	return t.Label(heading)
}

package app

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/strategy"
)

func doc(blocks ...Block) Document { return Document{Blocks: blocks}.filled() }

func with(name string, terms ...string) Block {
	b := Block{ID: "id-" + name, Name: name, Searched: true, Terms: []Term{}}
	for _, x := range terms {
		b.Terms = append(b.Terms, Term{ID: x, Term: strategy.Term{Kind: "text", Text: x, On: true}})
	}
	return b
}

func TestTwoWhoChangeDifferentBlocksBothHaveTheirWay(t *testing.T) {
	base := doc(with("A", "crew"), with("B", "shade"))
	mine := doc(with("A", "crew", "cane"), with("B", "shade"))
	theirs := doc(with("A", "crew"), with("B", "shade", "rest"), with("C", "kidney"))
	merged, conflicts := merge(base, mine, theirs)
	assert.Empty(t, conflicts)
	assert.Equal(t, doc(with("A", "crew", "cane"), with("B", "shade", "rest"), with("C", "kidney")), merged.filled())
}

func TestTwoWhoChangeOneBlockHaveToChoose(t *testing.T) {
	base := doc(with("A", "crew"))
	for name, c := range map[string]struct {
		mine, theirs Document
		conflict     bool
	}{
		"different terms":         {doc(with("A", "crew", "cane")), doc(with("A", "crew", "field")), true},
		"the same term":           {doc(with("A", "crew", "cane")), doc(with("A", "crew", "cane")), false},
		"they deleted it":         {doc(with("A", "crew", "cane")), doc(), true},
		"I deleted, they left it": {doc(), doc(with("A", "crew")), false},
		"I deleted, they changed": {doc(), doc(with("A", "crew", "field")), true},
		"both deleted":            {doc(), doc(), false},
		"I left it, they changed": {doc(with("A", "crew")), doc(with("A", "field")), false},
		"they deleted, I left it": {doc(with("A", "crew")), doc(), false},
	} {
		_, conflicts := merge(base, c.mine, c.theirs)
		assert.Equal(t, c.conflict, len(conflicts) > 0, name)
	}
}

func TestTwoWhoAddABlockGetTwoLetters(t *testing.T) {
	mine, theirs := with("A", "crew"), with("A", "shade")
	mine.ID, theirs.ID = "mine", "theirs"
	merged, conflicts := merge(doc(), doc(mine), doc(theirs))
	assert.Empty(t, conflicts)
	assert.Equal(t, []string{"A", "B"}, []string{merged.Blocks[0].Name, merged.Blocks[1].Name})
}

func TestQuestionAndLimitsMergeByThemselves(t *testing.T) {
	base := Document{Question: "heat?"}.filled()
	mine, theirs := base, base
	mine.Question = "heat and kidneys?"
	theirs.Limits = []strategy.Limit{{Kind: "languages", Values: []string{"eng"}}}
	merged, conflicts := merge(base, mine, theirs)
	assert.Empty(t, conflicts)
	assert.Equal(t, mine.Question, merged.Question)
	assert.Equal(t, theirs.Limits, merged.Limits)
	theirs.Question = "cold?"
	_, conflicts = merge(base, mine, theirs)
	assert.Equal(t, []string{"question"}, conflicts)
}

func TestTypedTermsAreReadInTheirTextForm(t *testing.T) {
	for typed, want := range map[string]strategy.Term{
		"cane cutter*":       {Kind: "text", Text: "cane cutter*", Field: "title", On: true},
		" farm* ~3 crew* ":   {Kind: "near", Left: "farm*", Right: "crew*", Within: 3, Field: "title", On: true},
		"farm worker~2 rest": {Kind: "near", Left: "farm worker", Right: "rest", Within: 2, Field: "title", On: true},
		"[Fluid Intake]":     {Kind: "heading", Heading: "Fluid Intake", On: true},
		"[Fluid Intake +]":   {Kind: "heading", Heading: "Fluid Intake", Narrower: true, On: true},
		"about ~ 3":          {Kind: "text", Text: "about ~ 3", Field: "title", On: true},
	} {
		assert.Equal(t, want, readTyped(typed, "title"), typed)
	}
}

func TestHandSearchListsAreBroughtTogetherJournalByJournal(t *testing.T) {
	list := func(notes ...string) (out []HandSearch) {
		for _, n := range notes {
			out = append(out, HandSearch{Journal: n[:1], Name: n[:1], Note: n[1:]})
		}
		return out
	}
	for name, c := range map[string]struct {
		base, mine, theirs, want []HandSearch
		conflict                 bool
	}{
		"both add":              {list(), list("a"), list("b"), list("b", "a"), false},
		"I take out":            {list("a", "b"), list("b"), list("a", "b"), list("b"), false},
		"they take out":         {list("a", "b"), list("a", "b"), list("b"), list("b"), false},
		"each notes another":    {list("a", "b"), list("a1", "b"), list("a", "b2"), list("a1", "b2"), false},
		"both note one":         {list("a"), list("a1"), list("a2"), list("a1"), true},
		"both note alike":       {list("a"), list("a1"), list("a1"), list("a1"), false},
		"I note what they drop": {list("a"), list("a1"), list(), list("a1"), true},
		"they note what I drop": {list("a"), list(), list("a2"), list("a2"), true},
		"both add the same":     {list(), list("a"), list("a"), list("a"), false},
	} {
		var conflicts []string
		assert.Equal(t, c.want, mergeJournals(c.base, c.mine, c.theirs, &conflicts), name)
		assert.Equal(t, c.conflict, len(conflicts) > 0, name)
	}
}

func TestNothingOfTwoPeoplesWorkIsLostWithoutAWord(t *testing.T) {
	base := doc(with("A", "crew"), with("B", "shade"), with("C", "kidney"))
	base.Frame = "pico"
	mine, theirs := base, base
	mine.Frame, theirs.Frame = "peo", "spider"
	_, conflicts := merge(base, mine, theirs)
	assert.Equal(t, []string{"frame"}, conflicts)
	seven, eight := int64(7), int64(8)
	mine, theirs = base, base
	mine.Vocabulary, theirs.Vocabulary = &seven, &eight
	mine.Halves, theirs.Halves = &Halves{Seed: 1}, &Halves{Seed: 2}
	_, conflicts = merge(base, mine, theirs)
	assert.Equal(t, []string{"vocabulary", "halves"}, conflicts)
}

func TestTheOrderOfBlocksIsThatOfWhoeverChangedIt(t *testing.T) {
	letters := func(d Document) (out string) {
		for _, b := range d.Blocks {
			out += b.Name
		}
		return out
	}
	ordered := func(order string) Document {
		var blocks []Block
		for _, c := range order {
			blocks = append(blocks, with(string(c), "x"+string(c)))
		}
		return doc(blocks...)
	}
	for name, c := range map[string]struct{ base, mine, theirs, want string }{
		"I moved one":              {"ABC", "CAB", "ABC", "CAB"},
		"they moved one":           {"ABC", "ABC", "BCA", "BCA"},
		"I moved, they added":      {"ABC", "CAB", "ABCD", "CABD"},
		"they moved, I added":      {"ABC", "ABCE", "CBA", "CBAE"},
		"I moved, they took one":   {"ABC", "CAB", "AC", "CA"},
		"both moved alike":         {"ABC", "CAB", "CAB", "CAB"},
		"I took one, they moved":   {"ABC", "AC", "CBA", "CA"},
		"both moved the other way": {"ABC", "CAB", "BAC", ""},
	} {
		merged, conflicts := merge(ordered(c.base), ordered(c.mine), ordered(c.theirs))
		if c.want == "" {
			assert.Equal(t, []string{"order of blocks"}, conflicts, name)
			continue
		}
		assert.Empty(t, conflicts, name)
		assert.Equal(t, c.want, letters(merged), name)
	}
}

func TestSetsAreBroughtTogetherItemByItem(t *testing.T) {
	assert.Equal(t, []string{"b", "d", "c"}, mergeSets([]string{"a", "b"}, []string{"b", "c"}, []string{"a", "b", "d"}), "a was taken out, c and d were put in")
	assert.Empty(t, mergeSets([]string{"a"}, nil, []string{"a"}))
	assert.Equal(t, []string{"a"}, mergeSets(nil, []string{"a"}, []string{"a"}))
}

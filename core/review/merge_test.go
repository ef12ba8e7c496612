package review

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/strategy"
)

func words(id, text string) Term {
	return Term{ID: id, Term: strategy.Term{Kind: strategy.TextTerm, Text: text, Field: "text", On: true}}
}

func base() Document {
	vocabulary := int64(1)
	return Document{Question: "Q", Vocabulary: &vocabulary, Blocks: []Block{
		{
			ID:       "a",
			Name:     "A",
			Concept:  "people",
			Searched: true,
			Terms:    []Term{words("1", "farm work*"), words("2", "pickers")},
		},
		{ID: "b", Name: "B", Concept: "heat", Searched: true, Terms: []Term{words("3", "heat")}},
	}}.Filled()
}

func after(edits ...Edit) Document {
	d, _ := Apply(base(), edits)
	return d
}

func texts(b Block) (out []string) {
	for _, t := range b.Terms {
		out = append(out, t.Text)
	}
	return out
}

func TestBothWhoAddToOneBlockKeepWhatTheyAdded(t *testing.T) {
	got, clashes := Merge(
		base(),
		after(&AddTerm{"a", words("x", "crews"), ""}),
		after(&AddTerm{"a", words("y", "labourers"), ""}, &AddTerm{"a", words("z", "hands"), "2"}),
	)
	assert.Empty(t, clashes)
	assert.Equal(t, []string{"farm work*", "hands", "pickers", "labourers", "crews"}, texts(got.Blocks[0]))
}

func TestWhatBothAddedAlikeStandsOnce(t *testing.T) {
	got, clashes := Merge(
		base(),
		after(&AddTerm{"a", words("x", "crews"), ""}),
		after(&AddTerm{"a", words("y", "crews"), ""}),
	)
	assert.Empty(t, clashes)
	assert.Equal(t, []string{"farm work*", "pickers", "crews"}, texts(got.Blocks[0]))
}

func TestDifferentPartsOfOneTermComeTogether(t *testing.T) {
	got, clashes := Merge(
		base(),
		after(&PatchTerm{"a", "1", json.RawMessage(`{"on":false}`)}),
		after(&PatchTerm{"a", "1", json.RawMessage(`{"field":"title"}`)}),
	)
	assert.Empty(t, clashes)
	assert.False(t, got.Blocks[0].Terms[0].On)
	assert.Equal(t, "title", got.Blocks[0].Terms[0].Field)
}

func TestNotesGroupsAndWhatIsDismissedAreNotLost(t *testing.T) {
	got, clashes := Merge(
		base(),
		after(&PatchTerm{"a", "1", json.RawMessage(`{"note":"mine","quiet":["zero"]}`)}),
		after(&PatchTerm{"a", "1", json.RawMessage(`{"group":"crews","quiet":["near"]}`)}),
	)
	assert.Empty(t, clashes)
	term := got.Blocks[0].Terms[0]
	assert.Equal(t, []string{"mine", "crews"}, []string{term.Note, term.Group})
	assert.ElementsMatch(t, []string{"zero", "near"}, term.Quiet)
	// Taking it back is a merge too: what was dismissed is said again, and what another dismissed meanwhile is not.
	dismissed := after(&PatchTerm{"a", "1", json.RawMessage(`{"quiet":["zero"]}`)})
	later := after(&PatchTerm{"a", "1", json.RawMessage(`{"quiet":["zero","near"]}`)})
	got, clashes = Merge(dismissed, base(), later)
	assert.Empty(t, clashes)
	assert.Equal(t, []string{"near"}, got.Blocks[0].Terms[0].Quiet)
	_, clashes = Merge(
		base(),
		after(&PatchTerm{"a", "1", json.RawMessage(`{"note":"mine"}`)}),
		after(&PatchTerm{"a", "1", json.RawMessage(`{"note":"theirs"}`)}),
	)
	assert.Len(t, clashes, 1)
}

func TestWhatBothChangedIsAQuestion(t *testing.T) {
	other, none := int64(2), (*int64)(nil)
	early, late := 1990, 2000
	for name, x := range map[string]struct {
		mine, theirs Edit
		clash        Clash
	}{
		"the words of a term": {&PatchTerm{"a", "1", json.RawMessage(`{"text":"farm worker*"}`)}, &PatchTerm{"a", "1",
			json.RawMessage(`{"text":"farmwork*"}`)}, Clash{What: "term", Part: "text", ID: "1", Block: "A",
			Name: "farmwork*", Mine: "farm worker*", Theirs: "farmwork*"}},
		"a term taken out": {&RemoveTerm{"a", "1"}, &PatchTerm{"a", "1", json.RawMessage(`{"text":"farmwork*"}`)},
			Clash{What: "term", ID: "1", Block: "A", Name: "farmwork*", Theirs: "farmwork*"}},
		"a block taken out": {&AddTerm{"b", words("x", "hot"), ""}, &RemoveBlock{"b"}, Clash{What: "block", ID: "b",
			Block: "B", Name: "heat", Mine: "B heat: heat, hot"}},
		"the frame":      {&SetFrame{"one"}, &SetFrame{"two"}, Clash{What: "frame", Mine: "one", Theirs: "two"}},
		"the vocabulary": {&SetVocabulary{&other}, &SetVocabulary{none}, Clash{What: "vocabulary", Mine: "2"}},
		"the halves": {&SetHalves{&Halves{1, []int64{4}}}, &SetHalves{&Halves{2, []int64{5, 6}}},
			Clash{What: "halves", Mine: "1", Theirs: "2"}},
		"one limit": {&SetLimits{[]strategy.Limit{{Kind: "years", From: &early}}},
			&SetLimits{[]strategy.Limit{{Kind: "years", From: &late}}}, Clash{What: "limits", Name: "years",
				Mine: "years 1990–", Theirs: "years 2000–"}},
		"the order of a block": {&MoveBlock{"b", "a"}, &MoveBlock{"b", "a"}, Clash{}},
		"the concept of a block": {&PatchBlock{"a", json.RawMessage(`{"concept":"who"}`)},
			&PatchBlock{"a", json.RawMessage(`{"concept":"workers"}`)}, Clash{What: "block", Part: "concept", ID: "a",
				Block: "A", Name: "workers", Mine: "who", Theirs: "workers"}},
	} {
		t.Run(name, func(t *testing.T) {
			_, clashes := Merge(base(), after(x.mine), after(x.theirs))
			if x.clash == (Clash{}) {
				assert.Empty(t, clashes)
				return
			}
			assert.Equal(t, []Clash{x.clash}, clashes)
		})
	}
}

func TestWhatWasPutInAgainOtherwiseStandsInTheWay(t *testing.T) {
	off, _ := Apply(base(), Edits{&PatchTerm{"a", "1", json.RawMessage(`{"on":false}`)}})
	_, clashes := Merge(after(&RemoveTerm{"a", "1"}), base(), off)
	assert.Equal(
		t,
		[]Clash{{What: "term", Part: "on", ID: "1", Block: "A", Name: "farm work*", Mine: "true", Theirs: "false"}},
		clashes,
	)
	_, clashes = Merge(after(&RemoveBlock{"a"}), base(), off)
	assert.Len(t, clashes, 1)
	same, clashes := Merge(after(&RemoveTerm{"a", "1"}), base(), base())
	assert.Empty(t, clashes)
	assert.Equal(t, base(), same)
}

func TestLimitsOfDifferentKindsComeTogether(t *testing.T) {
	from := 1990
	got, clashes := Merge(
		base(),
		after(&SetLimits{[]strategy.Limit{{Kind: "years", From: &from}}}),
		after(&SetLimits{[]strategy.Limit{{Kind: "types", Values: []string{"Review"}}}}),
	)
	assert.Empty(t, clashes)
	assert.Len(t, got.Limits, 2)
}

func TestTwoNewBlocksDoNotTakeOneLetter(t *testing.T) {
	got, clashes := Merge(
		base(),
		after(&AddBlock{Block: Block{ID: "x", Concept: "mine"}}),
		after(&AddBlock{Block: Block{ID: "y", Concept: "theirs"}}),
	)
	assert.Empty(t, clashes)
	var letters []string
	for _, b := range got.Blocks {
		letters = append(letters, b.Name+" "+b.Concept)
	}
	assert.Equal(t, []string{"A people", "B heat", "C theirs", "D mine"}, letters)
}

func TestWhatBothMovedDifferentlyIsAQuestion(t *testing.T) {
	three := func(edits ...Edit) Document {
		return after(append([]Edit{&AddTerm{"a", words("9", "crews"), ""}}, edits...)...)
	}
	_, clashes := Merge(three(), three(&MoveTerm{"a", "9", "1"}), three(&MoveTerm{"a", "1", ""}))
	assert.Equal(t, []Clash{{What: "order", ID: "a", Block: "A", Name: "people"}}, clashes)
}

// named is a block with a letter, whose terms are their own ids.
func named(name string, terms ...string) Block {
	b := Block{ID: "id-" + name, Name: name, Searched: true}
	for _, x := range terms {
		b.Terms = append(b.Terms, words(x, x))
	}
	return b
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
		got, clashes := Merge(Document{HandSearch: c.base}, Document{HandSearch: c.mine}, Document{HandSearch: c.theirs})
		assert.Equal(t, c.want, got.HandSearch, name)
		assert.Equal(t, c.conflict, len(clashes) > 0, name)
	}
}

func TestWhoeverChangedABlockHasTheirWayAndBothWhereTheyAdded(t *testing.T) {
	doc := func(blocks ...Block) Document { return Document{Blocks: blocks} }
	base := doc(named("A", "crew"))
	for name, c := range map[string]struct {
		mine, theirs Document
		want         []string // terms of the block; nil where it is gone
		clash        bool
	}{
		"different terms": {doc(named("A", "crew", "cane")), doc(named("A", "crew", "field")),
			[]string{"crew", "field", "cane"}, false},
		"the same term": {doc(named("A", "crew", "cane")), doc(named("A", "crew", "cane")),
			[]string{"crew", "cane"}, false},
		"they deleted it":         {doc(named("A", "crew", "cane")), doc(), []string{"crew", "cane"}, true},
		"I deleted, they left it": {doc(), doc(named("A", "crew")), nil, false},
		"I deleted, they changed": {doc(), doc(named("A", "crew", "field")), []string{"crew", "field"}, true},
		"both deleted":            {doc(), doc(), nil, false},
		"I left it, they changed": {doc(named("A", "crew")), doc(named("A", "field")), []string{"field"}, false},
		"they deleted, I left it": {doc(named("A", "crew")), doc(), nil, false},
	} {
		got, clashes := Merge(base, c.mine, c.theirs)
		assert.Equal(t, c.clash, len(clashes) > 0, name)
		if c.want == nil {
			assert.Empty(t, got.Blocks, name)
			continue
		}
		assert.Equal(t, c.want, texts(got.Blocks[0]), name)
	}
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
			blocks = append(blocks, named(string(c), "x"+string(c)))
		}
		return Document{Blocks: blocks}
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
		merged, conflicts := Merge(ordered(c.base), ordered(c.mine), ordered(c.theirs))
		if c.want == "" {
			assert.Equal(t, []Clash{{What: "order"}}, conflicts, name)
			continue
		}
		assert.Empty(t, conflicts, name)
		assert.Equal(t, c.want, letters(merged), name)
	}
}

func TestSetsAreBroughtTogetherItemByItem(t *testing.T) {
	assert.Equal(
		t,
		[]string{"b", "d", "c"},
		mergeSets([]string{"a", "b"}, []string{"b", "c"}, []string{"a", "b", "d"}),
		"a was taken out, c and d were put in",
	)
	assert.Empty(t, mergeSets([]string{"a"}, nil, []string{"a"}))
	assert.Equal(t, []string{"a"}, mergeSets(nil, []string{"a"}, []string{"a"}))
}

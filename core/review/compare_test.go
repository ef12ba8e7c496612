package review

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/strategy"
)

func TestTwoVersionsAreComparedLineByLine(t *testing.T) {
	from := base()
	year := 2010
	from.Limits = []strategy.Limit{{Kind: "languages", Values: []string{"eng"}}}
	a := from.Blocks[0]
	to, idle := Apply(from, Edits{
		&AddTerm{Block: a.ID, Term: words("new", "field hand*")},
		&PatchTerm{Block: a.ID, ID: a.Terms[0].ID, Patch: Patch(`{"text":"farm worker*"}`)},
		&PatchTerm{Block: a.ID, ID: a.Terms[1].ID, Patch: Patch(`{"on":false,"note":"for now"}`)},
		&SetLimits{Limits: []strategy.Limit{{Kind: "years", From: &year}}},
	})
	assert.Empty(t, idle)
	assert.Equal(t, []LineChange{
		{Kind: Changed, Block: a.Name, Concept: a.Concept, Was: a.Terms[0].Text, Now: "farm worker*"},
		{Kind: Off, Block: a.Name, Concept: a.Concept, Was: a.Terms[1].Text, Now: a.Terms[1].Text},
		{Kind: Added, Block: a.Name, Concept: a.Concept, Now: "field hand*"},
		{Kind: Limited, Now: "years 2010–"},
		{Kind: Unlimited, Was: "languages eng"},
	}, Compare(from, to))
}

func TestWhatIsTakenOutAndPutInAgainIsNoDifference(t *testing.T) {
	from := base()
	a := from.Blocks[0]
	to, _ := Apply(
		from,
		Edits{&RemoveTerm{Block: a.ID, ID: a.Terms[0].ID}, &AddTerm{Block: a.ID, Term: words("again", a.Terms[0].Text)}},
	)
	assert.Empty(t, Compare(from, to))
}

func TestALineInAnotherBlockIsMovedAndABlockThatGoesTakesItsLines(t *testing.T) {
	from := base()
	a := from.Blocks[0]
	moved := a.Terms[0]
	to, _ := Apply(
		from,
		Edits{
			&AddBlock{Block: Block{ID: "z", Name: "Z", Concept: "rest", Searched: true}},
			&RemoveTerm{Block: a.ID, ID: moved.ID},
			&AddTerm{Block: "z", Term: moved},
		},
	)
	assert.Equal(t, []LineChange{
		{Kind: BlockAdded, Block: "Z", Concept: "rest", Now: "searched"},
		{Kind: Moved, Block: "Z", Concept: "rest", From: a.Name, Was: moved.Text, Now: moved.Text},
	}, Compare(from, to))
	gone, _ := Apply(from, Edits{&RemoveBlock{ID: a.ID}})
	assert.Len(t, Compare(from, gone), 1+len(a.Terms))
}

func TestComparingIsSymmetricalAndWithItselfEmpty(t *testing.T) {
	turned := map[string]string{
		Added:      Gone,
		Gone:       Added,
		On:         Off,
		Off:        On,
		BlockAdded: BlockGone,
		BlockGone:  BlockAdded,
		Limited:    Unlimited,
		Unlimited:  Limited,
		Changed:    Changed,
		Moved:      Moved,
		BlockOther: BlockOther,
		LimitOther: LimitOther,
	}
	rapid.Check(t, func(t *rapid.T) {
		from := drawn(t, "base")
		to := edited(t, from, "later")
		assert.Empty(t, Compare(from, from))
		there, back := map[string]int{}, map[string]int{}
		for _, c := range Compare(from, to) {
			there[c.Kind]++
		}
		for _, c := range Compare(to, from) {
			back[turned[c.Kind]]++
		}
		assert.Equal(t, there, back)
	})
}

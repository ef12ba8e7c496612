package review

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/strategy"
)

func termOf(id, text string) Term {
	return Term{ID: id, Term: strategy.Term{Kind: strategy.TextTerm, Text: text, Field: "text", On: true}}
}

// twoBlocks has lines 1 crew, 2 picker, 3 any of 1-2, 4 shade, 5 the whole.
func twoBlocks() Document {
	return Document{Blocks: []Block{
		{ID: "a", Name: "A", Searched: true, Terms: []Term{termOf("1", "crew"), termOf("2", "picker")}},
		{ID: "b", Name: "B", Searched: true, Terms: []Term{termOf("3", "shade")}},
	}}.Filled()
}

func put(t *testing.T, d Document, id, text string) Document {
	of, err := d.ReadLine(nil, text, "")
	require.NoError(t, err)
	d, idle := Apply(d, Edits{&AddLine{Line: Line{ID: id, Of: of}}})
	require.Empty(t, idle)
	require.NoError(t, d.Validate())
	return d
}

func ownLines(t *testing.T, d Document) (out []string) {
	lines, err := d.Numbered(nil)
	require.NoError(t, err)
	for _, n := range lines {
		if n.Tree != nil {
			text := fmt.Sprintf("%d: %s", n.Number, n.Joined())
			if n.Expr == nil {
				text += " finds nothing"
			}
			out = append(out, text)
		}
	}
	return out
}

func TestLinesThatArePutTogetherStayOfTheSameLines(t *testing.T) {
	d := put(t, twoBlocks(), "x", "2 AND (1 or 4)")
	d = put(t, d, "y", "5 not 6")
	assert.Equal(t, []string{"6: 2 and (1 or 4)", "7: 5 not 6"}, ownLines(t, d))
	lines, _ := d.Numbered(nil)
	assert.Equal(
		t,
		"(crew and shade) not (picker and (crew or shade))",
		query.Write(query.Not{query.And{lines[0].Expr, lines[3].Expr}, lines[5].Expr}),
	)

	// A line before them, and one that moves: their numbers follow.
	d, _ = Apply(
		d,
		Edits{&AddTerm{Block: "a", Term: termOf("4", "grower"), Before: "1"}, &MoveTerm{Block: "a", ID: "2", Before: "1"}},
	)
	assert.Equal(t, []string{"7: 2 and (3 or 5)", "8: 6 not 7"}, ownLines(t, d))

	// One that is switched off has no number, and what it is part of finds nothing until it is switched on.
	off, _ := Apply(d, Edits{&PatchTerm{"a", "1", []byte(`{"on":false}`)}})
	assert.Equal(t, []string{"6: 2 and (? or 4) finds nothing", "7: 5 not 6 finds nothing"}, ownLines(t, off))
	gone, _ := Apply(d, Edits{&RemoveLine{"x"}})
	assert.Equal(t, []string{"7: 6 not ? finds nothing"}, ownLines(t, gone))

	// A block that comes to have one term alone is that term's line.
	d = put(t, twoBlocks(), "x", "3 and 4")
	one, _ := Apply(d, Edits{&RemoveTerm{"a", "1"}})
	assert.Equal(t, []string{"4: 1 and 2"}, ownLines(t, one))
}

func TestALineIsNeverPartOfItself(t *testing.T) {
	d := put(t, put(t, twoBlocks(), "x", "1 or 4"), "y", "6 and 2")
	_, err := d.ReadLine(nil, "7 or 1", "x") // in place of x, which y is made of
	var where *LineFault
	require.ErrorAs(t, err, &where)
	assert.Equal(t, "There is no line 7 before this one: there are 5.", where.Message)
	assert.Equal(t, []int{0, 1}, []int{where.From, where.To})
	for _, id := range []string{"x", "y"} {
		d, _ := Apply(
			d,
			Edits{
				&PatchLine{"x", []byte(fmt.Sprintf(`{"of":{"join":"or","parts":[{"kind":"line","id":%q},{"kind":"whole"}]}}`, id))},
			},
		)
		assert.ErrorContains(t, d.Validate(), "cannot be part of itself")
	}
}

func TestLinesThatCannotBeKept(t *testing.T) {
	deep := LinePart{Kind: "whole"}
	for range MostLineDepth + 2 {
		deep = LinePart{Join: "and", Parts: []LinePart{deep, {Kind: "whole"}}}
	}
	for _, of := range []LinePart{{}, {Kind: "heading"}, {Join: "near", Parts: []LinePart{{Kind: "whole"},
		{Kind: "whole"}}}, {Join: "and", Parts: []LinePart{{Kind: "whole"}}}, deep} {
		d := twoBlocks()
		d.Lines = []Line{{ID: "x", Of: of}}
		assert.Error(t, d.Validate())
	}
	d := twoBlocks()
	d.Lines = []Line{{ID: "1", Of: LinePart{Kind: "whole"}}}
	assert.ErrorContains(t, d.Validate(), "id of its own")
}

func TestTwoPeopleEachPutALineTogether(t *testing.T) {
	base := put(t, twoBlocks(), "x", "1 or 4")
	mine, theirs := put(t, base, "m", "6 and 2"), put(t, base, "n", "6 not 2")
	both, clashes := Merge(base, mine, theirs)
	assert.Empty(t, clashes)
	assert.Len(t, both.Lines, 3)
	assert.NoError(t, both.Validate())
	other, _ := Apply(base, Edits{&PatchLine{"x", []byte(`{"note":"mine"}`)}})
	gone, _ := Apply(base, Edits{&RemoveLine{"x"}})
	_, clashes = Merge(base, other, gone)
	assert.Equal(t, []Clash{{What: "line", ID: "x", Name: "mine", Mine: "mine"}}, clashes)
}

func TestWhatIsReadOfNumbersIsWrittenTheSame(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		tree := drawnTree(t, 3)
		again, err := strategy.ReadTree(tree.String())
		require.NoError(t, err)
		assert.Equal(t, tree.String(), again.String())
	})
}

func drawnTree(t *rapid.T, depth int) strategy.Tree {
	if depth == 0 || rapid.Bool().Draw(t, "one") {
		return strategy.Tree{Number: rapid.IntRange(1, 30).Draw(t, "number")}
	}
	out := strategy.Tree{Join: rapid.SampledFrom([]string{"and", "or", "not"}).Draw(t, "join")}
	for range rapid.IntRange(2, 4).Draw(t, "parts") {
		out.Parts = append(out.Parts, drawnTree(t, depth-1))
	}
	return out
}

func TestLinesAreNumberedAsSomebodyWrites(t *testing.T) {
	d := twoBlocks()
	heading := Term{ID: "h", Term: strategy.Term{Kind: strategy.HeadingTerm, Heading: "Crews", On: true}}
	d, _ = Apply(d, Edits{&AddTerm{Block: "a", Term: heading}, &AddTerm{Block: "b", Term: termOf("5", "rest")}})
	d = put(t, d, "x", "3 and 5") // the heading, and shade
	for order, want := range map[string]string{
		strategy.ByConcept:    "crew|picker|heading = \"Crews\"|any of 1-3|shade|rest|5 or 6|4 and 7|3 and 5",
		strategy.HeadingsLead: "heading = \"Crews\"|crew|picker|any of 1-3|shade|rest|5 or 6|4 and 7|1 and 5",
		strategy.TermsFirst:   "crew|picker|heading = \"Crews\"|shade|rest|any of 1-3|4 or 5|6 and 7|3 and 4",
	} {
		d, _ := Apply(d, Edits{&SetOrder{order}})
		require.NoError(t, d.Validate())
		lines, err := d.Numbered(nil)
		require.NoError(t, err)
		var got []string
		whole := ""
		for i, n := range lines {
			assert.Equal(t, i+1, n.Number)
			for _, p := range n.Parts {
				assert.Less(t, p, n.Number, "a line is put together of those before it")
			}
			switch {
			case n.Tree != nil || len(n.Parts) > 0:
				got = append(got, n.Joined())
			default:
				got = append(got, query.Write(n.Expr))
			}
			if n.Kind == strategy.WholeLine {
				whole = query.Write(n.Expr)
			}
		}
		assert.Equal(t, want, strings.Join(got, "|"), order)
		assert.Contains(t, whole, "shade or rest")
	}
	d.Order = "by colour"
	assert.ErrorContains(t, d.Validate(), "by colour")
}

// A query that no term says stands as a line: it finds what it says, can be put together with others by its number,
// is refused where it cannot be read, and is no part of the whole.
func TestAQueryStandsAsALine(t *testing.T) {
	d := twoBlocks()
	whole, err := d.Strategy("").Query(nil)
	require.NoError(t, err)
	d.Lines = append(d.Lines, Line{ID: "q", Of: LinePart{Kind: QueryLine, Query: `"rest" and ("crew" not "shade")`}})
	require.NoError(t, d.Validate())
	d = put(t, d, "r", "3 or 6")
	require.NoError(t, d.Validate())
	lines, err := d.Numbered(nil)
	require.NoError(t, err)
	require.Len(t, lines, 7)
	want, err := query.Parse(`rest and (crew not shade)`, nil)
	require.NoError(t, err)
	assert.Equal(t, want.Expr, lines[5].Expr)
	assert.Equal(t, query.Write(want.Expr), lines[5].Joined())
	assert.Equal(t, "3 or 6", lines[6].Joined())
	assert.Equal(t, query.Or{lines[2].Expr, want.Expr}, lines[6].Expr)
	after, err := d.Strategy("").Query(nil)
	require.NoError(t, err)
	assert.Equal(t, whole, after)

	for _, d2 := range dialect.Known() {
		typed, err := d.Strategy("").Typed(d2, nil, dialect.Options{}, lines[5:]...)
		require.NoError(t, err, d2.Name)
		require.Len(t, typed.Own, 2, d2.Name)
		assert.NotEmpty(t, typed.Own[0].Texts, d2.Name)
		assert.NotNil(t, typed.Own[1].Said, d2.Name)
	}
	d.Lines[0].Of.Query = "crew and ("
	assert.ErrorContains(t, d.Validate(), "cannot be read")
	d.Lines[0].Of.Query = strings.Repeat("crew or ", 2000) + "crew"
	assert.ErrorContains(t, d.Validate(), "at most 10000 characters")
}

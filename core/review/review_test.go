package review

import (
	"encoding/json"
	"fmt"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/strategy"
)

// An example is a document, edits, and what it is with them: read here and in the browser's tests.
type example struct {
	Name  string          `json:"name"`
	From  json.RawMessage `json:"from"`
	Edits Edits           `json:"edits"`
	To    json.RawMessage `json:"to"`
	Idle  int             `json:"idle"` // edits of what is there no more
	Raw   json.RawMessage `json:"-"`
}

func examples(t *testing.T) (all []example) {
	body, err := os.ReadFile("testdata/edits.json")
	require.NoError(t, err)
	require.NoError(t, json.Unmarshal(body, &all))
	require.GreaterOrEqual(t, len(all), 20)
	return all
}

func TestEditsMakeOfADocumentWhatTheExamplesSay(t *testing.T) {
	seen := map[string]bool{}
	for _, x := range examples(t) {
		t.Run(x.Name, func(t *testing.T) {
			from, err := Parse(x.From)
			require.NoError(t, err)
			to, err := Parse(x.To)
			require.NoError(t, err)
			before, _ := json.Marshal(from)
			got, idle := Apply(from, x.Edits)
			assert.Equal(t, to, got)
			assert.Len(t, idle, x.Idle)
			after, _ := json.Marshal(from)
			assert.JSONEq(t, string(before), string(after), "the document itself is left as it is")
			back, _ := Apply(from, Diff(from, to))
			assert.Equal(t, to, back)
		})
		for _, e := range x.Edits {
			body, err := json.Marshal(Edits{e})
			require.NoError(t, err)
			var said []struct{ Op string }
			require.NoError(t, json.Unmarshal(body, &said))
			seen[said[0].Op] = true
			var again Edits
			require.NoError(t, json.Unmarshal(body, &again))
			written, err := json.Marshal(again)
			require.NoError(t, err)
			assert.JSONEq(t, string(body), string(written))
		}
	}
	for _, kind := range kinds.Names() {
		assert.True(t, seen[kind], "no example has the edit %s", kind)
	}
}

func TestAnEditThatIsNoneIsNamed(t *testing.T) {
	var e Edits
	assert.ErrorContains(
		t,
		json.Unmarshal([]byte(`[{"op":"question","text":"x"},{"op":"fly"}]`), &e),
		`edit 2: there is no edit "fly"`,
	)
	assert.Error(t, json.Unmarshal([]byte(`{"op":"question"}`), &e))
	assert.ErrorContains(t, json.Unmarshal([]byte(`[{"op":"addTerm","block":7}]`), &e), "edit 1")
}

var someWords = []string{"farm work*", "heat", "rest breaks", "shade"}

// drawn returns a document of few blocks and terms, so that two of them meet.
func drawn(t *rapid.T, name string) Document {
	d := Document{Question: rapid.SampledFrom([]string{"", "Why?", "How?"}).Draw(t, name+" question")}
	for i := range rapid.IntRange(0, 3).Draw(t, name+" blocks") {
		b := Block{ID: fmt.Sprint("b", i), Name: string(rune('A' + i)), Concept: "c", Searched: true, Terms: []Term{}}
		for j := range rapid.IntRange(0, 4).Draw(t, name+" terms") {
			b.Terms = append(
				b.Terms,
				Term{
					ID: fmt.Sprint("t", i, j),
					Term: strategy.Term{
						Kind:  strategy.TextTerm,
						Text:  rapid.SampledFrom(someWords).Draw(t, name),
						Field: "text",
						On:    true,
					},
				},
			)
		}
		d.Blocks = append(d.Blocks, b)
	}
	return d.Filled()
}

// edited returns the document after a few edits of any kind, with ids that nobody else gives.
func edited(t *rapid.T, d Document, who string) Document {
	fresh := 0
	for range rapid.IntRange(0, 6).Draw(t, who+" edits") {
		d, _ = Apply(d, Edits{anEdit(t, d, who, &fresh)})
	}
	return d
}

func anEdit(t *rapid.T, d Document, who string, fresh *int) Edit {
	*fresh++
	id := fmt.Sprint(who, *fresh)
	word := rapid.SampledFrom(someWords).Draw(t, "word")
	term := Term{ID: id, Term: strategy.Term{Kind: strategy.TextTerm, Text: word + " " + id, Field: "text", On: true}}
	if len(d.Blocks) > 0 {
		b := rapid.SampledFrom(d.Blocks).Draw(t, "block")
		other := ""
		if rapid.Bool().Draw(t, "before") {
			other = rapid.SampledFrom(d.Blocks).Draw(t, "other").ID
		}
		if len(b.Terms) > 0 {
			x := rapid.SampledFrom(b.Terms).Draw(t, "term")
			switch rapid.IntRange(0, 5).Draw(t, "of a term") {
			case 0:
				return &PatchTerm{
					b.ID,
					x.ID,
					json.RawMessage(fmt.Sprintf(`{"on":%t,"text":%q}`, rapid.Bool().Draw(t, "on"), word+" "+x.ID)),
				}
			case 1:
				return &RemoveTerm{b.ID, x.ID}
			case 2:
				return &MoveTerm{b.ID, x.ID, rapid.SampledFrom(b.Terms).Draw(t, "place").ID}
			case 3:
				return &AddTerm{b.ID, term, x.ID}
			}
		}
		switch rapid.IntRange(0, 6).Draw(t, "of a block") {
		case 6:
			return &PatchBlock{
				b.ID,
				json.RawMessage(
					rapid.SampledFrom([]string{`{"wordings":[]}`, fmt.Sprintf(`{"wordings":[{"dialect":"surco","query":%q}]}`, word)}).
						Draw(t, "wordings"),
				),
			}
		case 0:
			return &PatchBlock{b.ID, json.RawMessage(fmt.Sprintf(`{"concept":%q,"seeds":[%q]}`, word, word))}
		case 1:
			return &RemoveBlock{b.ID}
		case 2:
			return &MoveBlock{b.ID, other}
		case 3:
			return &AddTerm{b.ID, term, ""}
		}
	}
	switch rapid.IntRange(0, 8).Draw(t, "of the document") {
	case 4:
		of := LinePart{Kind: strategy.WholeLine}
		if len(d.Lines) > 0 { // of one that stands before it
			of = LinePart{Join: "or", Parts: []LinePart{of, {Kind: OwnLine, ID: d.Lines[0].ID}}}
		}
		return &AddLine{Line: Line{ID: id, Note: word, Of: of}}
	case 7:
		return &SetOrder{
			rapid.SampledFrom([]string{strategy.ByConcept, strategy.HeadingsLead, strategy.TermsFirst}).Draw(t, "order"),
		}
	case 5:
		if len(d.Lines) > 0 {
			return &RemoveLine{rapid.SampledFrom(d.Lines).Draw(t, "line").ID}
		}
	case 6:
		if len(d.Lines) > 0 {
			return &PatchLine{rapid.SampledFrom(d.Lines).Draw(t, "line").ID, json.RawMessage(fmt.Sprintf(`{"note":%q}`, word))}
		}
	case 0:
		return &SetQuestion{word}
	case 1:
		year := rapid.IntRange(1990, 1993).Draw(t, "year")
		return &SetLimits{[]strategy.Limit{{Kind: strategy.YearsLimit, From: &year}}}
	case 2:
		return &Part{word, rapid.Bool().Draw(t, "apart")}
	case 3:
		return &HandSearched{word, word, &id, rapid.Bool().Draw(t, "listed")}
	}
	return &AddBlock{Block: Block{ID: id, Concept: word, Searched: true, Seeds: []string{}, Terms: []Term{term}}}
}

func TestADifferenceMadeOnADocumentIsTheOther(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		from := drawn(t, "from")
		to := edited(t, from, "x")
		if rapid.Bool().Draw(t, "of another") {
			to = edited(t, drawn(t, "to"), "y")
		}
		body, err := json.Marshal(Diff(from, to))
		require.NoError(t, err)
		var sent Edits
		require.NoError(t, json.Unmarshal(body, &sent))
		got, idle := Apply(from, sent)
		assert.Equal(t, to, got)
		assert.Empty(t, idle)
	})
}

func TestMergingWithWhatNobodyChangedIsTheChange(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		base := drawn(t, "base")
		mine := edited(t, base, "mine")
		got, clashes := Merge(base, mine, base)
		assert.Equal(t, mine, got)
		assert.Empty(t, clashes)
		got, clashes = Merge(base, base, mine)
		assert.Equal(t, mine, got)
		assert.Empty(t, clashes)
		got, clashes = Merge(base, mine, mine)
		assert.Equal(t, mine, got)
		assert.Empty(t, clashes)
	})
}

func TestMergingKeepsWhatEitherAddedAndEndsWhereItCanBeKept(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		base := drawn(t, "base")
		mine, theirs := edited(t, base, "mine"), edited(t, base, "theirs")
		got, clashes := Merge(base, mine, theirs)
		ids := idsOf(got)
		for _, side := range []Document{mine, theirs} {
			for id, block := range idsOf(side) {
				if _, old := idsOf(base)[id]; old {
					continue
				}
				if _, there := ids[id]; !there {
					// Only where the block it was put into went, which is asked about; what says the same stands once.
					assert.NotEmpty(t, clashes, "%s of %s is gone", id, block)
				}
			}
		}
		letters := map[string]bool{}
		for _, b := range got.Blocks {
			assert.False(t, letters[b.Name], "two blocks %s", b.Name)
			letters[b.Name] = true
		}
		if len(clashes) == 0 {
			other, also := Merge(base, theirs, mine)
			assert.Empty(t, also)
			assert.ElementsMatch(t, places(got), places(other), "it is the same whoever comes first")
		}
	})
}

func idsOf(d Document) map[string]string {
	out := map[string]string{}
	for _, b := range d.Blocks {
		out[b.ID] = b.ID
		for _, t := range b.Terms {
			out[t.ID] = b.ID
		}
	}
	return out
}

func places(d Document) (out []string) {
	for id, block := range idsOf(d) {
		out = append(out, id+" in "+block)
	}
	slices.Sort(out)
	return out
}

func TestTakingBackAChangeIsAMergeWithWhatHoldsNow(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		before := drawn(t, "before")
		after := edited(t, before, "mine")
		// Somebody else works on something that I did not touch: what they did stays, and mine goes.
		now, _ := Apply(
			after,
			Edits{&AddBlock{Block: Block{ID: "theirs", Name: "Z", Concept: "new", Searched: true, Terms: []Term{}}}},
		)
		got, clashes := Merge(after, before, now)
		assert.Empty(t, clashes)
		assert.GreaterOrEqual(t, got.Block("theirs"), 0)
		got.Blocks = slices.DeleteFunc(got.Blocks, func(b Block) bool { return b.ID == "theirs" })
		assert.Equal(t, before, got)
	})
}

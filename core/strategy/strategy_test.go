package strategy_test

import (
	"encoding/json"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/strategy"
	"tamiz/core/thesaurus/thesaurustest"
)

// TestTermsAgreeWithWorkedExamples searches each term of the examples in a record made of its value.
func TestTermsAgreeWithWorkedExamples(t *testing.T) {
	data, err := os.ReadFile("../../testdata/vectors/match.json")
	require.NoError(t, err)
	var examples []struct {
		Term             strategy.Term
		Value            string
		KW               []string
		Narrower         map[string][]string
		Matches, Refused bool
	}
	require.NoError(t, json.Unmarshal(data, &examples))
	require.NotEmpty(t, examples)
	for _, e := range examples {
		name := fmt.Sprintf("%s in %q %q", e.Term, e.Value, e.KW)
		q, err := e.Term.QueryIn(thesaurustest.Tree(e.Narrower))
		if e.Refused {
			assert.Error(t, err, name)
			continue
		}
		require.NoError(t, err, name)
		record := &bib.Record{Title: e.Value}
		for _, k := range e.KW {
			record.Headings = append(record.Headings, bib.ParseAssignment(k))
		}
		found := q.Match(index.Build([]*bib.Record{{Title: "Something else"}, record}))
		assert.Equal(t, e.Matches, found.Contains(1), name)
		assert.False(t, found.Contains(0), name)
	}
}

func TestWhatIsNotSaidTakesItsDefault(t *testing.T) {
	s, err := strategy.Parse(
		[]byte(`{"tamiz":"strategy/1","blocks":[{"name":"A","terms":[{"kind":"text","text":"heat"}]}]}`),
	)
	require.NoError(t, err)
	assert.True(t, s.Blocks[0].Searched)
	assert.False(t, s.Blocks[0].Negated)
	assert.Equal(t, strategy.Term{Kind: "text", Text: "heat", Field: "text", On: true}, s.Blocks[0].Terms[0])
}

func TestWhatIsWrongInAFileIsSaidWithItsPlace(t *testing.T) {
	wrap := func(inner string) string { return `{"tamiz":"strategy/1",` + inner + `}` }
	term := func(inner string) string {
		return wrap(`"blocks":[{"name":"A","terms":[{"kind":"text","text":"heat"},` + inner + `]}]`)
	}
	for file, said := range map[string]string{
		`{`:                      "no strategy file",
		`[]`:                     "no strategy file",
		`{"tamiz":"strategy/2"}`: "strategy/2",
		`{"blocks":[]}`:          "does not say",
		wrap(`"blocks":[{"name":"A"},{"name":"A"}]`):                         `two blocks are named "A"`,
		wrap(`"blocks":[{"terms":[]}]`):                                      "block 1 has no name",
		term(`{"kind":"smell"}`):                                             `block A, term 2: there is no term of kind "smell"`,
		term(`{"kind":"text","text":"a*"}`):                                  "block A, term 2",
		term(`{"kind":"text","text":"heat","field":"colour"}`):               `no field "colour"`,
		term(`{"kind":"near","left":"a","right":"b","within":0}`):            "within 1 to 100",
		term(`{"kind":"heading","heading":" "}`):                             "holds no word",
		term(`{"kind":"text","text":"` + strings.Repeat("x", 10_000) + `"}`): "at most 1000 characters",
		wrap(`"limits":[{"kind":"years"}]`):                                  "limit 1: a limit on years needs",
		wrap(`"limits":[{"kind":"years","from":2020,"to":2010}]`):            "comes after",
		wrap(`"limits":[{"kind":"languages","values":[]}]`):                  "needs 1 to",
		wrap(`"limits":[{"kind":"weather"}]`):                                `no limit of kind "weather"`,
	} {
		_, err := strategy.Parse([]byte(file))
		if assert.Error(t, err, "%.80s", file) {
			assert.Contains(t, err.Error(), said, "%.80s", file)
		}
	}
}

func TestALimitLeavesOutRecordsThatDoNotSay(t *testing.T) {
	year := func(y int) *int { return &y }
	admits := func(l strategy.Limit, r bib.Record) bool {
		q, err := l.Query(nil)
		require.NoError(t, err)
		return q.Match(index.Build([]*bib.Record{&r})).IsEmpty() == l.KeepsOut()
	}
	years := strategy.Limit{Kind: "years", From: year(2000), To: nil}
	assert.True(t, admits(years, bib.Record{Year: 2000}))
	assert.False(t, admits(years, bib.Record{Year: 1999}))
	assert.False(t, admits(years, bib.Record{}))
	languages := strategy.Limit{Kind: "languages", Values: []string{"ENG"}}
	assert.True(t, admits(languages, bib.Record{Languages: []string{"fre", "eng"}}))
	assert.False(t, admits(languages, bib.Record{}))
	types := strategy.Limit{Kind: "types", Values: []string{"journal  article"}}
	assert.True(t, admits(types, bib.Record{Types: []string{"Journal Article", "JOUR"}}))
	countries := strategy.Limit{Kind: "countries", Values: []string{"Kalaua"}}
	assert.True(t, admits(countries, bib.Record{Countries: []string{"Tamsen", "Kalaua"}}))
	assert.False(t, admits(countries, bib.Record{}))
	// Where the type is not said the title may say it.
	safer := strategy.Limit{Kind: "types", Values: []string{"Trial Report"}, Titles: []string{"randomi?ed", "trial"}}
	assert.True(t, admits(safer, bib.Record{Title: "Rest in shade: a trial"}))
	assert.True(t, admits(safer, bib.Record{Title: "Rest", Types: []string{"trial report"}}))
	assert.False(t, admits(safer, bib.Record{Title: "Rest", Abstract: "a trial"}))
	// Ages and humans go by headings; where a limit keeps out, what says nothing stays inside.
	carrying := func(title string, headings ...string) bib.Record {
		r := bib.Record{Title: title}
		for _, h := range headings {
			r.Headings = append(r.Headings, bib.Assignment{Label: h})
		}
		return r
	}
	children := strategy.Limit{Kind: "ages", Values: []string{"children"}}
	assert.True(t, admits(children, carrying("Rest", "Children", "Adults")))
	assert.False(t, admits(children, carrying("Rest of children", "Adults")))
	humans := strategy.Limit{
		Kind:    "humans",
		Values:  []string{"Humans"},
		Titles:  []string{"herd keepers"},
		Against: []string{"Animals"},
	}
	assert.True(t, admits(humans, carrying("Rest")), "what nobody has indexed stays inside")
	assert.True(t, admits(humans, carrying("Rest", "Animals", "Humans")))
	assert.True(t, admits(humans, carrying("Rest of herd keepers", "Animals")))
	assert.False(t, admits(humans, carrying("Rest of herds", "Animals")))
	for _, wrong := range []strategy.Limit{{Kind: "countries"}, {Kind: "types", Titles: []string{"a*"}},
		{Kind: "years", From: year(1), Titles: []string{"trial"}}, {Kind: "types", Values: []string{"Trial Report"},
			Against: []string{"Animals"}},
		{Kind: "humans", Against: []string{"Animals"}}, {Kind: "ages", Values: []string{" "}},
		{Kind: "years", From: year(1), Against: []string{"Animals"}}} {
		assert.Error(t, strategy.Strategy{Limits: []strategy.Limit{wrong}}.Check(), wrong)
	}
}

func TestTextForms(t *testing.T) {
	for want, term := range map[string]strategy.Term{
		"cane cutter*":   {Kind: "text", Text: "cane cutter*"},
		"farm* ~3 crew*": {Kind: "near", Left: "farm*", Right: "crew*", Within: 3},
		"[Noise]":        {Kind: "heading", Heading: "Noise"},
		"[Ear Guards +]": {Kind: "heading", Heading: "Ear Guards", Narrower: true},
	} {
		assert.Equal(t, want, term.String())
	}
}

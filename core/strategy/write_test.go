package strategy_test

import (
	"bytes"
	"encoding/json"
	"os"
	"testing"

	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/query"
	"tamiz/core/strategy"
)

const crews = `{"tamiz":"strategy/1","title":"Crews","blocks":[
	{"name":"A","terms":[{"kind":"text","text":"farm worker*"},{"kind":"near","left":"farm*","right":"crew*","within":3},{"kind":"text","text":"mice","on":false},
		{"kind":"heading","heading":"Agricultural Labor Force","narrower":true,"qualifiers":["prevention"]}]},
	{"name":"B","terms":[{"kind":"text","text":"rest break*","field":"title"}]},
	{"name":"C","searched":false,"terms":[{"kind":"text","text":"kidney"}]},
	{"name":"D","negated":true,"terms":[{"kind":"text","text":"horses"}]}],
	"limits":[{"kind":"years","from":2000,"to":null},{"kind":"languages","values":["eng","spa"]}]}`

func TestAStrategyIsWrittenAsCQLAndAsLines(t *testing.T) {
	s, err := strategy.Parse([]byte(crews))
	require.NoError(t, err)
	cql, err := s.CQL(nil)
	require.NoError(t, err)
	assert.Equal(
		t,
		`(("farm worker*" or (farm* prox/unit=word/distance<=3 crew*) or heading =/narrower/qualifier="prevention" "Agricultural Labor Force") `+
			`and title = "rest break*" and year >= 2000 and (language = "eng" or language = "spa")) not horses`,
		cql,
	)
	again, err := query.Parse(cql, nil)
	require.NoError(t, err)
	whole, err := s.Query(nil)
	require.NoError(t, err)
	assert.Equal(t, whole, again.Expr)

	lines, err := s.Lines(nil)
	require.NoError(t, err)
	var texts []string
	for i, l := range lines {
		assert.Equal(t, i+1, l.Number)
		texts = append(texts, l.Text)
	}
	assert.Equal(
		t,
		[]string{
			`"farm worker*"`,
			`farm* prox/unit=word/distance<=3 crew*`,
			`heading =/narrower/qualifier="prevention" "Agricultural Labor Force"`,
			"any of 1-3",
			`title = "rest break*"`,
			"horses",
			"year >= 2000",
			`language = "eng" or language = "spa"`,
			"4 and 5 and 7 and 8",
			"9 not 6",
		},
		texts,
	)
}

func TestAStrategyThatFindsNothingIsNotWritten(t *testing.T) {
	for _, s := range []strategy.Strategy{{}, {Blocks: []strategy.Block{{Name: "A", Searched: true}}},
		{Blocks: []strategy.Block{{Name: "A", Searched: true, Negated: true}}}} {
		_, err := s.CQL(nil)
		assert.ErrorIs(t, err, strategy.ErrFindsNothing)
		_, err = s.Lines(nil)
		assert.ErrorIs(t, err, strategy.ErrFindsNothing)
	}
}

// The schema and the program have to be of one mind about what a strategy file is.
func TestTheSchemaAgreesWithTheProgram(t *testing.T) {
	c := jsonschema.NewCompiler()
	doc, err := jsonschema.UnmarshalJSON(bytes.NewReader(strategy.Schema))
	require.NoError(t, err)
	require.NoError(t, c.AddResource("strategy.json", doc))
	schema, err := c.Compile("strategy.json")
	require.NoError(t, err)
	wool, err := os.ReadFile("../../testdata/vectors/wool/strategy.json")
	require.NoError(t, err)
	block := func(terms string) string {
		return `{"tamiz":"strategy/1","blocks":[{"name":"A","terms":[` + terms + `]}]}`
	}
	for file, good := range map[string]bool{
		crews: true, string(wool): true, block(``): true,
		`{}`: false, `[]`: false, `{"tamiz":"strategy/2","blocks":[]}`: false,
		`{"tamiz":"strategy/1","blocks":[{"terms":[]}]}`: false,
		block(`{"kind":"text"}`):                         false, block(`{"kind":"sound","text":"heat"}`): false,
		block(`{"kind":"text","text":"heat","field":"smell"}`):           false,
		block(`{"kind":"near","left":"heat","right":"rest","within":0}`): false,
		block(`{"kind":"heading","heading":""}`):                         false,
		`{"tamiz":"strategy/1","blocks":[],"limits":[{"kind":"humans","values":["Humans"],"against":["Animals"]},{"kind":"ages","values":["Children"],"titles":["child*"]}]}`: true,
		`{"tamiz":"strategy/1","blocks":[],"limits":[{"kind":"humans","against":["Animals"]}]}`:                                                                               false,
		`{"tamiz":"strategy/1","blocks":[],"limits":[{"kind":"years"}]}`:                                                                                                      false, `{"tamiz":"strategy/1","blocks":[],"limits":[{"kind":"types","values":[]}]}`: false,
	} {
		var value any
		require.NoError(t, json.Unmarshal([]byte(file), &value), file)
		assert.Equal(t, good, schema.Validate(value) == nil, "schema of %s", file)
		_, err := strategy.Parse([]byte(file))
		assert.Equal(t, good, err == nil, "%s: %v", file, err)
	}
}

func TestANumberAmongNumberedLinesIsATerm(t *testing.T) {
	s, err := strategy.Parse(
		[]byte(
			`{"tamiz":"strategy/1","blocks":[{"name":"A","terms":[{"kind":"text","text":"2019"},{"kind":"text","text":"heat"}]}]}`,
		),
	)
	require.NoError(t, err)
	lines, err := s.Lines(nil)
	require.NoError(t, err)
	assert.Equal(t, `"2019"`, lines[0].Text)
	assert.Equal(t, "heat", lines[1].Text)
}

func TestTwoBlocksOfOneNameAreRefused(t *testing.T) {
	_, err := strategy.Parse([]byte(`{"tamiz":"strategy/1","blocks":[{"name":"A","terms":[]},{"name":"A","terms":[]}]}`))
	assert.ErrorContains(t, err, `two blocks are named "A"`)
}

func FuzzParse(f *testing.F) {
	f.Add([]byte(crews))
	f.Fuzz(func(t *testing.T, data []byte) {
		s, err := strategy.Parse(data)
		if err != nil {
			return
		}
		written, err := json.Marshal(s)
		require.NoError(t, err)
		again, err := strategy.Parse(written)
		require.NoError(t, err, "%s", written)
		cql, err := s.CQL(nil)
		if err != nil {
			return
		}
		q, err := query.Parse(cql, nil)
		require.NoError(t, err, cql)
		whole, err := again.Query(nil)
		require.NoError(t, err)
		require.Equal(t, query.Write(whole), query.Write(q.Expr))
	})
}

// Each line finds what it is said to, and the last one all of it.
func TestNumberedLinesAreTheStrategy(t *testing.T) {
	s, err := strategy.Parse([]byte(crews))
	require.NoError(t, err)
	lines, err := s.Numbered(nil)
	require.NoError(t, err)
	for _, l := range lines {
		for _, p := range l.Parts {
			assert.Less(t, p, l.Number, "a line joins earlier ones")
		}
	}
	whole, err := s.Query(nil)
	require.NoError(t, err)
	assert.Equal(t, whole, lines[len(lines)-1].Expr)
	assert.Equal(t, "9 not 6", lines[len(lines)-1].Joined())
	none, err := strategy.Strategy{
		Blocks: []strategy.Block{
			{Name: "A", Searched: true},
			{Name: "B", Searched: true, Terms: []strategy.Term{{Kind: "text", Text: "heat", On: true}}},
		},
	}.Numbered(
		nil,
	)
	require.NoError(t, err)
	require.Len(t, none, 1, "of what finds nothing the terms alone")
	assert.Equal(t, strategy.TermLine, none[0].Kind)
}

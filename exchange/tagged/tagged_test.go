package tagged_test

import (
	"encoding/json"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/readtest"
	"tamiz/exchange/ris"
	"tamiz/exchange/tagged"
)

func readAll(t require.TestingT, file string, m tagged.Map) ([]*bib.Record, []exchange.Notice) {
	return readtest.All(t, func(report func(exchange.Notice)) *tagged.Reader {
		return tagged.NewReader(strings.NewReader(file), m, "tagged", report)
	})
}

// The guess that a form begins with reads these texts without a change.
func TestAGuessReadsWhatLooksTagged(t *testing.T) {
	for name, file := range map[string]string{
		"labels and blank lines": "Card: 1\nTitle: Heat in\n crews\nBy: Velkana, Temi; Osolana, Ife\nYear: 2014\nSeen: " +
			"yes\n\nCard: 2\nTitle: Shade\nBy: Wexlin, Z\nYear: 2016\n",
		"signs before the tag": "#TI Heat in\ncrews\n#AU Velkana, Temi\n#AU Osolana, Ife\n#PY 2014\n\n#TI Shade\n#AU " +
			"Wexlin, Z\n#PY 2016\n",
		"in angle brackets": "<title> Heat in crews\n<author> Velkana, Temi\n<author> Osolana, Ife\n<year> " +
			"2014\n<end>\n<title> Shade\n<author> Wexlin, Z\n<year> 2016\n<end>\n",
		"tabs": "title\tHeat in crews\nauthor\tVelkana, Temi\nauthor\tOsolana, " +
			"Ife\nyear\t2014\n\ntitle\tShade\nauthor\tWexlin, Z\nyear\t2016\n",
		"equals signs": "TITLE = Heat in crews\nAUTHOR = Velkana, Temi; Osolana, Ife\nYEAR = 2014\n\nTITLE = " +
			"Shade\nAUTHOR = Wexlin, Z\nYEAR = 2016\n",
	} {
		m, ok := tagged.Guess(file)
		require.True(t, ok, name)
		require.NoError(t, m.Check(), name)
		records, _ := readAll(t, file, m)
		require.Len(t, records, 2, name)
		assert.Equal(t, "Heat in crews", records[0].Title, name)
		assert.Equal(
			t,
			[]string{"Velkana", "Osolana"},
			[]string{records[0].Authors[0].Family, records[0].Authors[1].Family},
			name,
		)
		assert.Equal(t, []int{2014, 2016}, []int{records[0].Year, records[1].Year}, name)
	}
	for _, prose := range []string{"", "Dear all,\nhere are the records.\n",
		strings.Repeat("Heat harms kidneys. Rest helps.\n", 50)} {
		_, ok := tagged.Guess(prose)
		assert.False(t, ok, prose)
	}
}

func TestHowRecordsBeginAndEndAndLinesGoOn(t *testing.T) {
	base := tagged.Map{
		Format:    tagged.Version,
		Line:      tagged.Line{Letters: tagged.Label, Min: 1, Max: 20, After: ":", Padded: true, Listed: true},
		Continues: tagged.AnyLine,
		Fields: []tagged.Field{
			{Field: "title", Tags: []string{"Title"}},
			{Field: "abstract", Tags: []string{"Text"}},
			{Field: exchange.Own, Tags: []string{"Seen by"}},
			{Field: exchange.Leave, Tags: []string{"Nr"}},
		},
	}
	with := func(change func(*tagged.Map)) tagged.Map {
		m := base
		change(&m)
		return m
	}
	for name, c := range map[string]struct {
		m      tagged.Map
		file   string
		titles []string
	}{
		"by a tag": {with(func(m *tagged.Map) { m.Begins = "Nr" }), "Nr: 1\nTitle: Heat\nNr: 2\nTitle: Rest\n",
			[]string{"Heat", "Rest"}},
		"by an end": {with(func(m *tagged.Map) { m.Ends = "Title" }),
			"Nr: 1\nText: Heat\nTitle:\nNr: 2\nText: Rest\nTitle:\n", []string{"", ""}},
		"by a blank line": {with(func(m *tagged.Map) { m.Blank = true }), "Title: Heat\n\n\nTitle: Rest\n",
			[]string{"Heat", "Rest"}},
		"by a ruled line": {with(func(m *tagged.Map) { m.Rule = "---" }), "Title: Heat\n--- 1 ---\nTitle: Rest\n",
			[]string{"Heat", "Rest"}},
		"capitals": {with(func(m *tagged.Map) { m.Blank = true }), "TITLE : Heat\n", []string{"Heat"}},
		"text with a colon": {with(func(m *tagged.Map) { m.Blank = true }), "Title: Heat\nand rest: a trial\n",
			[]string{"Heat and rest: a trial"}},
		"indented lines": {with(func(m *tagged.Map) { m.Blank, m.Continues = true, tagged.Indented }),
			"Title: Heat\n  and rest\nnot this\n", []string{"Heat and rest"}},
		"a hyphen in a word": {with(func(m *tagged.Map) { m.Blank, m.Line.After = true, "-" }),
			"Title - Heat-strain\nTitle-wave\n", []string{"Heat-strain Title-wave"}},
	} {
		require.NoError(t, c.m.Check(), name)
		records, _ := readAll(t, c.file, c.m)
		titles := []string{}
		for _, r := range records {
			titles = append(titles, r.Title)
		}
		assert.Equal(t, c.titles, titles, name)
	}
	records, _ := readAll(t, "Nr: 1\nTitle: Heat\nSeen by: Ife\n", with(func(m *tagged.Map) { m.Begins = "Nr" }))
	assert.Equal(
		t,
		[]bib.Extra{{Tag: "Seen by", Value: "Ife", Format: "tagged"}},
		records[0].Extra,
		"kept under its own name; what is left out is not",
	)
}

func TestMapsAreCheckedAndShared(t *testing.T) {
	body, err := json.Marshal(ris.Map)
	require.NoError(t, err)
	m, err := tagged.Read(strings.NewReader(string(body)))
	require.NoError(t, err)
	assert.Equal(t, ris.Map, m, "RIS is such a map")
	for wrong, change := range map[string]func(*tagged.Map){
		"says \"tamiz\"":            func(m *tagged.Map) { m.Format = "x" },
		"tags are made as":          func(m *tagged.Map) { m.Line.Letters = "x" },
		"1 to 80 characters":        func(m *tagged.Map) { m.Line.Max = 1000 },
		"something has to stand":    func(m *tagged.Map) { m.Line.After = "" },
		"values go on with":         func(m *tagged.Map) { m.Continues = "x" },
		"begins or ends":            func(m *tagged.Map) { m.Begins, m.Ends = "", "" },
		"there is no field \"x\"":   func(m *tagged.Map) { m.Fields = []tagged.Field{{Field: "x", Tags: []string{"A"}}} },
		"no tag stands for a field": func(m *tagged.Map) { m.Fields = []tagged.Field{} },
		"values are taken as": func(m *tagged.Map) {
			m.Fields = []tagged.Field{{Field: "title", Tags: []string{"A"},
				Take: "x"}}
		},
		"1 to 80 characters, not \"": func(m *tagged.Map) { m.Fields = []tagged.Field{{Field: "title", Tags: []string{""}}} },
	} {
		m := ris.Map
		change(&m)
		assert.ErrorContains(t, m.Check(), wrong)
	}
	_, err = tagged.Read(strings.NewReader(`{"tamiz": "reader-map/1", "colour": 1}`))
	assert.ErrorContains(t, err, "no reader map")
}

func FuzzReader(f *testing.F) {
	f.Add("Card: 1\nTitle: Heat\n\nCard: 2\nTitle: Rest\n", "label", ":", "", true)
	f.Add("#TI Heat\n#AU x\n", "word", " ", "#", false)
	f.Add("TI-x\nTI - y\n", "code", "-", "", true)
	f.Fuzz(func(t *testing.T, file, letters, after, before string, padded bool) {
		guess, _ := tagged.Guess(file)
		own := guess
		own.Line = tagged.Line{Before: before, Letters: letters, Min: 1, Max: 20, After: after, Padded: padded}
		own.Fields = []tagged.Field{{Field: "title", Tags: []string{"TI", "Title"}}}
		for _, m := range []tagged.Map{guess, own} {
			if m.Check() != nil {
				continue
			}
			records, _ := readAll(t, file, m)
			for _, r := range records {
				require.NotEmpty(t, r.ID)
			}
		}
	})
}

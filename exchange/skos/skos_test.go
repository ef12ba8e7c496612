package skos_test

import (
	"bytes"
	"fmt"
	"os"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/thesaurus"
	"tamiz/demo"
	"tamiz/exchange"
	"tamiz/exchange/skos"
)

// The same small vocabulary in each of the three forms.
var forms = map[string]string{
	"N-Triples": `# a comment
<https://v.example/1> <http://www.w3.org/1999/02/22-rdf-syntax-ns#type> <http://www.w3.org/2004/02/skos/core#Concept> .
<https://v.example/1> <http://www.w3.org/2004/02/skos/core#prefLabel> "Land Workforce"@en .
<https://v.example/1> <http://www.w3.org/2004/02/skos/core#prefLabel> "Trabajo rural"@es .
<https://v.example/2> <http://www.w3.org/1999/02/22-rdf-syntax-ns#type> <http://www.w3.org/2004/02/skos/core#Concept> .
<https://v.example/2> <http://www.w3.org/2004/02/skos/core#prefLabel> "Crop \"Harvesters\""@en .
<https://v.example/2> <http://www.w3.org/2004/02/skos/core#altLabel> "field hands"@en .
<https://v.example/2> <http://www.w3.org/2004/02/skos/core#altLabel> "jornaleros"@es .
<https://v.example/2> <http://www.w3.org/2004/02/skos/core#hiddenLabel> "feild hands"@en .
<https://v.example/2> <http://www.w3.org/2004/02/skos/core#scopeNote> "Hired hands\u2014not owners."@en .
<https://v.example/2> <http://www.w3.org/2004/02/skos/core#changeNote> "New in 2014."@en .
<https://v.example/2> <http://www.w3.org/2004/02/skos/core#broader> <https://v.example/1> .
<https://v.example/2> <http://www.w3.org/2004/02/skos/core#exactMatch> <https://w.example/9> .
<https://v.example/2> <http://www.w3.org/2004/02/skos/core#notation> "A1.2" .
<https://v.example/qualifiers> <http://www.w3.org/1999/02/22-rdf-syntax-ns#type> <http://www.w3.org/2004/02/skos/core#Collection> .
<https://v.example/qualifiers> <http://www.w3.org/2004/02/skos/core#member> <https://v.example/3> .
<https://v.example/3> <http://www.w3.org/2004/02/skos/core#prefLabel> "prevention"@en .
`,
	"RDF/XML": `<?xml version="1.0" encoding="UTF-8"?>
<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns:skos="http://www.w3.org/2004/02/skos/core#" xml:base="https://v.example/">
  <skos:Concept rdf:about="1">
    <skos:prefLabel xml:lang="en">Land Workforce</skos:prefLabel>
    <skos:prefLabel xml:lang="es">Trabajo rural</skos:prefLabel>
  </skos:Concept>
  <rdf:Description rdf:about="2" xml:lang="en" skos:notation="A1.2">
    <rdf:type rdf:resource="http://www.w3.org/2004/02/skos/core#Concept"/>
    <skos:prefLabel>Crop "Harvesters"</skos:prefLabel>
    <skos:altLabel>field hands</skos:altLabel>
    <skos:altLabel xml:lang="es">jornaleros</skos:altLabel>
    <skos:hiddenLabel>feild hands</skos:hiddenLabel>
    <skos:scopeNote>Hired hands—not owners.</skos:scopeNote>
    <skos:changeNote>New in 2014.</skos:changeNote>
    <skos:broader rdf:resource="1"/>
    <skos:exactMatch rdf:resource="https://w.example/9"/>
  </rdf:Description>
  <skos:Collection rdf:about="qualifiers">
    <skos:member><skos:Concept rdf:about="3"><skos:prefLabel xml:lang="en">prevention</skos:prefLabel></skos:Concept></skos:member>
  </skos:Collection>
</rdf:RDF>`,
	"JSON-LD": `{
  "@context": {"skos": "http://www.w3.org/2004/02/skos/core#", "id": "@id", "type": "@type", "prefLabel": {"@id": "skos:prefLabel", "@container": "@language"},
    "altLabel": {"@id": "skos:altLabel", "@container": "@language"}, "broader": {"@id": "skos:broader", "@type": "@id"}, "@base": "https://v.example/"},
  "@graph": [
    {"id": "1", "type": "skos:Concept", "prefLabel": {"en": "Land Workforce", "es": "Trabajo rural"}},
    {"id": "2", "type": "skos:Concept", "prefLabel": {"en": "Crop \"Harvesters\""}, "altLabel": {"en": "field hands", "es": "jornaleros"},
      "skos:hiddenLabel": {"@value": "feild hands", "@language": "en"}, "skos:scopeNote": {"@value": "Hired hands—not owners.", "@language": "en"},
      "skos:changeNote": {"@value": "New in 2014.", "@language": "en"}, "broader": "1", "skos:exactMatch": {"@id": "https://w.example/9"}, "skos:notation": "A1.2"},
    {"id": "qualifiers", "type": "skos:Collection", "skos:member": [{"id": "3", "type": "skos:Concept", "prefLabel": {"en": "prevention"}}]}
  ]
}`,
}

func load(t testing.TB, file, language string) (*thesaurus.Thesaurus, []exchange.Notice) {
	var notices []exchange.Notice
	v, err := skos.Load(strings.NewReader(file), language, func(n exchange.Notice) { notices = append(notices, n) })
	require.NoError(t, err)
	return v, notices
}

func TestAVocabularyIsTheSameInEveryForm(t *testing.T) {
	for name, file := range forms {
		v, notices := load(t, file, "en")
		assert.Empty(t, notices, name)
		assert.Equal(t, []string{"prevention"}, v.Qualifiers, name)
		assert.Equal(t, []thesaurus.Heading{
			{
				ID:          "https://v.example/2",
				Label:       `Crop "Harvesters"`,
				EntryTerms:  []string{"field hands", "feild hands"},
				ScopeNote:   "Hired hands—not owners.",
				HistoryNote: "New in 2014.",
				Notation:    "A1.2",
				Broader:     []int{1},
				Exact:       []string{"https://w.example/9"},
				OtherTerms:  []thesaurus.Text{{Value: "jornaleros", Language: "es"}},
			},
			{
				ID:          "https://v.example/1",
				Label:       "Land Workforce",
				Narrower:    []int{0},
				OtherLabels: []thesaurus.Text{{Value: "Trabajo rural", Language: "es"}},
			},
		}, []thesaurus.Heading{v.At(0), v.At(1)}, name)
	}
}

func TestTheLanguageOfLabelsIsChosen(t *testing.T) {
	v, notices := load(t, forms["N-Triples"], "es")
	_, ok := v.Find("trabajo RURAL")
	assert.True(t, ok)
	require.NotEmpty(t, notices)
	assert.Equal(t, exchange.OtherLanguage, notices[0].Kind)
	label, ok := v.Heading("jornaleros")
	assert.True(t, ok, "an entry term in the chosen language")
	assert.Equal(t, `Crop "Harvesters"`, label)
}

func TestWhatIsWrongWithAVocabularyIsTold(t *testing.T) {
	concept := func(id, label string, more ...string) string {
		s := fmt.Sprintf("<c:%s> <http://www.w3.org/2004/02/skos/core#prefLabel> \"%s\"@en .\n", id, label)
		for _, m := range more {
			name, to, _ := strings.Cut(m, " ")
			s += fmt.Sprintf("<c:%s> <http://www.w3.org/2004/02/skos/core#%s> %s .\n", id, name, to)
		}
		return s
	}
	for name, c := range map[string]struct {
		file string
		kind exchange.Kind
	}{
		"circle": {concept("1", "A", "broader <c:2>") + concept("2", "B", "broader <c:3>") +
			concept("3", "C", "broader <c:1>"), exchange.Cycle},
		"below itself":    {concept("1", "A", "broader <c:1>"), exchange.Cycle},
		"no parent":       {concept("1", "A", "broader <c:7>"), exchange.NoParent},
		"two labels":      {concept("1", "A", `prefLabel "AA"@en`), exchange.TwoLabels},
		"one label twice": {concept("1", "A") + concept("2", "a"), exchange.SameLabel},
		"no label": {concept("1", "A") +
			"<c:2> <http://www.w3.org/1999/02/22-rdf-syntax-ns#type> <http://www.w3.org/2004/02/skos/core#Concept> .\n",
			exchange.NoLabel},
		"no statement": {concept("1", "A") + "this is none\n", exchange.NoStatement},
		"cut off": {concept("1", "A") + `<c:2> <http://www.w3.org/2004/02/skos/core#prefLabel> "half`,
			exchange.NoStatement},
		"a bad escape": {concept("1", "A") + `<c:2> <http://www.w3.org/2004/02/skos/core#prefLabel> "\uD800" .`,
			exchange.NoStatement},
		"not UTF-8": {concept("1", "Caf\xe9"), exchange.OtherEncoding},
		"another language": {concept("1", "A") + `<c:2> <http://www.w3.org/2004/02/skos/core#prefLabel> "B"@fr .`,
			exchange.OtherLanguage},
	} {
		v, notices := load(t, c.file, "en")
		var kinds []exchange.Kind
		for _, n := range notices {
			kinds = append(kinds, n.Kind)
			assert.NotContains(t, n.String(), "%!", name)
		}
		assert.Contains(t, kinds, c.kind, name)
		for i := range v.Len() { // every walk ends
			v.Below(i)
			assert.NotEmpty(t, v.Places(i), name)
		}
	}
}

func TestFilesThatAreNoVocabularyAreRefused(t *testing.T) {
	for name, file := range map[string]string{
		"empty": "", "white space": " \n", "prose": strings.Repeat("Heat and kidneys in farm crews.\n", 300),
		"JSON that is none": `{"a": 1}`,
		"half JSON":         `{"@graph": [`, "a context from " +
			"elsewhere": `{"@context": "https://elsewhere.example/skos.jsonld", "prefLabel": "x"}`,
		"XML that is none":              "<html><body>Heat</body></html>",
		"half XML":                      `<rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#"><rdf:Description>`,
		"deep XML":                      `<a xmlns="c:d">` + strings.Repeat("<b><a>", 500),
		"one statement of another kind": "<c:1> <c:2> <c:3> .\n",
	} {
		_, err := skos.Load(strings.NewReader(file), "", nil)
		assert.Error(t, err, name)
	}
}

func TestAMillionStatementsAreReadAsAStream(t *testing.T) {
	var file bytes.Buffer
	const n = 200_000
	for i := range n {
		fmt.Fprintf(&file, "<c:%d> <http://www.w3.org/2004/02/skos/core#prefLabel> \"Heading %d\"@en .\n", i, i)
		fmt.Fprintf(&file, "<c:%d> <http://www.w3.org/2004/02/skos/core#altLabel> \"term %d\"@en .\n", i, i)
		if i > 0 {
			fmt.Fprintf(&file, "<c:%d> <http://www.w3.org/2004/02/skos/core#broader> <c:%d> .\n", i, i/2)
			fmt.Fprintf(&file, "<c:%d> <http://www.w3.org/2004/02/skos/core#related> <c:%d> .\n", i, i-1)
			fmt.Fprintf(&file, "<c:%d> <http://purl.org/dc/terms/modified> \"2024-05-01\" .\n", i)
		}
	}
	v, notices := load(t, file.String(), "")
	assert.Empty(t, notices)
	assert.Equal(t, n, v.Len())
	top, ok := v.Find("heading 1")
	require.True(t, ok)
	assert.Len(t, v.Below(top), n-1)
}

func TestAVocabularyAsDeepAsItIsLargeIsWalked(t *testing.T) {
	var file strings.Builder
	const n = 50_000
	for i := range n {
		fmt.Fprintf(
			&file,
			"<c:%d> <http://www.w3.org/2004/02/skos/core#prefLabel> \"H%d\" .\n<c:%d> "+
				"<http://www.w3.org/2004/02/skos/core#broader> <c:%d> .\n",
			i,
			i,
			i,
			(i+1)%n,
		)
	}
	v, notices := load(t, file.String(), "")
	assert.Len(t, notices, 1)
	assert.Equal(t, n, v.Len())
}

func TestLabelsOfEveryKindAreKept(t *testing.T) {
	var file strings.Builder
	say := func(id, label, language string) {
		fmt.Fprintf(&file, "<c:%s> <http://www.w3.org/2004/02/skos/core#prefLabel> \"%s\"@%s .\n", id, label, language)
	}
	languages := []string{"en", "ar", "he", "fa", "zh", "ja", "ru", "el", "hi", "th", "pl"}
	for i, l := range languages {
		say(
			"1",
			[]string{"Heat", "حرارة", "חום", "گرما", "热", "熱", "Тепло", "Θερμότητα", "गर्मी", "ความร้อน", "Ciepło"}[i],
			l,
		)
	}
	say("2", `Rest\nand shade`, "en")
	say("3", strings.Repeat("very ", 2000)+"long", "en")
	say("4", "", "en")
	for i := range 100_000 { // what belongs to no vocabulary
		fmt.Fprintf(&file, "_:b%d <http://purl.org/dc/terms/creator> _:b%d .\n", i, i+1)
	}
	v, notices := load(t, file.String(), "en")
	assert.Equal(t, 3, v.Len())
	require.Len(t, notices, 1)
	assert.Equal(t, exchange.NoLabel, notices[0].Kind)
	heat, ok := v.Find("heat")
	require.True(t, ok)
	assert.Len(t, v.At(heat).OtherLabels, 10)
	assert.Len(t, v.Spoken(), 11)
	for _, word := range []string{"حرارة", "חום", "тепло", "ciepło", "θερμοτητα"} {
		leads := v.LookUp(word)
		require.Len(t, leads, 1, word)
		assert.Equal(t, heat, leads[0].Heading, word)
	}
	_, ok = v.Find("rest and shade")
	assert.True(t, ok, "a line break is a space")
}

func TestTheDemoVocabularyIsWrittenAndReadBack(t *testing.T) {
	var file bytes.Buffer
	require.NoError(t, skos.Write(&file, demo.Headings()))
	read, err := skos.Read(bytes.NewReader(file.Bytes()), nil)
	require.NoError(t, err)
	assert.Equal(t, demo.Headings(), read)
}

func TestTheWoolVocabularyHasItsTree(t *testing.T) {
	file, err := os.Open("../../testdata/vectors/wool/vocabulary.nt")
	require.NoError(t, err)
	defer file.Close()
	v, err := skos.Load(file, "", nil)
	require.NoError(t, err)
	assert.Equal(t, 21, v.Len())
	guards, ok := v.Find("ear guards")
	require.True(t, ok)
	assert.Len(t, v.Below(guards), 3)
}

func FuzzLoad(f *testing.F) {
	for _, file := range forms {
		f.Add(file)
	}
	f.Fuzz(func(t *testing.T, file string) {
		v, err := skos.Load(strings.NewReader(file), "", nil)
		if err != nil {
			return
		}
		for i := range v.Len() {
			v.Below(i)
			v.Places(i)
		}
		v.LookUp("hand")
	})
}

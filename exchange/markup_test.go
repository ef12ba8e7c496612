package exchange_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/core/bib"
	"tamiz/exchange"
)

func TestMarkupInTextIsTakenAway(t *testing.T) {
	for in, want := range map[string]string{
		"plain": "plain",
		"CO<sub>2</sub> and <i>in vivo</i> strain":                                                                                                         "CO2 and in vivo strain",
		"<jats:p>Crews rested.</jats:p><jats:p>Kidneys <jats:italic>recovered</jats:italic>.</jats:p>":                                                     "Crews rested. Kidneys recovered.",
		"<jats:sec><jats:title>Methods</jats:title><jats:p>A trial.</jats:p></jats:sec><jats:sec><jats:title>Results:</jats:title><p>None.</p></jats:sec>": "Methods: A trial. Results: None.",
		"Heat &amp; rest, 5 &lt; 6, caf&eacute; &#8211; &alpha;":                                                                                           "Heat & rest, 5 < 6, café – α",
		"p < 0.05 and x<y, y>z":                      "p < 0.05 and x<y, y>z",
		"a <weird> word and 1<i":                     "a <weird> word and 1<i",
		"x<y.</p> and <b and c>":                     "x<y. and <b and c>",
		"AT&T and R&D":                               "AT&T and R&D",
		"<p>one</p> <!-- kept? --> two":              "one two",
		"line one<br/>line two<BR>three":             "line one line two three",
		"<strong>Aim</strong>: to <b>see":            "Aim: to see",
		`<span class="x">a</span> <A href='b'>c</A>`: "a c",
	} {
		assert.Equal(t, want, exchange.Plain(in), in)
	}
}

func TestWhatIsGuardedComesBack(t *testing.T) {
	piece := rapid.SampledFrom([]string{"heat", " ", "<", ">", "&", "amp;", "<i>", "</i>", "&lt;", "<p>", "x", ";", "<!--", "-->", "é", "\"", "'"})
	rapid.Check(t, func(t *rapid.T) {
		s := ""
		for _, p := range rapid.SliceOfN(piece, 0, 12).Draw(t, "pieces") {
			s += p
		}
		s = bib.Flat(s)
		assert.Equal(t, s, exchange.Plain(exchange.Guarded(s)))
	})
}

func TestManyValuesInOneText(t *testing.T) {
	assert.Equal(t, []string{"heat", "rest breaks", "Kidney Harm, Chronic"}, exchange.Parted("heat;rest breaks ; ;Kidney Harm, Chronic"))
	assert.Equal(t, []string{"heat", "rest breaks"}, exchange.Parted("heat, rest breaks"))
	rapid.Check(t, func(t *rapid.T) {
		values := rapid.SliceOfN(rapid.StringMatching(`[a-z]+(, [a-z]+)?`), 1, 5).Draw(t, "values")
		assert.Equal(t, values, exchange.Parted(exchange.Joined(values)))
	})
}

func TestFlatIsWhatFieldsJoinedAre(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		s := rapid.StringMatching(`[a é\t\n\x{a0}\x01–]{0,20}`).Draw(t, "text")
		assert.Equal(t, strings.Join(strings.Fields(s), " "), bib.Flat(s))
	})
}

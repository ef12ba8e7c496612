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
		"CO<sub>2</sub> and <i>in vivo</i> strain": "CO2 and in vivo strain",
		"<jats:p>Crews rested.</jats:p><jats:p>Kidneys " +
			"<jats:italic>recovered</jats:italic>.</jats:p>": "Crews " +
			"rested. Kidneys recovered.",
		"<jats:sec><jats:title>Methods</jats:title><jats:p>A " +
			"trial.</jats:p></jats:sec><jats:sec><jats:title>Results:</jats:title><p>None.</p></jats:sec>": "Methods: A " +
			"trial. Results: None.",
		"Heat &amp; rest, 5 &lt; 6, caf&eacute; &#8211; " +
			"&alpha;": "Heat & " +
			"rest, 5 < 6, café – α",
		"p < 0.05 and x<y, y>z":                                        "p < 0.05 and x<y, y>z",
		"a <weird> word and 1<i":                                       "a <weird> word and 1<i",
		"x<y.</p> and <b and c>":                                       "x<y. and <b and c>",
		"AT&T and R&D":                                                 "AT&T and R&D",
		"&nothing; and &amp without an end":                            "&nothing; and &amp without an end",
		"&copy2020 &notit; &auml;":                                     "&copy2020 &notit; ä",
		"CO&lt;sub&gt;2&lt;/sub&gt; in &lt;i&gt;vivo&lt;/i&gt;":        "CO2 in vivo",
		"the mark &amp;lt;i&amp;gt; stands for it":                     "the mark &lt;i&gt; stands for it",
		"seen <script>alert('x < y')</script>here <style>p {}</style>": "seen here",
		"a &#60;b&#62; written so":                                     "a <b> written so",
		"<p>one</p> <!-- kept? --> two":                                "one two",
		"line one<br/>line two<BR>three":                               "line one line two three",
		"<strong>Aim</strong>: to <b>see":                              "Aim: to see",
		`<span class="x">a</span> <A href='b'>c</A>`:                   "a c",
	} {
		assert.Equal(t, want, exchange.Plain(in), in)
	}
}

func TestWhatIsGuardedComesBack(t *testing.T) {
	piece := rapid.SampledFrom(
		[]string{"heat", " ", "<", ">", "&", "amp;", "<i>", "</i>", "&lt;", "<p>", "x", ";", "<!--", "-->", "é", "\"", "'"},
	)
	rapid.Check(t, func(t *rapid.T) {
		s := ""
		for _, p := range rapid.SliceOfN(piece, 0, 12).Draw(t, "pieces") {
			s += p
		}
		s = bib.Flat(s)
		assert.Equal(t, s, exchange.Plain(exchange.Guarded(s)))
	})
}

func TestASemicolonWithinAValueStaysThere(t *testing.T) {
	assert.Equal(t, []string{"M&uuml;hle", "heat &amp; rest"}, exchange.Parted("M&uuml;hle; heat &amp; rest"))
	assert.Equal(t, []string{"&uuml;, a name"}, exchange.Parted("&uuml;, a name;"))
	piece := rapid.SampledFrom([]string{"heat", " ", ";", ",", "&", "amp", "#59", "x", "&amp;", "<i>", "/"})
	rapid.Check(t, func(t *rapid.T) {
		var values, guarded []string
		for range rapid.IntRange(1, 4).Draw(t, "values") {
			v := ""
			for _, p := range rapid.SliceOfN(piece, 1, 6).Draw(t, "pieces") {
				v += p
			}
			if v = bib.Flat(v); v != "" {
				values, guarded = append(values, v), append(guarded, exchange.Guarded(v))
			}
		}
		var back []string
		for _, v := range exchange.Parted(exchange.Joined(guarded)) {
			back = append(back, exchange.Plain(v))
		}
		assert.Equal(t, values, back, "%q", exchange.Joined(guarded))
	})
}

func TestManyValuesInOneText(t *testing.T) {
	assert.Equal(
		t,
		[]string{"heat", "rest breaks", "Kidney Harm, Chronic"},
		exchange.Parted("heat;rest breaks ; ;Kidney Harm, Chronic"),
	)
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

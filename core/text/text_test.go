package text_test

import (
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/text"
)

// prose draws text of the kind that breaks tokenisers: accents, quotes, marks that compose, scripts
// without spaces, stray invisible characters.
func prose() *rapid.Generator[string] {
	letters := []rune("aesz'’`-–\u00ad\u200b .,;ÄéßİǆﬁΣς手疹ガｶﾞ½²10\u0301\u0327\u200d\n()™한글हाथ")
	return rapid.StringOf(rapid.OneOf(rapid.RuneFrom(letters), rapid.RuneFrom(letters), rapid.Rune()))
}

func TestNormalisingTwiceChangesNothingForTokens(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		for _, token := range text.Tokens(prose().Draw(t, "value")) {
			assert.NotEmpty(t, token)
			assert.NotContains(t, token, "'")
		}
	})
}

func TestSpansStandWhereTheirTokensAreWritten(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		value := prose().Draw(t, "value")
		end := 0
		for _, s := range text.Spans(value) {
			require.True(t, 0 <= s.Start && s.Start < s.End && s.End <= len(value), "%+v in %q", s, value)
			require.True(t, utf8.RuneStart(value[s.Start]))
			require.GreaterOrEqual(t, s.End, end)
			end = s.End
		}
	})
}

func TestSpansAreTheTokens(t *testing.T) {
	words := rapid.SampledFrom(
		[]string{
			"Sjögren’s",
			"CO₂",
			"ﬁbre",
			"sea\u00adweed",
			"手湿疹",
			"workers'",
			"–",
			"(heat)",
			"Straße",
			"e\u0301te\u0301",
			"PM₂.₅",
			"データ",
			"rock'n'roll",
			"İzmir",
		},
	)
	rapid.Check(t, func(t *rapid.T) {
		value := strings.Join(
			rapid.SliceOf(words).Draw(t, "words"),
			rapid.SampledFrom([]string{" ", "-", ", ", "\n"}).Draw(t, "between"),
		)
		var got []string
		for _, s := range text.Spans(value) {
			got = append(got, s.Token)
		}
		assert.Equal(t, text.Tokens(value), got, "%q", value)
	})
}

func TestSpanCoversTheWordAsWritten(t *testing.T) {
	value := "Among cane-cutters’ crews, Sjögren’s sign rose."
	var words []string
	for _, s := range text.Spans(value) {
		words = append(words, value[s.Start:s.End])
	}
	assert.Equal(t, []string{"Among", "cane", "cutters", "crews", "Sjögren", "sign", "rose"}, words)
}

func TestWhyATermIsRefused(t *testing.T) {
	for typed, reason := range map[string]text.Reason{
		"":                         text.NoWord,
		" ,.; ":                    text.NoWord,
		"a*":                       text.TooOpen,
		"cane c*":                  text.TooOpen,
		"手*":                       text.TooOpen,
		strings.Repeat("x", 10000): text.TooLong,
	} {
		_, err := text.ParsePattern(typed)
		var refusal *text.Refusal
		if assert.ErrorAs(t, err, &refusal, "%.20q", typed) {
			assert.Equal(t, reason, refusal.Reason, "%.20q", typed)
			assert.Less(t, len(err.Error()), 200)
		}
	}
}

func TestGlobAgreesWithItsDefinition(t *testing.T) {
	var simple func(p, s []rune) bool
	simple = func(p, s []rune) bool {
		if len(p) == 0 {
			return len(s) == 0
		}
		if p[0] == '*' {
			return simple(p[1:], s) || len(s) > 0 && simple(p, s[1:])
		}
		return len(s) > 0 && (p[0] == '?' || p[0] == s[0]) && simple(p[1:], s[1:])
	}
	rapid.Check(t, func(t *rapid.T) {
		typed := rapid.StringOfN(rapid.RuneFrom([]rune("abßé*?")), 1, 8, -1).Draw(t, "typed")
		token := rapid.StringOfN(rapid.RuneFrom([]rune("abse")), 1, 10, -1).Draw(t, "token")
		p, err := text.ParsePattern(typed)
		if err != nil || len(p) != 1 {
			t.Skip()
		}
		assert.Equal(t, simple([]rune(p[0].String()), []rune(token)), p[0].Match(token), "%q on %q", typed, token)
	})
}

func FuzzParsePattern(f *testing.F) {
	for _, seed := range []string{"cane cutter*", "labo?r", "*", "手*", "a'*", "\xff*", "o'brien's*", "ab**?"} {
		f.Add(seed, "Cane-cutters’ labour 手湿疹")
	}
	f.Fuzz(func(t *testing.T, typed, value string) {
		p, err := text.ParsePattern(typed)
		if err != nil {
			return
		}
		tokens := text.Tokens(value)
		for _, i := range p.Find(tokens) {
			if !p.At(tokens, i) {
				t.Fatalf("%q found at %d but does not match there", typed, i)
			}
		}
		text.Spans(value)
	})
}

func TestTheCapitalsOfEveryScriptFold(t *testing.T) {
	for _, pair := range [][2]string{{"ꭰ", "Ꭰ"}, {"ꮿ", "Ꮿ"}, {"ᏸ", "Ᏸ"}, {"ς", "Σ"}, {"ß", "SS"}, {"ա", "Ա"}, {"ა", "Ა"}} {
		assert.Equal(t, text.Normalise(pair[0]), text.Normalise(pair[1]), pair[0])
	}
}

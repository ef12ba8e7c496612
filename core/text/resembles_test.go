package text_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
	"pgregory.net/rapid"

	"tamiz/core/text"
)

func TestATokenIsAllButWhatIsLookedFor(t *testing.T) {
	for _, x := range []struct {
		pattern, token string
		want           text.Likeness
	}{
		{"labourer", "laborers", text.OtherSpelling},
		{"picker", "pickers", text.OtherSpelling},
		{"labour*", "laborers", text.OtherSpelling},
		{"farming", "farmers", text.OtherEnding},
		{"hydration", "hydrated", text.OtherEnding},
		{"harvesters", "harvsters", text.OneEdit},
		{"harvesters", "havresters", text.OneEdit},
		{"creatin*", "craetinine", text.OneEdit},
		{"heat", "heap", ""},    // too short to be a slip
		{"farm*", "farms", ""},  // it matches
		{"*work", "wrok", ""},   // no stem
		{"tent", "tender", ""},  // another word
		{"rest", "restore", ""}, // its ending is none
	} {
		p, err := text.ParsePattern(x.pattern)
		require.NoError(t, err)
		assert.Equal(t, x.want, p[0].Resembles(x.token), "%s %s", x.pattern, x.token)
	}
}

// One edit leads there and back again.
func TestEditedIsMutual(t *testing.T) {
	word := rapid.StringMatching(`[abcé]{0,8}`)
	rapid.Check(t, func(t *rapid.T) {
		a, b := word.Draw(t, "a"), word.Draw(t, "b")
		assert.Equal(t, text.Edited(a, b), text.Edited(b, a))
		assert.False(t, text.Edited(a, a))
		letters := []rune(a)
		if len(letters) > 0 {
			i := rapid.IntRange(0, len(letters)-1).Draw(t, "i")
			less := string(letters[:i]) + string(letters[i+1:])
			assert.True(t, text.Edited(a, less), "%q %q", a, less)
			other := string(letters[:i]) + "x" + string(letters[i+1:])
			assert.True(t, text.Edited(a, other), "%q %q", a, other)
		}
	})
}

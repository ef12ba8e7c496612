package text_test

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/text"
)

// read loads a file of worked examples, which were computed independently of this program.
func read[T any](t *testing.T, name string) []T {
	t.Helper()
	b, err := os.ReadFile("../../testdata/vectors/" + name)
	require.NoError(t, err)
	var cases []T
	require.NoError(t, json.Unmarshal(b, &cases))
	require.NotEmpty(t, cases)
	return cases
}

func TestTokensAgreeWithWorkedExamples(t *testing.T) {
	type example struct {
		Input, Normalised string
		Tokens            []string
	}
	for _, c := range read[example](t, "tokens.json") {
		assert.Equal(t, c.Normalised, text.Normalise(c.Input), "normalised %q", c.Input)
		assert.Equal(t, c.Tokens, append([]string{}, text.Tokens(c.Input)...), "tokens of %q", c.Input)
		var spans []string
		for _, s := range text.Spans(c.Input) {
			spans = append(spans, s.Token)
			assert.LessOrEqual(t, s.Start, s.End)
		}
		assert.Equal(t, c.Tokens, append([]string{}, spans...), "spans of %q", c.Input)
	}
}

func TestGramsAgreeWithWorkedExamples(t *testing.T) {
	type example struct {
		Values   []string
		MaxWords int `json:"max_words"`
		Ngrams   map[string]int
	}
	for _, c := range read[example](t, "ngrams.json") {
		assert.Equal(t, c.Ngrams, text.Grams(c.Values, c.MaxWords), "%q", c.Values)
	}
}

func TestFreeTextAndNearAgreeWithWorkedExamples(t *testing.T) {
	type example struct {
		Term struct {
			Kind, Text, Left, Right string
			Within                  int
		}
		Value            string
		Matches, Refused bool
	}
	for _, c := range read[example](t, "match.json") {
		switch c.Term.Kind {
		case "text":
			p, err := text.ParsePattern(c.Term.Text)
			if c.Refused {
				var refusal *text.Refusal
				assert.ErrorAs(t, err, &refusal, "%q", c.Term.Text)
				continue
			}
			require.NoError(t, err, "%q", c.Term.Text)
			assert.Equal(t, c.Matches, len(p.Find(text.Tokens(c.Value))) > 0, "%q in %q", c.Term.Text, c.Value)
		case "near":
			left, errL := text.ParsePattern(c.Term.Left)
			right, errR := text.ParsePattern(c.Term.Right)
			if c.Refused {
				assert.True(t, errL != nil || errR != nil || c.Term.Within < 1, "%+v", c.Term)
				continue
			}
			assert.Equal(
				t,
				c.Matches,
				text.Near(left, right, text.Within(c.Term.Within), text.Tokens(c.Value)),
				"%+v in %q",
				c.Term,
				c.Value,
			)
		}
	}
}

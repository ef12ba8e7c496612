package standin_test

import (
	"fmt"
	"io"
	"net/http"
	"net/url"
	"regexp"
	"strconv"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/dialect"
	"tamiz/core/strategy"
	"tamiz/source/standin"
)

var counted = regexp.MustCompile(`<b>(\d+)</b> records`)

// typedAt returns how many records a stand-in finds for what is typed on its page; -1 where it refuses that.
func typedAt(t *testing.T, address, name, typed string) (int, string) {
	answer, err := http.PostForm(address+"/"+name+"/page", url.Values{"q": {typed}})
	require.NoError(t, err)
	defer answer.Body.Close()
	body, err := io.ReadAll(answer.Body)
	require.NoError(t, err)
	require.Equal(t, http.StatusOK, answer.StatusCode, string(body))
	m := counted.FindSubmatch(body)
	if m == nil {
		return -1, string(body)
	}
	n, err := strconv.Atoi(string(m[1]))
	require.NoError(t, err)
	return n, string(body)
}

// TestADialectIsSpokenByItsServer types a strategy in each dialect where it is spoken: what is found there is what the
// strategy was said to find as it is typed.
func TestADialectIsSpokenByItsServer(t *testing.T) {
	address := serve(t)
	from := 2005
	s := strategy.Strategy{Tamiz: strategy.Version, Blocks: []strategy.Block{
		{Name: "A", Searched: true, Terms: []strategy.Term{
			{Kind: strategy.HeadingTerm, Heading: "Agricultural Labor Force", Narrower: true, On: true},
			{Kind: strategy.TextTerm, Text: "farmworker*", Field: "text", On: true},
			{Kind: strategy.TextTerm, Text: "cane cutter*", Field: "titleAbstract", On: true},
			{Kind: strategy.TextTerm, Text: "labo?r*", Field: "title", On: true},
		}},
		{Name: "B", Searched: true, Terms: []strategy.Term{
			{Kind: strategy.NearTerm, Left: "rest", Right: "break*", Within: 3, Field: "text", On: true},
			{Kind: strategy.TextTerm, Text: "heat", Field: "text", On: true},
		}},
	}, Limits: []strategy.Limit{{Kind: strategy.YearsLimit, From: &from}}}
	for _, c := range standin.Sources(literature()) {
		d, ok := dialect.Named(c.Name)
		require.True(t, ok)
		typed, err := s.Typed(d, c.Vocabulary(), dialect.OptionsOf(c.Index()))
		require.NoError(t, err)
		said := typed.Whole.Said
		require.NotNil(t, said)
		wanted := int(said.Match(c.Index()).GetCardinality())
		require.Positive(t, wanted, c.Name)
		if d.Typed == dialect.AsLines {
			found, body := typedAt(t, address, c.Name, typed.Text(d))
			assert.Equal(t, wanted, found, "%s: %s\n%s", c.Name, typed.Text(d), body)
			continue
		}
		// Of several queries the records belong together: each is typed, and what it finds is what its part is said to.
		for _, q := range typed.Whole.Queries {
			read, err := d.Read(q, c.Vocabulary())
			require.NoError(t, err)
			found, body := typedAt(t, address, c.Name, q)
			assert.Equal(t, int(read.Expr().Match(c.Index()).GetCardinality()), found, "%s: %s\n%s", c.Name, q, body)
		}
		if len(typed.Whole.Queries) == 1 {
			found, _ := typedAt(t, address, c.Name, typed.Text(d))
			assert.Equal(t, wanted, found, c.Name)
		}
	}
}

func TestAPageSaysWhatItRefuses(t *testing.T) {
	address := serve(t)
	for name, typed := range map[string]string{"almagre": `heat @colour`, "surco": "words{heat}\nline 1 and line 7",
		"vilano": `(heat with (rest else (shade with (water else salt))))`} {
		found, body := typedAt(t, address, name, typed)
		assert.Equal(t, -1, found, "%s: %s", name, typed)
		assert.Contains(t, body, "Character", fmt.Sprint(name, body))
	}
	_, body := typedAt(t, address, "vilano", `<script>alert("x")</script>`)
	assert.NotContains(t, body, "<script>")
}

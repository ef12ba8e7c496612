package dialects

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/dialect"
)

func TestEachDialectThatShipsReadsWhatItWrites(t *testing.T) {
	a := New(nil)
	for _, d := range dialect.Known() {
		body, err := dialect.Source(d.Name)
		require.NoError(t, err)
		tried, err := a.Try(string(body))
		require.NoError(t, err)
		assert.Empty(t, tried.Broken)
		assert.Len(t, tried.Lines, 14)
		for _, l := range append(tried.Lines, tried.Whole) {
			assert.True(t, l.Agrees, "%s: %v is read as %s", d.Name, l.Texts, l.Read)
		}
		assert.NotEmpty(t, tried.Whole.Texts)
	}
}

func TestADialectThatIsNotRightYetIsTriedAllTheSame(t *testing.T) {
	a := New(nil)
	body, err := dialect.Source("almagre")
	require.NoError(t, err)
	d, err := dialect.Parse(body)
	require.NoError(t, err)
	// Two ways of joining under one word: it is written, and read as the other.
	same := strings.Replace(string(body), `"or": ["`+d.Operators.Or[0]+`"`, `"or": ["`+d.Operators.And[0]+`"`, 1)
	require.NotEqual(t, string(body), same)
	tried, err := a.Try(same)
	if err == nil {
		assert.NotEmpty(t, tried.Broken)
	} else {
		assert.ErrorContains(t, err, d.Operators.And[0])
	}
	_, err = a.Try(`{"tamiz": "dialect/1", "nmae": "x"}`)
	assert.ErrorContains(t, err, "nmae")
	_, err = a.Try(strings.Repeat(" ", longestFile+1))
	assert.ErrorContains(t, err, "at most")
}

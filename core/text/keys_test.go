package text_test

import (
	"encoding/json"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/text"
)

// What is known by a key in the browser is known by the same in the program: both keep to one file of examples.
func TestLabelsAreKnownByTheKeysOfTheExamples(t *testing.T) {
	body, err := os.ReadFile("../../testdata/keys.json")
	require.NoError(t, err)
	var examples []struct{ Written, Key string }
	require.NoError(t, json.Unmarshal(body, &examples))
	require.NotEmpty(t, examples)
	for _, x := range examples {
		assert.Equal(t, x.Key, text.Label(x.Written), "%q", x.Written)
	}
}

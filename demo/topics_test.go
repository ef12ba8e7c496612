package demo

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

func TestTopicsAndSentencesAreMany(t *testing.T) {
	assert.InDelta(t, 150, len(fields)+len(bodyFields)+len(landFields), 15, "topics near and far")
	for _, section := range []string{"title", "background", "aim", "methods", "results", "conclusion"} {
		assert.GreaterOrEqual(t, len(patterns[section]), 24, section)
	}
}

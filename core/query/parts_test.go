package query_test

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/query"
)

func TestAQueryTypedAsATermIsToldFromOne(t *testing.T) {
	for typed, want := range map[string][]string{
		"heat OR shade":                    {"heat", "shade"},
		"(heat stress OR \"rest break*\")": {"heat stress", "rest break*"},
		"farm worker* AND (heat OR rest)":  {"farm worker*", "heat", "rest"},
		"heat NOT cold":                    {"heat", "cold"},
		"“field hands” OR campesin*":       {"field hands", "campesin*"},
		"heat OR heat":                     {"heat"},
		"OR":                               nil,
		"()":                               nil,
		"loss of grip and strength":        {"-"},
		"rest break*":                      {"-"},
		"more or less":                     {"-"},
		"ORAL rehydration":                 {"-"},
		"\"rest OR shade\" breaks":         {"-"},
	} {
		parts, _, ok := query.Parts(typed)
		if len(want) == 1 && want[0] == "-" {
			assert.False(t, ok, typed)
			continue
		}
		assert.True(t, ok, typed)
		assert.Equal(t, want, parts, typed)
	}
	_, joined, _ := query.Parts("a AND b")
	assert.True(t, joined)
	_, joined, _ = query.Parts("a OR b")
	assert.False(t, joined)
}

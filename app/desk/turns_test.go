package desk

import (
	"context"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestARequestHasOneTurnHoweverOftenItAsks(t *testing.T) {
	quick, heavy := newTurns(1), newTurns(1)
	first, done := ForRequest(t.Context())
	require.NoError(t, heavy.Take(first))
	require.NoError(t, heavy.Take(first), "it would wait for itself")
	require.NoError(t, quick.Take(first))
	ctx, cancel := context.WithCancel(t.Context())
	second, end := ForRequest(ctx)
	defer end()
	require.NoError(t, quick.Take(second), "the first took none of these")
	third, ends := ForRequest(ctx)
	defer ends()
	cancel()
	assert.ErrorIs(t, heavy.Take(third), context.Canceled, "the only one is taken")
	done()
	fourth, last := ForRequest(t.Context())
	defer last()
	assert.NoError(t, heavy.Take(fourth))
}

package sru

import (
	"io"
	"strings"
	"sync/atomic"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/source"
)

// Answers that are read at once have so much room together; who finds none is told that it is for now, and finds
// some when others end.
func TestAnswersThatAreReadAtOnceHaveRoomTogether(t *testing.T) {
	var all atomic.Int64
	answer := func() *bounded {
		return &bounded{r: io.LimitReader(zeros{}, maxAnswer-1), left: maxAnswer, all: &all}
	}
	var others []*bounded
	for range allAnswers / maxAnswer {
		b := answer()
		_, err := io.Copy(io.Discard, b)
		require.NoError(t, err)
		others = append(others, b)
	}
	late := answer()
	_, err := io.Copy(io.Discard, late)
	require.ErrorIs(t, err, source.ErrBusy)
	assert.True(t, late.full)
	late.end()
	others[0].end()
	again := answer()
	_, err = io.Copy(io.Discard, again)
	require.NoError(t, err)
	for _, b := range append(others[1:], again) {
		b.end()
	}
	assert.Zero(t, all.Load())
}

func TestARecordHasItsOwnBound(t *testing.T) {
	b := &perRecord{r: strings.NewReader(strings.Repeat("a", 3*maxRecord))}
	_, err := io.CopyN(io.Discard, b, maxRecord)
	require.NoError(t, err, "what is no record has that of the answer")
	b.begin(true)
	n, err := io.Copy(io.Discard, b)
	require.ErrorContains(t, err, "1 MB")
	assert.EqualValues(t, maxRecord, n)
	b.begin(false)
	n, err = io.Copy(io.Discard, b)
	require.NoError(t, err)
	assert.EqualValues(t, maxRecord, n)
}

type zeros struct{}

func (zeros) Read(p []byte) (int, error) { return len(p), nil }

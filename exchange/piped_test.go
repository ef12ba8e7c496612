package exchange_test

import (
	"errors"
	"io"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/exchange"
)

func TestWhatIsPipedComesWholeOrSaysWhyNot(t *testing.T) {
	got, err := io.ReadAll(exchange.Piped(func(w io.Writer) error {
		_, err := io.WriteString(w, "heat")
		return err
	}))
	require.NoError(t, err)
	assert.Equal(t, "heat", string(got))
	wrong := errors.New("wrong")
	_, err = io.ReadAll(exchange.Piped(func(io.Writer) error { return wrong }))
	require.ErrorIs(t, err, wrong)
	_, err = io.ReadAll(exchange.Piped(func(io.Writer) error { panic("odd") }))
	require.ErrorContains(t, err, "odd")
}

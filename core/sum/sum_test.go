package sum_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/sum"
)

type shape interface{ corners() int }

type square struct {
	Side int `json:"side"`
}

type point struct{}

func (*square) corners() int { return 4 }
func (*point) corners() int  { return 0 }

func shapes() *sum.Kinds[shape] {
	k := sum.Of[shape]("kind", "shape")
	k.Add("square", func() shape { return &square{} })
	k.Add("point", func() shape { return &point{} })
	return k
}

func TestWhatIsWrittenIsReadBack(t *testing.T) {
	k := shapes()
	for want, value := range map[string]shape{`{"kind":"square","side":3}`: &square{3}, `{"kind":"point"}`: &point{}} {
		got, err := k.Write(value)
		require.NoError(t, err)
		assert.Equal(t, want, string(got))
		back, err := k.Read(got)
		require.NoError(t, err)
		assert.Equal(t, value, back)
	}
	assert.Equal(t, []string{"point", "square"}, k.Names())
}

func TestWhatIsOfNoKindIsRefused(t *testing.T) {
	k := shapes()
	for data, says := range map[string]string{
		`{"kind":"circle"}`:               `there is no shape "circle"`,
		`{"side":3}`:                      `there is no shape ""`,
		`{"kind":7}`:                      "cannot unmarshal",
		`[]`:                              "cannot unmarshal",
		`{"kind":"square","side":"long"}`: "cannot unmarshal",
	} {
		_, err := k.Read([]byte(data))
		assert.ErrorContains(t, err, says, data)
	}
	_, err := k.Write(nil)
	assert.ErrorContains(t, err, "is no shape")
}

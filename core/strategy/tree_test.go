package strategy

import (
	"errors"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

func TestReadTree(t *testing.T) {
	for text, want := range map[string]string{
		"2 AND (5 OR 6)": "2 and (5 or 6)", "any of 1-3": "any of 1-3", "1 or 2 or 3": "any of 1-3",
		"#1 and #12": "1 and 12", "((4))": "4",
		"All of 2–4 not 9": "all of 2-4 not 9", "all of 9, 18": "9 and 18", "any of 1, 4-6": "1 or 4 or 5 or 6",
		"any of 1-2,3": "any of 1-3", "1 and 2 and (3 not (4 or 5))": "1 and 2 and (3 not (4 or 5))", "1and2": "1 and 2",
		"9 or (7 and any of 1-3)": "9 or (7 and any of 1-3)",
	} {
		got, err := ReadTree(text)
		require.NoError(t, err, text)
		assert.Equal(t, want, got.String())
	}
}

func TestWhatIsNoTree(t *testing.T) {
	for text, want := range map[string]struct {
		from, to int
		says     string
	}{
		"":                           {0, 0, "the number of a line is missing"},
		"1 and":                      {5, 5, "the number of a line is missing"},
		"1 and 2 or 3":               {8, 10, "OR follows AND: brackets"},
		"(1 or 2":                    {7, 7, "a bracket is missing"},
		"1 or 2)":                    {6, 7, "closes what was not opened"},
		"1 2":                        {2, 3, "joins nothing"},
		"1 xor 2":                    {2, 5, "joins nothing"},
		"0 or 1":                     {0, 1, "the number of a line is missing"},
		"any of 5-2":                 {0, 10, "from a lower to a higher"},
		"any of 1":                   {8, 8, "the last number of the run"},
		"any 1-3":                    {4, 5, "OF is missing"},
		"any of 1,":                  {9, 9, "the number of a line is missing"},
		"any of 1-900":               {0, 12, "at most 500 lines"},
		"heat":                       {0, 4, "the number of a line is missing"},
		"1 or 999999999999999999":    {5, 23, "the number of a line is missing"},
		strings.Repeat("(", 25):      {20, 21, "at most 20 deep"},
		strings.Repeat("1 or ", 401): {2000, 2005, "At most 2000 characters"},
	} {
		_, err := ReadTree(text)
		var at *TreeFault
		require.True(t, errors.As(err, &at), text)
		assert.Contains(t, at.Message, want.says, text)
		assert.Equal(t, []int{want.from, want.to}, []int{at.From, at.To}, text)
	}
}

func FuzzReadTree(f *testing.F) {
	f.Add("2 AND (5 OR 6)")
	f.Add("any of 1-8 not (3)")
	f.Fuzz(func(t *testing.T, text string) {
		tree, err := ReadTree(text)
		if err != nil {
			var at *TreeFault
			require.True(t, errors.As(err, &at))
			require.LessOrEqual(t, at.From, at.To)
			require.LessOrEqual(t, at.To, len([]rune(text)))
			return
		}
		again, err := ReadTree(tree.String())
		require.NoError(t, err)
		require.Equal(t, tree.String(), again.String())
	})
}

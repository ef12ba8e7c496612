package exchange_test

import (
	"strings"
	"testing"
	"unicode"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"pgregory.net/rapid"

	"tamiz/exchange"
)

func TestAFileHasANameThatEverySystemTakes(t *testing.T) {
	for name, want := range map[string]string{
		"Heat and kidneys": "Heat and kidneys", "a/b\\c:d*e?f\"g<h>i|j": "a b c d e f g h i j", "": "records",
		" .. ": "records", "///": "records", "nul": "_nul", "COM1.old": "_COM1.old",
		"console": "console", "tab\tand\nline": "tab and line", "turned\u202egnp": "turned gnp",
		"Señales de calor…": "Señales de calor", strings.Repeat("x", 500): strings.Repeat("x", 100),
	} {
		assert.Equal(t, want, exchange.FileName(name), name)
	}
}

func TestNoFileNameHoldsWhatItMustNot(t *testing.T) {
	rapid.Check(t, func(t *rapid.T) {
		name := exchange.FileName(rapid.String().Draw(t, "name"))
		assert.NotEmpty(t, name)
		assert.LessOrEqual(t, utf8.RuneCountInString(name), 102)
		assert.False(t, strings.ContainsAny(name, `\/:*?"<>|`))
		assert.False(t, strings.ContainsFunc(name, unicode.IsControl))
		assert.Equal(t, strings.Trim(name, ". "), name)
		assert.Equal(t, name, exchange.FileName(name), "it is good as it is")
	})
}

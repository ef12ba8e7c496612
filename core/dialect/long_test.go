package dialect_test

import (
	"fmt"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"tamiz/core/dialect"
)

// TestNothingTakesTheSquareOfItsLength reads what would take minutes if anything were looked for anew from every place.
func TestNothingTakesTheSquareOfItsLength(t *testing.T) {
	for name, s := range map[string]string{"open": strings.Repeat("(", 100000), "shut": strings.Repeat("a or b) ",
		10000), "words": strings.Repeat("a ", 50000), "marks": strings.Repeat("\"", 100000),
		"marks2": strings.Repeat("\"a ", 30000),
		"curly":  strings.Repeat("words{", 15000), "hyphen": strings.Repeat("a-\n", 30000), "angle": strings.Repeat("<a; ",
			25000), "near": strings.Repeat("a &3& ", 15000), "at": strings.Repeat("a @ ", 20000), "ops": strings.Repeat("or ",
			30000), "lines": func() string {
			s := ""
			for i := 1; i < 3000; i++ {
				s += fmt.Sprintf("%d. %d or x\n", i, i-1)
			}
			return s
		}(), "comment": strings.Repeat("/* ", 30000), "title": strings.Repeat("title = a title ", 6000),
		"mixed": strings.Repeat("a or b and ", 8000)} {
		for _, d := range dialect.Known() {
			_, err := d.Read(s, nil)
			assert.NoError(t, err, "%s in %s", name, d.Name)
		}
	}
}

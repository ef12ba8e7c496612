package dialect

import (
	"strconv"
	"strings"
)

// Named writes lines joined by an operator, by their numbers: a run of them by its ends, where the dialect can say
// that.
func (d *Dialect) Named(op string, numbers []int) string {
	l := d.Lines
	if l == nil {
		l = &Lines{One: []string{"{n}"}}
	}
	runs := map[string][]string{opOr: l.Or, opAnd: l.And}[op]
	first, last := numbers[0], numbers[len(numbers)-1]
	if len(runs) > 0 && len(numbers) > 2 && last-first == len(numbers)-1 {
		return filled(runs[0], map[string]string{"from": strconv.Itoa(first), "to": strconv.Itoa(last)})
	}
	out := make([]string, len(numbers))
	for i, n := range numbers {
		out[i] = filled(l.One[0], map[string]string{"n": strconv.Itoa(n)})
	}
	return strings.Join(out, " "+d.joinWord(op)+" ")
}

func filled(t string, slots map[string]string) string {
	out, err := parseTemplate(t, "n", "from", "to")
	if err != nil {
		return t
	}
	return out.fill(slots)
}

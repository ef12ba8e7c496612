package bib

// ParseYear returns the first year that a text holds, 0 where there is none: four digits with no digit
// beside them, or the first four of eight.
func ParseYear(s string) int {
	for i := 0; i < len(s); {
		if s[i] < '0' || s[i] > '9' {
			i++
			continue
		}
		start := i
		for i < len(s) && s[i] >= '0' && s[i] <= '9' {
			i++
		}
		if n := i - start; n == 4 || n == 8 {
			y := 0
			for _, c := range s[start : start+4] {
				y = y*10 + int(c-'0')
			}
			if y > 0 {
				return y
			}
		}
	}
	return 0
}

package exchange

import "strings"

// FileName makes a name that every system takes, without an ending; "records" where nothing is left of it.
func FileName(name string) string {
	name = strings.Map(func(r rune) rune {
		if r < ' ' || strings.ContainsRune(`\/:*?"<>|`, r) {
			return ' '
		}
		return r
	}, name)
	name = strings.Trim(Cut(strings.Join(strings.Fields(name), " "), 100), ". …")
	if name == "" {
		return "records"
	}
	return name
}

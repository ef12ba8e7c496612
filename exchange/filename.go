package exchange

import (
	"regexp"
	"strings"
	"unicode"
)

// reserved are names that one system keeps for its devices, whatever ending they have.
var reserved = regexp.MustCompile(`(?i)^(con|prn|aux|nul|com[0-9]|lpt[0-9])(\.|$)`)

// FileName makes a name that every system takes, without an ending; "records" where nothing is left of it.
func FileName(name string) string {
	name = strings.Map(func(r rune) rune {
		if unicode.IsControl(r) || unicode.Is(unicode.Cf, r) || strings.ContainsRune(`\/:*?"<>|`, r) {
			return ' '
		}
		return r
	}, name)
	name = strings.Trim(Cut(strings.Join(strings.Fields(name), " "), 100), ". …")
	switch {
	case name == "":
		return "records"
	case reserved.MatchString(name):
		return "_" + name
	}
	return name
}

package exchange

import "regexp"

var others = regexp.MustCompile(
	`^(@[A-Za-z]+\s*[{(]|TY  - |<\?xml|<(\w+:)?(mods|modsCollection|record|collection|dc)[ >])`,
)

// LooksOther reports whether a line that a reader cannot place begins a record of another format.
func LooksOther(line string) bool { return others.MatchString(line) }

package bibtex

import (
	"strings"
	"unicode"

	"tamiz/core/bib"
)

// people reads a list of names parted by "and". "others" is no one.
func people(s string) (out []bib.Person) {
	if s = bib.Flat(s); s == "" {
		return nil
	}
	names := splitTop(s, " and ")
	if len(names) == 1 && strings.EqualFold(names[0], "others") {
		return nil
	}
	out = make([]bib.Person, 0, len(names))
	for _, name := range names {
		if name = strings.TrimSpace(name); name != "" && !strings.EqualFold(name, "others") {
			if p := person(name); p.Family != "" {
				out = append(out, p)
			}
		}
	}
	return out
}

// person reads one name: "von Last, First", "von Last, Jr, First", "First von Last", or all in braces, which
// is a body of people. A von-part belongs to the family name, a junior stands after the given names.
func person(name string) bib.Person {
	if !strings.ContainsAny(name, `\{}$~=`) && strings.Count(name, ",") == 1 { // as most are
		family, given, _ := strings.Cut(name, ",")
		return bib.Person{Family: strings.TrimSpace(Plain(family)), Given: strings.TrimSpace(Plain(given))}
	}
	if whole, ok := inBraces(name); ok {
		return bib.Person{Family: bib.Flat(Plain(whole))}
	}
	parts := splitTop(name, ",")
	for i := range parts {
		parts[i] = strings.TrimSpace(parts[i])
	}
	plain := func(s string) string { return bib.Flat(Plain(s)) }
	switch {
	case strings.Contains(parts[0], "=") && strings.HasPrefix(parts[0], "family"):
		return extended(parts)
	case len(parts) == 2:
		return bib.Person{Family: plain(parts[0]), Given: plain(parts[1])}
	case len(parts) > 2:
		return bib.Person{
			Family: plain(parts[0]),
			Given:  strings.Trim(plain(strings.Join(parts[2:], ", "))+", "+plain(parts[1]), ", "),
		}
	}
	words := splitTop(parts[0], " ")
	if len(words) == 1 {
		return bib.Person{Family: plain(parts[0])}
	}
	// The family name begins with the first word in small letters, else it is the last word.
	from := len(words) - 1
	for i := range words[:len(words)-1] {
		if small(words[i]) && i > 0 || small(words[i]) && i == 0 {
			from = i
			break
		}
	}
	return bib.Person{Family: plain(strings.Join(words[from:], " ")), Given: plain(strings.Join(words[:from], " "))}
}

// extended reads a name that says what each part of it is: family=Velkana, given=Temi, prefix=van.
func extended(parts []string) bib.Person {
	at := map[string]string{}
	for _, p := range parts {
		k, v, _ := strings.Cut(p, "=")
		at[strings.TrimSpace(k)] = bib.Flat(Plain(v))
	}
	return bib.Person{
		Family: strings.TrimSpace(at["prefix"] + " " + at["family"]),
		Given:  strings.Trim(at["given"]+", "+at["suffix"], ", "),
	}
}

// small reports whether a word begins with a small letter.
func small(word string) bool {
	for _, r := range Plain(word) {
		if unicode.IsLetter(r) {
			return unicode.IsLower(r) && !strings.HasPrefix(word, "{")
		}
	}
	return false
}

// inBraces returns what one pair of braces around all of a text holds.
func inBraces(s string) (string, bool) {
	if len(s) < 2 || s[0] != '{' || s[len(s)-1] != '}' {
		return "", false
	}
	depth := 0
	for i := 0; i < len(s); i++ {
		switch s[i] {
		case '\\':
			i++
		case '{':
			depth++
		case '}':
			if depth--; depth == 0 && i < len(s)-1 {
				return "", false
			}
		}
	}
	return s[1 : len(s)-1], true
}

// splitTop parts a text where sep stands outside of braces.
func splitTop(s, sep string) (out []string) {
	depth, from := 0, 0
	for i := 0; i < len(s); i++ {
		switch s[i] {
		case '\\':
			i++
			continue
		case '{':
			depth++
		case '}':
			depth--
		}
		if depth <= 0 && strings.HasPrefix(s[i:], sep) {
			out = append(out, s[from:i])
			// The space after "and" may stand before the next.
			step := max(1, len(sep)-1)
			from = i + step
			i += step - 1
		}
	}
	return append(out, s[from:])
}

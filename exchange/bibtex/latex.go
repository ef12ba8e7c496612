package bibtex

import (
	"strings"
	"unicode/utf8"

	"golang.org/x/text/unicode/norm"
)

// Accents that LaTeX writes before the letter, as the combining marks that Unicode writes after it.
var accents = map[string]string{
	"`": "\u0300", "'": "\u0301", "^": "\u0302", "~": "\u0303", "=": "\u0304", "u": "\u0306", ".": "\u0307", `"`: "\u0308",
	"r": "\u030a", "H": "\u030b", "v": "\u030c", "d": "\u0323", "c": "\u0327", "k": "\u0328", "b": "\u0331",
}

// Commands that stand for a character.
var characters = map[string]string{
	"ss": "ß", "ae": "æ", "AE": "Æ", "oe": "œ", "OE": "Œ", "o": "ø", "O": "Ø", "aa": "å", "AA": "Å", "l": "ł", "L": "Ł",
	"i": "ı", "j": "ȷ",
	"dh": "ð", "DH": "Ð", "th": "þ", "TH": "Þ", "dj": "đ", "DJ": "Đ", "ng": "ŋ", "NG": "Ŋ",
	"textendash": "–", "textemdash": "—", "textquoteleft": "‘", "textquoteright": "’", "textquotedblleft": "“",
	"textquotedblright": "”",
	"textellipsis":      "…", "ldots": "…", "dots": "…", "textdegree": "°", "degree": "°", "textmu": "µ",
	"textbullet":     "•",
	"textregistered": "®", "texttrademark": "™", "copyright": "©",
	"textless": "<", "textgreater": ">", "textbackslash": `\`, "textasciitilde": "~", "textasciicircum": "^",
	"textbar": "|", "slash": "/", "S": "§", "P": "¶",
	"guillemotleft": "«", "guillemotright": "»", "textexclamdown": "¡", "textquestiondown": "¿", "pounds": "£",
	"euro": "€", "texteuro": "€", "textdollar": "$",
	"alpha": "α", "beta": "β", "gamma": "γ", "delta": "δ", "epsilon": "ε", "kappa": "κ", "lambda": "λ", "mu": "μ",
	"pi": "π", "rho": "ρ", "sigma": "σ", "tau": "τ", "phi": "φ", "chi": "χ", "omega": "ω",
	"Delta": "Δ", "Sigma": "Σ", "Omega": "Ω", "times": "×", "pm": "±", "leq": "≤", "le": "≤", "geq": "≥", "ge": "≥",
	"approx": "≈", "neq": "≠", "cdot": "·", "rightarrow": "→", "infty": "∞", "circ": "°", "sim": "∼",
}

// Plain returns a field as text: accents and commands as characters, braces, math signs and the commands of
// type faces gone, ties as spaces.
func Plain(s string) string {
	if special(s) == len(s) {
		return s
	}
	var b strings.Builder
	b.Grow(len(s))
	for i := 0; i < len(s); {
		if n := special(s[i:]); n > 0 {
			b.WriteString(s[i : i+n])
			i += n
			continue
		}
		switch c := s[i]; {
		case c == '\\':
			i = command(&b, s, i+1)
		case c == '{' || c == '}' || c == '$':
			i++
		case c == '~':
			b.WriteByte(' ')
			i++
		case strings.HasPrefix(s[i:], "---"):
			b.WriteString("—")
			i += 3
		case strings.HasPrefix(s[i:], "--"):
			b.WriteString("–")
			i += 2
		case strings.HasPrefix(s[i:], "``"):
			b.WriteString("“")
			i += 2
		case strings.HasPrefix(s[i:], "''"):
			b.WriteString("”")
			i += 2
		default:
			b.WriteByte(c)
			i++
		}
	}
	return b.String()
}

// special returns where the next sign stands that LaTeX gives a meaning; a dash or a quote by itself has none.
func special(s string) int {
	for i := 0; i < len(s); i++ {
		if !signs[s[i]] {
			continue
		}
		if c := s[i]; c != '-' && c != '`' && c != '\'' || i+1 < len(s) && s[i+1] == c {
			return i
		}
	}
	return len(s)
}

var signs = [256]bool{'\\': true, '{': true, '}': true, '~': true, '$': true, '-': true, '`': true, '\'': true}

// command writes what the command at s[i:], after its backslash, stands for, and returns where it ends.
func command(b *strings.Builder, s string, i int) int {
	if i >= len(s) {
		return i
	}
	name := s[i : i+1]
	if letter(s[i]) {
		end := i
		for end < len(s) && letter(s[end]) {
			end++
		}
		name = s[i:end]
	} else if strings.HasPrefix(s[i:], "&") || !strings.Contains("`'^~=.\"", name) {
		if name == "\\" || name == "," || name == " " || name == "/" || name == "-" { // a break, a thin space, a joint
			if name != "/" && name != "-" {
				b.WriteByte(' ')
			}
			return i + 1
		}
		_, size := utf8.DecodeRuneInString(s[i:])
		b.WriteString(s[i : i+size]) // an escaped sign
		return i + size
	}
	end := i + len(name)
	if mark, ok := accents[name]; ok {
		if base, after, ok := argument(s, end, letter(name[0])); ok {
			b.WriteString(norm.NFC.String(base + mark))
			return after
		}
	}
	if letter(name[0]) { // spaces after a command belong to it
		after := end
		for after < len(s) && s[after] == ' ' {
			after++
		}
		if c, ok := characters[name]; ok {
			b.WriteString(c)
			if after < len(s) && s[after] == '{' && strings.HasPrefix(s[after:], "{}") {
				after += 2
			}
			return after
		}
		return after // a type face or something else that is no text
	}
	b.WriteString(name)
	return end
}

// argument returns the letter that an accent stands on: {o}, o, \i or {\i}.
func argument(s string, i int, spaced bool) (base string, end int, ok bool) {
	if spaced {
		start := i
		for i < len(s) && s[i] == ' ' {
			i++
		}
		if i < len(s) && s[i] != '{' && s[i] != '\\' && i == start {
			return "", 0, false // \vx is a command of its own
		}
	}
	open := i < len(s) && s[i] == '{'
	if open {
		i++
	}
	if i >= len(s) {
		return "", 0, false
	}
	if s[i] == '\\' {
		if i+1 < len(s) && (s[i+1] == 'i' || s[i+1] == 'j') && (i+2 >= len(s) || !letter(s[i+2])) {
			base, i = s[i+1:i+2], i+2
		} else {
			return "", 0, false
		}
	} else {
		r, size := utf8.DecodeRuneInString(s[i:])
		if r == '}' || r == utf8.RuneError {
			return "", 0, false
		}
		base, i = s[i:i+size], i+size
	}
	if open {
		if i >= len(s) || s[i] != '}' {
			return "", 0, false
		}
		i++
	} else if i < len(s) && s[i] == ' ' && base != "" && strings.HasSuffix(s[:i], `\`+base) {
		i++ // the space that ends \i
	}
	return base, i, true
}

func letter(c byte) bool { return c >= 'a' && c <= 'z' || c >= 'A' && c <= 'Z' }

var escaper = strings.NewReplacer(
	`\`,
	`\textbackslash{}`,
	"{",
	`\{`,
	"}",
	`\}`,
	"$",
	`\$`,
	"&",
	`\&`,
	"%",
	`\%`,
	"#",
	`\#`,
	"_",
	`\_`,
	"~",
	`\textasciitilde{}`,
	"^",
	`\textasciicircum{}`,
)

// Escaped writes text so that Plain gives it again. Letters with accents stay as they are: files are UTF-8.
func Escaped(s string) string {
	if !strings.ContainsAny(s, "\\{}$&%#_~^-`'") {
		return s
	}
	s = escaper.Replace(s)
	// Two of these in a row would be read as a dash or a quote.
	var b strings.Builder
	for i := 0; i < len(s); i++ {
		if i > 0 && s[i] == s[i-1] && (s[i] == '-' || s[i] == '`' || s[i] == '\'') {
			b.WriteString("{}")
		}
		b.WriteByte(s[i])
	}
	return b.String()
}

package tagged

import (
	"sort"
	"strings"

	"tamiz/exchange"
)

// The shapes of tagged lines that a guess tries.
var shapes = []Line{
	{Letters: Code, Min: 2, Max: 6, After: "-", Padded: true},
	{Letters: Code, Min: 1, Max: 6, After: ":", Padded: true},
	{Letters: Code, Min: 2, Max: 6, After: "=", Padded: true},
	{Letters: Label, Min: 2, Max: 30, After: ":", Padded: true, Listed: true},
	{Letters: Label, Min: 2, Max: 30, After: "=", Padded: true, Listed: true},
	{Letters: Word, Min: 1, Max: 20, After: "\t"},
	{Before: "#", Letters: Word, Min: 1, Max: 12, After: " ", Padded: false},
	{Before: "$", Letters: Word, Min: 1, Max: 12, After: " ", Padded: false},
	{Before: "<", Letters: Word, Min: 1, Max: 20, After: ">", Padded: true},
}

// Guess makes a reader map from the beginning of a file, as a start for the person who knows the file. It
// reports false where the text does not look tagged; the map is one to begin with all the same.
func Guess(head string) (Map, bool) {
	lines := strings.FieldsFunc(strings.ReplaceAll(head, "\r\n", "\n"), func(r rune) bool { return r == '\r' })
	lines = strings.Split(strings.Join(lines, "\n"), "\n")
	if len(lines) > 2000 {
		lines = lines[:2000]
	}
	best, score := Map{
		Format:    Version,
		Line:      Line{Letters: Label, Min: 2, Max: 30, After: ":", Padded: true, Listed: true},
		Blank:     true,
		Continues: AnyLine,
		Fields:    []Field{},
	}, 0
	for _, shape := range shapes {
		if m, s := shaped(shape, lines); s > score {
			best, score = m, s
		}
	}
	return best, score > 0
}

// shaped makes the map of one shape, and scores it by the lines whose tags come again.
func shaped(shape Line, lines []string) (Map, int) {
	any := shape
	any.Listed = false
	count := map[string]int{}
	var order []string
	opens := map[string]int{} // how often a tag stands first after a blank line
	empty := map[string]int{}
	written := map[string]string{}
	blank, parts := true, 0 // parts: of the text, between blank lines
	filled := 0
	for _, line := range lines {
		if strings.TrimSpace(line) == "" {
			blank = true
			continue
		}
		filled++
		if blank {
			parts++
		}
		tag, value, ok := any.split([]byte(line))
		if ok {
			name := any.fold(string(tag))
			if count[name]++; count[name] == 1 {
				order = append(order, name)
				written[name] = string(tag)
			}
			if blank {
				opens[name]++
			}
			if len(value) == 0 {
				empty[name]++
			}
		}
		blank = false
	}
	m := Map{Format: Version, Line: shape, Continues: AnyLine, Fields: []Field{}}
	score, known := 0, 0
	seen := map[string]int{}
	for _, tag := range order {
		field := fieldOf(tag, shape)
		// With tags that could be words of a text, only those count that are known or come again and again.
		if shape.Letters == Label && field == "" && count[tag] < 2 {
			continue
		}
		if field != "" {
			known++
		}
		score += count[tag]
		if i, ok := seen[field]; ok && field != "" {
			m.Fields[i].Tags = append(m.Fields[i].Tags, written[tag])
			continue
		}
		if field == "" {
			field = exchange.Own
		}
		f := Field{Field: field, Tags: []string{written[tag]}}
		if exchange.Many(field) {
			f.Take = All
			if field != "authors" {
				f.Split = Auto
			} else {
				f.Split = ";"
			}
		}
		seen[field] = len(m.Fields)
		if field == exchange.Own {
			delete(seen, field)
		}
		m.Fields = append(m.Fields, f)
	}
	if score*3 < filled || len(m.Fields) < 2 || known == 0 && shape.Letters == Label {
		return m, 0
	}
	// A tag that opens most of what blank lines part begins the records.
	tags := make([]string, 0, len(opens))
	for t := range opens {
		tags = append(tags, t)
	}
	sort.Slice(tags, func(i, j int) bool {
		return opens[tags[i]] > opens[tags[j]] || opens[tags[i]] == opens[tags[j]] && tags[i] < tags[j]
	})
	if len(tags) > 0 && opens[tags[0]] == count[tags[0]] && opens[tags[0]]*10 >= parts*8 {
		m.Begins = written[tags[0]]
	} else if parts == 1 && len(order) > 0 && count[order[0]] > 1 {
		m.Begins = written[order[0]]
	} else {
		m.Blank = true
	}
	// A tag that never has a value and comes as often as the records ends them.
	begins := any.fold(m.Begins)
	for _, t := range order {
		if m.Begins != "" && t != begins && empty[t] == count[t] && count[t] >= max(count[begins]-1, 1) {
			m.Ends = written[t]
			m.Fields = without(m.Fields, written[t])
			break
		}
	}
	return m, score + 2*known
}

func without(fields []Field, tag string) (out []Field) {
	for _, f := range fields {
		if len(f.Tags) != 1 || f.Tags[0] != tag {
			out = append(out, f)
		}
	}
	return out
}

// The tags of RIS mean the same in many a text of its kind.
var codesOfRIS = map[string]string{
	"TI": "title",
	"AB": "abstract",
	"AU": "authors",
	"PY": "year",
	"DO": "doi",
	"KW": "keywords",
	"LA": "languages",
	"AN": "accession",
	"UR": "urls",
	"SN": "issn",
	"VL": "volume",
	"IS": "issue",
}

func fieldOf(tag string, shape Line) string {
	if f := exchange.FieldOf(tag); f != "" {
		return f
	}
	return codesOfRIS[strings.ToUpper(tag)]
}

package store

import "strings"

// Lines that mean something in the text of a room.
const (
	named = "-- name: " // a statement begins
	part  = "-- part: " // what several statements begin with
	begun = "-- with: " // a statement begins with such a part
)

// Statements returns the statements in the rows.sql of a room by their names. Each begins with a line "-- name:" and
// its name. What several begin with alike stands once, under "-- part:", before them; they name it by "-- with:".
func Statements(text string) map[string]string {
	statements, parts := map[string]string{}, map[string]string{}
	var into map[string]string
	var name string
	for line := range strings.Lines(text) {
		switch {
		case strings.HasPrefix(line, named):
			into, name = statements, strings.TrimSpace(line[len(named):])
		case strings.HasPrefix(line, part):
			into, name = parts, strings.TrimSpace(line[len(part):])
		case strings.HasPrefix(line, begun):
			into[name] += parts[strings.TrimSpace(line[len(begun):])] + "\n"
		case into != nil:
			into[name] += line
		}
	}
	for _, of := range []map[string]string{statements, parts} {
		for name, s := range of {
			of[name] = strings.TrimSuffix(strings.TrimSpace(s), ";")
		}
	}
	return statements
}

// Plain returns text without the one character that PostgreSQL keeps in no text (its documentation, 8.3).
func Plain(s string) string { return strings.ReplaceAll(s, "\x00", "") }

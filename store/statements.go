package store

import "strings"

// named begins a statement in the text of a room.
const named = "-- name: "

// Statements returns the statements in the rows.sql of a room by their names. Each begins with a line "-- name:"
// and its name.
func Statements(text string) map[string]string {
	out := map[string]string{}
	for _, part := range strings.Split("\n"+text, "\n"+named)[1:] {
		name, body, _ := strings.Cut(part, "\n")
		out[strings.TrimSpace(name)] = strings.TrimSuffix(strings.TrimSpace(body), ";")
	}
	return out
}

package table

import "strings"

// A spreadsheet takes a cell for a formula when it begins with one of these.
const formulas = "=+-@\t\r"

// formula reports whether a cell, less the marks before it, would be taken for a formula.
func formula(cell string) bool {
	rest := strings.TrimLeft(cell, "'")
	return rest != "" && strings.IndexByte(formulas, rest[0]) >= 0
}

// Marked writes a cell so that no spreadsheet takes it for a formula: with an apostrophe before it, which a
// spreadsheet does not show.
func Marked(cell string) string {
	if cell != "" && formula(cell) {
		return "'" + cell
	}
	return cell
}

// Unmarked returns what stands in a cell that Marked wrote.
func Unmarked(cell string) string {
	if cell != "" && cell[0] == '\'' && formula(cell) {
		return cell[1:]
	}
	return cell
}

package table

import (
	"encoding/csv"
	"io"
	"regexp"
	"slices"
	"strings"
	"unicode/utf8"

	"tamiz/core/bib"
	"tamiz/exchange"
)

const sampleRows = 200 // that a guess looks at

// Guess finds out from the beginning of a file how its table is written and what its columns stand for:
// by their names, else by what is in them. whole says that the text is all of the file. It reports false
// where the text is no table of at least two columns.
func Guess(head string, whole bool) (Columns, bool) {
	head = strings.TrimPrefix(head, "\ufeff")
	best, score := Columns{}, 0.0
	var rows [][]string
	for _, quote := range []string{`"`, "'"} {
		for _, delimiter := range []string{",", ";", "\t", "|"} {
			if !strings.Contains(head, delimiter) {
				continue
			}
			// Apostrophes are no quotes: those stand where a cell begins.
			if quote == "'" && !strings.HasPrefix(head, "'") && !strings.Contains(head, delimiter+"'") &&
				!strings.Contains(head, "\n'") &&
				!strings.Contains(head, "\r'") {
				continue
			}
			c := Columns{Format: Version, Delimiter: delimiter, Quote: quote}
			r := c.rows(head, whole)
			if s := even(r); s > score {
				best, score, rows = c, s, r
			}
		}
	}
	if score == 0 {
		return best, false
	}
	best.fill(rows)
	return best, true
}

// Refill guesses the columns of a table anew where its delimiter or quote is known.
func (c Columns) Refill(head string, whole bool) Columns {
	rows := c.rows(strings.TrimPrefix(head, "\ufeff"), whole)
	if len(rows) > 0 {
		c.fill(rows)
	}
	return c
}

// rows reads the first rows; one that the text may have cut is left out.
func (c Columns) rows(head string, whole bool) (out [][]string) {
	r := newCSV(strings.NewReader(swapped(head, c.Quote)), c)
	for len(out) < sampleRows {
		row, err := r.Read()
		if err == io.EOF {
			break
		}
		if err != nil {
			return out
		}
		out = append(out, slices.Clone(row))
	}
	if !whole && len(out) > 1 && len(out) < sampleRows {
		out = out[:len(out)-1]
	}
	for _, row := range out {
		for i := range row {
			row[i] = swapped(row[i], c.Quote)
		}
	}
	return out
}

// even scores how much rows look like those of a table: most have as many cells as the first, and more
// than one; none is of one column alone.
func even(rows [][]string) float64 {
	if len(rows) == 0 {
		return 0
	}
	counts := map[int]int{}
	for _, r := range rows {
		counts[len(r)]++
	}
	width, most := 0, 0
	for w, n := range counts {
		if w > 1 && (n > most || n == most && w > width) {
			width, most = w, n
		}
	}
	if width < 2 || len(rows[0]) < 2 {
		return 0
	}
	share := float64(most) / float64(len(rows))
	// A cell that begins or ends with a quote was parted at the wrong place.
	odd, cells := 0, 0
	known := 0
	for i, r := range rows {
		for _, v := range r {
			cells++
			if v = strings.TrimSpace(v); len(v) > 0 && (v[0] == '"' || v[len(v)-1] == '"') && strings.Count(v, `"`)%2 == 1 {
				odd++
			}
			if i == 0 && exchange.FieldOf(v) != "" {
				known++
			}
		}
	}
	if known == 0 && (most < 2 || share < 0.8) || share < 0.5 {
		return 0
	}
	return share*share*(1-float64(odd)/float64(cells)) + 0.2*float64(min(known, 8)) + 0.001*float64(min(width, 100))
}

var (
	doiShape  = regexp.MustCompile(`^(?i)(https?://(dx\.)?doi\.org/|doi:\s*)?10\.\d{4,9}/\S+$`)
	urlShape  = regexp.MustCompile(`^(?i)https?://\S+$`)
	issnShape = regexp.MustCompile(`^\d{4}-\d{3}[\dXx]$`)
	yearShape = regexp.MustCompile(`^(1[5-9]|20)\d\d$`)
	pageShape = regexp.MustCompile(`^[A-Za-z]?\d+\s*[-–]\s*[A-Za-z]?\d+$`)
	nameShape = regexp.MustCompile(`^\p{Lu}[\p{L}' -]+, ?\p{Lu}`)
)

// fill finds out whether the first row names the columns, and what each stands for.
func (c *Columns) fill(rows [][]string) {
	first := rows[0]
	c.Head = isHead(first, len(rows))
	width := len(first)
	if c.Head {
		rows = rows[1:]
	} else {
		for _, r := range rows {
			width = max(width, len(r))
		}
		width = min(width, maxColumns)
	}
	c.Columns = make([]Column, width)
	taken := map[string]bool{}
	if c.Head {
		for i := range c.Columns {
			col := &c.Columns[i]
			col.Name = bib.Flat(first[i])
			if f := exchange.FieldOf(col.Name); f != "" && !taken[f] {
				col.Field = f
				taken[f] = !exchange.Many(f)
			}
		}
	}
	for i := range c.Columns {
		c.Columns[i].guess(column(rows, i), taken)
	}
}

// isHead reports whether the first of so many rows names the columns: a name of it is known, or its cells are short,
// without figures and all different.
func isHead(first []string, rows int) bool {
	known, odd, named := 0, false, map[string]bool{}
	for _, v := range first {
		v = strings.TrimSpace(v)
		if exchange.FieldOf(v) != "" {
			known++
		}
		if v != "" && utf8.RuneCountInString(v) <= 60 && !strings.ContainsAny(v, "0123456789") {
			named[strings.ToLower(v)] = true
		}
		odd = odd || utf8.RuneCountInString(v) > 80 || doiShape.MatchString(v) || urlShape.MatchString(v) ||
			yearShape.MatchString(v)
	}
	return known > 0 && !odd || known > 1 || !odd && len(named) == len(first) && rows > 1
}

// column returns what stands in a column.
func column(rows [][]string, i int) (out []string) {
	for _, r := range rows {
		if i < len(r) {
			if v := strings.TrimSpace(r[i]); v != "" {
				out = append(out, v)
			}
		}
	}
	return out
}

// guess finds out what a column without a known name stands for, and how its values are parted.
func (col *Column) guess(values []string, taken map[string]bool) {
	if col.Field == "" {
		f := byContents(values)
		if f == "" || taken[f] {
			f = exchange.Own
			if len(values) == 0 {
				f = exchange.Leave
			}
		}
		col.Field = f
		taken[f] = !exchange.Many(f) && f != exchange.Own && f != exchange.Leave
	}
	col.Split = splitOf(col.Field, values)
}

// byContents tells what a column stands for from what is in it.
func byContents(values []string) string {
	if len(values) == 0 {
		return ""
	}
	share := func(is func(string) bool) bool {
		n := 0
		for _, v := range values {
			if is(v) {
				n++
			}
		}
		return n*10 >= len(values)*6
	}
	switch {
	case share(doiShape.MatchString):
		return "doi"
	case share(urlShape.MatchString):
		return "urls"
	case share(issnShape.MatchString):
		return "issn"
	case share(yearShape.MatchString):
		return "year"
	case share(pageShape.MatchString):
		return exchange.Pages
	case share(nameShape.MatchString):
		return "authors"
	case share(func(v string) bool { return len(v) > 300 }):
		return "abstract"
	case share(func(v string) bool { return len(strings.Fields(v)) >= 3 && len(v) <= 300 && !strings.Contains(v, ";") }):
		return "title"
	}
	return ""
}

// splitOf tells what parts many values in the cells of a column.
func splitOf(field string, values []string) string {
	if !exchange.Many(field) || prose(field) {
		return ""
	}
	seen := func(sign string) bool {
		return slices.ContainsFunc(values, func(v string) bool { return strings.Contains(v, sign) })
	}
	for _, sign := range []string{";", "|", "\n"} {
		if seen(sign) {
			return sign
		}
	}
	switch {
	case field == "authors" && seen(" and "):
		return " and "
	case field == "authors":
		// "Velkana T, Osolana I" lists people; "Velkana, Temi" is one.
		lists := 0
		for _, v := range values {
			parts := strings.Split(v, ",")
			if len(parts) > 1 && !slices.ContainsFunc(parts, func(p string) bool { return bib.ParsePerson(p).Given == "" }) {
				lists++
			}
		}
		if lists*2 > len(values) {
			return ","
		}
		return ";"
	case field == "keywords":
		return Auto
	}
	return ";"
}

// prose reports whether the values of a field are sentences, in which a semicolon parts nothing.
func prose(field string) bool { return field == "otherTitles" || field == "otherAbstracts" }

// newCSV reads rows as a mapping says; see swapped for the quotes.
func newCSV(r io.Reader, c Columns) *csv.Reader {
	x := csv.NewReader(r)
	x.Comma, _ = utf8.DecodeRuneInString(c.Delimiter)
	x.FieldsPerRecord = -1
	x.LazyQuotes = true
	return x
}

// swapped exchanges double and single quotes where a table is quoted with the latter, for a reader that
// knows the former only.
func swapped(s, quote string) string {
	if quote != "'" {
		return s
	}
	return strings.Map(swap, s)
}

func swap(r rune) rune {
	switch r {
	case '"':
		return '\''
	case '\'':
		return '"'
	}
	return r
}

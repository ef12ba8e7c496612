package records

import (
	"fmt"
	"strings"

	"tamiz/core/bib"
)

// Holding says whether a format holds a field.
type Holding string

// How a format holds a field.
const (
	Yes          Holding = "yes"
	No           Holding = "no"
	ByVocabulary Holding = "by vocabulary" // told from keywords by the vocabulary, or by a * or / where there is none
	One          Holding = "one"           // the first
)

// What a record has beside the fields of bib.FieldNames: which language a title or abstract in another
// language is in, and fields that Tamiz does not know.
const (
	otherLanguages = "otherLanguages"
	extra          = "extra"
)

// Held are the formats that are written, in the order of the table.
var Held = []Format{RIS, BibTeX, CSL, CSV, TSV, MODS}

// Holds returns how a format holds a field: one of bib.FieldNames, "otherLanguages" or "extra". Fields that
// Tamiz does not know are held by the format that they came from.
func Holds(f Format, field string) Holding {
	switch field {
	case "headings":
		if f == MODS || f == CSV || f == TSV {
			return Yes
		}
		return ByVocabulary
	case "otherTitles":
		if f == BibTeX || f == CSV || f == TSV {
			return One
		}
	case "substances":
		if f == RIS || f == MODS {
			return No
		}
	case "otherAbstracts":
		switch f {
		case RIS:
			return No
		case BibTeX, CSV, TSV:
			return One
		}
	case otherLanguages:
		switch f {
		case RIS, CSV, TSV:
			return No
		case BibTeX:
			return One
		}
	}
	return Yes
}

// HoldsTable writes what each format holds as a table in Markdown, as it stands in the documentation.
func HoldsTable() string {
	var b strings.Builder
	b.WriteString("| field |")
	for _, f := range Held {
		fmt.Fprintf(&b, " %s |", f)
	}
	b.WriteString("\n| --- |" + strings.Repeat(" --- |", len(Held)) + "\n")
	for _, field := range append(append([]string{}, bib.FieldNames...), otherLanguages, extra) {
		fmt.Fprintf(&b, "| %s |", field)
		for _, f := range Held {
			fmt.Fprintf(&b, " %s |", Holds(f, field))
		}
		b.WriteString("\n")
	}
	return b.String()
}

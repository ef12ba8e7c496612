// Package tagged reads bibliographic records from text whose lines carry tags, by a reader map: data that
// says how a tagged line looks, which tag is which field, where a record begins and ends, and how lines go
// on. RIS is such a map (package ris); any other is made by a person, for a file that no reader knows.
package tagged

import (
	"encoding/json"
	"fmt"
	"io"
	"slices"
	"strings"

	"tamiz/core/bib"
	"tamiz/exchange"
)

// Version is what a reader map says of itself in its file.
const Version = "reader-map/1"

// A Map says how to read a kind of tagged text.
type Map struct {
	Format    string  `json:"tamiz"`
	Name      string  `json:"name"`
	Line      Line    `json:"line"`
	Begins    string  `json:"begins"`    // the tag that begins a record; empty: whatever comes first after an end
	Ends      string  `json:"ends"`      // the tag that ends a record; empty: none does
	Blank     bool    `json:"blank"`     // a blank line ends a record
	Rule      string  `json:"rule"`      // a line that begins with this ends a record; empty: none does
	Continues string  `json:"continues"` // which lines without a tag go on with the value before
	Fields    []Field `json:"fields"`
}

// The ways in which a value goes on.
const (
	AnyLine  = "any"      // on any line that has no tag
	Indented = "indented" // only on lines that begin with a space or a tab
)

// A Line is how a tagged line looks: what stands before the tag, what tags are made of, and the mark that
// parts tag and value.
type Line struct {
	Before  string `json:"before"`
	Letters string `json:"letters"`
	Min     int    `json:"min"` // characters of a tag
	Max     int    `json:"max"`
	After   string `json:"after"`
	Padded  bool   `json:"padded"` // any number of spaces may stand between tag and mark
	Listed  bool   `json:"listed"` // only tags that the map lists are tags; other lines are text
}

// What tags are made of.
const (
	Code  = "code"  // a capital, then capitals and digits
	Word  = "word"  // letters and digits; capitals do not matter
	Label = "label" // words with spaces between them; capitals do not matter
)

// A Field is a field of a record and the tags that stand for it.
type Field struct {
	Field string   `json:"field"` // of exchange.Targets; empty: the tags are left out
	Tags  []string `json:"tags"`
	Take  string   `json:"take,omitempty"` // how several tags and values are taken; empty: first
	Split string   `json:"split,omitempty"`
}

// How several tags and values are taken.
const (
	First = "first" // the values of the first tag that has one
	All   = "all"   // the values of all tags, in the order of the file
	Each  = "each"  // the values of all tags, tag by tag
)

// Auto, as a Split, parts values at semicolons, else at commas.
const Auto = "auto"

// Limits of a map.
const (
	maxFields = 100
	maxTags   = 50
	maxText   = 80 // of a tag or a mark
)

// A rule is one that a map keeps, and what is said where it does not.
type rule struct {
	broken bool
	says   string
	args   []any
}

func check(rules []rule) error {
	for _, r := range rules {
		if r.broken {
			return fmt.Errorf(r.says, r.args...)
		}
	}
	return nil
}

// Check says what is wrong with a map; nil when it can be read by.
func (m Map) Check() error {
	rules := []rule{
		{m.Format != Version, "a reader map says \"tamiz\": %q of itself, not %q", []any{Version, m.Format}},
		{!slices.Contains([]string{Code, Word, Label}, m.Line.Letters), "tags are made as %s, %s or %s, not %q",
			[]any{Code, Word, Label, m.Line.Letters}},
		{m.Line.Min < 1 || m.Line.Max < m.Line.Min || m.Line.Max > maxText,
			"a tag has 1 to %d characters, not %d to %d", []any{maxText, m.Line.Min, m.Line.Max}},
		{m.Line.After == "" && m.Line.Before == "",
			"something has to stand before a tag or between it and its value", nil},
		{!slices.Contains([]string{AnyLine, Indented}, m.Continues),
			"values go on with any line or indented ones, not %q", []any{m.Continues}},
		{m.Begins == "" && m.Ends == "" && !m.Blank && m.Rule == "", "nothing says where a record begins or ends", nil},
		{len(m.Fields) > maxFields, "a map has at most %d fields, not %d", []any{maxFields, len(m.Fields)}},
	}
	for _, s := range []string{m.Name, m.Line.Before, m.Line.After, m.Begins, m.Ends, m.Rule} {
		rules = append(rules, rule{len(s) > 2*maxText, "%q is too long", []any{exchange.Shorten(s)}})
	}
	useful := false
	for _, f := range m.Fields {
		rules = append(rules, f.rules()...)
		useful = useful || f.Field != exchange.Leave && len(f.Tags) > 0
	}
	return check(append(rules, rule{!useful, "no tag stands for a field", nil}))
}

func (f Field) rules() []rule {
	rules := []rule{
		{f.Field != exchange.Leave && !slices.Contains(exchange.Targets, f.Field), "there is no field %q", []any{f.Field}},
		{!slices.Contains([]string{"", First, All, Each}, f.Take), "values are taken as %s, %s or %s, not %q",
			[]any{First, All, Each, f.Take}},
		{len(f.Tags) > maxTags || len(f.Split) > maxText, "the field %q has too many tags", []any{f.Field}},
	}
	for _, t := range f.Tags {
		rules = append(rules, rule{t == "" || len(t) > maxText, "a tag has 1 to %d characters, not %q",
			[]any{maxText, exchange.Shorten(t)}})
	}
	return rules
}

// Read reads a map from its JSON and checks it.
func Read(r io.Reader) (Map, error) {
	var m Map
	d := json.NewDecoder(io.LimitReader(r, 1<<20))
	d.DisallowUnknownFields()
	if err := d.Decode(&m); err != nil {
		return m, fmt.Errorf("the file is no reader map: %w", err)
	}
	return m, m.Check()
}

// fold makes tags comparable.
func (l Line) fold(tag string) string {
	if l.Letters == Code {
		return tag
	}
	return strings.ToLower(bib.Flat(tag))
}

package dialects

import (
	"strings"

	"tamiz/app/problems"
	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/strategy"
)

// A Trial is what a dialect makes of a small strategy with something of everything: what it writes, and what its
// own reader makes of that.
type Trial struct {
	Lines  []TriedLine `json:"lines"`
	Whole  TriedLine   `json:"whole"`
	Broken string      `json:"broken,omitempty"` // why it cannot be kept as it is, where it can be tried all the same
}

// A TriedLine is one line of the trial. Meant and Read are in CQL.
type TriedLine struct {
	Number int         `json:"number"`
	Meant  string      `json:"meant"`
	Texts  []string    `json:"texts"` // none where it cannot be said
	Notes  []TriedNote `json:"notes"`
	Read   string      `json:"read"` // what its reader makes of what it wrote
	Agrees bool        `json:"agrees"`
}

// A TriedNote says what the dialect cannot say, and what is asked in its place.
type TriedNote struct {
	Kind    string `json:"kind"`
	Term    string `json:"term"`
	Instead string `json:"instead,omitempty"`
}

// trialStrategy has a heading with all below it, one as a main point, a cut word, a sign for one character, a
// field, words near each other, a block to leave out, and limits.
func trialStrategy() strategy.Strategy {
	from := 2005
	words := func(s, field string) strategy.Term {
		return strategy.Term{Kind: strategy.TextTerm, Text: s, Field: field, On: true}
	}
	return strategy.Strategy{Tamiz: strategy.Version, Blocks: []strategy.Block{
		{Name: "A", Concept: "kiln workers", Searched: true, Terms: []strategy.Term{
			{
				Kind:     strategy.HeadingTerm,
				Heading:  "Kiln Workers",
				Narrower: true,
				On:       true,
			}, words("kiln worker*", "text"), words("labo?rer*", "text"), words("brick makers", "title")}},
		{Name: "B", Concept: "rest", Searched: true, Terms: []strategy.Term{
			{Kind: strategy.HeadingTerm, Heading: "Rest", Central: true, Qualifiers: []string{"organisation"}, On: true},
			{
				Kind:   strategy.NearTerm,
				Left:   "rest*",
				Right:  "break*",
				Within: 3,
				Field:  "text",
				On:     true,
			}, words("shade", "abstract")}},
		{Name: "C", Concept: "animals", Searched: true, Negated: true, Terms: []strategy.Term{words("mule*", "text")}},
	}, Limits: []strategy.Limit{{Kind: strategy.YearsLimit, From: &from}, {Kind: "languages", Values: []string{"eng",
		"spa"}}}}
}

// Try shows what a dialect makes of a strategy; it need not be right yet. What cannot be tried is a problem of its
// file.
func (a *Service) Try(body string) (*Trial, error) {
	if len(body) > longestFile {
		return nil, problems.Invalid("body", "A dialect has at most %d bytes; this one has %d.", longestFile, len(body))
	}
	d, wrong, err := dialect.Try([]byte(body))
	if err != nil {
		return nil, problems.Invalid("body", "%s", problems.Sentence(err.Error()))
	}
	s := trialStrategy()
	typed, err := s.Typed(d, nil, dialect.Options{})
	if err != nil {
		return nil, err
	}
	out := &Trial{Lines: []TriedLine{}}
	if wrong != nil {
		out.Broken = problems.Sentence(wrong.Error())
	}
	for _, l := range typed.Lines {
		line := TriedLine{
			Number: l.Of.Number,
			Meant:  query.Write(l.Of.Expr),
			Texts:  append([]string{}, l.Texts...),
			Notes:  triedNotes(l.Notes),
		}
		if len(l.Of.Parts) > 0 {
			line.Meant = l.Of.Joined()
			line.Agrees = true // by its numbers: it is read with the whole
		} else {
			line.read(d, strings.Join(l.Texts, "\n"), l.Said)
		}
		out.Lines = append(out.Lines, line)
	}
	whole, _ := s.Query(nil) // it finds something
	out.Whole = TriedLine{Meant: query.Write(whole), Texts: []string{}, Notes: triedNotes(typed.Notes(d))}
	if text := typed.Text(d); text != "" {
		out.Whole.Texts = []string{text}
		out.Whole.read(d, text, typed.Whole.Said)
	}
	return out, nil
}

// read fills in what the dialect's own reader makes of what it wrote.
func (l *TriedLine) read(d *dialect.Dialect, text string, said query.Expr) {
	if text == "" {
		l.Agrees = true // nothing was written, and a note says so
		return
	}
	r, err := d.Read(text, nil)
	if err != nil {
		l.Read = err.Error()
		return
	}
	if q := r.Expr(); q != nil {
		l.Read = query.Write(q)
		l.Agrees = dialect.Same(said, q) || len(r.Lines) > 1 && dialect.FindSame(said, q)
	}
}

func triedNotes(notes []dialect.Note) []TriedNote {
	out := []TriedNote{}
	for _, n := range notes {
		out = append(out, TriedNote{n.Code, n.Term, n.Instead})
	}
	return out
}

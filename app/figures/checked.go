package figures

import (
	"context"
	"errors"
	"fmt"
	"strings"

	"tamiz/app/desk"
	"tamiz/app/problems"
	"tamiz/core/coverage"
	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/strategy"
)

// What a search is asked before it is run, by the questions of a check.
const (
	AskTranslation = "translation" // is the question translated into concepts as it should be
	AskOperators   = "operators"   // operators and words near each other
	AskHeadings    = "headings"
	AskWords       = "words"    // words, their other spellings, where they are cut
	AskSpelling    = "spelling" // mistakes of spelling, of syntax, of line numbers
	AskLimits      = "limits"   // limits and filters
)

// Questions are those of a check, in the order in which they are asked.
var Questions = []string{AskTranslation, AskOperators, AskHeadings, AskWords, AskSpelling, AskLimits}

// askedBy is which question a finding about a query belongs to; those that are not named are about how it is written.
var askedBy = map[string]string{
	"mixed-operators": AskOperators, "and-among-synonyms": AskOperators, "or-among-concepts": AskOperators,
	"not-drops":       AskOperators,
	"heading-unknown": AskHeadings, "heading-renamed": AskHeadings, "heading-below-another": AskHeadings,
	"one-spelling": AskWords, "inside-another": AskWords, "stem-too-short": AskWords, "exact-with-truncation": AskWords,
	"phrase-split": AskWords, "duplicate": AskWords,
	"finds-nothing": AskWords, "limit-on-indexing": AskLimits,
}

// A CheckSheet is a version as a colleague looks at it: its lines, and what Tamiz itself found.
type CheckSheet struct {
	Lines    []SheetLine    `json:"lines"`
	Findings []SheetFinding `json:"findings"`
}

// A SheetLine is one line of the version.
type SheetLine struct {
	Number int    `json:"number"`
	Block  string `json:"block,omitempty"` // the id of the block of a term
	Term   string `json:"term,omitempty"`  // its id
	Text   string `json:"text"`
}

// A SheetFinding is what Tamiz found, by the question it belongs to.
type SheetFinding struct {
	Question string `json:"question"`
	Code     string `json:"code"`
	Why      string `json:"why"`
	Number   int    `json:"number,omitempty"` // the line
	Records  *int   `json:"records,omitempty"`
	Keys     *int   `json:"keys,omitempty"`
}

// CheckSheet looks a document through as a colleague would be asked to: over the sample, where one is looked at.
func (a *Service) CheckSheet(ctx context.Context, at desk.At, doc desk.Document) (*CheckSheet, error) {
	lay, err := a.desk.Desk(ctx, at)
	if err != nil {
		return nil, err
	}
	s := doc.Strategy("")
	numbered, err := s.Numbered(thesaurusOf(lay))
	if err != nil {
		return nil, notWritten(err)
	}
	out := &CheckSheet{Lines: []SheetLine{}, Findings: []SheetFinding{}}
	var text strings.Builder
	for _, n := range numbered {
		line := SheetLine{Number: n.Number, Text: query.Write(n.Expr)}
		switch {
		case len(n.Parts) > 0:
			line.Text = n.Joined()
		case n.Kind == strategy.TermLine:
			line.Block, line.Term = doc.Blocks[n.Block].ID, doc.Blocks[n.Block].Terms[n.Term].ID
		}
		out.Lines = append(out.Lines, line)
	}
	lines, err := s.Lines(thesaurusOf(lay))
	if errors.Is(err, strategy.ErrFindsNothing) { // there is no query yet that could be looked at
		say := SheetFinding{Question: AskTranslation, Code: "finds-nothing", Why: problems.Sentence(err.Error())}
		out.Findings = append(out.Findings, say)
		return out, a.sheetFacts(ctx, lay, doc, out)
	}
	if err != nil {
		return nil, notWritten(err)
	}
	for _, l := range lines {
		fmt.Fprintf(&text, "%d\t%s\n", l.Number, l.Text)
	}
	cql, _ := dialect.Named("cql")
	said, err := a.Explain(ctx, at, text.String(), []*dialect.Dialect{cql})
	if err != nil {
		return nil, err
	}
	for _, f := range said.Findings {
		found := SheetFinding{
			Question: askedBy[f.Code],
			Code:     f.Code,
			Why:      problems.Sentence(f.Why),
			Records:  f.Records,
			Keys:     f.Keys,
		}
		if found.Question == "" {
			found.Question = AskSpelling
		}
		for _, l := range said.Lines {
			if f.From >= l.From && f.From <= l.To {
				found.Number = l.Number
			}
		}
		out.Findings = append(out.Findings, found)
	}
	return out, a.sheetFacts(ctx, lay, doc, out)
}

// sheetFacts adds what is to be said of concepts, headings and limits, beside what is wrong with lines.
func (a *Service) sheetFacts(ctx context.Context, lay *desk.Desk, doc desk.Document, out *CheckSheet) error {
	say := func(question, code string, records, keys *int, format string, args ...any) {
		out.Findings = append(
			out.Findings,
			SheetFinding{Question: question, Code: code, Why: fmt.Sprintf(format, args...), Records: records, Keys: keys},
		)
	}
	s := doc.Strategy("")
	inKeys, err := coverage.Find(ctx, lay.Keys.Set, s)
	if err != nil {
		return err
	}
	if lay.Keys.Absent != nil {
		setAside(inKeys, lay.Keys.Absent)
	}
	held := lay.Keys.Held()
	if missed := held - int(inKeys.Whole.GetCardinality()); held > 0 && missed > 0 {
		say(AskTranslation, "missed", nil, &missed, "%d of %d key studies are missed.", missed, held)
	}
	var inSample *coverage.Reach
	if lay.Pool != nil {
		if inSample, err = coverage.Find(ctx, lay.Pool.Set(), s); err != nil {
			return err
		}
	}
	for i, b := range doc.Blocks {
		on, headings := 0, 0
		for _, t := range b.Terms {
			if t.On {
				on++
				if t.Kind == strategy.HeadingTerm {
					headings++
				}
			}
		}
		switch {
		case !b.Searched && b.Reason != "":
			say(
				AskTranslation,
				"kept-out",
				nil,
				nil,
				"Block %s (%s) is kept out: %s.",
				b.Name,
				b.Concept,
				strings.TrimRight(b.Reason, "."),
			)
		case !b.Searched:
			say(
				AskTranslation,
				"kept-out",
				nil,
				nil,
				"Block %s (%s) is kept out, and no reason is written down.",
				b.Name,
				b.Concept,
			)
		case on == 0:
			say(AskTranslation, "empty", nil, nil, "Block %s (%s) is searched and has no term.", b.Name, b.Concept)
		default:
			if headings == 0 && lay.Keys.Set.Thesaurus != nil {
				say(AskHeadings, "no-headings", nil, nil, "Block %s (%s) has words alone and no heading.", b.Name, b.Concept)
			}
			if headings == on {
				say(
					AskWords,
					"no-words",
					nil,
					nil,
					"Block %s (%s) has headings alone: what is not indexed yet is not found.",
					b.Name,
					b.Concept,
				)
			}
			if missed := held - int(inKeys.Blocks[i].GetCardinality()); !b.Negated && missed > 0 {
				say(AskTranslation, "missed", nil, &missed, "Block %s (%s) misses %d of them.", b.Name, b.Concept, missed)
			}
		}
	}
	for i, l := range s.Limits {
		dropped := held - int(inKeys.Limits[i].GetCardinality())
		var taken *int
		if inSample != nil {
			n := inSample.TakenAwayByLimit(i)
			taken = &n
		}
		why := fmt.Sprintf("The limit to %s drops %d of %d key studies", l.Kind, dropped, held)
		if taken != nil {
			why += fmt.Sprintf(" and takes away %d records of the sample", *taken)
		}
		why += "."
		say(AskLimits, "limit", taken, &dropped, "%s", why)
	}
	return ctx.Err()
}

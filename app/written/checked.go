package written

import (
	"fmt"
	"slices"

	"tamiz/app/figures"
	"tamiz/app/peerreview"
	"tamiz/exchange/document"
)

// asked are the questions of a check as the record has them.
var asked = map[string]string{
	figures.AskTranslation: "Is the question translated into concepts as it should be?",
	figures.AskOperators:   "Are the words that join, and words near each other, used as they should be?",
	figures.AskHeadings:    "Are the subject headings the right ones, and is none missing?",
	figures.AskWords:       "Are words, their other spellings and where they are cut right?",
	figures.AskSpelling:    "Are there mistakes of spelling, of syntax, or in the numbers of lines?",
	figures.AskLimits:      "Do limits and filters fit the question and the source?",
}

var verdicts = map[string]string{"fine": "fine", "revise": "to be revised", "suggest": "with suggestions"}

// checked is the page of the finished checks that count; one that goes on or was withdrawn is named where there is
// no other.
func (f facts) checked() document.Section {
	s := document.Section{ID: "check", Title: "Checked by a colleague", Empty: "No check by a colleague was finished."}
	for _, c := range slices.Backward(f.checks) {
		if c.Done == nil || c.Withdrawn != nil {
			continue
		}
		s.Add(document.Text("%s", checkedBy(c)))
		var rows [][]string
		for _, x := range c.Answers {
			rows = append(rows, []string{asked[x.Question], verdicts[x.Verdict], x.Words})
		}
		s.Add(document.Rows("", []string{"Asked", "Answer", "In words"}, rows))
		if len(c.Suggestions) == 0 {
			continue
		}
		var made [][]string
		for _, x := range c.Suggestions {
			made = append(made, []string{x.Line, x.Says, x.Words, became(x)})
		}
		s.Add(document.Rows("Suggestions", []string{"Line", "Suggested", "In words", "What became of it"}, made))
	}
	if len(s.Parts) > 0 || len(f.checks) == 0 {
		return s
	}
	if c := f.checks[0]; c.Withdrawn != nil {
		s.Empty = checkedBy(c)
	} else {
		s.Empty = fmt.Sprintf("A check by %s was begun on %s and is not finished.", f.checks[0].Checker, day(f.checks[0].At))
	}
	return s
}

// checkedBy says who checked a version: who answered and finished, beside whom it was handed to.
func checkedBy(c peerreview.Check) string {
	by := c.By()
	if by == "" {
		by = c.Checker
	}
	out := fmt.Sprintf(
		"%s checked the version “%s”, handed over on %s and finished on %s.",
		by,
		c.Name,
		day(c.At),
		day(*c.Done),
	)
	if by != c.Checker {
		out = fmt.Sprintf(
			"%s checked the version “%s”, which was handed to %s on %s, and finished on %s.",
			by,
			c.Name,
			c.Checker,
			day(c.At),
			day(*c.Done),
		)
	}
	if c.Withdrawn != nil {
		out += fmt.Sprintf(" The check was withdrawn on %s", day(*c.Withdrawn))
		if c.WithdrawnBy != "" {
			out += " by " + c.WithdrawnBy
		}
		out += " and does not count."
	}
	return out
}

func became(x peerreview.Suggestion) string {
	if x.State == "open" {
		return "open"
	}
	if x.DecidedBy == "" {
		return x.State
	}
	return x.State + " by " + x.DecidedBy
}

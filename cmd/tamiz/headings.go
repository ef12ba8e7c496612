package main

import (
	"strings"

	"github.com/spf13/cobra"

	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/tally"
	"tamiz/core/thesaurus"
)

func headingsCommand() *cobra.Command {
	var in recordFlags
	var language string
	var records []string
	var limit int
	c := &cobra.Command{
		Use: "headings --vocabulary FILE WORD", Short: "Tell which headings a word leads to, and how",
		Args: least(1, "headings needs a word"),
		RunE: func(c *cobra.Command, words []string) error {
			if in.vocabulary == "" && len(records) == 0 {
				return usage("headings needs --vocabulary, or records (--in)")
			}
			if limit < 0 {
				return usage("--limit is at least 0, not %d", limit)
			}
			word := strings.Join(words, " ")
			if err := worded("what is looked for", word); err != nil {
				return err
			}
			file := in.vocabulary
			in.vocabulary = "" // it is read here, in the language that is wanted
			if err := in.begin(c); err != nil {
				return err
			}
			leads := []lead{}
			if file != "" {
				var err error
				if in.thesaurus, err = readVocabulary(c, file, strings.ToLower(language)); err != nil {
					return err
				}
				leads = leadsTo(in.thesaurus, word)
			}
			if len(records) == 0 {
				return writeJSON(c.OutOrStdout(), leads)
			}
			all, err := in.read(c, records)
			if err != nil {
				return err
			}
			found, without, err := coverage.HeadingsOf(
				c.Context(),
				in.set(all),
				strategy.Term{Kind: strategy.TextTerm, Text: word, Field: "text", On: true},
			)
			if err != nil {
				return err
			}
			if limit > 0 {
				found = found[:min(limit, len(found))]
			}
			out := struct {
				Headings []lead     `json:"headings"`
				Evidence []evidence `json:"evidence"`
				Without  int        `json:"without"`
			}{leads, []evidence{}, without}
			for _, e := range found {
				out.Evidence = append(out.Evidence, evidence{e.Heading, e.Records, tally.Round(e.Share), tally.Round(e.Pull)})
			}
			return writeJSON(c.OutOrStdout(), out)
		},
	}
	in.add(c)
	c.Flags().StringVar(&language, "language", "", "the language of the labels; that of most when not said")
	c.Flags().
		StringArrayVar(&records, "in", nil, "a file of records whose headings tell what the word is indexed with; "+
			"repeat for several")
	c.Flags().IntVar(&limit, "limit", 0, "how many headings are printed by evidence; 0 is all")
	return c
}

// A lead is a heading that a word leads to in a vocabulary.
type lead struct {
	Heading   string        `json:"heading"`
	Via       thesaurus.Via `json:"via"`
	Matched   string        `json:"matched"`
	Places    [][]string    `json:"places"`
	Narrower  int           `json:"narrower"`
	ScopeNote string        `json:"scopeNote,omitempty"`
}

func leadsTo(t *thesaurus.Thesaurus, word string) []lead {
	out := []lead{}
	for _, l := range t.LookUp(word) {
		out = append(
			out,
			lead{t.Label(l.Heading), l.Via, l.Matched, t.Places(l.Heading), len(t.Below(l.Heading)) - 1, t.ScopeNote(l.Heading)},
		)
	}
	return out
}

type evidence struct {
	Heading string  `json:"heading"`
	Records int     `json:"records"`
	Share   float64 `json:"share"`
	Pull    float64 `json:"pull"`
}

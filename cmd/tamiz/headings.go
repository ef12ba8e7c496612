package main

import (
	"strings"

	"github.com/spf13/cobra"

	"tamiz/core/thesaurus"
)

func headingsCommand() *cobra.Command {
	var file, language string
	c := &cobra.Command{
		Use: "headings --vocabulary FILE WORD", Short: "Tell which headings a word leads to, and how",
		Args: least(1, "headings needs a word"),
		RunE: func(c *cobra.Command, words []string) error {
			if file == "" {
				return usage("headings needs --vocabulary")
			}
			if err := worded("what is looked for", strings.Join(words, " ")); err != nil {
				return err
			}
			t, err := readVocabulary(c, file, strings.ToLower(language))
			if err != nil {
				return err
			}
			type row struct {
				Heading   string        `json:"heading"`
				Via       thesaurus.Via `json:"via"`
				Matched   string        `json:"matched"`
				Places    [][]string    `json:"places"`
				Narrower  int           `json:"narrower"`
				ScopeNote string        `json:"scopeNote,omitempty"`
			}
			out := []row{}
			for _, l := range t.LookUp(strings.Join(words, " ")) {
				h := t.Headings[l.Heading]
				out = append(out, row{h.Label, l.Via, l.Matched, t.Places(l.Heading), len(t.Below(l.Heading)) - 1, h.ScopeNote})
			}
			return writeJSON(c.OutOrStdout(), out)
		},
	}
	c.Flags().StringVar(&file, "vocabulary", "", "the vocabulary file (SKOS as N-Triples, RDF/XML or JSON-LD)")
	c.Flags().StringVar(&language, "language", "", "the language of the labels; that of most when not said")
	return c
}

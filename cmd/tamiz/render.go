package main

import (
	"fmt"

	"github.com/spf13/cobra"

	"tamiz/core/thesaurus"
)

func renderCommand() *cobra.Command {
	var file, dialect, vocabulary string
	c := &cobra.Command{
		Use: "render --strategy S --dialect D", Short: "Write a strategy as a source or a person reads it",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if file == "" {
				return usage("render needs --strategy")
			}
			if dialect != "cql" && dialect != "lines" {
				return usage("--dialect is cql or lines, not %q", dialect)
			}
			s, err := readStrategy(c, file)
			if err != nil {
				return err
			}
			var v *thesaurus.Thesaurus
			if vocabulary != "" {
				if v, err = readVocabulary(c, vocabulary, ""); err != nil {
					return err
				}
			}
			if dialect == "cql" {
				cql, err := s.CQL(v)
				if err != nil {
					return err
				}
				fmt.Fprintln(c.OutOrStdout(), cql)
				return nil
			}
			lines, err := s.Lines(v)
			if err != nil {
				return err
			}
			for _, l := range lines {
				fmt.Fprintf(c.OutOrStdout(), "%d\t%s\n", l.Number, l.Text)
			}
			return nil
		},
	}
	c.Flags().StringVar(&file, "strategy", "", "the strategy file")
	c.Flags().StringVar(&vocabulary, "vocabulary", "", "the vocabulary of its headings, in SKOS: needed where a term takes only some of those below one")
	c.Flags().StringVar(&dialect, "dialect", "cql", "cql, or lines: numbered, with the terms in CQL")
	return c
}

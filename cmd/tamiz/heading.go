package main

import (
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"tamiz/core/heading"
	"tamiz/core/strategy"
)

func headingCommand() *cobra.Command {
	var in recordFlags
	var language, keys, file, block string
	var records []string
	c := &cobra.Command{
		Use: "heading --vocabulary FILE LABEL", Short: "Tell all that is known of one heading, and what it finds",
		Args: least(1, "heading needs the label of a heading"),
		RunE: func(c *cobra.Command, words []string) error {
			if in.vocabulary == "" {
				return usage("heading needs --vocabulary")
			}
			if block != "" && file == "" {
				return usage("--block needs --strategy")
			}
			vocabulary := in.vocabulary
			in.vocabulary = "" // it is read here, in the language that is wanted
			if err := in.begin(c); err != nil {
				return err
			}
			v, err := readVocabulary(c, vocabulary, strings.ToLower(language))
			if err != nil {
				return err
			}
			in.thesaurus = v
			label := strings.Join(words, " ")
			at, ok := v.Find(label)
			if !ok {
				if at, ok = v.Term(label); !ok {
					return noHeading(label, leadsTo(v, label))
				}
			}
			var look heading.Look
			look.Set.Thesaurus, look.Keys.Thesaurus = v, v
			if len(records) > 0 {
				all, err := in.read(c, records)
				if err != nil {
					return err
				}
				look.Set = in.set(all)
			}
			if keys != "" {
				studies, err := in.read(c, []string{keys})
				if err != nil {
					return err
				}
				look.Keys = in.set(studies)
			}
			var into strategy.Block
			if file != "" {
				s, err := readStrategy(c, file)
				if err != nil {
					return err
				}
				i := slices.IndexFunc(s.Blocks, func(b strategy.Block) bool { return b.Name == block })
				if i < 0 {
					return usage("the strategy has no block %q (--block)", block)
				}
				into = s.Blocks[i]
			}
			whole, err := look.Whole(c.Context(), at, into)
			if err != nil {
				return err
			}
			return writeJSON(c.OutOrStdout(), whole)
		},
	}
	in.add(c)
	c.Flags().StringVar(&language, "language", "", "the language of the labels; that of most when not said")
	c.Flags().StringArrayVar(&records, "in", nil, "a file of records that figures are over; repeat for several")
	c.Flags().StringVar(&keys, "keys", "", "a file of key studies")
	c.Flags().StringVar(&file, "strategy", "", "a strategy file, for what the entry terms would add to a block of it")
	c.Flags().StringVar(&block, "block", "", "the name of that block")
	return c
}

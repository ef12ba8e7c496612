package main

import (
	"fmt"
	"path/filepath"
	"strings"

	"github.com/spf13/cobra"

	"tamiz/app/vocabularies"
	"tamiz/core/thesaurus"
	"tamiz/exchange"
)

// noHeading tells which headings may be meant by a label that there is not.
func noHeading(label string, leads []lead) error {
	var likely []string
	for _, l := range leads[:min(len(leads), 5)] {
		likely = append(likely, l.Heading)
	}
	if len(likely) == 0 {
		return fmt.Errorf("the vocabulary has no heading %q", label)
	}
	return fmt.Errorf("the vocabulary has no heading %q; the word leads to %s", label, strings.Join(likely, "; "))
}

func vocabularyCommand() *cobra.Command {
	c := &cobra.Command{
		Use:   "vocabulary",
		Short: "Bring in a controlled vocabulary, list those there are, compare two editions",
		Args:  cobra.ArbitraryArgs,
		RunE: func(_ *cobra.Command, args []string) error {
			if len(args) == 0 {
				return usage("vocabulary needs one of: add, list, compare")
			}
			return usage("vocabulary has no %q; there are add, list and compare", args[0])
		},
	}
	c.AddCommand(vocabularyAdd(), vocabularyList(), vocabularyCompare())
	return c
}

func vocabularyAdd() *cobra.Command {
	var s settings
	var name, language string
	c := &cobra.Command{
		Use: "add FILE", Short: "Bring a vocabulary in SKOS into the database; one of a name that is there becomes its " +
			"next edition",
		Args: cobra.ExactArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			if name == "" {
				base := strings.TrimSuffix(filepath.Base(args[0]), ".gz")
				name = strings.TrimSuffix(base, filepath.Ext(base))
			}
			t, told, err := vocabularyOf(c, args[0], strings.ToLower(language))
			if err != nil {
				return err
			}
			body, err := vocabularies.Pack(t)
			if err != nil {
				return err
			}
			db, err := s.open(c)
			if err != nil {
				return err
			}
			defer db.Close()
			id, err := vocabularies.NewRows(db).Add(c.Context(), name, t, body)
			if err != nil {
				return err
			}
			added, err := vocabularies.NewRows(db).One(c.Context(), id)
			if err != nil {
				return err
			}
			out := struct {
				vocabularies.Vocabulary
				Troubles map[exchange.Kind]int `json:"troubles"`          // what was mended or passed over: how much of each kind
				Changes  *thesaurus.Changes    `json:"changes,omitempty"` // against the edition before
			}{Vocabulary: added, Troubles: told}
			for _, n := range told {
				out.Notices += n
			}
			if added.Earlier != nil {
				before, err := vocabularies.NewRows(db).Thesaurus(c.Context(), *added.Earlier)
				if err != nil {
					return err
				}
				changes := thesaurus.Compare(before, t)
				out.Changes = &changes
			}
			return writeJSON(c.OutOrStdout(), out)
		},
	}
	s.database(c)
	c.Flags().StringVar(&name, "name", "", "what it is called; the file's name when not said")
	c.Flags().
		StringVar(&language, "language", "", "the language of the labels that headings go by; that of most when not said")
	return c
}

func vocabularyList() *cobra.Command {
	var s settings
	c := &cobra.Command{
		Use: "list", Short: "List the vocabularies in the database", Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			db, err := s.open(c)
			if err != nil {
				return err
			}
			defer db.Close()
			all, err := vocabularies.NewRows(db).All(c.Context())
			if err != nil {
				return err
			}
			return writeJSON(c.OutOrStdout(), all)
		},
	}
	s.database(c)
	return c
}

func vocabularyCompare() *cobra.Command {
	var language string
	c := &cobra.Command{
		Use: "compare OLD NEW", Short: "Tell what a later edition of a vocabulary says otherwise than an earlier one",
		Args: cobra.ExactArgs(2),
		RunE: func(c *cobra.Command, args []string) error {
			earlier, err := readVocabulary(c, args[0], strings.ToLower(language))
			if err != nil {
				return err
			}
			later, err := readVocabulary(c, args[1], strings.ToLower(language))
			if err != nil {
				return err
			}
			return writeJSON(c.OutOrStdout(), thesaurus.Compare(earlier, later))
		},
	}
	c.Flags().StringVar(&language, "language", "", "the language of the labels; that of most when not said")
	return c
}

package main

import (
	"fmt"
	"io"
	"os"
	"strings"

	"github.com/spf13/cobra"

	"tamiz/core/company"
	"tamiz/core/dialect"
	"tamiz/core/explain"
)

func explainCommand() *cobra.Command {
	var in recordFlags
	var name string
	var records, keys []string
	c := &cobra.Command{
		Use: "explain [QUERY]", Short: "Tell what a query that somebody wrote says, and what is wrong with it",
		Args: cobra.MaximumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			typed, err := typedQuery(c, args)
			if err != nil {
				return err
			}
			if err := in.begin(c); err != nil {
				return err
			}
			d := dialect.Tell(typed, dialect.Known())
			if name != "" {
				if d, err = dialectNamed(c, name); err != nil {
					return err
				}
			}
			read, err := d.Read(typed, in.thesaurus)
			if err != nil {
				return err
			}
			var over explain.Over
			over.Set.Thesaurus = in.thesaurus
			if len(records) > 0 {
				sample, err := in.read(c, records)
				if err != nil {
					return err
				}
				over.Set = in.set(sample)
				over.Company = func() (*company.Company, error) {
					return company.Build(c.Context(), over.Set.Index, over.Set.All())
				}
			}
			if len(keys) > 0 {
				studies, err := in.read(c, keys)
				if err != nil {
					return err
				}
				over.Keys = in.set(studies)
			}
			e, err := explain.Explain(c.Context(), read, over)
			if err != nil {
				return err
			}
			return writeJSON(c.OutOrStdout(), e)
		},
	}
	in.add(c)
	c.Flags().
		StringVar(&name, "dialect", "", "the dialect it is written in, by name or as a file; without it, that is told "+
			"from the text")
	c.Flags().StringArrayVar(&records, "in", nil, "a file of records to look at the query over; repeat for several")
	c.Flags().StringArrayVar(&keys, "keys", nil, "a file of key studies")
	return c
}

// typedQuery returns the query of the call, or of standard input.
func typedQuery(c *cobra.Command, args []string) (string, error) {
	if len(args) == 1 && args[0] != "-" {
		return args[0], nil
	}
	data, err := io.ReadAll(io.LimitReader(c.InOrStdin(), dialect.MaxText+1))
	if err != nil {
		return "", err
	}
	if len(data) > dialect.MaxText {
		return "", fmt.Errorf("a query has at most %d bytes", dialect.MaxText)
	}
	return strings.ToValidUTF8(string(data), "\uFFFD"), nil
}

// dialectNamed returns a dialect by its name, or the one of a file.
func dialectNamed(c *cobra.Command, name string) (*dialect.Dialect, error) {
	if name == "lines" { // told by the numbers of its lines
		name = "cql"
	}
	if d, ok := dialect.Named(name); ok {
		return d, nil
	}
	if !strings.HasSuffix(name, ".json") {
		var all []string
		for _, d := range dialect.Known() {
			all = append(all, d.Name)
		}
		return nil, usage(
			"--dialect is lines, one of %s, or a file that ends in .json, not %q",
			strings.Join(all, ", "),
			name,
		)
	}
	data, err := os.ReadFile(name)
	if err != nil {
		return nil, err
	}
	d, err := dialect.Parse(data)
	if err != nil {
		return nil, fmt.Errorf("%s: %w", name, err)
	}
	return d, nil
}

func dialectsCommand() *cobra.Command {
	return &cobra.Command{
		Use: "dialects [D]", Short: "List the dialects that are known, or print one of them",
		Args: cobra.MaximumNArgs(1),
		RunE: func(c *cobra.Command, args []string) error {
			if len(args) == 1 {
				d, err := dialectNamed(c, args[0])
				if err != nil {
					return err
				}
				return writeJSON(c.OutOrStdout(), d)
			}
			for _, d := range dialect.Known() {
				fmt.Fprintf(c.OutOrStdout(), "%s\t%s\t%s\n", d.Name, d.Title, d.About)
			}
			return nil
		},
	}
}

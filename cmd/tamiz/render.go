package main

import (
	"fmt"
	"slices"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/spf13/cobra"

	"tamiz/core/dialect"
	"tamiz/core/query"
	"tamiz/core/strategy"
)

func renderCommand() *cobra.Command {
	var in recordFlags
	var file, name string
	var records []string
	c := &cobra.Command{
		Use: "render --strategy S --dialect D", Short: "Write a strategy as a source or a person reads it",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if file == "" {
				return usage("render needs --strategy")
			}
			d, err := dialectNamed(c, name)
			if err != nil {
				return err
			}
			s, err := readStrategy(c, file)
			if err != nil {
				return err
			}
			if err := in.begin(c); err != nil {
				return err
			}
			switch name {
			case "cql":
				cql, err := s.CQL(in.thesaurus)
				if err != nil {
					return err
				}
				fmt.Fprintln(c.OutOrStdout(), cql)
				return nil
			case "lines":
				lines, err := s.Lines(in.thesaurus)
				if err != nil {
					return err
				}
				for _, l := range lines {
					fmt.Fprintf(c.OutOrStdout(), "%d\t%s\n", l.Number, l.Text)
				}
				return nil
			}
			return renderIn(c, d, s, &in, records)
		},
	}
	in.add(c)
	c.Flags().StringVar(&file, "strategy", "", "the strategy file")
	c.Flags().
		StringArrayVar(&records, "in", nil, "a file of records: what they hold is written out for signs that the "+
			"dialect lacks, and notes say what they cost; repeat for several")
	c.Flags().
		StringVar(&name, "dialect", "cql", "cql, lines (numbered, with the terms in CQL), another that tamiz dialects "+
			"lists, or a file")
	return c
}

// renderIn writes a strategy in a dialect, with what it cannot say on standard error.
func renderIn(c *cobra.Command, d *dialect.Dialect, s strategy.Strategy, in *recordFlags, files []string) error {
	var options dialect.Options
	var find func(query.Expr) *roaring.Bitmap
	if len(files) > 0 {
		sample, err := in.read(c, files)
		if err != nil {
			return err
		}
		ix := in.set(sample).Index
		options = dialect.OptionsOf(ix)
		find = func(q query.Expr) *roaring.Bitmap { return q.Match(ix) }
	}
	typed, err := s.Typed(d, in.thesaurus, options)
	if err != nil {
		return err
	}
	fmt.Fprintln(c.OutOrStdout(), typed.Text(d))
	var notes []string
	for _, n := range typed.Notes(d) {
		note := n.String()
		if find != nil && n.Countable() {
			if more, fewer := dialect.Between(n.Meant, n.Said, find); more+fewer > 0 {
				note += fmt.Sprintf(": %d records more, %d fewer", more, fewer)
			}
		}
		notes = append(notes, note)
	}
	slices.Sort(notes)
	for _, n := range slices.Compact(notes) {
		fmt.Fprintln(c.ErrOrStderr(), n)
	}
	if whole, err := s.Query(in.thesaurus); err == nil {
		if find != nil {
			more, fewer := dialect.Between(whole, typed.Whole.Said, find)
			fmt.Fprintf(c.ErrOrStderr(), "the whole: %d records more, %d fewer\n", more, fewer)
		}
	}
	return nil
}

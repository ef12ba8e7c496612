package main

import (
	"bufio"
	"fmt"
	"strings"

	"github.com/RoaringBitmap/roaring/v2"
	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/core/index"
	"tamiz/core/query"
)

func countCommand() *cobra.Command {
	var in recordFlags
	c := &cobra.Command{
		Use: "count FILE… CQL", Short: "Print how many records match a query",
		Args: least(2, "count needs a file of records and a query"),
		RunE: func(c *cobra.Command, args []string) error {
			_, found, err := in.find(c, args)
			if err != nil {
				return err
			}
			fmt.Fprintln(c.OutOrStdout(), found.GetCardinality())
			return nil
		},
	}
	in.add(c)
	return c
}

func findCommand() *cobra.Command {
	var in recordFlags
	c := &cobra.Command{
		Use: "find FILE… CQL", Short: "Print the ids of the records that match a query, in file order",
		Args: least(2, "find needs a file of records and a query"),
		RunE: func(c *cobra.Command, args []string) error {
			records, found, err := in.find(c, args)
			if err != nil {
				return err
			}
			out := bufio.NewWriter(c.OutOrStdout())
			for _, n := range found.ToArray() {
				fmt.Fprintln(out, records[n].ID)
			}
			return out.Flush()
		},
	}
	in.add(c)
	return c
}

// find searches for the query that is the last argument in the files before it. The query is read first:
// a mistake in it is a wrong call, told before any file is read.
func (f *recordFlags) find(c *cobra.Command, args []string) ([]*bib.Record, *roaring.Bitmap, error) {
	if err := f.begin(c); err != nil {
		return nil, nil, err
	}
	last := len(args) - 1
	if strings.TrimSpace(args[last]) == "" {
		return nil, nil, usage("the query is empty")
	}
	q, err := query.Parse(args[last], f.thesaurus)
	if err != nil {
		return nil, nil, usage("the query cannot be read: %w", err)
	}
	for _, w := range q.Warnings {
		fmt.Fprintln(c.ErrOrStderr(), "tamiz:", w)
	}
	records, err := f.read(c, args[:last])
	if err != nil {
		return nil, nil, err
	}
	return records, q.Expr.Match(index.Build(records)), nil
}

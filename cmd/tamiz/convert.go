package main

import (
	"bufio"
	"errors"
	"io"
	"path/filepath"
	"strings"

	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/exchange/records"
)

func convertCommand() *cobra.Command {
	var in recordFlags
	var fields, format string
	var asIs bool
	c := &cobra.Command{
		Use: "convert IN OUT", Short: "One record format into another, by the ending of OUT",
		Args: exactly(2, "convert needs a file to read and a file to write"),
		Long: "Reads records of any format, told by what is in the file, and writes them as OUT says by its ending: " +
			".ris, .bib, .json (CSL-JSON), .csv, .tsv, .xml (MODS) or .html (a page to print). " +
			"With --format OUT has any name, or - for standard output.",
		RunE: func(c *cobra.Command, args []string) error {
			if err := in.begin(c); err != nil {
				return err
			}
			choice := records.Choice{Title: filepath.Base(args[0]), AsIs: asIs}
			if fields != "" {
				choice.Fields = strings.Split(fields, ",")
			}
			return convert(c, &in, args[0], args[1], format, choice)
		},
	}
	in.add(c)
	c.Flags().
		StringVar(&fields, "fields", "", "the fields to write, parted by commas, and extra for those that Tamiz does "+
			"not know (default: all)")
	c.Flags().
		BoolVar(&asIs, "as-is", false, "leave cells of a table as they are, also those that a spreadsheet would take "+
			"for formulas (those are marked with an apostrophe otherwise)")
	c.Flags().
		StringVar(&format, "format", "", "the format to write, by its ending: ris, bib, json, csv, tsv, xml or html "+
			"(default: the ending of OUT)")
	return c
}

func convert(c *cobra.Command, in *recordFlags, from, to, ending string, choice records.Choice) error {
	kind := to
	if ending != "" {
		kind = "x." + ending
	}
	format, err := records.ByEnding(kind)
	if err == nil {
		err = choice.Check()
	}
	if err != nil {
		return errors.Join(errUsage, err)
	}
	if (format == records.CSV || format == records.TSV) && from != "-" {
		// A table has one head for all its rows: what columns it needs is known only after reading all.
		err := in.each(c, from, false, func(r *bib.Record) error {
			choice.Columns = records.Columns(choice.Columns, r)
			return nil
		})
		if err != nil {
			return err
		}
	}
	write := func(w io.Writer) error {
		out, err := records.Create(w, format, choice)
		if err != nil {
			return err
		}
		if err := in.each(c, from, true, out.Write); err != nil {
			return err
		}
		return out.Close()
	}
	if to == "-" {
		b := bufio.NewWriter(c.OutOrStdout())
		return errors.Join(write(b), b.Flush())
	}
	return writeFile(filepath.Dir(to), filepath.Base(to), write)
}

// writeRecords writes records in the format that the ending of a name says.
func writeRecords(w io.Writer, name string, all []*bib.Record, choice records.Choice) error {
	format, err := records.ByEnding(name)
	if err != nil {
		return err
	}
	for _, r := range all {
		choice.Columns = records.Columns(choice.Columns, r)
	}
	out, err := records.Create(w, format, choice)
	if err != nil {
		return err
	}
	for _, r := range all {
		if err := out.Write(r); err != nil {
			return err
		}
	}
	return out.Close()
}

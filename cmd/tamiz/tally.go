package main

import (
	"slices"
	"strings"

	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/core/tally"
	"tamiz/exchange/table"
)

func tallyCommand() *cobra.Command {
	var (
		in            recordFlags
		facet, format string
		fields        []string
		against, keys []string
		words         = tally.DefaultWords
		limit         int
	)
	c := &cobra.Command{
		Use: "tally FILE…", Short: "Count what a sample is made of",
		Args: least(1, "tally needs a file of records"),
		RunE: func(c *cobra.Command, files []string) error {
			if err := in.begin(c); err != nil {
				return err
			}
			var err error
			if words.Fields, err = fieldSet(fields); err != nil {
				return err
			}
			if words.MaxWords < 1 || words.MaxWords > tally.MaxWords {
				return usage("--max-words is 1 to %d, not %d", tally.MaxWords, words.MaxWords)
			}
			if words.MinRecords < 1 {
				return usage("--min-records is at least 1, not %d", words.MinRecords)
			}
			if limit < 0 {
				return usage("--limit is at least 0, not %d", limit)
			}
			if format != "csv" && format != "json" {
				return usage("--format is csv or json, not %q", format)
			}
			f := tally.Facet(facet)
			if !slices.Contains(tally.Facets, f) {
				return usage("there is no facet %q; there are %s", facet, facetNames())
			}
			sample, err := in.read(c, files)
			if err != nil {
				return err
			}
			contrast, err := in.read(c, against)
			if err != nil {
				return err
			}
			studies, err := in.read(c, keys)
			if err != nil {
				return err
			}
			pool, err := tally.NewPool(c.Context(), sample, contrast)
			if err != nil {
				return err
			}
			pool.Thesaurus = in.thesaurus
			t, err := tally.Count(c.Context(), pool, f, studies, words)
			if err != nil {
				return err
			}
			if limit > 0 && limit < len(t.Rows) {
				t.Rows = t.Rows[:limit]
			}
			if format == "json" {
				return table.WriteTallyJSON(c.OutOrStdout(), t)
			}
			return table.WriteTallyCSV(
				c.OutOrStdout(),
				t,
				slices.Values(t.Rows),
				true,
			) // for scripts, which take nothing for a formula
		},
	}
	in.add(c)
	f := c.Flags()
	f.StringVar(&facet, "facet", "words", "what is counted: "+facetNames())
	f.StringArrayVar(&against, "against", nil, "a file of the contrast; repeat for several")
	f.StringArrayVar(&keys, "keys", nil, "a file of key studies")
	f.StringSliceVar(&fields, "fields", []string{"title", "abstract"}, "where words are counted: title, abstract, keyword")
	f.IntVar(&words.MaxWords, "max-words", words.MaxWords, "up to how many words an item has")
	f.IntVar(&words.MinRecords, "min-records", words.MinRecords, "leave out words in fewer records")
	f.IntVar(&limit, "limit", 0, "how many rows are printed; 0 is all")
	f.StringVar(&format, "format", "csv", "csv or json")
	return c
}

func facetNames() string {
	names := make([]string, len(tally.Facets))
	for i, f := range tally.Facets {
		names[i] = string(f)
	}
	return strings.Join(names, ", ")
}

func fieldSet(names []string) (set bib.Field, err error) {
	for _, name := range names {
		name = strings.TrimSpace(name)
		f, err := query.Fields(name)
		if err != nil || name == "" || f&bib.HeadingLabel != 0 {
			return 0, usage("--fields takes title, abstract and keyword, not %q", name)
		}
		set |= f
	}
	if set == 0 {
		return 0, usage("--fields needs at least one of title, abstract, keyword")
	}
	return set, nil
}

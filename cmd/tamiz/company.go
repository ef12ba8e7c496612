package main

import (
	"fmt"

	"github.com/spf13/cobra"

	"tamiz/core/company"
)

func alikeCommand() *cobra.Command {
	var in recordFlags
	var limit int
	c := &cobra.Command{
		Use: "alike FILE… ITEM", Short: "Tell which words and phrases keep the same company as one",
		Args: least(2, "alike needs a file of records and a word or phrase"),
		RunE: func(c *cobra.Command, args []string) error {
			if limit < 0 {
				return usage("--limit is at least 0, not %d", limit)
			}
			if err := in.begin(c); err != nil {
				return err
			}
			last := len(args) - 1
			if err := worded("ITEM", args[last]); err != nil {
				return err
			}
			records, err := in.read(c, args[:last])
			if err != nil {
				return err
			}
			set := in.set(records)
			kept, err := company.Build(c.Context(), set.Index, set.Index.All())
			if err != nil {
				return err
			}
			found, ok := kept.Alike(args[last], limit)
			if !ok {
				return fmt.Errorf(
					"%q is no item of these records: a word, or a phrase that stands alone, in at least 5 of them",
					args[last],
				)
			}
			type row struct {
				Item     string  `json:"item"`
				Alike    float64 `json:"alike"`
				Together int     `json:"together"`
				Records  int     `json:"records"`
			}
			out := make([]row, len(found))
			for i, a := range found {
				out[i] = row{a.Item, a.Alike, a.Together, a.Records}
			}
			return writeJSON(c.OutOrStdout(), out)
		},
	}
	in.add(c)
	c.Flags().IntVar(&limit, "limit", 0, "how many are printed; 0 is all")
	return c
}

func fitCommand() *cobra.Command {
	var in recordFlags
	var file string
	var limit int
	c := &cobra.Command{
		Use: "fit --strategy S FILE…", Short: "Tell which block each word or phrase of the records suits",
		Args: least(1, "fit needs a file of records"),
		RunE: func(c *cobra.Command, files []string) error {
			if file == "" {
				return usage("fit needs --strategy")
			}
			if limit < 0 {
				return usage("--limit is at least 0, not %d", limit)
			}
			if err := in.begin(c); err != nil {
				return err
			}
			s, err := readStrategy(c, file)
			if err != nil {
				return err
			}
			records, err := in.read(c, files)
			if err != nil {
				return err
			}
			set := in.set(records)
			kept, err := company.Build(c.Context(), set.Index, set.Index.All())
			if err != nil {
				return err
			}
			fits, err := kept.Fits(c.Context(), s)
			if err != nil {
				return err
			}
			if limit > 0 {
				fits = fits[:min(limit, len(fits))]
			}
			type row struct {
				Item     string             `json:"item"`
				Records  int                `json:"records"`
				Fits     map[string]float64 `json:"fits"`
				Proposed *string            `json:"proposed"`
				Inside   []string           `json:"inside"`
			}
			out := make([]row, len(fits))
			for i, f := range fits {
				out[i] = row{Item: f.Item, Records: f.Records, Fits: map[string]float64{}, Inside: []string{}}
				for b, x := range f.Fits {
					out[i].Fits[s.Blocks[b].Name] = x
				}
				if f.Proposed >= 0 {
					out[i].Proposed = &s.Blocks[f.Proposed].Name
				}
				for _, b := range f.Inside {
					out[i].Inside = append(out[i].Inside, s.Blocks[b].Name)
				}
			}
			return writeJSON(c.OutOrStdout(), out)
		},
	}
	in.add(c)
	c.Flags().StringVar(&file, "strategy", "", "the strategy file")
	c.Flags().IntVar(&limit, "limit", 0, "how many are printed; 0 is all")
	return c
}

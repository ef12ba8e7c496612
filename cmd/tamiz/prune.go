package main

import (
	"slices"

	"github.com/spf13/cobra"

	"tamiz/core/coverage"
)

func pruneCommand() *cobra.Command {
	var in recordFlags
	var file string
	var keys, records []string
	var share float64
	c := &cobra.Command{
		Use: "prune --strategy S --in FILE… --keys FILE", Short: "Tell which terms can go without a key study being lost",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if file == "" || len(records) == 0 || len(keys) == 0 {
				return usage("prune needs --strategy, --in and --keys")
			}
			if !(share >= 0 && share <= 1) {
				return usage("--share is from 0 to 1, not %v", share)
			}
			s, reach, inKeys, err := in.reach(c, file, records, keys)
			if err != nil {
				return err
			}
			type dropped struct {
				Term  string `json:"term"`
				Loses int    `json:"loses"`
				Left  int    `json:"left"`
			}
			type block struct {
				Name    string    `json:"name"`
				Hits    int       `json:"hits"`
				Kept    []string  `json:"kept"`
				Dropped []dropped `json:"dropped"`
			}
			out := struct {
				Blocks []block `json:"blocks"`
			}{[]block{}}
			for i, b := range s.Blocks {
				if !b.Searched || b.Negated {
					continue
				}
				gone, err := coverage.Prune(c.Context(), reach, inKeys, i, share)
				if err != nil {
					return err
				}
				row := block{Name: b.Name, Hits: int(reach.Blocks[i].GetCardinality()), Kept: []string{}, Dropped: []dropped{}}
				for j, t := range b.Terms {
					if t.On && !slices.ContainsFunc(gone, func(p coverage.Pruned) bool { return p.Term == j }) {
						row.Kept = append(row.Kept, t.String())
					}
				}
				for _, p := range gone {
					row.Dropped = append(row.Dropped, dropped{b.Terms[p.Term].String(), p.Loses, p.Left})
				}
				out.Blocks = append(out.Blocks, row)
			}
			return writeJSON(c.OutOrStdout(), out)
		},
	}
	in.add(c)
	c.Flags().StringVar(&file, "strategy", "", "the strategy file")
	c.Flags().StringArrayVar(&records, "in", nil, "a file of records; repeat for several")
	c.Flags().StringArrayVar(&keys, "keys", nil, "a file of key studies, none of which is to be lost")
	c.Flags().Float64Var(&share, "share", 0.95, "of the records that the whole block finds, that stay found at least")
	return c
}

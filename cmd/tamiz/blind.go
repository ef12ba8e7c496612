package main

import (
	"github.com/spf13/cobra"

	"tamiz/core/coverage"
	"tamiz/core/tally"
)

func blindCommand() *cobra.Command {
	var in recordFlags
	var file, block string
	var records []string
	var limit int
	c := &cobra.Command{
		Use: "blind --strategy S --in FILE…", Short: "Tell what each block may lack: its blind spot, and what there suits it",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if file == "" || len(records) == 0 {
				return usage("blind needs --strategy and --in")
			}
			if limit < 0 {
				return usage("--limit is at least 0, not %d", limit)
			}
			if err := in.begin(c); err != nil {
				return err
			}
			s, err := readSearched(c, file, block)
			if err != nil {
				return err
			}
			sample, err := in.read(c, records)
			if err != nil {
				return err
			}
			set := in.set(sample)
			suits, kept, err := coverage.SuitsOf(c.Context(), set, s)
			if err != nil {
				return err
			}
			reach, err := coverage.Find(c.Context(), set, s)
			if err != nil {
				return err
			}
			out := struct {
				Blocks []blindBlock `json:"blocks"`
			}{[]blindBlock{}}
			for i, b := range s.Blocks {
				if !b.Searched || b.Negated || block != "" && b.Name != block {
					continue
				}
				lacks, spot, err := coverage.Lacks(c.Context(), reach, suits, kept, i, coverage.Wanted{First: limit})
				if err != nil {
					return err
				}
				row := blindBlock{Name: b.Name, Records: spot, Candidates: []blindCandidate{}}
				for _, l := range lacks {
					row.Candidates = append(
						row.Candidates,
						blindCandidate{l.Item, l.Kind, l.Records, l.Of, tally.Round(l.Pull), tally.Round(l.Suit), orNull(l.Under)},
					)
				}
				out.Blocks = append(out.Blocks, row)
			}
			return writeJSON(c.OutOrStdout(), out)
		},
	}
	in.add(c)
	c.Flags().StringVar(&file, "strategy", "", "the strategy file")
	c.Flags().StringArrayVar(&records, "in", nil, "a file of records; repeat for several")
	c.Flags().StringVar(&block, "block", "", "this block alone")
	c.Flags().IntVar(&limit, "limit", 0, "how many are printed of each block; 0 is all")
	return c
}

type blindBlock struct {
	Name       string           `json:"name"`
	Records    int              `json:"records"`
	Candidates []blindCandidate `json:"candidates"`
}

type blindCandidate struct {
	Item    string  `json:"item"`
	Kind    string  `json:"kind"`
	Records int     `json:"records"`
	Of      int     `json:"of"`
	Pull    float64 `json:"pull"`
	Suit    float64 `json:"suit"`
	Under   *string `json:"under"`
}

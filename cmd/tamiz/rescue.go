package main

import (
	"context"

	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/tally"
)

func rescueCommand() *cobra.Command {
	var in recordFlags
	var file, block string
	var keys, records []string
	c := &cobra.Command{
		Use:   "rescue --strategy S --keys FILE --in FILE…",
		Short: "Tell which words and headings would bring missed key studies back",
		Args:  cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if file == "" || len(keys) == 0 || len(records) == 0 {
				return usage("rescue needs --strategy, --keys and --in")
			}
			if err := in.begin(c); err != nil {
				return err
			}
			s, err := readSearched(c, file, block)
			if err != nil {
				return err
			}
			studies, err := in.read(c, keys)
			if err != nil {
				return err
			}
			sample, err := in.read(c, records)
			if err != nil {
				return err
			}
			set := in.set(sample)
			suits, _, err := coverage.SuitsOf(c.Context(), set, s)
			if err != nil {
				return err
			}
			r, err := coverage.NewRescuer(c.Context(), set, in.set(studies), s, suits)
			if err != nil {
				return err
			}
			found, err := rescue(c.Context(), r, s, studies, block)
			if err != nil {
				return err
			}
			return writeJSON(c.OutOrStdout(), found)
		},
	}
	in.add(c)
	c.Flags().StringVar(&file, "strategy", "", "the strategy file")
	c.Flags().StringArrayVar(&keys, "keys", nil, "a file of key studies")
	c.Flags().
		StringArrayVar(&records, "in", nil, "a file of records on which price, pull and suit are counted; repeat for several")
	c.Flags().StringVar(&block, "block", "", "this block alone")
	return c
}

type rescued struct {
	Blocks []rescuedBlock `json:"blocks"`
	Plan   []rescueStep   `json:"plan"`
}

type rescuedBlock struct {
	Name       string            `json:"name"`
	BlindSpot  int               `json:"blindSpot"`
	Missed     []string          `json:"missed"`
	Candidates []rescueCandidate `json:"candidates"`
}

type rescueCandidate struct {
	Item    string  `json:"item"`
	Kind    string  `json:"kind"`
	Rescues int     `json:"rescues"`
	Price   int     `json:"price"`
	Pull    float64 `json:"pull"`
	Suit    float64 `json:"suit"`
	Worth   float64 `json:"worth"`
	Under   *string `json:"under"`
}

type rescueStep struct {
	Block   string  `json:"block"`
	Item    string  `json:"item"`
	Kind    string  `json:"kind"`
	Rescues int     `json:"rescues"`
	Price   int     `json:"price"`
	Caught  int     `json:"caught"`
	Recall  float64 `json:"recall"`
	Hits    int     `json:"hits"`
}

// rescue puts what would bring studies back into the form that is printed: of one block, or of all that
// are searched.
func rescue(
	ctx context.Context,
	r *coverage.Rescuer,
	s strategy.Strategy,
	studies []*bib.Record,
	only string,
) (rescued, error) {
	out := rescued{Blocks: []rescuedBlock{}, Plan: []rescueStep{}}
	var blocks []coverage.BlockRescue
	for i, b := range s.Blocks {
		if !b.Searched || b.Negated || only != "" && b.Name != only {
			continue
		}
		found, err := r.Block(ctx, i)
		if err != nil {
			return out, err
		}
		blocks = append(blocks, found)
		row := rescuedBlock{Name: b.Name, BlindSpot: found.BlindSpot, Missed: []string{}, Candidates: []rescueCandidate{}}
		for _, k := range found.Missed {
			row.Missed = append(row.Missed, studies[k].ID)
		}
		for _, x := range found.Candidates {
			row.Candidates = append(
				row.Candidates,
				rescueCandidate{
					x.Item,
					x.Kind,
					x.Rescues,
					x.Price,
					tally.Round(x.Pull),
					tally.Round(x.Suit),
					tally.Round(x.Worth),
					orNull(x.Under),
				},
			)
		}
		out.Blocks = append(out.Blocks, row)
	}
	steps, err := r.Plan(ctx, blocks)
	if err != nil {
		return out, err
	}
	for _, p := range steps {
		out.Plan = append(out.Plan, rescueStep{s.Blocks[p.Block].Name, p.Item, p.Kind, p.Rescues, p.Price, p.Caught,
			tally.Round(float64(p.Caught) / float64(len(studies))), p.Hits})
	}
	return out, nil
}

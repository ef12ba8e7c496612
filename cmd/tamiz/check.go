package main

import (
	"context"
	"encoding/json"
	"fmt"
	"io"
	"slices"

	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/strategy"
	"tamiz/core/tally"
)

const maxStrategyFile = 16 << 20 // bytes

func checkCommand() *cobra.Command {
	var in recordFlags
	var file string
	var keys, records []string
	c := &cobra.Command{
		Use: "check --strategy S --keys FILE", Short: "Tell which key studies a strategy catches and misses",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if err := in.begin(c); err != nil {
				return err
			}
			if file == "" || len(keys) == 0 {
				return usage("check needs --strategy and --keys")
			}
			s, err := readStrategy(c, file)
			if err != nil {
				return err
			}
			studies, err := in.read(c, keys)
			if err != nil {
				return err
			}
			var set *coverage.Set
			if len(records) > 0 {
				sample, err := in.read(c, records)
				if err != nil {
					return err
				}
				indexed := in.set(sample)
				set = &indexed
			}
			result, err := check(c.Context(), s, studies, in.set(studies), set)
			if err != nil {
				return err
			}
			return writeJSON(c.OutOrStdout(), result)
		},
	}
	in.add(c)
	c.Flags().StringVar(&file, "strategy", "", "the strategy file")
	c.Flags().StringArrayVar(&keys, "keys", nil, "a file of key studies")
	c.Flags().StringArrayVar(&records, "in", nil, "a file of records to count hits in; repeat for several")
	return c
}

func writeJSON(w io.Writer, v any) error {
	out := json.NewEncoder(w)
	out.SetIndent("", " ")
	out.SetEscapeHTML(false)
	return out.Encode(v)
}

func readStrategy(c *cobra.Command, name string) (strategy.Strategy, error) {
	f, err := open(c, name)
	if err != nil {
		return strategy.Strategy{}, err
	}
	defer f.Close()
	data, err := io.ReadAll(io.LimitReader(f, maxStrategyFile+1))
	if err != nil {
		return strategy.Strategy{}, err
	}
	if len(data) > maxStrategyFile {
		return strategy.Strategy{}, fmt.Errorf("%s: a strategy file has at most 16 MB", name)
	}
	s, err := strategy.Parse(data)
	if err != nil {
		return s, fmt.Errorf("%s: %w", name, err)
	}
	switch {
	case len(s.Blocks) == 0:
		fmt.Fprintf(c.ErrOrStderr(), "%s: the strategy has no blocks: it finds nothing\n", name)
	case !slices.ContainsFunc(s.Blocks, func(b strategy.Block) bool { return b.Searched && !b.Negated }):
		fmt.Fprintf(c.ErrOrStderr(), "%s: no block of the strategy is searched: it finds nothing\n", name)
	}
	return s, nil
}

type checked struct {
	Blocks   []checkedBlock `json:"blocks"`
	Strategy struct {
		Hits     *int    `json:"hits,omitempty"`
		Caught   int     `json:"caught"`
		InSource int     `json:"inSource"`
		Recall   float64 `json:"recall"`
		Low      float64 `json:"low"`
		High     float64 `json:"high"`
	} `json:"strategy"`
	Studies []checkedStudy `json:"studies"`
}

type checkedBlock struct {
	Name   string   `json:"name"`
	Hits   *int     `json:"hits,omitempty"`
	Caught int      `json:"caught"`
	Missed []string `json:"missed"`
}

type checkedStudy struct {
	ID         string              `json:"id"`
	Caught     bool                `json:"caught"`
	HeldBackBy []string            `json:"heldBackBy"`
	CaughtBy   map[string][]string `json:"caughtBy"`
}

// check puts the coverage of a strategy into the form that is printed. set may be nil.
func check(
	ctx context.Context,
	s strategy.Strategy,
	studies []*bib.Record,
	keys coverage.Set,
	set *coverage.Set,
) (*checked, error) {
	c, err := coverage.CheckKeys(ctx, keys, s)
	if err != nil {
		return nil, err
	}
	out := &checked{Studies: []checkedStudy{}, Blocks: []checkedBlock{}}
	for i, b := range s.Blocks {
		row := checkedBlock{Name: b.Name, Caught: c.Blocks[i], Missed: []string{}}
		for n, study := range c.Studies {
			if _, ok := study.CaughtBy[b.Name]; !ok {
				row.Missed = append(row.Missed, studies[n].ID)
			}
		}
		out.Blocks = append(out.Blocks, row)
	}
	for n, study := range c.Studies {
		row := checkedStudy{
			ID:         studies[n].ID,
			Caught:     study.Caught,
			HeldBackBy: study.HeldBackBy,
			CaughtBy:   map[string][]string{},
		}
		for _, b := range s.Blocks {
			for _, t := range study.CaughtBy[b.Name] {
				row.CaughtBy[b.Name] = append(row.CaughtBy[b.Name], b.Terms[t].String())
			}
		}
		out.Studies = append(out.Studies, row)
	}
	total := &out.Strategy
	total.Caught, total.InSource = c.Caught, len(studies)
	low, high := coverage.Wilson(c.Caught, len(studies))
	total.Recall, total.Low, total.High = tally.Round(
		float64(c.Caught)/float64(len(studies)),
	), tally.Round(
		low,
	), tally.Round(
		high,
	)
	if set != nil {
		reach, err := coverage.Find(ctx, *set, s)
		if err != nil {
			return nil, err
		}
		whole := int(reach.Whole.GetCardinality())
		total.Hits = &whole
		for i := range out.Blocks {
			n := int(reach.Blocks[i].GetCardinality())
			out.Blocks[i].Hits = &n
		}
	}
	return out, nil
}

// readSearched does the same, and says when there is no such searched block; "" is any.
func readSearched(c *cobra.Command, name, block string) (strategy.Strategy, error) {
	s, err := readStrategy(c, name)
	if err == nil && block != "" &&
		!slices.ContainsFunc(s.Blocks, func(b strategy.Block) bool { return b.Name == block && b.Searched && !b.Negated }) {
		err = usage("--block: the strategy has no searched block %q", block)
	}
	return s, err
}

package main

import (
	"context"

	"github.com/spf13/cobra"

	"tamiz/core/coverage"
	"tamiz/core/strategy"
)

func blocksCommand() *cobra.Command {
	var in recordFlags
	var file string
	var keys, records []string
	c := &cobra.Command{
		Use: "blocks --strategy S --in FILE…", Short: "Tell what each term, block and limit is worth",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if file == "" || len(records) == 0 {
				return usage("blocks needs --strategy and --in")
			}
			s, reach, inKeys, err := in.reach(c, file, records, keys)
			if err != nil {
				return err
			}
			out, err := blocks(c.Context(), s, reach, inKeys, len(keys) > 0)
			if err != nil {
				return err
			}
			return writeJSON(c.OutOrStdout(), out)
		},
	}
	in.add(c)
	c.Flags().StringVar(&file, "strategy", "", "the strategy file")
	c.Flags().StringArrayVar(&records, "in", nil, "a file of records; repeat for several")
	c.Flags().StringArrayVar(&keys, "keys", nil, "a file of key studies")
	return c
}

// reach reads a strategy, records and key studies, and works out what it finds in either. Without key studies it
// finds none.
func (f *recordFlags) reach(
	c *cobra.Command,
	file string,
	records, keys []string,
) (s strategy.Strategy, reach, inKeys *coverage.Reach, err error) {
	if err = f.begin(c); err != nil {
		return s, nil, nil, err
	}
	if s, err = readStrategy(c, file); err != nil {
		return s, nil, nil, err
	}
	sample, err := f.read(c, records)
	if err != nil {
		return s, nil, nil, err
	}
	studies, err := f.read(c, keys)
	if err != nil {
		return s, nil, nil, err
	}
	if reach, err = coverage.Find(c.Context(), f.set(sample), s); err != nil {
		return s, nil, nil, err
	}
	inKeys, err = coverage.Find(c.Context(), f.set(studies), s)
	return s, reach, inKeys, err
}

type measured struct {
	Blocks   []measuredBlock `json:"blocks"`
	Limits   []measuredLimit `json:"limits"`
	Strategy struct {
		Hits int `json:"hits"`
	} `json:"strategy"`
}

type measuredBlock struct {
	Name          string         `json:"name"`
	Hits          int            `json:"hits"`
	HeadingsAlone int            `json:"headingsAlone"`
	WordsAlone    int            `json:"wordsAlone"`
	Both          int            `json:"both"`
	Caught        int            `json:"caught"`
	TakenAway     *int           `json:"takenAway,omitempty"`
	Terms         []measuredTerm `json:"terms"`
}

type measuredTerm struct {
	Term        string   `json:"term"`
	Hits        int      `json:"hits"`
	OnlyHere    int      `json:"onlyHere"`
	Stair       int      `json:"stair"`
	Step        int      `json:"step"`
	Keys        int      `json:"keys"`
	SoleCatches int      `json:"soleCatches"`
	AddsNothing bool     `json:"addsNothing"`
	Inside      []string `json:"inside"`
}

type measuredLimit struct {
	Kind      string `json:"kind"`
	TakenAway int    `json:"takenAway"`
}

// blocks puts what the parts of a strategy are worth into the form that is printed.
func blocks(ctx context.Context, s strategy.Strategy, reach, inKeys *coverage.Reach, known bool) (*measured, error) {
	out := &measured{Blocks: []measuredBlock{}, Limits: []measuredLimit{}}
	out.Strategy.Hits = int(reach.Whole.GetCardinality())
	if !known {
		inKeys = nil
	}
	for i, b := range s.Blocks {
		m, err := coverage.Measure(ctx, reach, inKeys, i)
		if err != nil {
			return nil, err
		}
		row := measuredBlock{
			Name:          b.Name,
			Hits:          m.Hits,
			HeadingsAlone: m.HeadingsAlone,
			WordsAlone:    m.WordsAlone,
			Both:          m.Both,
			Terms:         []measuredTerm{},
		}
		if inKeys != nil {
			row.Caught = int(inKeys.Blocks[i].GetCardinality())
		}
		if b.Searched {
			away := reach.TakenAwayByBlock(i)
			row.TakenAway = &away
		}
		for j, t := range b.Terms {
			f := m.Terms[j]
			if f == nil {
				continue
			}
			term := measuredTerm{
				Term:        t.String(),
				Hits:        int(reach.Terms[i][j].GetCardinality()),
				OnlyHere:    f.OnlyHere,
				Stair:       f.Total,
				Step:        f.Step,
				SoleCatches: f.SoleCatch,
				AddsNothing: f.AddsNothing,
				Inside:      []string{},
			}
			if inKeys != nil {
				term.Keys = int(inKeys.Terms[i][j].GetCardinality())
			}
			for _, k := range f.Inside {
				term.Inside = append(term.Inside, b.Terms[k].String())
			}
			row.Terms = append(row.Terms, term)
		}
		out.Blocks = append(out.Blocks, row)
	}
	for i, l := range s.Limits {
		out.Limits = append(out.Limits, measuredLimit{l.Kind, reach.TakenAwayByLimit(i)})
	}
	return out, nil
}

package main

import (
	"github.com/RoaringBitmap/roaring/v2"
	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/core/coverage"
)

func compareCommand() *cobra.Command {
	var in recordFlags
	var keys, records []string
	c := &cobra.Command{
		Use: "compare OLD NEW --in FILE…", Short: "Tell what two versions of a strategy find and do not",
		Args: cobra.MatchAll(least(2, "compare needs two strategy files"), cobra.MaximumNArgs(2)),
		RunE: func(c *cobra.Command, versions []string) error {
			if len(records) == 0 {
				return usage("compare needs --in")
			}
			if err := in.begin(c); err != nil {
				return err
			}
			sample, err := in.read(c, records)
			if err != nil {
				return err
			}
			studies, err := in.read(c, keys)
			if err != nil {
				return err
			}
			var found, caught [2]*roaring.Bitmap
			set, inKeys := in.set(sample), in.set(studies)
			for v, file := range versions {
				s, err := readStrategy(c, file)
				if err != nil {
					return err
				}
				reach, err := coverage.Find(c.Context(), set, s)
				if err != nil {
					return err
				}
				check, err := coverage.Find(c.Context(), inKeys, s)
				if err != nil {
					return err
				}
				found[v], caught[v] = reach.Whole, check.Whole
			}
			out := compared{sidesOf: sides(sample, found), Kept: int(found[0].AndCardinality(found[1]))}
			if len(keys) > 0 {
				k := sides(studies, caught)
				out.Keys = &k
			}
			return writeJSON(c.OutOrStdout(), out)
		},
	}
	in.add(c)
	c.Flags().StringArrayVar(&records, "in", nil, "a file of records; repeat for several")
	c.Flags().StringArrayVar(&keys, "keys", nil, "a file of key studies")
	return c
}

type sidesOf struct {
	Old    int      `json:"old"`
	New    int      `json:"new"`
	Gained []string `json:"gained"`
	Lost   []string `json:"lost"`
}

type compared struct {
	sidesOf
	Kept int      `json:"kept"`
	Keys *sidesOf `json:"keys,omitempty"`
}

// sides returns how many records two versions find, and which only one of them does, in file order.
func sides(records []*bib.Record, found [2]*roaring.Bitmap) sidesOf {
	ids := func(set *roaring.Bitmap) []string {
		out := []string{}
		for it := set.Iterator(); it.HasNext(); {
			out = append(out, records[it.Next()].ID)
		}
		return out
	}
	return sidesOf{
		int(found[0].GetCardinality()),
		int(found[1].GetCardinality()),
		ids(roaring.AndNot(found[1], found[0])),
		ids(roaring.AndNot(found[0], found[1])),
	}
}

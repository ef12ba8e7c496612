package main

import (
	"bufio"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"path/filepath"

	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/exchange/skos"
)

// The size of the invented source Almagre, and the most that is made of it.
const (
	almagreSize = 24_000
	maxScale    = 1_000_000
)

func worldCommand() *cobra.Command {
	var dir string
	var scale int
	var seed uint64
	c := &cobra.Command{
		Use: "world --out DIR", Short: "Write the made-up literature as files",
		Args: cobra.NoArgs,
		RunE: func(c *cobra.Command, _ []string) error {
			if dir == "" {
				return usage("world needs --out, the folder to write into")
			}
			if scale < 1 || scale > maxScale {
				return usage("--scale is 1 to %d records, not %d", maxScale, scale)
			}
			if err := os.MkdirAll(dir, 0o777); err != nil {
				return err
			}
			return writeWorld(dir, scale, seed)
		},
	}
	c.Flags().StringVar(&dir, "out", "", "the folder to write into")
	c.Flags().IntVar(&scale, "scale", almagreSize, "how many records")
	c.Flags().Uint64Var(&seed, "seed", demo.Seed, "what it is made from; the same makes the same bytes")
	return c
}

func writeWorld(dir string, scale int, seed uint64) error {
	var keys []*bib.Record
	err := writeFile(dir, "almagre.ris", func(w io.Writer) error {
		return demo.Each(seed, scale, func(r *bib.Record, key bool) error {
			if key {
				keys = append(keys, r)
			}
			return ris.Write(w, r)
		})
	})
	if err != nil {
		return err
	}
	if err := writeFile(dir, "almagre-headings.nt", func(w io.Writer) error { return skos.Write(w, demo.Headings()) }); err != nil {
		return err
	}
	err = writeFile(dir, "key-studies.ris", func(w io.Writer) error {
		for _, k := range keys {
			if err := ris.Write(w, k); err != nil {
				return err
			}
		}
		return nil
	})
	if err != nil {
		return err
	}
	return writeFile(dir, "strategy.json", func(w io.Writer) error {
		out := json.NewEncoder(w)
		out.SetIndent("", "  ")
		out.SetEscapeHTML(false)
		return out.Encode(demo.NewReview().Strategy())
	})
}

// writeFile puts a file in place only once it is whole.
func writeFile(dir, name string, write func(io.Writer) error) (err error) {
	f, err := os.CreateTemp(dir, "."+name+"-*")
	if err != nil {
		return err
	}
	defer os.Remove(f.Name())
	out := bufio.NewWriterSize(f, 1<<20)
	if err = write(out); err == nil {
		err = out.Flush()
	}
	if closed := f.Close(); err == nil {
		err = closed
	}
	if err == nil {
		err = os.Chmod(f.Name(), 0o644)
	}
	if err == nil {
		err = os.Rename(f.Name(), filepath.Join(dir, name))
	}
	if err != nil {
		return fmt.Errorf("%s: %w", name, err)
	}
	return nil
}

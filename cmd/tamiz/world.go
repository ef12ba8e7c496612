package main

import (
	"bufio"
	"encoding/csv"
	"encoding/json"
	"fmt"
	"io"
	"os"
	"path/filepath"
	"strings"

	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/core/thesaurus"
	"tamiz/demo"
	"tamiz/exchange/ris"
	"tamiz/exchange/skos"
)

// maxScale is the most records that are made of Almagre; the other sources grow with it.
const maxScale = 1_000_000

func addWorldFlags(c *cobra.Command, scale *int, seed *uint64) {
	c.Flags().IntVar(scale, "scale", demo.AlmagreSize, "how many records Almagre holds; the other sources grow with it")
	c.Flags().Uint64Var(seed, "seed", demo.Seed, "what it is made from; the same makes the same bytes")
}

func checkScale(scale int) error {
	if scale < 1 || scale > maxScale {
		return usage("--scale is 1 to %d records, not %d", maxScale, scale)
	}
	return nil
}

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
			if err := checkScale(scale); err != nil {
				return err
			}
			if err := os.MkdirAll(dir, 0o777); err != nil {
				return err
			}
			return writeWorld(dir, scale, seed)
		},
	}
	c.Flags().StringVar(&dir, "out", "", "the folder to write into")
	addWorldFlags(c, &scale, &seed)
	return c
}

func writeWorld(dir string, scale int, seed uint64) error {
	l := demo.NewLiterature(seed, scale)
	for _, f := range []struct {
		name    string
		records []*bib.Record
	}{{"almagre.ris", l.Almagre}, {"surco.ris", l.Surco}, {"vilano.ris", l.Vilano}, {"key-studies.ris", l.Keys}} {
		err := writeFile(dir, f.name, func(w io.Writer) error {
			for _, r := range f.records {
				if err := ris.Write(w, r); err != nil {
					return err
				}
			}
			return nil
		})
		if err != nil {
			return err
		}
	}
	headings, terms := demo.Vocabularies()
	for name, concepts := range map[string][]thesaurus.Concept{"almagre-headings.nt": headings,
		"surco-thesaurus.nt": terms} {
		if err := writeFile(dir, name, func(w io.Writer) error { return skos.Write(w, concepts) }); err != nil {
			return err
		}
	}
	// What each record is truly about: what no real source tells.
	err := writeFile(dir, "truth.csv", func(w io.Writer) error {
		out := csv.NewWriter(w)
		if err := out.Write([]string{"id", "concepts"}); err != nil {
			return err
		}
		for i, r := range l.Almagre {
			if err := out.Write([]string{r.Accession, strings.Join(l.About[i], ";")}); err != nil {
				return err
			}
		}
		out.Flush()
		return out.Error()
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

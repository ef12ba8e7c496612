package main

import (
	"errors"
	"fmt"
	"io"
	"maps"
	"os"
	"slices"

	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/thesaurus"
	"tamiz/exchange"
	"tamiz/exchange/records"
	"tamiz/exchange/skos"
	"tamiz/exchange/table"
	"tamiz/exchange/tagged"
)

// recordFlags are the flags of every command that reads records.
type recordFlags struct {
	kw         string
	vocabulary string
	columns    string
	readerMap  string
	strict     bool

	thesaurus *thesaurus.Thesaurus // read when first wanted; nil without a vocabulary
	table     *table.Columns
	tags      *tagged.Map
}

func (f *recordFlags) add(c *cobra.Command) {
	c.Flags().StringVar(&f.vocabulary, "vocabulary", "", "a vocabulary file (SKOS as N-Triples, RDF/XML or JSON-LD)")
	c.Flags().StringVar(&f.kw, "kw", "auto", "how values of keyword fields are taken: auto, headings or keywords")
	c.Flags().
		StringVar(&f.columns, "columns", "", "a file that says what the columns of tables stand for (JSON); without it "+
			"they are guessed")
	c.Flags().StringVar(&f.readerMap, "map", "", "a reader map for tagged text that no reader knows (JSON)")
	c.Flags().BoolVar(&f.strict, "strict", false, "end with an error when a record had to be skipped")
}

// begin looks at the flags and reads the files that records are read by.
func (f *recordFlags) begin(c *cobra.Command) error {
	switch exchange.KeywordMode(f.kw) {
	case exchange.Auto, exchange.Headings, exchange.Keywords:
	default:
		return usage("--kw is auto, headings or keywords, not %q", f.kw)
	}
	if f.columns != "" {
		columns, err := readBy(f.columns, table.ReadColumns)
		if err != nil {
			return err
		}
		f.table = &columns
	}
	if f.readerMap != "" {
		m, err := readBy(f.readerMap, tagged.Read)
		if err != nil {
			return err
		}
		f.tags = &m
	}
	if f.vocabulary == "" {
		return nil
	}
	var err error
	f.thesaurus, err = readVocabulary(c, f.vocabulary, "")
	return err
}

// readBy reads a file of the person's own.
func readBy[T any](name string, read func(io.Reader) (T, error)) (T, error) {
	file, err := os.Open(name)
	if err != nil {
		var none T
		return none, err
	}
	defer file.Close()
	v, err := read(file)
	if err != nil {
		err = fmt.Errorf("%s: %w", name, err)
	}
	return v, err
}

// set indexes records for asking them questions.
func (f *recordFlags) set(records []*bib.Record) coverage.Set {
	set := coverage.NewSet(records)
	set.Thesaurus = f.thesaurus
	return set
}

// orNull returns a text as JSON has it: null where there is none.
func orNull(s string) *string {
	if s == "" {
		return nil
	}
	return &s
}

// readVocabulary reads a vocabulary file. What was mended in it, and of a large one how far it was read, is told on
// standard error.
func readVocabulary(c *cobra.Command, name, language string) (*thesaurus.Thesaurus, error) {
	t, _, err := vocabularyOf(c, name, language)
	return t, err
}

// vocabularyOf reads a vocabulary file and returns also how much of each kind was told.
func vocabularyOf(c *cobra.Command, name, language string) (*thesaurus.Thesaurus, map[exchange.Kind]int, error) {
	file, err := open(c, name)
	if err != nil {
		return nil, nil, err
	}
	defer file.Close()
	from, err := telling(file, name, c.ErrOrStderr())
	if err != nil {
		return nil, nil, err
	}
	told := map[exchange.Kind]int{}
	t, err := skos.Load(from, language, func(n exchange.Notice) {
		if told[n.Kind]++; told[n.Kind] <= mostTold {
			fmt.Fprintf(c.ErrOrStderr(), "%s: %s\n", name, n)
		}
	})
	if err != nil {
		return nil, nil, fmt.Errorf("%s: %w", name, err)
	}
	for _, kind := range slices.Sorted(maps.Keys(told)) {
		if n := told[kind]; n > mostTold {
			fmt.Fprintf(c.ErrOrStderr(), "%s: %s: %d more\n", name, kind, n-mostTold)
		}
	}
	return t, told, nil
}

const mostTold = 1000 // of one kind, that are told one by one

// read returns the records of all files, in order. What could not be read is told on standard error.
func (f *recordFlags) read(c *cobra.Command, names []string) ([]*bib.Record, error) {
	var all []*bib.Record
	for _, name := range names {
		records, err := f.readOne(c, name)
		if err != nil {
			return nil, fmt.Errorf("%s: %w", name, err)
		}
		all = append(all, records...)
	}
	return all, nil
}

func (f *recordFlags) readOne(c *cobra.Command, name string) (all []*bib.Record, err error) {
	err = f.each(c, name, true, func(r *bib.Record) error {
		all = append(all, r)
		return nil
	})
	return all, err
}

// each calls visit for each record of a file of any format. What could not be read is told on standard
// error where tell says so.
func (f *recordFlags) each(c *cobra.Command, name string, tell bool, visit func(*bib.Record) error) error {
	file, err := open(c, name)
	if err != nil {
		return err
	}
	defer file.Close()
	skipped, n := 0, 0
	report := func(notice exchange.Notice) {
		if notice.Skipped {
			skipped++
		}
		if tell {
			fmt.Fprintf(c.ErrOrStderr(), "%s: %s\n", name, notice)
		}
	}
	r, _, err := records.Open(
		file,
		records.Options{
			Sorter:  exchange.Sorter{Mode: exchange.KeywordMode(f.kw), Vocabulary: f.thesaurus},
			Columns: f.table,
			Map:     f.tags,
			Report:  report,
		},
	)
	if err != nil {
		return err
	}
	for {
		record, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return err
		}
		n++
		if err := visit(record); err != nil {
			return err
		}
	}
	if n == 0 {
		return errors.New("the file holds no record")
	}
	if f.strict && skipped > 0 {
		return fmt.Errorf("%d records or lines were skipped, and --strict was asked for", skipped)
	}
	return nil
}

// open opens a file; - is standard input, which is laid down first, since a reader of records goes
// over its file twice.
func open(c *cobra.Command, name string) (*os.File, error) {
	if name != "-" {
		return os.Open(name)
	}
	spool, err := os.CreateTemp("", "tamiz-*")
	if err != nil {
		return nil, err
	}
	defer os.Remove(spool.Name())
	if _, err := io.Copy(spool, c.InOrStdin()); err != nil {
		return nil, err
	}
	_, err = spool.Seek(0, io.SeekStart)
	return spool, err
}

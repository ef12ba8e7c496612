package main

import (
	"errors"
	"fmt"
	"io"
	"os"

	"github.com/spf13/cobra"

	"tamiz/core/bib"
	"tamiz/core/coverage"
	"tamiz/core/thesaurus"
	"tamiz/exchange"
	"tamiz/exchange/ris"
	"tamiz/exchange/skos"
)

// recordFlags are the flags of every command that reads records.
type recordFlags struct {
	kw         string
	vocabulary string
	strict     bool

	thesaurus *thesaurus.Thesaurus // read when first wanted; nil without a vocabulary
}

func (f *recordFlags) add(c *cobra.Command) {
	c.Flags().StringVar(&f.vocabulary, "vocabulary", "", "a vocabulary file (SKOS as N-Triples, RDF/XML or JSON-LD)")
	c.Flags().StringVar(&f.kw, "kw", "auto", "how KW values are taken: auto, headings or keywords")
	c.Flags().BoolVar(&f.strict, "strict", false, "end with an error when a record had to be skipped")
}

// begin looks at the flags and reads the vocabulary, which all records are read by.
func (f *recordFlags) begin(c *cobra.Command) error {
	switch ris.KeywordMode(f.kw) {
	case ris.Auto, ris.Headings, ris.Keywords:
	default:
		return usage("--kw is auto, headings or keywords, not %q", f.kw)
	}
	if f.vocabulary == "" {
		return nil
	}
	var err error
	f.thesaurus, err = readVocabulary(c, f.vocabulary, "")
	return err
}

// set indexes records for asking them questions.
func (f *recordFlags) set(records []*bib.Record) coverage.Set {
	set := coverage.NewSet(records)
	set.Thesaurus = f.thesaurus
	return set
}

// readVocabulary reads a vocabulary file. What was mended in it is told on standard error.
func readVocabulary(c *cobra.Command, name, language string) (*thesaurus.Thesaurus, error) {
	file, err := open(c, name)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	t, err := skos.Load(file, language, func(n exchange.Notice) { fmt.Fprintf(c.ErrOrStderr(), "%s: %s\n", name, n) })
	if err != nil {
		return nil, fmt.Errorf("%s: %w", name, err)
	}
	return t, nil
}

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

func (f *recordFlags) readOne(c *cobra.Command, name string) ([]*bib.Record, error) {
	file, err := open(c, name)
	if err != nil {
		return nil, err
	}
	defer file.Close()
	skipped := 0
	tell := func(n exchange.Notice) {
		if n.Skipped {
			skipped++
		}
		fmt.Fprintf(c.ErrOrStderr(), "%s: %s\n", name, n)
	}
	decoded, encoding, err := exchange.Decode(file)
	if err != nil {
		return nil, err
	}
	if encoding == exchange.Windows1252 {
		tell(exchange.Notice{Kind: exchange.OtherEncoding, Detail: encoding})
	}
	var records []*bib.Record
	r := ris.NewReader(decoded, ris.KeywordMode(f.kw), tell)
	r.Vocabulary = f.thesaurus
	for {
		record, err := r.Read()
		if errors.Is(err, io.EOF) {
			break
		}
		if err != nil {
			return nil, err
		}
		records = append(records, record)
	}
	if len(records) == 0 {
		return nil, errors.New("the file holds no RIS record")
	}
	if f.strict && skipped > 0 {
		return nil, fmt.Errorf("%d records or lines were skipped, and --strict was asked for", skipped)
	}
	return records, nil
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

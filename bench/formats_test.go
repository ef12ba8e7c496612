package bench

import (
	"bufio"
	"bytes"
	"encoding/csv"
	"encoding/json"
	"encoding/xml"
	"errors"
	"fmt"
	"io"
	"net/http"
	"os"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"tamiz/app/reviews"
	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/dc"
	"tamiz/exchange/records"
	"tamiz/store/cluster"
)

const formatRecords = 10_000

// formats measures each reader beside tokenising the same bytes, and a large file on its way into the database.
func formats(t *testing.T, _ sizes) []row {
	all := world(formatRecords)
	var rows []row
	for _, c := range []struct {
		format   records.Format
		beside   string
		tokenise func(io.Reader) error
	}{
		{records.RIS, "bufio, word by word", words},
		{records.BibTeX, "bufio, word by word", words},
		{records.CSL, "encoding/json, token by token", jsonTokens},
		{records.CSV, "encoding/csv, row by row", csvRows},
		{records.MODS, "encoding/xml, token by token", xmlTokens},
		{records.DC, "encoding/xml, token by token", xmlTokens},
		{records.MARCXML, "encoding/xml, token by token", xmlTokens},
	} {
		file := fileOf(t, c.format, all)
		var read, tokens time.Duration
		for i := range 9 { // in turns, so that a machine that is busy for a while slows both
			r := taken(1, func() {
				r, format, err := records.Open(bytes.NewReader(file), records.Options{})
				require.NoError(t, err)
				require.Equal(t, c.format, format)
				n := 0
				for {
					if _, err := r.Read(); errors.Is(err, io.EOF) {
						break
					} else {
						require.NoError(t, err)
					}
					n++
				}
				require.Equal(t, len(all), n)
			})
			k := taken(1, func() { require.NoError(t, c.tokenise(bytes.NewReader(file))) })
			if i == 0 {
				read, tokens = r, k
			}
			read, tokens = min(read, r), min(tokens, k)
		}
		speed := func(d time.Duration) float64 { return float64(len(file)) / 1e6 / d.Seconds() }
		rows = append(
			rows,
			row{work: fmt.Sprintf("MB/s of the reader of %s, %d records", c.format, len(all)), against: c.beside,
				figure: fmt.Sprintf(
					"%.2f (%.0f : %.0f MB/s)",
					speed(read)/speed(tokens),
					speed(read),
					speed(tokens),
				), goal: "≥ 0.33"},
		)
	}
	return append(rows, intoTheDatabase(t))
}

// fileOf writes records in a format. MARCXML and Dublin Core, which are only read, are written as plainly as
// a catalogue would.
func fileOf(t *testing.T, f records.Format, all []*bib.Record) []byte {
	var b bytes.Buffer
	switch f {
	case records.DC:
		e := xml.NewEncoder(&b)
		b.WriteString("<records>")
		for _, r := range all {
			require.NoError(t, dc.Encode(e, r))
		}
		require.NoError(t, e.Close())
		b.WriteString("</records>")
		return b.Bytes()
	case records.MARCXML:
		field := func(tag, second, code, value string) {
			if value != "" {
				fmt.Fprintf(&b, `<datafield tag=%q ind1=" " ind2=%q><subfield code=%q>`, tag, second, code)
				_ = xml.EscapeText(&b, []byte(value))
				b.WriteString("</subfield></datafield>\n")
			}
		}
		b.WriteString(`<collection xmlns="http://www.loc.gov/MARC21/slim">`)
		for _, r := range all {
			fmt.Fprintf(&b, "<record><leader>00000nab</leader><controlfield tag=\"001\">%s</controlfield>\n", r.Accession)
			for _, a := range r.Authors {
				field("700", " ", "a", a.String())
			}
			field("245", "0", "a", r.Title)
			field("520", " ", "a", r.Abstract)
			field("773", " ", "t", r.Journal)
			for _, k := range r.Keywords {
				field("653", " ", "a", k)
			}
			for _, h := range r.Headings {
				field("650", "0", "a", h.Label)
			}
			b.WriteString("</record>\n")
		}
		b.WriteString("</collection>")
		return b.Bytes()
	}
	w, err := records.Create(&b, f, records.Choice{})
	require.NoError(t, err)
	for _, r := range all {
		require.NoError(t, w.Write(r))
	}
	require.NoError(t, w.Close())
	return b.Bytes()
}

func words(r io.Reader) error {
	s := bufio.NewScanner(r)
	s.Buffer(nil, 1<<20)
	s.Split(bufio.ScanWords)
	for s.Scan() {
	}
	return s.Err()
}

func jsonTokens(r io.Reader) error {
	d := json.NewDecoder(r)
	for {
		if _, err := d.Token(); errors.Is(err, io.EOF) {
			return nil
		} else if err != nil {
			return err
		}
	}
}

func csvRows(r io.Reader) error {
	c := csv.NewReader(r)
	for {
		if _, err := c.Read(); errors.Is(err, io.EOF) {
			return nil
		} else if err != nil {
			return err
		}
	}
}

func xmlTokens(r io.Reader) error {
	d := xml.NewDecoder(r)
	for {
		if _, err := d.Token(); errors.Is(err, io.EOF) {
			return nil
		} else if err != nil {
			return err
		}
	}
}

// intoTheDatabase brings 200,000 records of RIS in through the program, from the first byte over the wire
// until the sample is there.
func intoTheDatabase(t *testing.T) row {
	const n, copies = 20_000, 10
	var one bytes.Buffer
	w, err := records.Create(&one, records.RIS, records.Choice{})
	require.NoError(t, err)
	for _, r := range world(n) {
		require.NoError(t, w.Write(r))
	}
	require.NoError(t, w.Close())
	dir, err := os.MkdirTemp("", "tamiz-bench-")
	require.NoError(t, err)
	t.Cleanup(func() { _ = os.RemoveAll(dir) })
	require.NoError(t, os.Chmod(dir, 0o755))
	db, err := cluster.Start(t.Context(), dir, true)
	require.NoError(t, err)
	t.Cleanup(db.Stop)
	p := start(t, program(t), 1, nil, "serve", "--database-url", db.URL, "--listen", "127.0.0.1:0")
	address := p.lines[0]
	var review struct{ ID int64 }
	call(t, "POST", address+"/api/reviews", `{"name": "large"}`, &review)
	// Each copy is of other works: its own numbers, DOIs and words in the titles.
	body := func() io.Reader {
		var parts []io.Reader
		for k := range copies {
			text := strings.NewReplacer("TI  - ", fmt.Sprintf("TI  - Part %d. ", k), "AN  - ", fmt.Sprintf("AN  - %d", k),
				"DO  - 10.99999/", fmt.Sprintf("DO  - 10.99999/%d.", k)).
				Replace(one.String())
			parts = append(parts, strings.NewReader(text))
		}
		return io.MultiReader(parts...)
	}()
	began := time.Now()
	request, err := http.NewRequest(
		"POST",
		fmt.Sprintf("%s/api/reviews/%d/imports?kind=sample&name=large.ris", address, review.ID),
		body,
	)
	require.NoError(t, err)
	request.Header.Set("Content-Type", "application/octet-stream")
	answer, err := http.DefaultClient.Do(request)
	require.NoError(t, err)
	var i reviews.Import
	require.NoError(t, json.NewDecoder(answer.Body).Decode(&i))
	answer.Body.Close()
	for i.State != "done" {
		require.NotContains(t, []string{"failed", "asking"}, i.State, "%v", i.Error)
		time.Sleep(200 * time.Millisecond)
		call(t, "GET", fmt.Sprintf("%s/api/imports/%d", address, i.ID), "", &i)
	}
	took := time.Since(began)
	require.Equal(t, n*copies, i.Records)
	// The same file, read without a database.
	file, err := os.CreateTemp(t.TempDir(), "large")
	require.NoError(t, err)
	defer file.Close()
	for range copies {
		_, err := file.Write(one.Bytes())
		require.NoError(t, err)
	}
	alone := taken(1, func() {
		r, _, err := records.Open(file, records.Options{Report: func(exchange.Notice) {}})
		require.NoError(t, err)
		for {
			if _, err := r.Read(); errors.Is(err, io.EOF) {
				return
			}
		}
	})
	return row{
		work: fmt.Sprintf(
			"%d records of RIS into the database: %.0f a second, peak memory %.0f MB",
			i.Records,
			float64(i.Records)/took.Seconds(),
			float64(p.memory(t))/1e6,
		),
		against: "reading the same file alone",
		figure:  ratio(took, alone),
		goal:    "< 400 MB",
	}
}

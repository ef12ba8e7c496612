package records_test

import (
	"archive/zip"
	"bytes"
	"compress/gzip"
	"errors"
	"fmt"
	"io"
	"math/rand/v2"
	"os"
	"path/filepath"
	"runtime"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/records"
	"tamiz/exchange/tagged"
)

// try reads a file to its end and returns what came of it: titles, what was reported, and the error.
func try(file []byte) (titles []string, said []string, err error) {
	r, _, err := records.Open(
		bytes.NewReader(file),
		records.Options{Report: func(n exchange.Notice) { said = append(said, n.String()) }},
	)
	if err != nil {
		return nil, said, err
	}
	for {
		rec, err := r.Read()
		if errors.Is(err, io.EOF) {
			return titles, said, nil
		}
		if err != nil {
			return titles, said, err
		}
		titles = append(titles, rec.Title)
	}
}

func zipped(t *testing.T, files ...[2]string) []byte {
	var b bytes.Buffer
	z := zip.NewWriter(&b)
	for _, f := range files {
		w, err := z.Create(f[0])
		require.NoError(t, err)
		_, err = io.WriteString(w, f[1])
		require.NoError(t, err)
	}
	require.NoError(t, z.Close())
	return b.Bytes()
}

func gzipped(t *testing.T, s string) []byte {
	var b bytes.Buffer
	z := gzip.NewWriter(&b)
	_, err := io.WriteString(z, s)
	require.NoError(t, err)
	require.NoError(t, z.Close())
	return b.Bytes()
}

const (
	oneRIS  = "TY  - JOUR\nTI  - Heat\nER  - \n"
	twoRIS  = oneRIS + "TY  - JOUR\nTI  - Rest\nER  - \n"
	oneMODS = "<mods><titleInfo><title>Heat</title></titleInfo></mods>"
)

// Each fault has a clear answer, and what can be kept is kept.
func TestFaultyFiles(t *testing.T) {
	noise := func(n int) string { // does not pack away to nothing
		r, b := rand.New(rand.NewPCG(1, 2)), make([]byte, n)
		for i := range b {
			b[i] = byte('a' + r.IntN(26))
		}
		return string(b)
	}
	long := gzipped(t, oneRIS+"TY  - JOUR\nTI  - Rest\nAB  - "+noise(200_000)+"\nER  - \n")
	for name, c := range map[string]struct {
		file   []byte
		titles []string
		said   string // in what is reported
		err    string
	}{
		"cut off in a record": {[]byte(twoRIS[:len(twoRIS)-8]), []string{"Heat", "Rest"}, "no end mark", ""},
		"cut off in a character": {[]byte("TY  - JOUR\nTI  - Café\nER  - \nTY  - JOUR\nTI  - Caf\xc3"),
			[]string{"Café", "Caf"}, "in the middle of a character", ""},
		"cut off in a gzip block": {long[:len(long)/2], []string{"Heat", "Rest"}, "no end mark", ""},
		"a byte order mark":       {[]byte("\xef\xbb\xbf" + twoRIS), []string{"Heat", "Rest"}, "", ""},
		"gzip":                    {gzipped(t, twoRIS), []string{"Heat", "Rest"}, "", ""},
		"zip of two formats": {zipped(t, [2]string{"a/one.ris", oneRIS}, [2]string{"two.xml", oneMODS},
			[2]string{"readme.bin", "\x00\x01"}), []string{"Heat", "Heat"}, "readme.bin of the packed file is in no format", ""},
		"zip bomb": {zipped(t, [2]string{"a.ris", strings.Repeat("TY  - JOUR\nTI  - Heat\nER  - \n",
			5_000_000)}), nil, "", "more than 200 times"},
		"gzip bomb": {gzipped(t, strings.Repeat("TY  - JOUR\nTI  - Heat\nER  - \n", 5_000_000)), nil,
			"", "more than 200 times"},
		"a broken archive": {[]byte("PK\x03\x04nothing"), nil, "", "cannot be opened"},
		"an empty archive": {zipped(t), nil, "", "the archive is empty"},
		"a spreadsheet": {zipped(t, [2]string{"[Content_Types].xml", "x"}, [2]string{"xl/workbook.xml",
			"x"}), nil, "", "save it as CSV"},
		"another spreadsheet": {zipped(t, [2]string{"mimetype",
			"application/vnd.oasis.opendocument.spreadsheet"}, [2]string{"content.xml", "x"}), nil, "", "save it as CSV"},
		"an old spreadsheet":        {[]byte("\xd0\xcf\x11\xe0\xa1\xb1\x1a\xe1rest"), nil, "", "save it as CSV"},
		"a PDF":                     {[]byte("%PDF-1.7 x"), nil, "", "it is a PDF"},
		"a DTD":                     {[]byte(`<?xml version="1.0"?><!DOCTYPE mods SYSTEM "https://x.example/m.dtd"><modsCollection>` + oneMODS + `</modsCollection>`), []string{"Heat"}, "was not followed", ""},
		"an entity bomb":            {[]byte(`<!DOCTYPE m [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;&a;&a;&a;&a;">]><modsCollection><mods><titleInfo><title>&b;</title></titleInfo></mods>` + oneMODS + `</modsCollection>`), []string{"Heat"}, "entity", ""},
		"a wrong claim of encoding": {[]byte(`<?xml version="1.0" encoding="ISO-8859-1"?><modsCollection><mods><titleInfo><title>Café</title></titleInfo></mods></modsCollection>`), []string{"Café"}, "says that it is ISO-8859-1, which it is not", ""},
		"another wrong claim": {[]byte("<?xml version=\"1.0\" " +
			"encoding=\"UTF-8\"?><modsCollection><mods><titleInfo><title>Caf\xe9</title></titleInfo></mods>" +
			"</modsCollection>"), []string{"Café"}, "says that it is UTF-8, which it is not", ""},
		"XML cut off in a record": {[]byte("<modsCollection>" + oneMODS +
			"<mods><titleInfo><title>Rest</title></titleInfo><abstract>in sh"), []string{"Heat", "Rest"},
			"kept as far as it could be read", ""},
		"XML cut off between records": {[]byte("<modsCollection>" + oneMODS), []string{"Heat"},
			"ends before its outermost element", ""},
		"XML broken in a record": {[]byte("<modsCollection>" + oneMODS +
			"<mods><titleInfo><title>Rest & shade</tilte></titleInfo></mods>\n" + strings.ReplaceAll(oneMODS, "Heat",
			"Shade") + "</modsCollection>"), []string{"Heat", "Shade"}, "breaks the rules of its format", ""},
		"XML with control characters": {[]byte("<mods><titleInfo><title>He\x01at\x00</title></titleInfo></mods>"),
			[]string{"He at"}, "", ""},
		"entities of HTML in XML": {[]byte("<mods><titleInfo><title>Caf&eacute; &ndash; " +
			"1</title></titleInfo></mods>"), []string{"Café – 1"}, "", ""},
		"BibTeX with an unclosed brace": {[]byte("@article{a, title = {Heat}}\n@article{b, title = {Rest\n@article{c, " +
			"title = {Shade}}"), []string{"Heat", "Shade"}, "not closed before the next", ""},
		"JSON lines": {[]byte("{\"title\": \"Heat\"}\n{\"title\": \"Rest\"}"), []string{"Heat", "Rest"},
			"", ""},
		"rows of different length": {[]byte("title,year\nHeat,2014,x\nRest\nShade,2015\n"), []string{"Heat", "Rest",
			"Shade"}, "another number than the table (3 instead of 2)", ""},
		"300 columns": {[]byte("title" + strings.Repeat(",x", 299) + "\nHeat" + strings.Repeat(",y",
			299)), []string{"Heat"}, "", ""},
		"a head in Spanish": {[]byte("Título,Año,Resumen\nCalor,2014,Descanso\n"), []string{"Calor"}, "", ""},
		"semicolons in a .csv": {[]byte("title;year\nHeat, and rest;2014\nShade, too;2015\n"),
			[]string{"Heat, and rest", "Shade, too"}, "", ""},
		"RIS, then BibTeX": {[]byte(oneRIS + "@article{a, title = {Rest}}\n"), []string{"Heat"},
			"another format (\"@article{a, title = {Rest}}\")", ""},
		"BibTeX, then RIS": {[]byte("@article{a, title = {Heat}}\n" + oneRIS), []string{"Heat"},
			"another format (\"TY - JOUR\")", ""},
		"100,000 authors": {[]byte("TY  - JOUR\nTI  - Heat\n" + strings.Repeat("AU  - Velkana, Temi\n",
			100_000) + "ER  - \n"), []string{"Heat"}, "", ""},
		"a year that is none": {[]byte("TY  - JOUR\nTI  - Heat\nPY  - in press\nER  - \n"), []string{"Heat"},
			"holds no year (\"in press\")", ""},
		"control characters": {[]byte("TY  - JOUR\nTI  - He\x01at\x7f\nER  - \n"), []string{"He at\x7f"}, "", ""},
		"a web page": {[]byte("<!DOCTYPE html><html><body>Log in</body></html>"), nil, "",
			"it is a web page"},
		"other XML":     {[]byte("<x><y/></x>"), nil, "", "neither MODS, MARCXML nor Dublin Core"},
		"other JSON":    {[]byte(`{"a": 1}`), nil, "", "neither title nor author"},
		"a vocabulary":  {[]byte(`{"@context": {}, "@graph": [{"title": 1}]}`), nil, "", "it is linked data"},
		"an empty file": {[]byte(" \n"), nil, "", "it is empty"},
		"an empty list": {[]byte("[]"), nil, "", "its list is empty"},
		"prose": {[]byte("Dear all,\nhere are the records.\n"), nil, "",
			"with a reader map it can be read"},
		"a picture": {[]byte("\x89PNG\r\n\x1a\n\x00\x00\x00\rIHDR\x00\x00\x00\x01\x00\x00\x00\x01"),
			nil, "", "it is no text"},
	} {
		titles, said, err := try(c.file)
		assert.Equal(t, c.titles, titles, name)
		if c.said == "" {
			assert.Empty(t, said, name)
		} else {
			assert.Contains(t, strings.Join(said, "\n"), c.said, name)
		}
		if c.err == "" {
			assert.NoError(t, err, name)
		} else {
			assert.ErrorContains(t, err, c.err, name)
		}
	}
}

// Ten thousand files, each with something wrong at random places, are read without panic and in memory that
// goes with their size.
func TestMutatedFilesAreReadOrRefused(t *testing.T) {
	names, err := filepath.Glob("testdata/habits/*")
	require.NoError(t, err)
	var seeds [][]byte
	for _, name := range names {
		if filepath.Ext(name) != ".golden" {
			file, err := os.ReadFile(name)
			require.NoError(t, err)
			seeds = append(seeds, file, gzipped(t, string(file)))
		}
	}
	seeds = append(seeds, zipped(t, [2]string{"a.ris", twoRIS}, [2]string{"b.bib", "@article{a, title = {Heat}}"}))
	m, _ := tagged.Guess("Title: Heat\nAuthor: Velkana\n\nTitle: Rest\nAuthor: Osolana\n")
	random := rand.New(rand.NewPCG(5, 25))
	pieces := []string{
		"\x00",
		"\xff",
		"\"",
		"'",
		"{",
		"}",
		"<",
		">",
		"&",
		"\n",
		"\r",
		";",
		",",
		"\\",
		"TY  - ",
		"ER  - ",
		"@article{",
		"</mods>",
		"<mods>",
		"]]>",
		"[",
		"]",
		"\xc3",
		"# ",
		"&#x0;",
		"9999999999999999999",
	}
	var before, after runtime.MemStats
	outcomes := map[string]int{}
	for i := range 10_000 {
		file := bytes.Clone(seeds[random.IntN(len(seeds))])
		for range 1 + random.IntN(6) {
			at := random.IntN(len(file))
			switch random.IntN(5) {
			case 0:
				file[at] = byte(random.IntN(256))
			case 1:
				file = append(file[:at:at], append([]byte(pieces[random.IntN(len(pieces))]), file[at:]...)...)
			case 2:
				file = append(file[:at:at], file[min(len(file), at+1+random.IntN(40)):]...)
			case 3:
				end := min(len(file), at+random.IntN(200))
				file = append(file[:end:end], file[at:]...)
			case 4:
				file = file[:at]
			}
			if len(file) == 0 {
				file = []byte{'x'}
			}
		}
		runtime.ReadMemStats(&before)
		o := records.Options{}
		if i%5 == 0 {
			o.Map = &m
		}
		n, err := count(file, o)
		runtime.ReadMemStats(&after)
		require.Less(t, after.TotalAlloc-before.TotalAlloc, uint64(16<<20+2000*len(file)), "%q", file)
		switch {
		case err != nil:
			outcomes["refused"]++
		case n == 0:
			outcomes["read, no record"]++
		default:
			outcomes["read"]++
		}
	}
	t.Log(outcomes)
	assert.Greater(t, outcomes["read"], 2500)
}

func count(file []byte, o records.Options) (n int, err error) {
	r, _, err := records.Open(bytes.NewReader(file), o)
	if err != nil {
		return 0, err
	}
	for {
		rec, err := r.Read()
		if errors.Is(err, io.EOF) {
			return n, nil
		}
		if err != nil {
			return n, err
		}
		if rec.ID == "" {
			return n, fmt.Errorf("a record without id")
		}
		n++
	}
}

// Any file is read or refused; what is read can be written in every format.
func FuzzOpen(f *testing.F) {
	for _, s := range []string{twoRIS, "<modsCollection>" + oneMODS + "</modsCollection>", "title;year\nHeat;2014\n",
		"@article{a, title={Heat}}", `[{"title":"Heat"}]`, "\x1f\x8b\x08", "PK\x03\x04",
		"<collection><record><leader>x</leader><datafield tag=\"245\"><subfield code=\"a\">Heat</subfield></datafield>" +
			"</record></collection>",
		"<x:dc xmlns:dc=\"http://purl.org/dc/elements/1.1/\"><dc:title>Heat</dc:title></x:dc>",
		"title\tyear\nHeat\t2014"} {
		f.Add([]byte(s))
	}
	f.Fuzz(func(t *testing.T, file []byte) {
		r, _, err := records.Open(bytes.NewReader(file), records.Options{})
		if err != nil {
			return
		}
		var all []*bib.Record
		for len(all) < 50 {
			rec, err := r.Read()
			if err != nil {
				break
			}
			all = append(all, rec)
		}
		for _, format := range records.Written {
			w, err := records.Create(io.Discard, format, records.Choice{})
			require.NoError(t, err)
			for _, rec := range all {
				require.NoError(t, w.Write(rec))
			}
			require.NoError(t, w.Close())
		}
	})
}

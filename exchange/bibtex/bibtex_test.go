package bibtex_test

import (
	"bytes"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/exchange"
	"tamiz/exchange/bibtex"
	"tamiz/exchange/readtest"
)

func readAll(t require.TestingT, file string) ([]*bib.Record, []exchange.Notice) {
	return readtest.All(t, func(report func(exchange.Notice)) *bibtex.Reader {
		return bibtex.NewReader(strings.NewReader(file), exchange.Sorter{}, report)
	})
}

func TestTextOfFields(t *testing.T) {
	for in, want := range map[string]string{
		`S\"{o}gren`: "Sögren", `S\"ogren`: "Sögren", `{\"{o}}l`: "öl", `caf\'e`: "café", `\~nandu`: "ñandu",
		`na\"{\i}ve`: "naïve", `na\"\i ve`: "naïve", `\c{c}a`: "ça", `\c ca`: "ça",
		`\v{s}koda`: "škoda", `\H{o}`: "ő", `stra{\ss}e`: "straße", `\O re`: "Øre", `\L{}\'od\'z`: "Łódź",
		`{DNA} in {\it vivo}`: "DNA in vivo", `\emph{in vivo} heat`: "in vivo heat",
		`R\&D at 5\% \$3 \_x \#1`: "R&D at 5% $3 _x #1", `pages 1--9 and---so`: "pages 1–9 and—so",
		"``quoted''": "“quoted”", `Temi~J. Velkana`: "Temi J. Velkana",
		`$\alpha$-value $\leq 3$`: "α-value ≤3", `a\\b`: "a b", `\textbf{bold`: "bold", `trailing \`: "trailing ",
		`\'`: "'", `5\textdegree{}C`: "5°C", `\vx`: "", `\unknown{word}`: "word",
	} {
		assert.Equal(t, want, bibtex.Plain(in), in)
	}
}

func TestWhatIsEscapedComesBack(t *testing.T) {
	for _, s := range []string{`a\b{c}$d&e%f#g_h~i^j`, "one--two---three", "``x'' 'y' `z`", "'''", "----", `\`, "{}",
		"Sjögren – “x”"} {
		assert.Equal(t, s, bibtex.Plain(bibtex.Escaped(s)), s)
	}
}

func TestNames(t *testing.T) {
	for in, want := range map[string][]bib.Person{
		`Velkana, Temi J. and Osolana, Ife`: {{Family: "Velkana", Given: "Temi J."}, {Family: "Osolana",
			Given: "Ife"}},
		`Temi J. Velkana and Ife Osolana`: {{Family: "Velkana", Given: "Temi J."}, {Family: "Osolana",
			Given: "Ife"}},
		`van der Velkana, Temi`:                     {{Family: "van der Velkana", Given: "Temi"}},
		`Temi van der Velkana`:                      {{Family: "van der Velkana", Given: "Temi"}},
		`Velkana, Jr., Temi`:                        {{Family: "Velkana", Given: "Temi, Jr."}},
		`{Board of Warm Work and Shade} and others`: {{Family: "Board of Warm Work and Shade"}},
		`{\"O}strel, Anni and {de la Cruda}, M.`: {{Family: "Östrel", Given: "Anni"}, {Family: "de la Cruda",
			Given: "M."}},
		`family=Velkana, given=Temi, prefix=van`: {{Family: "van Velkana", Given: "Temi"}},
		`Wexlin`:                                 {{Family: "Wexlin"}},
		``:                                       nil,
		"Velkana, Temi\n and\n Osolana, Ife": {{Family: "Velkana", Given: "Temi"}, {Family: "Osolana",
			Given: "Ife"}},
		`Anders and Anderson, Sandy and , and others`: {{Family: "Anders"}, {Family: "Anderson", Given: "Sandy"}},
	} {
		records, _ := readAll(t, "@article{k, title = {x}, author = {"+in+"}}")
		require.Len(t, records, 1, in)
		assert.Equal(t, want, records[0].Authors, in)
	}
}

func TestAnEntryIsRead(t *testing.T) {
	records, notices := readAll(t, `
Comment before the first.
@string{jww = "Journal of " # {Warm Work}}
@STRING(pub = {Shade Press})
@comment{ @article{no, title={not this}} }
@preamble{"\newcommand{\x}{y}"}
@Article{ velkana2014 ,
  Author    = "Temi J. Velkana and {Board of Warm Work}",
  title     = {Heat in {Farm} Crews: {\'e}tude},
  subtitle  = {A trial},
  journal   = jww # ", series " # 2,
  year      = 2014, month = jun,
  volume    = {3}, number = 2, pages = {11--19},
  keywords  = {heat; rest breaks; *Kidney Harm/causes},
  doi       = {10.99999/alm.1}, url = {https://x.example/a\_b%20c},
  language  = {english}, publisher = pub, note = {Kept {as} it is},
  abstract  = {One.

    Two.},
}
@inproceedings(child, title = {On shade}, crossref = {proc}, date = {2019-05/2020-01})
@proceedings{proc, title = {Proceedings of Warm Work}, year = 2018, publisher = {Later}}
@online{k3, title={No year}, year = {in press}}
`)
	assert.Equal(t, []exchange.Kind{exchange.NoYear}, readtest.Kinds(t, notices))
	require.Len(t, records, 4)
	assert.Equal(
		t,
		&bib.Record{
			ID:       "velkana2014",
			LocalID:  "velkana2014",
			Title:    "Heat in Farm Crews: étude: A trial",
			Abstract: "One. Two.",
			Journal:  "Journal of Warm Work, series 2",
			Year:     2014,
			Authors: []bib.Person{
				{Family: "Velkana", Given: "Temi J."},
				{Family: "Board of Warm Work"},
			},
			Volume:    "3",
			Issue:     "2",
			FirstPage: "11",
			LastPage:  "19",
			Keywords:  []string{"heat", "rest breaks"},
			Headings: []bib.Assignment{
				{Label: "Kidney Harm", Central: true, Qualifiers: []string{"causes"}},
			},
			DOI:       "10.99999/alm.1",
			URLs:      []string{"https://x.example/a_b%20c"},
			Languages: []string{"english"},
			Types:     []string{"JOUR"},
			Extra: []bib.Extra{
				{Tag: "publisher", Value: "Shade Press", Format: "bibtex"},
				{Tag: "note", Value: "Kept {as} it is", Format: "bibtex"},
			},
		},
		records[0],
	)
	assert.Equal(t, "Proceedings of Warm Work", records[1].Title)
	child := records[3]
	assert.Equal(t, "On shade", child.Title, "an entry whose parent comes later comes last")
	assert.Equal(t, "Proceedings of Warm Work", child.Journal)
	assert.Equal(t, 2019, child.Year)
}

func TestWhatCannotBeReadIsReportedAndTheRestIsKept(t *testing.T) {
	good := "@article{a, title = {Heat}}\n"
	for name, c := range map[string]struct {
		file    string
		records int
		notices []exchange.Kind
	}{
		"empty":     {"", 0, nil},
		"no BibTeX": {"title,year\n", 0, nil},
		"unclosed brace": {good + "@article{b, title = {Rest {in shade}, year = 2014}\n@article{c, title = " +
			"{Shade}}\n", 3, []exchange.Kind{exchange.Unclosed}},
		"unclosed, part is kept": {good + "@article{b, title = {Rest}, abstract = {in\n@article{c, title = {Shade}}\n", 3,
			[]exchange.Kind{exchange.Unclosed}},
		"cut off": {good + "@article{b, title = {Rest}, abstract = {in sha", 2,
			[]exchange.Kind{exchange.CutOff}},
		"cut off in a key": {good + "@article{b", 1, []exchange.Kind{exchange.CutOff}},
		"a field without =": {good + "@article{b, title {Rest}}\n@article{c, title = {Shade}}", 2,
			[]exchange.Kind{exchange.BadEntry}},
		"parent missing": {"@inproceedings{b, title = {Rest}, crossref = {z}}", 1,
			[]exchange.Kind{exchange.NoCrossref}},
		"nothing but a note": {"@misc{b, note = {x}}", 0, []exchange.Kind{exchange.Nothing}},
		"RIS after it":       {good + "TY  - JOUR\nTI  - Rest\nER  - \n", 1, []exchange.Kind{exchange.OtherFormat}},
		"larger than read": {good + "@article{b, title = {" + strings.Repeat("heat ", 4_000_000) +
			"}}\n@article{c, title = {Shade}}", 2, []exchange.Kind{exchange.TooLarge}},
		"abbreviations that grow": {"@string{a0 = \"" + strings.Repeat("x", 1000) + "\"}\n" + doubling(30) + good, 1, nil},
		"100,000 authors": {"@article{b, title = {Heat}, author = {" + strings.Repeat("Velkana, T. and ", 99_999) +
			"Osolana, I.}}", 1, nil},
		"@ in a value": {"@article{b, title = {mail @crew {x}\n@ noon}}", 1, nil},
	} {
		records, notices := readAll(t, c.file)
		assert.Len(t, records, c.records, name)
		var kinds []exchange.Kind
		for _, n := range notices {
			if n.Kind != exchange.TooLarge || len(kinds) == 0 || kinds[len(kinds)-1] != n.Kind {
				kinds = append(kinds, n.Kind)
			}
			assert.NotContains(t, n.String(), "%!", name)
		}
		if name != "abbreviations that grow" {
			assert.Equal(t, c.notices, kinds, name)
		}
	}
}

func doubling(n int) string {
	var b strings.Builder
	for i := range n {
		a := "a" + string(rune('0'+i/10)) + string(rune('0'+i%10))
		p := "a0"
		if i > 0 {
			p = "a" + string(rune('0'+(i-1)/10)) + string(rune('0'+(i-1)%10))
		}
		b.WriteString("@string{" + a + " = " + p + " # " + p + "}\n")
	}
	return b.String()
}

func FuzzReader(f *testing.F) {
	f.Add("@article{a, title = {Heat \\\"{o}}, author = \"A and B\", year = 2014 # x}")
	f.Add("@string{a = {b}}\n@book(c, title = a # {d}, crossref = {c})")
	f.Add("@a{b,\n@c{d, title={\\")
	f.Fuzz(func(t *testing.T, file string) {
		records, _ := readAll(t, file)
		var out bytes.Buffer
		w := bibtex.NewWriter(&out)
		for _, r := range records {
			require.NotEmpty(t, r.ID)
			require.NoError(t, w.Write(r))
		}
		require.NoError(t, w.Close())
		again, notices := readAll(t, out.String())
		for _, n := range notices {
			require.NotContains(t, []exchange.Kind{exchange.Unclosed, exchange.BadEntry, exchange.CutOff}, n.Kind, out.String())
		}
		require.Len(t, again, len(records), out.String())
		for i, r := range records {
			require.Equal(t, r.Title, again[i].Title, out.String())
		}
	})
}

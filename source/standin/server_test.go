package standin_test

import (
	"encoding/xml"
	"io"
	"net/http"
	"net/http/httptest"
	"net/url"
	"os/exec"
	"strconv"
	"strings"
	"sync"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"tamiz/core/bib"
	"tamiz/core/query"
	"tamiz/demo"
	"tamiz/exchange/mods"
	"tamiz/source"
	"tamiz/source/sru"
	"tamiz/source/standin"
)

var literature = sync.OnceValue(func() *demo.Literature { return demo.NewLiterature(demo.Seed, 1500) })

func serve(t *testing.T) string {
	s := httptest.NewServer(standin.Handler(standin.Sources(literature())...))
	t.Cleanup(s.Close)
	return s.URL
}

func client(t *testing.T, address, version string) (*sru.Client, source.Map) {
	settings := &sru.Settings{Guard: sru.Guard{Everywhere: true}}
	c, err := settings.NewClient(address, version, source.Map{})
	require.NoError(t, err)
	d, m, err := c.Discover(t.Context())
	require.NoError(t, err)
	assert.NotEmpty(t, d.Title)
	c.Map = m
	return c, m
}

func TestEachSourceSaysWhatItIsAndLacks(t *testing.T) {
	base := serve(t)
	for name, want := range map[string]struct {
		near, ends, inside, narrower, central, qualify bool
		lacks                                          []string
		schema                                         string
		most                                           int
	}{
		"almagre": {true, true, true, true, true, true, nil, "mods", 100},
		"surco":   {false, true, true, true, false, false, []string{"any", "journal", "country"}, "mods", 100},
		"vilano": {true, true, false, false, false, false, []string{"abstract", "keyword", "heading", "country"}, "mods",
			50},
	} {
		c, m := client(t, base+"/"+name, "")
		assert.Equal(t, sru.Version12, c.Version, name)
		assert.Equal(
			t,
			[]bool{want.near, want.ends, want.inside, want.narrower, want.central, want.qualify},
			[]bool{m.Near, m.Ends, m.Inside, m.Narrower, m.Central, m.Qualify},
			name,
		)
		assert.True(t, m.Sort && m.Scan, name)
		assert.Subset(t, append(want.lacks, "titleAbstract"), m.Lacks(), name)
		assert.Equal(t, want.schema, m.Schema)
		assert.Equal(t, want.most, m.AtMost)
	}
}

// Every version, packing and schema gives the same records; by POST as by GET.
func TestAllVersionsGiveTheSameRecords(t *testing.T) {
	base := serve(t)
	q, err := query.Parse(`"farm worker*" and heat`, nil)
	require.NoError(t, err)
	var first []string
	for _, version := range []string{sru.Version11, sru.Version12, sru.Version20} {
		for _, schema := range []string{"mods", "dc"} {
			c, m := client(t, base+"/almagre", version)
			assert.Equal(t, version, c.Version)
			c.Map.Schema = schema
			cql, notes := source.Render(q.Expr, m)
			cql = m.NewestFirst(cql)
			assert.Empty(t, notes)
			page, err := c.Search(t.Context(), source.Search{Query: cql, Start: 1, Max: 20})
			require.NoError(t, err)
			var ids []string
			last := 9999
			for i, g := range page.Records {
				assert.Equal(t, i+1, g.Position)
				assert.LessOrEqual(t, g.Record.Year, last, "newest first")
				last = g.Record.Year
				ids = append(ids, g.Record.Accession)
			}
			require.NotEmpty(t, ids)
			if first == nil {
				first = ids
			}
			assert.Equal(t, first, ids, "%s %s", version, schema)
			assert.Equal(t, cql, page.Echoed)
		}
	}
	for _, packing := range []string{"string", "xml"} {
		answer, err := http.PostForm(
			base+"/almagre",
			url.Values{
				"version":        {"1.1"},
				"operation":      {"searchRetrieve"},
				"query":          {"tamiz.text = heat"},
				"maximumRecords": {"2"},
				"recordPacking":  {packing},
			},
		)
		require.NoError(t, err)
		body, err := io.ReadAll(answer.Body)
		answer.Body.Close()
		require.NoError(t, err)
		assert.Equal(t, packing == "string", strings.Contains(string(body), "&lt;mods"), packing)
	}
}

// What Almagre sends is what it holds, in every field.
func TestRecordsArriveWhole(t *testing.T) {
	base := serve(t)
	for name, records := range map[string][]*bib.Record{"almagre": literature().Almagre, "surco": literature().Surco,
		"vilano": literature().Vilano} {
		c, m := client(t, base+"/"+name, "")
		page, err := c.Search(
			t.Context(),
			source.Search{Query: m.Indexes["language"] + " = eng and " + m.Indexes["year"] + " >= 1", Start: 1, Max: 50},
		)
		require.NoError(t, err)
		require.NotEmpty(t, page.Records)
		byID := map[string]*bib.Record{}
		for _, r := range records {
			byID[r.Accession] = r
		}
		for _, g := range page.Records {
			want := *byID[g.Record.Accession]
			want.LocalID = g.Record.LocalID
			assert.ElementsMatch(t, want.Extra, g.Record.Extra)
			want.Extra = g.Record.Extra
			assert.Equal(t, &want, g.Record)
		}
	}
}

func TestWhatASourceCannotDoItRefusesWithTheStandardsDiagnostic(t *testing.T) {
	base := serve(t)
	for _, x := range []struct {
		source, query string
		number        int
	}{
		{"almagre", "tamiz.text = ", sru.QuerySyntax},
		{"almagre", "bath.title = x", sru.UnsupportedIndex},
		{"surco", "tamiz.text = heat", sru.UnsupportedIndex},
		{"surco", "dc.title = farm prox/unit=word/distance<=3 dc.title = crew", sru.ProximityUnsupported},
		{"surco", `tamiz.heading =/qualifier=prevention "Farm wage earners"`, sru.UnsupportedModifier},
		{"surco", `tamiz.heading =/central "Farm wage earners"`, sru.UnsupportedModifier},
		{"vilano", "tamiz.text = labo*r", sru.MaskingUnsupported},
		{"vilano", "tamiz.text = wom?n", sru.MaskingUnsupported},
		{"vilano", `tamiz.heading = "Rest"`, sru.UnsupportedIndex},
		{"almagre", "tamiz.text = heat sortBy tamiz.author", sru.SortUnsupported},
	} {
		c, _ := client(t, base+"/"+x.source, "")
		_, err := c.Search(t.Context(), source.Search{Query: x.query, Start: 1, Max: 1})
		var refused *source.Refusal
		require.ErrorAs(t, err, &refused, x.query)
		assert.Equal(t, x.number, refused.Number, "%s: %v", x.query, err)
	}
	for parameters, number := range map[string]int{
		"operation=searchRetrieve&version=1.2":                                          sru.MissingParameter,
		"operation=searchRetrieve&version=9.9&query=heat":                               sru.UnsupportedVersion,
		"operation=harvest&version=1.2":                                                 sru.UnsupportedOperation,
		"operation=searchRetrieve&version=1.2&query=heat&startRecord=0":                 sru.BadParameter,
		"operation=searchRetrieve&version=1.2&query=heat&maximumRecords=x":              sru.BadParameter,
		"operation=searchRetrieve&version=1.2&query=heat&startRecord=999999":            sru.FirstOutOfRange,
		"operation=searchRetrieve&version=1.2&query=heat&recordSchema=rtf":              sru.UnknownSchema,
		"operation=scan&version=1.2":                                                    sru.MissingParameter,
		"operation=scan&version=1.2&scanClause=" + url.QueryEscape("tamiz.year = 2000"): sru.UnsupportedIndex,
		"operation=scan&version=1.2&scanClause=tamiz.text&maximumTerms=0":               sru.BadParameter,
	} {
		answer, err := http.Get(base + "/almagre?" + parameters)
		require.NoError(t, err)
		body, err := io.ReadAll(answer.Body)
		answer.Body.Close()
		require.NoError(t, err)
		assert.Contains(t, string(body), sru.DiagnosticURI+strconv.Itoa(number)+"<", parameters)
		require.NoError(t, xml.Unmarshal(body, new(struct{})), "well-formed")
	}
}

func TestBareWordsBecomeWhatTheSourceMakesOfThem(t *testing.T) {
	base := serve(t)
	almagre, _ := client(t, base+"/almagre", "")
	count := func(c *sru.Client, cql string) (int, []source.Saying) {
		page, err := c.Search(t.Context(), source.Search{Query: cql, Start: 1})
		require.NoError(t, err, cql)
		return page.Total, page.Said
	}
	bare, said := count(almagre, "hydration")
	asked, silent := count(almagre, "tamiz.text = hydration")
	both, _ := count(almagre, `tamiz.text = hydration or tamiz.heading =/narrower "Fluid Intake"`)
	assert.Greater(t, bare, asked)
	assert.Equal(t, both, bare)
	require.Len(t, said, 1)
	assert.Contains(t, said[0].Text, "Fluid Intake")
	assert.Empty(t, silent)

	vilano, _ := client(t, base+"/vilano", "")
	n, said := count(vilano, "shade workers")
	all, _ := count(vilano, `tamiz.any all "shade workers"`)
	assert.Equal(t, all, n)
	assert.Contains(t, said[0].Text, "anywhere")
	name := literature().Vilano[0].Authors[0]
	n, said = count(vilano, strings.Fields(name.Family)[0]+" "+string([]rune(name.Given)[:1]))
	assert.Positive(t, n)
	assert.Contains(t, said[0].Text, "author")
}

func TestTheWordIndexIsScanned(t *testing.T) {
	c, m := client(t, serve(t)+"/almagre", "")
	entries, err := c.Scan(t.Context(), source.Scan{Index: m.Indexes["text"], Term: "labour", Before: 3, Max: 10})
	require.NoError(t, err)
	require.Len(t, entries, 10)
	at := 0
	for i, e := range entries {
		if i > 0 {
			assert.Less(t, entries[i-1].Term, e.Term)
		}
		if e.Term == "labour" {
			at = i
		}
		page, err := c.Search(t.Context(), source.Search{Query: m.Indexes["text"] + ` = "` + e.Term + `"`, Start: 1})
		require.NoError(t, err)
		assert.Equal(t, page.Total, e.Records, e.Term)
	}
	assert.Equal(t, 3, at, "three words stand before it")
}

// A client of other hands finds its way: it searches, is given records, and scans the index.
func TestAnotherClientIsPleased(t *testing.T) {
	program, err := exec.LookPath("yaz-client")
	if err != nil {
		t.Skip("no other client on this machine: Debian's package yaz")
	}
	base := serve(t)
	c, m := client(t, base+"/almagre", "")
	page, err := c.Search(t.Context(), source.Search{Query: "tamiz.title = heat", Start: 1})
	require.NoError(t, err)
	entries, err := c.Scan(t.Context(), source.Scan{Index: m.Indexes["title"], Term: "heat", Max: 3})
	require.NoError(t, err)
	for _, version := range []string{"get 1.1", "get 1.2", "post 1.1", "get 2.0"} {
		ask := exec.CommandContext(t.Context(), program)
		ask.Stdin = strings.NewReader(
			"sru " + version + "\nopen " + base + "/almagre\nquerytype cql\nschema mods\nfind tamiz.title = heat\nshow " +
				"1+2\nscan tamiz.title = heat\nfind tamiz.nothing = heat\nquit\n",
		)
		answer, err := ask.CombinedOutput()
		require.NoError(t, err, "%s", answer)
		out := string(answer)
		assert.Contains(t, out, "Number of hits: "+strconv.Itoa(page.Total)+"\n", version)
		assert.Equal(t, 2, strings.Count(out, `<mods xmlns="`+mods.Namespace+`"><titleInfo>`), version)
		for _, e := range entries {
			assert.Contains(t, out, e.Term+": "+strconv.Itoa(e.Records)+"\n", version)
		}
		assert.Contains(t, out, "Unsupported index", version)
	}
}
